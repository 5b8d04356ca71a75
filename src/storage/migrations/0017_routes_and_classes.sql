-- Routes have a metric; what routes and is no gateway filters when somebody says so; what is recorded and what hosts may open.
UPDATE device
SET routes = (
  SELECT JSON_ARRAYAGG(JSON_INSERT(one.route, '$.metric', 1))
  FROM JSON_TABLE(routes, '$[*]' COLUMNS (route JSON PATH '$')) AS one
)
WHERE JSON_LENGTH(routes) > 0;
UPDATE device
SET filter_settings = JSON_SET(filter_settings, '$.list', 'none', '$.established', FALSE)
WHERE kind NOT IN ('gateway', 'firewall') AND NOT JSON_CONTAINS_PATH(filter_settings, 'one', '$.logsRefused');
UPDATE device
SET filter_settings = JSON_INSERT(filter_settings, '$.logsRefused', FALSE, '$.hostsOpen', FALSE);
UPDATE device SET abilities = JSON_INSERT(abilities, '$.radios', FALSE);
UPDATE device_model SET abilities = JSON_INSERT(abilities, '$.radios', FALSE);
