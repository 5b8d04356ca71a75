CREATE TABLE IF NOT EXISTS person (
  id UUID NOT NULL PRIMARY KEY,
  name VARCHAR(40) NOT NULL,
  UNIQUE KEY one_person_per_name (name)
);

-- What every batch changed, with what was meant. A batch's id is made by the client: sent twice, it counts once.
CREATE TABLE IF NOT EXISTS change_batch (
  site_id UUID NOT NULL,
  revision INT UNSIGNED NOT NULL,
  id UUID NOT NULL,
  person_id UUID NOT NULL,
  made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  planner VARCHAR(60) NOT NULL,
  summary VARCHAR(120) NOT NULL,
  args JSON NOT NULL,
  undoes UUID NULL,
  redoes UUID NULL,
  change_count INT UNSIGNED NOT NULL,
  changes LONGTEXT NOT NULL CHECK (JSON_VALID(changes)),
  PRIMARY KEY (site_id, revision),
  UNIQUE KEY batch_counts_once (site_id, id),
  CONSTRAINT change_batch_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT change_batch_person FOREIGN KEY (person_id) REFERENCES person (id)
);
