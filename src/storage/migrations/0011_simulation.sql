-- What the simulation asks of the gear: its trees in full, its protections, routes, sign-in, forwards; and probes that are kept.
UPDATE device SET abilities = JSON_MERGE_PATCH('{"ownTag":"accept"}', abilities);
UPDATE device_model SET abilities = JSON_MERGE_PATCH('{"ownTag":"accept"}', abilities);
ALTER TABLE device ADD COLUMN IF NOT EXISTS tree_settings JSON NOT NULL DEFAULT '{"costs":"long","region":"","revision":0,"instances":[],"perVlan":[]}';
ALTER TABLE device ADD COLUMN IF NOT EXISTS protections JSON NOT NULL DEFAULT '{"snooping":[],"option82":false,"arpInspection":[],"bound":[]}';
ALTER TABLE device ADD COLUMN IF NOT EXISTS routes JSON NOT NULL DEFAULT '[]';
ALTER TABLE device ADD COLUMN IF NOT EXISTS default_route VARCHAR(12) NOT NULL DEFAULT 'asSegment' CHECK (default_route IN ('asSegment', 'none'));
ALTER TABLE line ADD COLUMN IF NOT EXISTS used_as VARCHAR(8) NOT NULL DEFAULT 'main' CHECK (used_as IN ('main', 'standby', 'shared'));
ALTER TABLE interface ADD COLUMN IF NOT EXISTS translates VARCHAR(8) NOT NULL DEFAULT 'asUsual' CHECK (translates IN ('asUsual', 'yes', 'no'));
ALTER TABLE port ADD COLUMN IF NOT EXISTS tree_priority SMALLINT UNSIGNED NOT NULL DEFAULT 128;
ALTER TABLE port ADD COLUMN IF NOT EXISTS tree_cost INT UNSIGNED NULL;
UPDATE port SET guards = JSON_MERGE_PATCH('{"restrictedRole":false}', guards);

CREATE TABLE IF NOT EXISTS sign_in (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  servers JSON NOT NULL,
  udp_port SMALLINT UNSIGNED NOT NULL,
  by_mac BOOLEAN NOT NULL,
  visitors_vid SMALLINT UNSIGNED NULL CHECK (visitors_vid BETWEEN 1 AND 4094),
  failed_vid SMALLINT UNSIGNED NULL CHECK (failed_vid BETWEEN 1 AND 4094),
  server_down_vid SMALLINT UNSIGNED NULL CHECK (server_down_vid BETWEEN 1 AND 4094),
  note VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT sign_in_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE IF NOT EXISTS forward (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  line_id UUID NOT NULL,
  protocol VARCHAR(4) NOT NULL CHECK (protocol IN ('tcp', 'udp')),
  ports JSON NOT NULL,
  host_id UUID NOT NULL,
  to_port SMALLINT UNSIGNED NULL,
  hairpin BOOLEAN NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT forward_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT forward_line FOREIGN KEY (site_id, line_id) REFERENCES line (site_id, id),
  CONSTRAINT forward_host FOREIGN KEY (site_id, host_id) REFERENCES host (site_id, id)
);

CREATE TABLE IF NOT EXISTS expectation (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  question JSON NOT NULL,
  passes BOOLEAN NOT NULL,
  segment_id UUID NULL,
  note VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT expectation_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT expectation_segment FOREIGN KEY (site_id, segment_id) REFERENCES segment (site_id, id)
);
