-- Guards in full: administrators' sign-in, what is announced to phones, guards of IPv6, source checks, isolation, storm limits, timers of the tree.
ALTER TABLE device
  ADD COLUMN IF NOT EXISTS admin_sign_in JSON NOT NULL DEFAULT '{"by":"local","servers":[],"port":null,"localAccount":true}';
UPDATE device SET
  protections = JSON_MERGE_PATCH(protections, '{"keepsBindings":false,"routerGuard":[],"dhcp6Guard":[]}'),
  abilities = JSON_MERGE_PATCH(abilities, '{"ipv6Guards":false,"sourceChecks":false,"isolation":false,"stormLimits":false}'),
  tree_settings = JSON_MERGE_PATCH(tree_settings, '{"helloSeconds":2,"maxAge":20,"forwardDelay":15,"hops":20}');
UPDATE device_model SET
  abilities = JSON_MERGE_PATCH(abilities, '{"ipv6Guards":false,"sourceChecks":false,"isolation":false,"stormLimits":false}');
ALTER TABLE port
  ADD COLUMN IF NOT EXISTS voice_policy JSON NULL;
UPDATE port SET
  guards = JSON_INSERT(JSON_MERGE_PATCH(guards, '{"raTrust":false,"sourceCheck":false,"isolated":false}'), '$.stormPercent', NULL);
ALTER TABLE host
  ADD COLUMN IF NOT EXISTS changes_mac BOOLEAN NOT NULL DEFAULT FALSE;
ALTER TABLE ssid
  ADD COLUMN IF NOT EXISTS profile_id UUID NULL;
ALTER TABLE sign_in
  ADD COLUMN IF NOT EXISTS certificate_until DATE NULL;
