-- Who looks at which sheet now, by tab: it is gone when nothing more is heard of it.
CREATE TABLE IF NOT EXISTS presence (
  site_id UUID NOT NULL,
  tab_id UUID NOT NULL,
  person_id UUID NOT NULL,
  sheet VARCHAR(20) NOT NULL,
  things JSON NOT NULL,
  seen_at DATETIME(3) NOT NULL,
  PRIMARY KEY (site_id, tab_id),
  CONSTRAINT presence_person FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);
