-- One-time links and the sessions they open. Only hashes are stored: reading this table lets nobody in.
CREATE TABLE IF NOT EXISTS entry_link (
  key_hash CHAR(64) NOT NULL PRIMARY KEY,
  made_at DATETIME(3) NOT NULL
);

CREATE TABLE IF NOT EXISTS session (
  token_hash CHAR(64) NOT NULL PRIMARY KEY,
  person_id UUID NOT NULL,
  made_at DATETIME(3) NOT NULL,
  CONSTRAINT session_person FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);
