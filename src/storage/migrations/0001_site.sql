-- A site and its revision: the count of committed batches. Every other table of a plan hangs on it by (site_id, id).
CREATE TABLE IF NOT EXISTS site (
  id UUID NOT NULL PRIMARY KEY,
  revision INT UNSIGNED NOT NULL DEFAULT 0,
  name VARCHAR(80) NOT NULL,
  kind VARCHAR(12) NOT NULL CHECK (kind IN ('home', 'office', 'industrial')),
  time_zone VARCHAR(60) NOT NULL,
  blocks JSON NOT NULL,
  vid_scheme VARCHAR(8) NOT NULL CHECK (vid_scheme IN ('octet', 'packed')),
  gateway_at VARCHAR(8) NOT NULL CHECK (gateway_at IN ('first', 'last')),
  static_size SMALLINT UNSIGNED NOT NULL,
  keep_clear JSON NOT NULL,
  made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  changed_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)
);

CREATE TABLE IF NOT EXISTS setting (
  name VARCHAR(60) NOT NULL PRIMARY KEY,
  value VARCHAR(200) NOT NULL
);
