CREATE TABLE IF NOT EXISTS device (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  kind VARCHAR(12) NOT NULL CHECK (kind IN ('gateway', 'switch', 'accessPoint', 'providerBox', 'converter', 'server')),
  bridging VARCHAR(8) NOT NULL CHECK (bridging IN ('vlan', 'plain', 'none')),
  name VARCHAR(80) NOT NULL,
  model VARCHAR(120) NOT NULL,
  domain_id UUID NULL,
  place VARCHAR(120) NOT NULL,
  poe_budget_mw INT UNSIGNED NOT NULL,
  tree_kind VARCHAR(8) NOT NULL CHECK (tree_kind IN ('none', 'rapid', 'multiple', 'perVlan')),
  tree_priority SMALLINT UNSIGNED NOT NULL,
  support_until DATE NULL,
  credentials_place VARCHAR(120) NOT NULL,
  position_x INT NULL,
  position_y INT NULL,
  notes VARCHAR(2000) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT device_position CHECK ((position_x IS NULL) = (position_y IS NULL)),
  CONSTRAINT device_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT device_domain FOREIGN KEY (site_id, domain_id) REFERENCES domain (site_id, id)
);

-- Membership may be inconsistent (as found on site), so nothing ties pvid to untagged here.
CREATE TABLE IF NOT EXISTS port (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  device_id UUID NOT NULL,
  label VARCHAR(24) NOT NULL,
  software_name VARCHAR(40) NOT NULL,
  position SMALLINT UNSIGNED NOT NULL,
  medium VARCHAR(12) NOT NULL CHECK (medium IN ('copper', 'fibre', 'directAttach', 'combo')),
  speed_mbps INT UNSIGNED NOT NULL,
  poe_mw INT UNSIGNED NOT NULL,
  enabled BOOLEAN NOT NULL,
  pvid SMALLINT UNSIGNED NULL CHECK (pvid BETWEEN 1 AND 4094),
  untagged JSON NOT NULL,
  tagged JSON NOT NULL,
  admit VARCHAR(8) NOT NULL CHECK (admit IN ('all', 'tagged', 'untagged')),
  ingress_filter BOOLEAN NOT NULL,
  guards JSON NOT NULL,
  note VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT port_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT port_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);

CREATE TABLE IF NOT EXISTS link (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  medium VARCHAR(12) NOT NULL CHECK (medium IN ('copper', 'fibre', 'directAttach')),
  length_cm INT UNSIGNED NULL,
  label VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT link_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

-- A table of its own so that no port can be linked twice, at whichever end.
CREATE TABLE IF NOT EXISTS link_end (
  site_id UUID NOT NULL,
  link_id UUID NOT NULL,
  which CHAR(1) NOT NULL CHECK (which IN ('a', 'b')),
  port_id UUID NOT NULL,
  PRIMARY KEY (site_id, link_id, which),
  UNIQUE KEY one_link_per_port (site_id, port_id),
  CONSTRAINT link_end_link FOREIGN KEY (site_id, link_id) REFERENCES link (site_id, id) ON DELETE CASCADE,
  CONSTRAINT link_end_port FOREIGN KEY (site_id, port_id) REFERENCES port (site_id, id)
);

CREATE TABLE IF NOT EXISTS interface (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  device_id UUID NOT NULL,
  port_id UUID NULL,
  segment_id UUID NULL,
  line_id UUID NULL,
  name VARCHAR(80) NOT NULL,
  mac CHAR(17) NULL,
  addresses4 JSON NOT NULL,
  addresses6 JSON NOT NULL,
  relay_to INET4 NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT interface_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT interface_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id),
  CONSTRAINT interface_port FOREIGN KEY (site_id, port_id) REFERENCES port (site_id, id),
  CONSTRAINT interface_segment FOREIGN KEY (site_id, segment_id) REFERENCES segment (site_id, id),
  CONSTRAINT interface_line FOREIGN KEY (site_id, line_id) REFERENCES line (site_id, id)
);

ALTER TABLE segment ADD CONSTRAINT segment_gateway FOREIGN KEY IF NOT EXISTS (site_id, gateway_interface_id) REFERENCES interface (site_id, id);
