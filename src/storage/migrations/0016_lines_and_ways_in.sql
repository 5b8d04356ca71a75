-- The order of lines, who is pinned to one, the name that follows one; tunnels; wishes from outside; exceptions beside the walls; accepted findings.
ALTER TABLE line
  ADD COLUMN IF NOT EXISTS box_forwards BOOLEAN NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS place INT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS share INT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS watch JSON NOT NULL
    DEFAULT '{"by":"link","targets":[],"afterSeconds":10,"backSeconds":60,"returns":true}',
  ADD COLUMN IF NOT EXISTS pins JSON NOT NULL DEFAULT '[]',
  ADD COLUMN IF NOT EXISTS dynamic_name JSON NOT NULL DEFAULT '{"name":"","updatedBy":"gateway","account":""}',
  ADD COLUMN IF NOT EXISTS used_as VARCHAR(8) NOT NULL DEFAULT 'main';
UPDATE line SET place = 1, share = 50 WHERE used_as = 'shared';
UPDATE line SET place = 2 WHERE used_as = 'standby';
ALTER TABLE line DROP COLUMN IF EXISTS used_as;
ALTER TABLE segment ADD COLUMN IF NOT EXISTS tunnel JSON NOT NULL DEFAULT 'null';
CREATE TABLE IF NOT EXISTS wish (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  host_id UUID NOT NULL,
  service JSON NOT NULL,
  sources JSON NOT NULL,
  way VARCHAR(8) NOT NULL CHECK (way IN ('open', 'forward', 'vpn', 'push', 'ipv6')),
  note VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  FOREIGN KEY (site_id, host_id) REFERENCES host (site_id, id)
);
CREATE TABLE IF NOT EXISTS acceptance (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  finding VARCHAR(2000) NOT NULL,
  says VARCHAR(2000) NOT NULL,
  reason VARCHAR(120) NOT NULL,
  accepted_by VARCHAR(120) NOT NULL,
  until_day DATE NULL,
  PRIMARY KEY (site_id, id),
  FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);
CREATE TABLE IF NOT EXISTS wall_exception (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  from_side JSON NOT NULL,
  to_side JSON NOT NULL,
  services JSON NOT NULL,
  owner VARCHAR(120) NOT NULL,
  reason VARCHAR(120) NOT NULL,
  first_day DATE NULL,
  last_day DATE NULL,
  hours JSON NOT NULL,
  PRIMARY KEY (site_id, id),
  FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);
