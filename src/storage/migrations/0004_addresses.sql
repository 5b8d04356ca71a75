CREATE TABLE IF NOT EXISTS ssid (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(32) NOT NULL,
  segment_id UUID NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT ssid_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT ssid_segment FOREIGN KEY (site_id, segment_id) REFERENCES segment (site_id, id)
);

-- An address twice is a finding, not an error: no UNIQUE on addresses or MACs.
CREATE TABLE IF NOT EXISTS host (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  kind VARCHAR(16) NOT NULL,
  mac CHAR(17) NULL,
  manner VARCHAR(8) NOT NULL CHECK (manner IN ('typed', 'reserved', 'dynamic')),
  ipv4 INET4 NULL,
  ipv6 INET6 NULL,
  segment_id UUID NULL,
  attached_at VARCHAR(8) NOT NULL CHECK (attached_at IN ('port', 'ssid', 'behind', 'unplaced')),
  port_id UUID NULL,
  ssid_id UUID NULL,
  behind_host_id UUID NULL,
  tag SMALLINT UNSIGNED NULL CHECK (tag BETWEEN 1 AND 4094),
  place VARCHAR(120) NOT NULL,
  notes VARCHAR(2000) NOT NULL,
  PRIMARY KEY (site_id, id),
  KEY host_by_address (site_id, ipv4),
  CONSTRAINT host_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT host_segment FOREIGN KEY (site_id, segment_id) REFERENCES segment (site_id, id),
  CONSTRAINT host_port FOREIGN KEY (site_id, port_id) REFERENCES port (site_id, id),
  CONSTRAINT host_ssid FOREIGN KEY (site_id, ssid_id) REFERENCES ssid (site_id, id),
  CONSTRAINT host_behind FOREIGN KEY (site_id, behind_host_id) REFERENCES host (site_id, id)
);

CREATE TABLE IF NOT EXISTS scope (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  segment_id UUID NOT NULL,
  server_device_id UUID NULL,
  server_host_id UUID NULL,
  family TINYINT UNSIGNED NOT NULL CHECK (family IN (4, 6)),
  pools JSON NOT NULL,
  exclusions JSON NOT NULL,
  lease_seconds INT UNSIGNED NOT NULL CHECK (lease_seconds >= 60),
  options JSON NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT scope_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT scope_segment FOREIGN KEY (site_id, segment_id) REFERENCES segment (site_id, id),
  CONSTRAINT scope_device FOREIGN KEY (site_id, server_device_id) REFERENCES device (site_id, id),
  CONSTRAINT scope_host FOREIGN KEY (site_id, server_host_id) REFERENCES host (site_id, id)
);
