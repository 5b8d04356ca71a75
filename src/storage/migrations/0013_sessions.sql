-- Sessions end: when nobody has used them for a while, and at any rate after a month.
ALTER TABLE session ADD COLUMN IF NOT EXISTS used_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3);

-- Two names are one person only when they are the same, letter by letter.
ALTER TABLE person MODIFY COLUMN name VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL;

-- Browsers keep cookies by host name, whatever the port: a mark of its own keeps this database's apart from others', the same on all its instances.
INSERT IGNORE INTO setting (name, value) VALUES ('database-mark', LOWER(HEX(RANDOM_BYTES(6))));
