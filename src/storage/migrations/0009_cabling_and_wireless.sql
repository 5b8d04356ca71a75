-- Cabling, ports and wireless in full. What older rows lack gets the value that changes nothing.
ALTER TABLE site ADD COLUMN IF NOT EXISTS radio JSON NOT NULL DEFAULT '{"region":"","channels":[]}';
UPDATE site SET conventions = JSON_MERGE_PATCH('{"devicePattern":"{place} {kind} {n}","cablePattern":"{from}-{fromPort}","wifiNames":"one"}', conventions);

ALTER TABLE room ADD COLUMN IF NOT EXISTS building VARCHAR(120) NOT NULL DEFAULT '';
ALTER TABLE room ADD COLUMN IF NOT EXISTS beside JSON NOT NULL DEFAULT '[]';

ALTER TABLE device MODIFY COLUMN kind VARCHAR(12) NOT NULL CHECK (kind IN ('gateway', 'firewall', 'switch', 'accessPoint', 'providerBox', 'converter', 'server'));
ALTER TABLE device ADD COLUMN IF NOT EXISTS abilities JSON NOT NULL
  DEFAULT '{"maxVlans":null,"mixesTagged":true,"trees":["rapid","multiple"],"snooping":true,"arpInspection":true,"signIn":true,"routes":false,"lists":"one"}';
ALTER TABLE device ADD COLUMN IF NOT EXISTS rack_unit SMALLINT UNSIGNED NULL;
ALTER TABLE device ADD COLUMN IF NOT EXISTS height_units SMALLINT UNSIGNED NOT NULL DEFAULT 0;
ALTER TABLE device ADD COLUMN IF NOT EXISTS feed VARCHAR(120) NOT NULL DEFAULT '';
ALTER TABLE device ADD COLUMN IF NOT EXISTS backup_feed VARCHAR(120) NOT NULL DEFAULT '';
ALTER TABLE device ADD COLUMN IF NOT EXISTS poe VARCHAR(8) NOT NULL DEFAULT 'asKind';
ALTER TABLE device ADD COLUMN IF NOT EXISTS poe_one_lost_mw INT UNSIGNED NULL;
ALTER TABLE device ADD COLUMN IF NOT EXISTS hears JSON NOT NULL DEFAULT '[]';

CREATE TABLE IF NOT EXISTS device_model (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  kind VARCHAR(12) NOT NULL,
  bridging VARCHAR(8) NOT NULL CHECK (bridging IN ('vlan', 'plain', 'none')),
  runs JSON NOT NULL,
  poe_budget_mw INT UNSIGNED NOT NULL,
  poe_one_lost_mw INT UNSIGNED NULL,
  height_units SMALLINT UNSIGNED NOT NULL,
  abilities JSON NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT device_model_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS template (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  ending VARCHAR(8) NOT NULL,
  body MEDIUMTEXT NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT template_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS link_group (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  device_id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  mode VARCHAR(8) NOT NULL CHECK (mode IN ('static', 'active', 'passive')),
  PRIMARY KEY (site_id, id),
  CONSTRAINT link_group_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT link_group_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);

CREATE TABLE IF NOT EXISTS radio (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  device_id UUID NOT NULL,
  band VARCHAR(4) NOT NULL CHECK (band IN ('2.4', '5', '6')),
  enabled BOOLEAN NOT NULL,
  channel SMALLINT UNSIGNED NULL,
  width_mhz SMALLINT UNSIGNED NOT NULL,
  power VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT radio_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT radio_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);
