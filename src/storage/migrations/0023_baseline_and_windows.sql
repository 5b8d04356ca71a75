-- How gear is administered, what is printed on its case and runs on it, and when work may stop others.
ALTER TABLE site
  ADD COLUMN IF NOT EXISTS baseline JSON NOT NULL DEFAULT '{"waysIn":[],"idleMinutes":null,"passwordLength":null,"passwordDays":null,"nameServers":[],"timeServers":[],"logTo":[],"clock":"open","uplinks":"open","describes":"open"}';
ALTER TABLE device
  ADD COLUMN IF NOT EXISTS baseline JSON NOT NULL DEFAULT '{"waysIn":[],"idleMinutes":null,"passwordLength":null,"passwordDays":null,"nameServers":[],"timeServers":[],"logTo":[],"clock":"open","uplinks":"open","describes":"open"}',
  ADD COLUMN IF NOT EXISTS serial VARCHAR(60) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS hardware_revision VARCHAR(40) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS software_found VARCHAR(60) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS software_wanted VARCHAR(60) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS registration VARCHAR(120) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS licence_until DATE NULL;
UPDATE device SET abilities = JSON_MERGE_PATCH(abilities, '{"fallsBack":false,"lacks":[]}');
UPDATE device_model SET abilities = JSON_MERGE_PATCH(abilities, '{"fallsBack":false,"lacks":[]}');
-- Who did it, where an entry came with a plan file from elsewhere; else the person who added it.
ALTER TABLE record_entry
  ADD COLUMN IF NOT EXISTS said_by VARCHAR(80) NULL;
CREATE TABLE IF NOT EXISTS work_window (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  starts CHAR(16) NOT NULL,
  minutes SMALLINT UNSIGNED NOT NULL CHECK (minutes BETWEEN 5 AND 10080),
  segments JSON NOT NULL,
  permit VARCHAR(120) NOT NULL,
  consent VARCHAR(120) NOT NULL,
  notes TEXT NOT NULL,
  PRIMARY KEY (site_id, id),
  FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);
