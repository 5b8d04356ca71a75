-- What segments, lines, devices and hosts know since there is a survey.
ALTER TABLE line DROP CONSTRAINT IF EXISTS `line.provider_box`;
ALTER TABLE line MODIFY COLUMN provider_box VARCHAR(12) NOT NULL CHECK (provider_box IN ('none', 'routes', 'bridges', 'cannotBridge'));
ALTER TABLE line ADD COLUMN IF NOT EXISTS box_prefix VARCHAR(49) NULL;
ALTER TABLE line ADD COLUMN IF NOT EXISTS locked VARCHAR(120) NOT NULL DEFAULT '';
ALTER TABLE segment ADD COLUMN IF NOT EXISTS purpose VARCHAR(16) NOT NULL DEFAULT 'other';
ALTER TABLE segment ADD COLUMN IF NOT EXISTS group_name VARCHAR(120) NOT NULL DEFAULT '';
ALTER TABLE segment ADD COLUMN IF NOT EXISTS advertise VARCHAR(12) NOT NULL DEFAULT 'none' CHECK (advertise IN ('none', 'slaac', 'stateless', 'stateful'));
ALTER TABLE segment ADD COLUMN IF NOT EXISTS visit JSON NOT NULL DEFAULT 'null';
ALTER TABLE device ADD COLUMN IF NOT EXISTS vlan_name_limit SMALLINT UNSIGNED NULL;
ALTER TABLE host ADD COLUMN IF NOT EXISTS room_id UUID NULL;
ALTER TABLE host ADD COLUMN IF NOT EXISTS surveyed_as VARCHAR(120) NULL;
ALTER TABLE host DROP FOREIGN KEY IF EXISTS host_room;
ALTER TABLE host ADD CONSTRAINT host_room FOREIGN KEY (site_id, room_id) REFERENCES room (site_id, id);
