-- Which entities a batch touched, so that one entity's history is looked up and not searched for in all that was ever logged.
CREATE TABLE IF NOT EXISTS change_touch (
  site_id UUID NOT NULL,
  entity_id UUID NOT NULL,
  revision INT UNSIGNED NOT NULL,
  PRIMARY KEY (site_id, entity_id, revision),
  KEY change_touch_batch (site_id, revision),
  CONSTRAINT change_touch_batch FOREIGN KEY (site_id, revision) REFERENCES change_batch (site_id, revision) ON DELETE CASCADE
);

INSERT IGNORE INTO change_touch (site_id, entity_id, revision)
SELECT b.site_id, t.id, b.revision FROM change_batch b, JSON_TABLE(b.changes, '$[*]' COLUMNS (id CHAR(36) PATH '$.id')) t;

-- What a person did last, newest first: for undo and redo.
CREATE INDEX IF NOT EXISTS change_batch_own ON change_batch (site_id, person_id, revision);
