-- What an installer needs to build it: a line's outside network, a host's own where it differs, the bridge's MAC address, where a device asks its servers from, where a
-- station joins; sign-in profiles are named by id.
ALTER TABLE line ADD COLUMN IF NOT EXISTS length4 TINYINT UNSIGNED NULL CHECK (length4 BETWEEN 1 AND 32);
ALTER TABLE line ADD COLUMN IF NOT EXISTS next_hop4 INET4 NULL;
ALTER TABLE line ADD COLUMN IF NOT EXISTS length6 TINYINT UNSIGNED NULL CHECK (length6 BETWEEN 1 AND 128);
ALTER TABLE line ADD COLUMN IF NOT EXISTS next_hop6 INET6 NULL;
ALTER TABLE line ADD COLUMN IF NOT EXISTS dns JSON NOT NULL DEFAULT '[]';
ALTER TABLE host ADD COLUMN IF NOT EXISTS length4 TINYINT UNSIGNED NULL CHECK (length4 BETWEEN 1 AND 32);
ALTER TABLE host ADD COLUMN IF NOT EXISTS gateway4 INET4 NULL;
ALTER TABLE host ADD COLUMN IF NOT EXISTS length6 TINYINT UNSIGNED NULL CHECK (length6 BETWEEN 1 AND 128);
ALTER TABLE host ADD COLUMN IF NOT EXISTS gateway6 INET6 NULL;
ALTER TABLE host ADD COLUMN IF NOT EXISTS dns JSON NOT NULL DEFAULT '[]';
ALTER TABLE host ADD COLUMN IF NOT EXISTS access_point_id UUID NULL;
ALTER TABLE host ADD CONSTRAINT host_access_point FOREIGN KEY IF NOT EXISTS (site_id, access_point_id) REFERENCES device (site_id, id);
ALTER TABLE device ADD COLUMN IF NOT EXISTS bridge_mac CHAR(17) NULL;
ALTER TABLE device ADD COLUMN IF NOT EXISTS asks_from_interface_id UUID NULL;
ALTER TABLE device ADD CONSTRAINT device_asks_from FOREIGN KEY IF NOT EXISTS (site_id, asks_from_interface_id) REFERENCES interface (site_id, id);

-- A port's profile by name becomes its id, in the ports and in the log alike; a name that no profile has is kept in the port's note.
BEGIN NOT ATOMIC
  FOR profile IN (SELECT site_id, id, name FROM sign_in ORDER BY site_id, id) DO
    UPDATE port SET guards = JSON_REPLACE(guards, '$.profile', CAST(profile.id AS CHAR)) WHERE site_id = profile.site_id AND LOWER(JSON_VALUE(guards, '$.profile')) = LOWER(profile.name);
    UPDATE change_batch SET changes = REPLACE(changes, CONCAT('"profile":', JSON_QUOTE(profile.name)), CONCAT('"profile":"', profile.id, '"')) WHERE site_id = profile.site_id AND changes LIKE '%"profile":"_%';
  END FOR;
END;
UPDATE port SET note = CONCAT('802.1X profile: ', LEFT(JSON_VALUE(guards, '$.profile'), 104))
  WHERE note = '' AND JSON_VALUE(guards, '$.profile') <> '' AND JSON_VALUE(guards, '$.profile') NOT REGEXP '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$';
UPDATE port SET guards = JSON_MERGE_PATCH(JSON_REMOVE(guards, '$.profile'), '{}') WHERE JSON_VALUE(guards, '$.profile') NOT REGEXP '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$';
UPDATE port SET guards = JSON_INSERT(guards, '$.profile', NULL) WHERE NOT JSON_EXISTS(guards, '$.profile');
