-- VIDs have no UNIQUE: a number used twice in a domain is a finding that the plan must be able to hold.
CREATE TABLE IF NOT EXISTS domain (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT domain_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS zone (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  inside_open BOOLEAN NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT zone_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS line (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  access VARCHAR(8) NOT NULL CHECK (access IN ('fibre', 'cable', 'dsl', 'mobile', 'radio', 'other')),
  addressing VARCHAR(8) NOT NULL CHECK (addressing IN ('dhcp', 'login', 'fixed')),
  vlan_tag SMALLINT UNSIGNED NULL CHECK (vlan_tag BETWEEN 1 AND 4094),
  carrier_nat VARCHAR(8) NOT NULL CHECK (carrier_nat IN ('yes', 'no', 'unknown')),
  provider_box VARCHAR(8) NOT NULL CHECK (provider_box IN ('none', 'routes', 'bridges')),
  down_mbps INT UNSIGNED NOT NULL,
  up_mbps INT UNSIGNED NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT line_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS vlan (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  domain_id UUID NOT NULL,
  vid SMALLINT UNSIGNED NOT NULL CHECK (vid BETWEEN 1 AND 4094),
  name VARCHAR(80) NOT NULL,
  purpose VARCHAR(8) NOT NULL CHECK (purpose IN ('segment', 'parked', 'wayBack', 'transit')),
  PRIMARY KEY (site_id, id),
  KEY vlan_by_vid (site_id, domain_id, vid),
  CONSTRAINT vlan_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT vlan_domain FOREIGN KEY (site_id, domain_id) REFERENCES domain (site_id, id)
);

-- gateway_interface_id gets its foreign key in 0003, where the interface table is made.
CREATE TABLE IF NOT EXISTS segment (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  zone_id UUID NOT NULL,
  vlan_id UUID NULL,
  name VARCHAR(80) NOT NULL,
  mark CHAR(2) NOT NULL,
  tape_base VARCHAR(8) NOT NULL,
  tape_tracer VARCHAR(8) NULL,
  prefixes4 JSON NOT NULL,
  prefixes6 JSON NOT NULL,
  gateway_interface_id UUID NULL,
  dns JSON NOT NULL,
  time_servers JSON NOT NULL,
  domain_name VARCHAR(120) NOT NULL,
  planned INT UNSIGNED NOT NULL,
  growth SMALLINT UNSIGNED NOT NULL,
  management BOOLEAN NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT segment_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT segment_zone FOREIGN KEY (site_id, zone_id) REFERENCES zone (site_id, id),
  CONSTRAINT segment_vlan FOREIGN KEY (site_id, vlan_id) REFERENCES vlan (site_id, id)
);

CREATE TABLE IF NOT EXISTS wall (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  from_at VARCHAR(8) NOT NULL CHECK (from_at IN ('zone', 'internet', 'gateway')),
  from_zone_id UUID NULL,
  to_at VARCHAR(8) NOT NULL CHECK (to_at IN ('zone', 'internet', 'gateway')),
  to_zone_id UUID NULL,
  door VARCHAR(8) NOT NULL CHECK (door IN ('closed', 'open', 'services')),
  services JSON NOT NULL,
  reason VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT wall_ends CHECK ((from_at = 'zone') = (from_zone_id IS NOT NULL) AND (to_at = 'zone') = (to_zone_id IS NOT NULL)),
  CONSTRAINT wall_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT wall_from FOREIGN KEY (site_id, from_zone_id) REFERENCES zone (site_id, id),
  CONSTRAINT wall_to FOREIGN KEY (site_id, to_zone_id) REFERENCES zone (site_id, id)
);
