-- The rules that stand on a device, by which list it filters, and to whom and how long a forward is open.
CREATE TABLE IF NOT EXISTS rule (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  device_id UUID NOT NULL,
  place INT UNSIGNED NOT NULL,
  from_sides JSON NOT NULL,
  to_sides JSON NOT NULL,
  services JSON NOT NULL,
  action VARCHAR(8) NOT NULL CHECK (action IN ('accept', 'drop', 'reject')),
  enabled BOOLEAN NOT NULL,
  log_it BOOLEAN NOT NULL,
  note VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  INDEX (site_id, device_id, place),
  FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);
ALTER TABLE device ADD COLUMN IF NOT EXISTS filter_settings JSON NOT NULL
  DEFAULT '{"list":"planned","forwardDefault":"drop","inputDefault":"drop","established":true}';
ALTER TABLE forward ADD COLUMN IF NOT EXISTS sources JSON NOT NULL DEFAULT '[]';
ALTER TABLE forward ADD COLUMN IF NOT EXISTS until_day DATE NULL;
