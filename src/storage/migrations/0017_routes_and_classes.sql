-- Routes have a metric.
UPDATE device
SET routes = (
  SELECT JSON_ARRAYAGG(JSON_INSERT(one.route, '$.metric', 1))
  FROM JSON_TABLE(routes, '$[*]' COLUMNS (route JSON PATH '$')) AS one
)
WHERE JSON_LENGTH(routes) > 0;
