-- What was done on site, beside the plan and its revisions: a log to which is only added. An entry's id is made
-- where the work is done: sent twice, it counts once.
CREATE TABLE IF NOT EXISTS record_entry (
  site_id UUID NOT NULL,
  number INT UNSIGNED NOT NULL,
  id UUID NOT NULL,
  person_id UUID NOT NULL,
  made_at DATETIME(3) NOT NULL,
  entry LONGTEXT NOT NULL CHECK (JSON_VALID(entry)),
  PRIMARY KEY (site_id, number),
  UNIQUE KEY entry_counts_once (site_id, id),
  CONSTRAINT record_entry_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT record_entry_person FOREIGN KEY (person_id) REFERENCES person (id)
);
