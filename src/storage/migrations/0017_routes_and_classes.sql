-- Classes of traffic: of a segment, whom a port trusts, what a provider goes by. Routes have a metric; what routes and is no gateway filters when somebody says so; what is recorded and what hosts may open.
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
ALTER TABLE segment ADD COLUMN IF NOT EXISTS traffic_class VARCHAR(12) NOT NULL DEFAULT 'bestEffort'
  CHECK (traffic_class IN ('bestEffort', 'bulk', 'signalling', 'video', 'voice'));
ALTER TABLE line ADD COLUMN IF NOT EXISTS marks JSON NOT NULL DEFAULT '{"kept":false,"voicePriority":null}';
UPDATE port SET guards = JSON_INSERT(guards, '$.trustsMarks', FALSE);
