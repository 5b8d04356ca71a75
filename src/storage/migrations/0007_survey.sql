-- The survey: rooms with their needs, gear that is there already, kinds of device of the user's own; what a device itself has created.
-- The site's conventions are one value that is only read whole; they take the place of the three columns.
ALTER TABLE site ADD COLUMN IF NOT EXISTS conventions JSON NOT NULL DEFAULT '{}';
ALTER TABLE site DROP COLUMN IF EXISTS vid_scheme;
ALTER TABLE site DROP COLUMN IF EXISTS gateway_at;
ALTER TABLE site DROP COLUMN IF EXISTS static_size;

CREATE TABLE IF NOT EXISTS room (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  kind VARCHAR(8) NOT NULL CHECK (kind IN ('room', 'cabinet', 'outdoor')),
  position INT UNSIGNED NOT NULL,
  cabinet_id UUID NULL,
  cable_cm INT UNSIGNED NULL,
  height_units SMALLINT UNSIGNED NULL,
  group_name VARCHAR(120) NOT NULL,
  needs VARCHAR(2000) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT room_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT room_cabinet FOREIGN KEY (site_id, cabinet_id) REFERENCES room (site_id, id)
);

CREATE TABLE IF NOT EXISTS host_kind (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  aliases JSON NOT NULL,
  base VARCHAR(16) NOT NULL,
  purpose VARCHAR(16) NOT NULL,
  manner VARCHAR(8) NOT NULL CHECK (manner IN ('typed', 'reserved', 'dynamic')),
  wireless BOOLEAN NOT NULL,
  poe_class TINYINT UNSIGNED NULL CHECK (poe_class <= 8),
  kbps INT UNSIGNED NOT NULL,
  speaks_dhcp BOOLEAN NOT NULL,
  speaks_sign_in BOOLEAN NOT NULL,
  internet VARCHAR(8) NOT NULL CHECK (internet IN ('may', 'never')),
  PRIMARY KEY (site_id, id),
  CONSTRAINT host_kind_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS gear (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  kind VARCHAR(12) NOT NULL,
  model VARCHAR(120) NOT NULL,
  room_id UUID NULL,
  addresses JSON NOT NULL,
  prefixes JSON NOT NULL,
  dhcp VARCHAR(8) NOT NULL CHECK (dhcp IN ('on', 'off', 'unknown')),
  faces_internet BOOLEAN NOT NULL,
  support_until DATE NULL,
  fate VARCHAR(8) NOT NULL CHECK (fate IN ('keep', 'replace', 'remove')),
  device_id UUID NULL,
  notes VARCHAR(2000) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT gear_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT gear_room FOREIGN KEY (site_id, room_id) REFERENCES room (site_id, id),
  CONSTRAINT gear_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);

-- A number twice on one device, or a name that differs from the plan's, is a finding: no UNIQUE here.
CREATE TABLE IF NOT EXISTS device_vlan (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  device_id UUID NOT NULL,
  vid SMALLINT UNSIGNED NOT NULL CHECK (vid BETWEEN 1 AND 4094),
  name VARCHAR(80) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT device_vlan_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT device_vlan_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);
