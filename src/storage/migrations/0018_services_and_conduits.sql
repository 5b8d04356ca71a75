-- Services of the site's own; conduits, and the levels of zones; prefixes that a provider delegates; discovery told across segments.
CREATE TABLE IF NOT EXISTS own_service (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(24) NOT NULL,
  parts JSON NOT NULL,
  includes JSON NOT NULL,
  note VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);
CREATE TABLE IF NOT EXISTS conduit (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  security_level TINYINT UNSIGNED NOT NULL CHECK (security_level <= 4),
  owner VARCHAR(120) NOT NULL,
  note VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);
ALTER TABLE zone
  ADD COLUMN IF NOT EXISTS control_level VARCHAR(12) NOT NULL DEFAULT 'none'
    CHECK (control_level IN ('none', 'process', 'control', 'supervision', 'operations', 'dmz', 'business')),
  ADD COLUMN IF NOT EXISTS security_level TINYINT UNSIGNED NOT NULL DEFAULT 0 CHECK (security_level <= 4);
ALTER TABLE wall ADD COLUMN IF NOT EXISTS conduit_id UUID NULL;
ALTER TABLE wall ADD FOREIGN KEY IF NOT EXISTS wall_conduit (site_id, conduit_id) REFERENCES conduit (site_id, id);
ALTER TABLE wall_exception ADD COLUMN IF NOT EXISTS conduit_id UUID NULL;
ALTER TABLE wall_exception
  ADD FOREIGN KEY IF NOT EXISTS wall_exception_conduit (site_id, conduit_id) REFERENCES conduit (site_id, id);
ALTER TABLE line
  ADD COLUMN IF NOT EXISTS delegated JSON NOT NULL DEFAULT '{"length":null,"prefix":null,"keeps":false}';
ALTER TABLE device ADD COLUMN IF NOT EXISTS repeats_discovery JSON NOT NULL DEFAULT '[]';
