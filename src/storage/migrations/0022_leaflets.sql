-- What the leaflets of models say of gear as it comes out of its box.
CREATE TABLE IF NOT EXISTS leaflet (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  model VARCHAR(120) NOT NULL,
  addressing VARCHAR(8) NOT NULL CHECK (addressing IN ('unknown', 'fixed', 'dhcp')),
  address4 INET4 NULL,
  length4 TINYINT UNSIGNED NULL CHECK (length4 BETWEEN 1 AND 32),
  gives VARCHAR(8) NOT NULL CHECK (gives IN ('unknown', 'yes', 'no')),
  opens VARCHAR(120) NOT NULL,
  light VARCHAR(120) NOT NULL,
  start_seconds SMALLINT UNSIGNED NULL,
  reset_seconds SMALLINT UNSIGNED NULL,
  restarts BOOLEAN NOT NULL,
  name_rule VARCHAR(8) NOT NULL CHECK (name_rule IN ('any', 'label')),
  name_most SMALLINT UNSIGNED NULL,
  notes TEXT NOT NULL,
  PRIMARY KEY (site_id, id),
  FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);
