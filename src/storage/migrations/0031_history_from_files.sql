-- Changes that came with a plan file: who made them as the file says it. They stand in the log of whoever
-- imported it, and are nobody's own to undo.
ALTER TABLE change_batch ADD COLUMN IF NOT EXISTS said_by VARCHAR(80) NULL;
