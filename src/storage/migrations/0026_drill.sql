-- How far somebody has come with one drill: a line for each drill of the course, each level on a site of their own,
-- each level of the order of work, and rounds of sums. It hangs on no site: the copies that drills are played in
-- are in no database.
CREATE TABLE IF NOT EXISTS drill_progress (
  person_id UUID NOT NULL,
  what VARCHAR(8) NOT NULL CHECK (what IN ('course', 'site', 'order', 'sums')),
  number TINYINT UNSIGNED NOT NULL,
  tries INT UNSIGNED NOT NULL,
  solved INT UNSIGNED NOT NULL,
  -- The least that a solved one took: minutes of a fault, mistakes of an order or of a round of sums.
  best SMALLINT UNSIGNED NULL,
  -- The last try that was counted: sent twice, it counts once.
  last_id UUID NOT NULL,
  last_at DATETIME(3) NOT NULL,
  PRIMARY KEY (person_id, what, number),
  CONSTRAINT drill_progress_person FOREIGN KEY (person_id) REFERENCES person (id)
);
