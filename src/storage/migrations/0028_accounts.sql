-- People become accounts. Who has no password yet is known by name only: what they drew stays theirs, and a link makes
-- the account. The secret of the second factor is kept as it is, since codes are worked out from it.
ALTER TABLE person
  ADD COLUMN IF NOT EXISTS password_hash VARCHAR(200) NULL,
  ADD COLUMN IF NOT EXISTS factor_secret VARCHAR(64) NULL,
  ADD COLUMN IF NOT EXISTS factor_step BIGINT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS is_out BOOLEAN NOT NULL DEFAULT FALSE;

CREATE TABLE IF NOT EXISTS recovery_code (
  person_id UUID NOT NULL,
  code_hash CHAR(64) NOT NULL,
  PRIMARY KEY (person_id, code_hash),
  CONSTRAINT recovery_person FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);

-- Whoever was let in by a link alone signs in anew.
DELETE FROM session;
DELETE FROM entry_link;
ALTER TABLE session
  ADD COLUMN IF NOT EXISTS id UUID NOT NULL,
  ADD COLUMN IF NOT EXISTS came_from VARCHAR(60) NOT NULL DEFAULT '';
ALTER TABLE session ADD UNIQUE KEY IF NOT EXISTS session_id (id);

-- What a link does: it makes the owner, signs a person in, sets a password anew, or gives a role.
ALTER TABLE entry_link
  ADD COLUMN IF NOT EXISTS id UUID NOT NULL,
  ADD COLUMN IF NOT EXISTS kind VARCHAR(8) NOT NULL CHECK (kind IN ('first', 'own', 'reset', 'invite')),
  ADD COLUMN IF NOT EXISTS person_id UUID NULL,
  ADD COLUMN IF NOT EXISTS scope VARCHAR(8) NULL CHECK (scope IN ('all', 'customer', 'site')),
  ADD COLUMN IF NOT EXISTS scope_id UUID NULL,
  ADD COLUMN IF NOT EXISTS role VARCHAR(8) NULL CHECK (role IN ('viewer', 'field', 'editor', 'owner')),
  ADD COLUMN IF NOT EXISTS made_by UUID NULL;

-- A customer is a folder of sites.
CREATE TABLE IF NOT EXISTS customer (
  id UUID NOT NULL PRIMARY KEY,
  name VARCHAR(80) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL UNIQUE
);
ALTER TABLE site ADD COLUMN IF NOT EXISTS customer_id UUID NULL;

-- Who may do what, and where: the nil UUID stands for everywhere. Of several that apply the highest counts.
CREATE TABLE IF NOT EXISTS role_grant (
  person_id UUID NOT NULL,
  scope VARCHAR(8) NOT NULL CHECK (scope IN ('all', 'customer', 'site')),
  scope_id UUID NOT NULL,
  role VARCHAR(8) NOT NULL CHECK (role IN ('viewer', 'field', 'editor', 'owner')),
  PRIMARY KEY (person_id, scope, scope_id),
  KEY grant_scope (scope, scope_id),
  CONSTRAINT grant_person FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);

-- Tries to sign in that failed, by hashes of the name, the address or a browser that is known.
CREATE TABLE IF NOT EXISTS sign_in_try (
  key_hash CHAR(64) NOT NULL PRIMARY KEY,
  failed INT UNSIGNED NOT NULL,
  last_at DATETIME(3) NOT NULL,
  free_at DATETIME(3) NOT NULL
);
-- Browsers in which a person has signed in: strangers who guess at the name don't keep these out.
CREATE TABLE IF NOT EXISTS known_browser (
  token_hash CHAR(64) NOT NULL,
  person_id UUID NOT NULL,
  used_at DATETIME(3) NOT NULL,
  PRIMARY KEY (token_hash, person_id),
  CONSTRAINT known_person FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);

-- Who did what, and to whom. Nothing here is ever changed; people stand in it by their ids alone, so that one who was
-- taken out stays without a name.
CREATE TABLE IF NOT EXISTS deed (
  number BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  done_at DATETIME(3) NOT NULL,
  person_id UUID NULL,
  what VARCHAR(20) NOT NULL,
  subject_id UUID NULL,
  about VARCHAR(200) NOT NULL,
  site_id UUID NULL,
  customer_id UUID NULL,
  KEY deed_site (site_id, number),
  KEY deed_customer (customer_id, number)
);
CREATE TRIGGER IF NOT EXISTS deed_stays BEFORE UPDATE ON deed FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'What was done stays in the log as it is';
CREATE TRIGGER IF NOT EXISTS deed_is_kept BEFORE DELETE ON deed FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'What was done stays in the log';
