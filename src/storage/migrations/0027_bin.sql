-- A deleted site lies in the bin for a while, with all that it has; nobody sees it elsewhere.
ALTER TABLE site ADD COLUMN IF NOT EXISTS deleted_at DATETIME(3) NULL;
ALTER TABLE site ADD COLUMN IF NOT EXISTS deleted_by VARCHAR(40) NULL;
