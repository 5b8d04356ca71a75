-- What lets in without an account: a link to one issued sheet for one reader, or a token with which a machine fetches
-- exports. Only hashes are kept. It counts as long as whoever made it may make it.
CREATE TABLE IF NOT EXISTS pass (
  id UUID NOT NULL PRIMARY KEY,
  key_hash CHAR(64) NOT NULL UNIQUE,
  kind VARCHAR(8) NOT NULL CHECK (kind IN ('sheet', 'machine')),
  title VARCHAR(80) NOT NULL,
  scope VARCHAR(8) NOT NULL CHECK (scope IN ('all', 'customer', 'site')),
  scope_id UUID NOT NULL,
  issue_id UUID NULL,
  reader VARCHAR(12) NULL CHECK (reader IN ('installer', 'customer', 'electrician')),
  made_by UUID NOT NULL,
  made_at DATETIME(3) NOT NULL,
  ends_at DATETIME(3) NOT NULL,
  is_withdrawn BOOLEAN NOT NULL DEFAULT FALSE,
  visits INT UNSIGNED NOT NULL DEFAULT 0,
  KEY pass_scope (scope, scope_id),
  CONSTRAINT pass_maker FOREIGN KEY (made_by) REFERENCES person (id) ON DELETE CASCADE
);
-- One visit is what one address asks for without half an hour between.
CREATE TABLE IF NOT EXISTS pass_visit (
  number BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  pass_id UUID NOT NULL,
  began_at DATETIME(3) NOT NULL,
  last_at DATETIME(3) NOT NULL,
  came_from VARCHAR(60) NOT NULL,
  asked INT UNSIGNED NOT NULL,
  KEY visit_pass (pass_id, number),
  CONSTRAINT visit_of FOREIGN KEY (pass_id) REFERENCES pass (id) ON DELETE CASCADE
);

-- Keys that a browser or a device keeps (Web Authentication): the public half of each.
CREATE TABLE IF NOT EXISTS passkey (
  id UUID NOT NULL PRIMARY KEY,
  person_id UUID NOT NULL,
  credential VARCHAR(1400) CHARACTER SET ascii COLLATE ascii_bin NOT NULL UNIQUE,
  public_key VARBINARY(2000) NOT NULL,
  counter BIGINT UNSIGNED NOT NULL,
  host VARCHAR(253) NOT NULL,
  title VARCHAR(80) NOT NULL,
  made_at DATETIME(3) NOT NULL,
  used_at DATETIME(3) NULL,
  CONSTRAINT passkey_person FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);
-- What a browser was asked to sign, once each; null for somebody at the door.
CREATE TABLE IF NOT EXISTS passkey_challenge (
  challenge_hash CHAR(64) NOT NULL PRIMARY KEY,
  person_id UUID NULL,
  made_at DATETIME(3) NOT NULL,
  KEY challenge_age (made_at)
);
