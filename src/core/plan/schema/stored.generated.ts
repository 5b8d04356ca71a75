// Made by `npm run docs` (scripts/stored-source.ts) from the schemas; a test compares the two.
import * as fields from "./fields";
import type { Kind } from "./kinds";
import { codec, everyIs, isRow, listOf, MISFIT, written, writtenList } from "./stored-parts";

const is_site_radio_channels = (value: unknown): boolean =>
  isRow(value) &&
  (value.band === "5" || value.band === "6" || value.band === "2.4") &&
  typeof value.number === "number" &&
  typeof value.dfs === "boolean" &&
  typeof value.indoor === "boolean" &&
  Object.keys(value).length === 4;

const is_site_radio = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.region === "string" &&
  everyIs(value.channels, is_site_radio_channels) &&
  Object.keys(value).length === 2;

const is_site_paper = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.firm === "string" &&
  typeof value.customer === "string" &&
  typeof value.agreed === "string" &&
  typeof value.calls === "string" &&
  typeof value.linkBase === "string" &&
  Object.keys(value).length === 5;

const read_prefixField = codec(fields.prefixField);

const read_site_blocksList = (value: unknown): unknown =>
  listOf(value, read_prefixField);

const read_addressField = codec(fields.addressField);

const read_site_conventions_dnsServersList = (value: unknown): unknown =>
  listOf(value, read_addressField);

function read_site_conventions(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.vidStart === "number" &&
    typeof value.vidStep === "number" &&
    (value.subnetScheme === "octet" || value.subnetScheme === "packed") &&
    (value.gatewayAt === "first" || value.gatewayAt === "last") &&
    (value.staticAt === "start" || value.staticAt === "end") &&
    typeof value.staticSize === "number" &&
    typeof value.namePattern === "string" &&
    typeof value.devicePattern === "string" &&
    typeof value.cablePattern === "string" &&
    (value.wifiNames === "one" || value.wifiNames === "each") &&
    (value.dns === "gateway" || value.dns === "listed") &&
    typeof value.leaseSeconds === "number" &&
    typeof value.guestLeaseSeconds === "number" &&
    (value.school === "reserve" || value.school === "type") &&
    typeof value.growth === "number" &&
    typeof value.domainName === "string" &&
    (value.separation === "auto" || value.separation === "vlans" || value.separation === "routers" ||
      value.separation === "gap") &&
    Object.keys(value).length === 18)) return MISFIT;
  const dnsServers = read_site_conventions_dnsServersList(value.dnsServers);
  if (dnsServers === MISFIT) return MISFIT;
  return { vidStart: value.vidStart, vidStep: value.vidStep, subnetScheme: value.subnetScheme,
    gatewayAt: value.gatewayAt, staticAt: value.staticAt, staticSize: value.staticSize,
    namePattern: value.namePattern, devicePattern: value.devicePattern, cablePattern: value.cablePattern,
    wifiNames: value.wifiNames, dns: value.dns, dnsServers, leaseSeconds: value.leaseSeconds,
    guestLeaseSeconds: value.guestLeaseSeconds, school: value.school, growth: value.growth,
    domainName: value.domainName, separation: value.separation };
}

const site_baseline_waysInValues = new Set<unknown>(["https", "http", "ssh", "telnet", "snmpV3", "snmpV2",
  "console"]);

const is_site_baseline_waysIn = (value: unknown): boolean =>
  site_baseline_waysInValues.has(value);

function read_site_baseline(value: unknown): unknown {
  if (!(isRow(value) &&
    everyIs(value.waysIn, is_site_baseline_waysIn) &&
    (value.idleMinutes === null || typeof value.idleMinutes === "number") &&
    (value.passwordLength === null || typeof value.passwordLength === "number") &&
    (value.passwordDays === null || typeof value.passwordDays === "number") &&
    (value.clock === "open" || value.clock === "site" || value.clock === "utc") &&
    (value.uplinks === "open" || value.uplinks === "byHand" || value.uplinks === "automatic") &&
    (value.describes === "open" || value.describes === "yes" || value.describes === "no") &&
    Object.keys(value).length === 10)) return MISFIT;
  const nameServers = read_site_conventions_dnsServersList(value.nameServers);
  if (nameServers === MISFIT) return MISFIT;
  const timeServers = read_site_conventions_dnsServersList(value.timeServers);
  if (timeServers === MISFIT) return MISFIT;
  const logTo = read_site_conventions_dnsServersList(value.logTo);
  if (logTo === MISFIT) return MISFIT;
  return { waysIn: value.waysIn, idleMinutes: value.idleMinutes, passwordLength: value.passwordLength,
    passwordDays: value.passwordDays, nameServers, timeServers, logTo, clock: value.clock,
    uplinks: value.uplinks, describes: value.describes };
}

function read_site_keepClear(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.reason === "string" &&
    Object.keys(value).length === 2)) return MISFIT;
  const prefix = read_prefixField(value.prefix);
  if (prefix === MISFIT) return MISFIT;
  return { prefix, reason: value.reason };
}

const read_site_keepClearList = (value: unknown): unknown =>
  listOf(value, read_site_keepClear);

function read_site(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    typeof value.name === "string" &&
    (value.kind === "home" || value.kind === "office" || value.kind === "industrial") &&
    typeof value.timeZone === "string" &&
    is_site_radio(value.radio) &&
    is_site_paper(value.paper) &&
    Object.keys(value).length === 10)) return MISFIT;
  const blocks = read_site_blocksList(value.blocks);
  if (blocks === MISFIT) return MISFIT;
  const conventions = read_site_conventions(value.conventions);
  if (conventions === MISFIT) return MISFIT;
  const baseline = read_site_baseline(value.baseline);
  if (baseline === MISFIT) return MISFIT;
  const keepClear = read_site_keepClearList(value.keepClear);
  if (keepClear === MISFIT) return MISFIT;
  return { id: value.id, name: value.name, kind: value.kind, timeZone: value.timeZone, blocks, conventions,
    radio: value.radio, baseline, keepClear, paper: value.paper };
}

const is_domain = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.name === "string" &&
  Object.keys(value).length === 2;

const read_domain = (value: unknown): unknown =>
  is_domain(value) ? value : MISFIT;

const zone_levelValues = new Set<unknown>(["none", "process", "control", "supervision", "operations", "dmz",
  "business"]);

const is_zone = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.name === "string" &&
  typeof value.insideOpen === "boolean" &&
  zone_levelValues.has(value.level) &&
  typeof value.securityLevel === "number" &&
  Object.keys(value).length === 5;

const read_zone = (value: unknown): unknown =>
  is_zone(value) ? value : MISFIT;

const is_room_beside = (value: unknown): boolean =>
  typeof value === "string";

const is_room = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.name === "string" &&
  (value.kind === "room" || value.kind === "cabinet" || value.kind === "outdoor") &&
  typeof value.position === "number" &&
  (value.cabinet === null || typeof value.cabinet === "string") &&
  (value.cableCm === null || typeof value.cableCm === "number") &&
  (value.heightUnits === null || typeof value.heightUnits === "number") &&
  typeof value.building === "string" &&
  everyIs(value.beside, is_room_beside) &&
  typeof value.group === "string" &&
  typeof value.needs === "string" &&
  Object.keys(value).length === 11;

const read_room = (value: unknown): unknown =>
  is_room(value) ? value : MISFIT;

const hostKind_baseValues = new Set<unknown>(["pc", "laptop", "phone", "printer", "camera", "recorder",
  "cardTerminal", "doorController", "sensor", "television", "console", "controller", "operatorPanel", "drive",
  "ioIsland", "scanner", "server", "storage", "mobile", "imaging", "other"]);

const hostKind_purposeValues = new Set<unknown>(["management", "people", "voice", "instruments", "cards",
  "servers", "building", "cameras", "guests", "gadgets", "cell", "operations", "dmz", "vendor", "safety",
  "other"]);

const is_hostKind = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.name === "string" &&
  everyIs(value.aliases, is_room_beside) &&
  hostKind_baseValues.has(value.base) &&
  hostKind_purposeValues.has(value.purpose) &&
  (value.manner === "typed" || value.manner === "reserved" || value.manner === "dynamic") &&
  typeof value.wireless === "boolean" &&
  (value.poeClass === null || typeof value.poeClass === "number") &&
  typeof value.kbps === "number" &&
  typeof value.speaksDhcp === "boolean" &&
  typeof value.speaksSignIn === "boolean" &&
  (value.internet === "may" || value.internet === "never") &&
  Object.keys(value).length === 12;

const read_hostKind = (value: unknown): unknown =>
  is_hostKind(value) ? value : MISFIT;

const deviceModel_kindValues = new Set<unknown>(["gateway", "firewall", "switch", "accessPoint",
  "providerBox", "converter", "server"]);

const is_deviceModel_runs = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.count === "number" &&
  typeof value.prefix === "string" &&
  typeof value.soft === "string" &&
  (value.medium === "copper" || value.medium === "fibre" || value.medium === "directAttach" ||
    value.medium === "combo") &&
  typeof value.speedMbps === "number" &&
  typeof value.poeMw === "number" &&
  Object.keys(value).length === 6;

const is_deviceModel_abilities_trees = (value: unknown): boolean =>
  (value === "rapid" || value === "multiple" || value === "perVlan");

const deviceModel_abilities_lacksValues = new Set<unknown>(["https", "ssh", "snmpV3", "idle", "passwords",
  "names", "time", "log", "descriptions"]);

const is_deviceModel_abilities_lacks = (value: unknown): boolean =>
  deviceModel_abilities_lacksValues.has(value);

const is_deviceModel_abilities = (value: unknown): boolean =>
  isRow(value) &&
  (value.maxVlans === null || typeof value.maxVlans === "number") &&
  typeof value.mixesTagged === "boolean" &&
  everyIs(value.trees, is_deviceModel_abilities_trees) &&
  typeof value.snooping === "boolean" &&
  typeof value.arpInspection === "boolean" &&
  typeof value.signIn === "boolean" &&
  typeof value.ipv6Guards === "boolean" &&
  typeof value.sourceChecks === "boolean" &&
  typeof value.isolation === "boolean" &&
  typeof value.stormLimits === "boolean" &&
  typeof value.routes === "boolean" &&
  (value.ownTag === "accept" || value.ownTag === "drop") &&
  typeof value.radios === "boolean" &&
  (value.lists === "one" || value.lists === "two") &&
  typeof value.fallsBack === "boolean" &&
  everyIs(value.lacks, is_deviceModel_abilities_lacks) &&
  Object.keys(value).length === 16;

const is_deviceModel = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.name === "string" &&
  deviceModel_kindValues.has(value.kind) &&
  (value.bridging === "vlan" || value.bridging === "plain" || value.bridging === "none") &&
  everyIs(value.runs, is_deviceModel_runs) &&
  typeof value.poeBudgetMw === "number" &&
  (value.poeOneLostMw === null || typeof value.poeOneLostMw === "number") &&
  typeof value.heightUnits === "number" &&
  is_deviceModel_abilities(value.abilities) &&
  Object.keys(value).length === 9;

const read_deviceModel = (value: unknown): unknown =>
  is_deviceModel(value) ? value : MISFIT;

const read_ipv4Field = codec(fields.ipv4Field);

const read_leaflet_address4OrNull = (value: unknown): unknown =>
  value === null ? null : read_ipv4Field(value);

function read_leaflet(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    typeof value.model === "string" &&
    (value.addressing === "unknown" || value.addressing === "fixed" || value.addressing === "dhcp") &&
    (value.length4 === null || typeof value.length4 === "number") &&
    (value.gives === "unknown" || value.gives === "yes" || value.gives === "no") &&
    typeof value.opens === "string" &&
    typeof value.light === "string" &&
    (value.startSeconds === null || typeof value.startSeconds === "number") &&
    (value.resetSeconds === null || typeof value.resetSeconds === "number") &&
    typeof value.restarts === "boolean" &&
    (value.nameRule === "any" || value.nameRule === "label") &&
    (value.nameMost === null || typeof value.nameMost === "number") &&
    typeof value.notes === "string" &&
    Object.keys(value).length === 14)) return MISFIT;
  const address4 = read_leaflet_address4OrNull(value.address4);
  if (address4 === MISFIT) return MISFIT;
  return { id: value.id, model: value.model, addressing: value.addressing, address4, length4: value.length4,
    gives: value.gives, opens: value.opens, light: value.light, startSeconds: value.startSeconds,
    resetSeconds: value.resetSeconds, restarts: value.restarts, nameRule: value.nameRule,
    nameMost: value.nameMost, notes: value.notes };
}

const is_template = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.name === "string" &&
  typeof value.ending === "string" &&
  typeof value.text === "string" &&
  Object.keys(value).length === 4;

const read_template = (value: unknown): unknown =>
  is_template(value) ? value : MISFIT;

const line_accessValues = new Set<unknown>(["fibre", "cable", "dsl", "mobile", "radio", "other"]);

const is_line_marks = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.kept === "boolean" &&
  (value.voicePriority === null || typeof value.voicePriority === "number") &&
  Object.keys(value).length === 2;

const is_line_pins = (value: unknown): boolean =>
  isRow(value) &&
  (value.what === "segment") &&
  typeof value.segment === "string" &&
  (value.orElse === "next" || value.orElse === "stays") &&
  Object.keys(value).length === 3;

const is_line_pins2 = (value: unknown): boolean =>
  isRow(value) &&
  (value.what === "host") &&
  typeof value.host === "string" &&
  (value.orElse === "next" || value.orElse === "stays") &&
  Object.keys(value).length === 3;

const is_line_pins_service_ports = (value: unknown): boolean =>
  Array.isArray(value) && value.length === 2 && typeof value[0] === "number" && typeof value[1] === "number";

const is_line_pins_service = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.name === "string" &&
  (value.protocol === "tcp" || value.protocol === "udp" || value.protocol === "icmp") &&
  everyIs(value.ports, is_line_pins_service_ports) &&
  Object.keys(value).length === 3;

const is_line_pins3 = (value: unknown): boolean =>
  isRow(value) &&
  (value.what === "service") &&
  is_line_pins_service(value.service) &&
  (value.orElse === "next" || value.orElse === "stays") &&
  Object.keys(value).length === 3;

const is_line_pins4 = (value: unknown): boolean =>
  isRow(value) && (value.what === "segment" ? is_line_pins(value) :
  value.what === "host" ? is_line_pins2(value) :
  value.what === "service" ? is_line_pins3(value) :
  false);

const is_line_dynamicName = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.name === "string" &&
  (value.updatedBy === "gateway" || value.updatedBy === "providerBox" || value.updatedBy === "host") &&
  typeof value.account === "string" &&
  Object.keys(value).length === 3;

const read_line_boxPrefixOrNull = (value: unknown): unknown =>
  value === null ? null : read_prefixField(value);

const read_ipv6Field = codec(fields.ipv6Field);

const read_line_nextHop6OrNull = (value: unknown): unknown =>
  value === null ? null : read_ipv6Field(value);

function read_line_watch(value: unknown): unknown {
  if (!(isRow(value) &&
    (value.by === "link" || value.by === "target") &&
    typeof value.afterSeconds === "number" &&
    typeof value.backSeconds === "number" &&
    typeof value.returns === "boolean" &&
    Object.keys(value).length === 5)) return MISFIT;
  const targets = read_site_conventions_dnsServersList(value.targets);
  if (targets === MISFIT) return MISFIT;
  return { by: value.by, targets, afterSeconds: value.afterSeconds, backSeconds: value.backSeconds,
    returns: value.returns };
}

const read_prefix6Field = codec(fields.prefix6Field);

const read_line_delegated_prefixOrNull = (value: unknown): unknown =>
  value === null ? null : read_prefix6Field(value);

function read_line_delegated(value: unknown): unknown {
  if (!(isRow(value) &&
    (value.length === null || typeof value.length === "number") &&
    typeof value.keeps === "boolean" &&
    Object.keys(value).length === 3)) return MISFIT;
  const prefix = read_line_delegated_prefixOrNull(value.prefix);
  if (prefix === MISFIT) return MISFIT;
  return { length: value.length, prefix, keeps: value.keeps };
}

function read_line(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    typeof value.name === "string" &&
    line_accessValues.has(value.access) &&
    (value.addressing === "dhcp" || value.addressing === "login" || value.addressing === "fixed") &&
    (value.vlanTag === null || typeof value.vlanTag === "number") &&
    (value.carrierNat === "yes" || value.carrierNat === "no" || value.carrierNat === "unknown") &&
    (value.providerBox === "none" || value.providerBox === "routes" || value.providerBox === "bridges" ||
      value.providerBox === "cannotBridge") &&
    typeof value.boxForwards === "boolean" &&
    typeof value.locked === "string" &&
    typeof value.downMbps === "number" &&
    typeof value.upMbps === "number" &&
    (value.length4 === null || typeof value.length4 === "number") &&
    (value.length6 === null || typeof value.length6 === "number") &&
    typeof value.place === "number" &&
    typeof value.share === "number" &&
    is_line_marks(value.marks) &&
    everyIs(value.pins, is_line_pins4) &&
    is_line_dynamicName(value.dynamicName) &&
    Object.keys(value).length === 24)) return MISFIT;
  const boxPrefix = read_line_boxPrefixOrNull(value.boxPrefix);
  if (boxPrefix === MISFIT) return MISFIT;
  const nextHop4 = read_leaflet_address4OrNull(value.nextHop4);
  if (nextHop4 === MISFIT) return MISFIT;
  const nextHop6 = read_line_nextHop6OrNull(value.nextHop6);
  if (nextHop6 === MISFIT) return MISFIT;
  const dns = read_site_conventions_dnsServersList(value.dns);
  if (dns === MISFIT) return MISFIT;
  const watch = read_line_watch(value.watch);
  if (watch === MISFIT) return MISFIT;
  const delegated = read_line_delegated(value.delegated);
  if (delegated === MISFIT) return MISFIT;
  return { id: value.id, name: value.name, access: value.access, addressing: value.addressing,
    vlanTag: value.vlanTag, carrierNat: value.carrierNat, providerBox: value.providerBox,
    boxForwards: value.boxForwards, boxPrefix, locked: value.locked, downMbps: value.downMbps,
    upMbps: value.upMbps, length4: value.length4, nextHop4, length6: value.length6, nextHop6, dns,
    place: value.place, share: value.share, watch, marks: value.marks, delegated, pins: value.pins,
    dynamicName: value.dynamicName };
}

const is_vlan = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.domain === "string" &&
  typeof value.vid === "number" &&
  typeof value.name === "string" &&
  (value.purpose === "segment" || value.purpose === "parked" || value.purpose === "wayBack" ||
    value.purpose === "transit") &&
  Object.keys(value).length === 5;

const read_vlan = (value: unknown): unknown =>
  is_vlan(value) ? value : MISFIT;

const segment_tape_baseValues = new Set<unknown>(["white", "yellow", "pink", "aqua", "orange", "grey",
  "green", "red", "blue", "violet", "brown", "black"]);

const is_segment_tape = (value: unknown): boolean =>
  isRow(value) &&
  segment_tape_baseValues.has(value.base) &&
  (value.tracer === null || segment_tape_baseValues.has(value.tracer)) &&
  Object.keys(value).length === 2;

const segment_trafficClassValues = new Set<unknown>(["bestEffort", "bulk", "signalling", "video", "voice"]);

const is_segment_visit = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.perHour === "number" &&
  typeof value.staySeconds === "number" &&
  typeof value.openSeconds === "number" &&
  Object.keys(value).length === 3;

const is_segment_tunnel = (value: unknown): boolean =>
  isRow(value) &&
  (value.kind === "users" || value.kind === "site") &&
  (value.protocol === "tcp" || value.protocol === "udp") &&
  typeof value.port === "number" &&
  (value.line === null || typeof value.line === "string") &&
  Object.keys(value).length === 4;

const read_prefix4Field = codec(fields.prefix4Field);

const read_segment_prefixes4List = (value: unknown): unknown =>
  listOf(value, read_prefix4Field);

const read_segment_prefixes6List = (value: unknown): unknown =>
  listOf(value, read_prefix6Field);

function read_segment(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    typeof value.zone === "string" &&
    (value.vlan === null || typeof value.vlan === "string") &&
    typeof value.name === "string" &&
    typeof value.mark === "string" &&
    is_segment_tape(value.tape) &&
    (value.gatewayInterface === null || typeof value.gatewayInterface === "string") &&
    typeof value.domainName === "string" &&
    typeof value.planned === "number" &&
    typeof value.growth === "number" &&
    typeof value.management === "boolean" &&
    hostKind_purposeValues.has(value.purpose) &&
    typeof value.group === "string" &&
    (value.advertise === "none" || value.advertise === "slaac" || value.advertise === "stateless" ||
      value.advertise === "stateful") &&
    segment_trafficClassValues.has(value.trafficClass) &&
    (value.visit === null || is_segment_visit(value.visit)) &&
    (value.tunnel === null || is_segment_tunnel(value.tunnel)) &&
    Object.keys(value).length === 21)) return MISFIT;
  const prefixes4 = read_segment_prefixes4List(value.prefixes4);
  if (prefixes4 === MISFIT) return MISFIT;
  const prefixes6 = read_segment_prefixes6List(value.prefixes6);
  if (prefixes6 === MISFIT) return MISFIT;
  const dns = read_site_conventions_dnsServersList(value.dns);
  if (dns === MISFIT) return MISFIT;
  const time = read_site_conventions_dnsServersList(value.time);
  if (time === MISFIT) return MISFIT;
  return { id: value.id, zone: value.zone, vlan: value.vlan, name: value.name, mark: value.mark,
    tape: value.tape, prefixes4, prefixes6, gatewayInterface: value.gatewayInterface, dns, time,
    domainName: value.domainName, planned: value.planned, growth: value.growth, management: value.management,
    purpose: value.purpose, group: value.group, advertise: value.advertise, trafficClass: value.trafficClass,
    visit: value.visit, tunnel: value.tunnel };
}

const device_poeValues = new Set<unknown>(["asKind", "none", "class1", "class2", "class3", "class4", "class5",
  "class6", "class7", "class8"]);

const is_device_tree_instances_vids = (value: unknown): boolean =>
  typeof value === "number";

const is_device_tree_instances = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.number === "number" &&
  everyIs(value.vids, is_device_tree_instances_vids) &&
  typeof value.priority === "number" &&
  Object.keys(value).length === 3;

const is_device_tree_perVlan = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.vid === "number" &&
  typeof value.priority === "number" &&
  Object.keys(value).length === 2;

const is_device_tree = (value: unknown): boolean =>
  isRow(value) &&
  (value.kind === "none" || value.kind === "rapid" || value.kind === "multiple" ||
    value.kind === "perVlan") &&
  typeof value.priority === "number" &&
  (value.costs === "long" || value.costs === "short") &&
  typeof value.region === "string" &&
  typeof value.revision === "number" &&
  typeof value.helloSeconds === "number" &&
  typeof value.maxAge === "number" &&
  typeof value.forwardDelay === "number" &&
  typeof value.hops === "number" &&
  everyIs(value.instances, is_device_tree_instances) &&
  everyIs(value.perVlan, is_device_tree_perVlan) &&
  Object.keys(value).length === 11;

const is_device_protections = (value: unknown): boolean =>
  isRow(value) &&
  everyIs(value.snooping, is_device_tree_instances_vids) &&
  typeof value.option82 === "boolean" &&
  everyIs(value.arpInspection, is_device_tree_instances_vids) &&
  everyIs(value.bound, is_room_beside) &&
  typeof value.keepsBindings === "boolean" &&
  everyIs(value.routerGuard, is_device_tree_instances_vids) &&
  everyIs(value.dhcp6Guard, is_device_tree_instances_vids) &&
  Object.keys(value).length === 7;

const is_device_adminSignIn = (value: unknown): boolean =>
  isRow(value) &&
  (value.by === "local" || value.by === "radius" || value.by === "tacacs") &&
  everyIs(value.servers, is_room_beside) &&
  (value.port === null || typeof value.port === "number") &&
  typeof value.localAccount === "boolean" &&
  Object.keys(value).length === 4;

const is_device_filter = (value: unknown): boolean =>
  isRow(value) &&
  (value.list === "planned" || value.list === "found" || value.list === "none") &&
  (value.forwardDefault === "accept" || value.forwardDefault === "drop" ||
    value.forwardDefault === "reject") &&
  (value.inputDefault === "accept" || value.inputDefault === "drop" || value.inputDefault === "reject") &&
  typeof value.established === "boolean" &&
  typeof value.logsRefused === "boolean" &&
  typeof value.hostsOpen === "boolean" &&
  Object.keys(value).length === 6;

const is_device_position = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.x === "number" &&
  typeof value.y === "number" &&
  Object.keys(value).length === 2;

const read_macField = codec(fields.macField);

const read_device_bridgeMacOrNull = (value: unknown): unknown =>
  value === null ? null : read_macField(value);

function read_device_routes(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.metric === "number" &&
    Object.keys(value).length === 3)) return MISFIT;
  const prefix = read_prefixField(value.prefix);
  if (prefix === MISFIT) return MISFIT;
  const via = read_addressField(value.via);
  if (via === MISFIT) return MISFIT;
  return { prefix, via, metric: value.metric };
}

const read_device_routesList = (value: unknown): unknown =>
  listOf(value, read_device_routes);

function read_device(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    deviceModel_kindValues.has(value.kind) &&
    (value.bridging === "vlan" || value.bridging === "plain" || value.bridging === "none") &&
    typeof value.name === "string" &&
    typeof value.model === "string" &&
    (value.domain === null || typeof value.domain === "string") &&
    typeof value.place === "string" &&
    is_deviceModel_abilities(value.abilities) &&
    (value.rackUnit === null || typeof value.rackUnit === "number") &&
    typeof value.heightUnits === "number" &&
    typeof value.feed === "string" &&
    typeof value.backupFeed === "string" &&
    device_poeValues.has(value.poe) &&
    typeof value.poeBudgetMw === "number" &&
    (value.poeOneLostMw === null || typeof value.poeOneLostMw === "number") &&
    is_device_tree(value.tree) &&
    is_device_protections(value.protections) &&
    is_device_adminSignIn(value.adminSignIn) &&
    (value.defaultRoute === "asSegment" || value.defaultRoute === "none") &&
    is_device_filter(value.filter) &&
    (value.asksFrom === null || typeof value.asksFrom === "string") &&
    typeof value.serial === "string" &&
    typeof value.hardwareRevision === "string" &&
    typeof value.softwareFound === "string" &&
    typeof value.softwareWanted === "string" &&
    typeof value.registration === "string" &&
    (value.licenceUntil === null || typeof value.licenceUntil === "string") &&
    (value.supportUntil === null || typeof value.supportUntil === "string") &&
    typeof value.credentialsPlace === "string" &&
    (value.vlanNameLimit === null || typeof value.vlanNameLimit === "number") &&
    everyIs(value.hears, is_room_beside) &&
    everyIs(value.repeatsDiscovery, is_room_beside) &&
    (value.position === null || is_device_position(value.position)) &&
    typeof value.notes === "string" &&
    Object.keys(value).length === 37)) return MISFIT;
  const bridgeMac = read_device_bridgeMacOrNull(value.bridgeMac);
  if (bridgeMac === MISFIT) return MISFIT;
  const routes = read_device_routesList(value.routes);
  if (routes === MISFIT) return MISFIT;
  const baseline = read_site_baseline(value.baseline);
  if (baseline === MISFIT) return MISFIT;
  return { id: value.id, kind: value.kind, bridging: value.bridging, name: value.name, model: value.model,
    domain: value.domain, place: value.place, abilities: value.abilities, rackUnit: value.rackUnit,
    heightUnits: value.heightUnits, feed: value.feed, backupFeed: value.backupFeed, poe: value.poe,
    poeBudgetMw: value.poeBudgetMw, poeOneLostMw: value.poeOneLostMw, bridgeMac, tree: value.tree,
    protections: value.protections, adminSignIn: value.adminSignIn, routes, defaultRoute: value.defaultRoute,
    filter: value.filter, asksFrom: value.asksFrom, baseline, serial: value.serial,
    hardwareRevision: value.hardwareRevision, softwareFound: value.softwareFound,
    softwareWanted: value.softwareWanted, registration: value.registration, licenceUntil: value.licenceUntil,
    supportUntil: value.supportUntil, credentialsPlace: value.credentialsPlace,
    vlanNameLimit: value.vlanNameLimit, hears: value.hears, repeatsDiscovery: value.repeatsDiscovery,
    position: value.position, notes: value.notes };
}

const gear_kindValues = new Set<unknown>(["gateway", "firewall", "switch", "accessPoint", "providerBox",
  "converter", "server", "other"]);

function read_gear(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    typeof value.name === "string" &&
    gear_kindValues.has(value.kind) &&
    typeof value.model === "string" &&
    (value.room === null || typeof value.room === "string") &&
    (value.dhcp === "on" || value.dhcp === "off" || value.dhcp === "unknown") &&
    typeof value.facesInternet === "boolean" &&
    (value.supportUntil === null || typeof value.supportUntil === "string") &&
    (value.fate === "keep" || value.fate === "replace" || value.fate === "remove") &&
    (value.device === null || typeof value.device === "string") &&
    typeof value.notes === "string" &&
    Object.keys(value).length === 13)) return MISFIT;
  const addresses = read_site_conventions_dnsServersList(value.addresses);
  if (addresses === MISFIT) return MISFIT;
  const prefixes = read_site_blocksList(value.prefixes);
  if (prefixes === MISFIT) return MISFIT;
  return { id: value.id, name: value.name, kind: value.kind, model: value.model, room: value.room, addresses,
    prefixes, dhcp: value.dhcp, facesInternet: value.facesInternet, supportUntil: value.supportUntil,
    fate: value.fate, device: value.device, notes: value.notes };
}

const is_deviceVlan = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.device === "string" &&
  typeof value.vid === "number" &&
  typeof value.name === "string" &&
  Object.keys(value).length === 4;

const read_deviceVlan = (value: unknown): unknown =>
  is_deviceVlan(value) ? value : MISFIT;

const is_lag = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.device === "string" &&
  typeof value.name === "string" &&
  (value.mode === "static" || value.mode === "active" || value.mode === "passive") &&
  Object.keys(value).length === 4;

const read_lag = (value: unknown): unknown =>
  is_lag(value) ? value : MISFIT;

const port_opticValues = new Set<unknown>(["none", "1000BASE-T", "1000BASE-SX", "1000BASE-LX", "10GBASE-T",
  "10GBASE-SR", "10GBASE-LR", "10GBASE-ER", "25GBASE-SR", "25GBASE-LR", "40GBASE-SR4", "40GBASE-LR4",
  "100GBASE-SR4", "100GBASE-LR4", "direct attach"]);

const is_port_guards = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.edge === "boolean" &&
  typeof value.bpduGuard === "boolean" &&
  typeof value.loopGuard === "boolean" &&
  typeof value.dhcpTrust === "boolean" &&
  typeof value.arpTrust === "boolean" &&
  typeof value.signIn === "boolean" &&
  (value.profile === null || typeof value.profile === "string") &&
  (value.macLimit === null || typeof value.macLimit === "number") &&
  typeof value.raTrust === "boolean" &&
  typeof value.sourceCheck === "boolean" &&
  typeof value.isolated === "boolean" &&
  (value.stormPercent === null || typeof value.stormPercent === "number") &&
  typeof value.trustsMarks === "boolean" &&
  typeof value.restrictedRole === "boolean" &&
  Object.keys(value).length === 14;

const is_port_voicePolicy = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.vid === "number" &&
  typeof value.priority === "number" &&
  typeof value.dscp === "number" &&
  Object.keys(value).length === 3;

const is_port = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.device === "string" &&
  typeof value.label === "string" &&
  typeof value.softwareName === "string" &&
  typeof value.position === "number" &&
  (value.medium === "copper" || value.medium === "fibre" || value.medium === "directAttach" ||
    value.medium === "combo") &&
  typeof value.speedMbps === "number" &&
  port_opticValues.has(value.optic) &&
  (value.lag === null || typeof value.lag === "string") &&
  typeof value.poeMw === "number" &&
  typeof value.enabled === "boolean" &&
  (value.pvid === null || typeof value.pvid === "number") &&
  everyIs(value.untagged, is_device_tree_instances_vids) &&
  everyIs(value.tagged, is_device_tree_instances_vids) &&
  (value.admit === "all" || value.admit === "tagged" || value.admit === "untagged") &&
  typeof value.ingressFilter === "boolean" &&
  typeof value.treePriority === "number" &&
  (value.treeCost === null || typeof value.treeCost === "number") &&
  is_port_guards(value.guards) &&
  (value.voicePolicy === null || is_port_voicePolicy(value.voicePolicy)) &&
  typeof value.note === "string" &&
  Object.keys(value).length === 21;

const read_port = (value: unknown): unknown =>
  is_port(value) ? value : MISFIT;

const link_cableValues = new Set<unknown>(["unknown", "cat5e", "cat6", "cat6a", "cat8", "om1", "om2", "om3",
  "om4", "om5", "os1", "os2", "twinax"]);

const is_link = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.a === "string" &&
  typeof value.b === "string" &&
  (value.medium === "copper" || value.medium === "fibre" || value.medium === "directAttach") &&
  link_cableValues.has(value.cable) &&
  (value.lengthCm === null || typeof value.lengthCm === "number") &&
  typeof value.label === "string" &&
  typeof value.panel === "string" &&
  typeof value.socket === "string" &&
  Object.keys(value).length === 9;

const read_link = (value: unknown): unknown =>
  is_link(value) ? value : MISFIT;

const read_interface_addresses4List = (value: unknown): unknown =>
  listOf(value, read_ipv4Field);

const read_interface_addresses6List = (value: unknown): unknown =>
  listOf(value, read_ipv6Field);

function read_interface(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    typeof value.device === "string" &&
    (value.port === null || typeof value.port === "string") &&
    (value.segment === null || typeof value.segment === "string") &&
    (value.line === null || typeof value.line === "string") &&
    typeof value.name === "string" &&
    (value.translates === "asUsual" || value.translates === "yes" || value.translates === "no") &&
    Object.keys(value).length === 11)) return MISFIT;
  const mac = read_device_bridgeMacOrNull(value.mac);
  if (mac === MISFIT) return MISFIT;
  const addresses4 = read_interface_addresses4List(value.addresses4);
  if (addresses4 === MISFIT) return MISFIT;
  const addresses6 = read_interface_addresses6List(value.addresses6);
  if (addresses6 === MISFIT) return MISFIT;
  const relayTo = read_leaflet_address4OrNull(value.relayTo);
  if (relayTo === MISFIT) return MISFIT;
  return { id: value.id, device: value.device, port: value.port, segment: value.segment, line: value.line,
    name: value.name, mac, addresses4, addresses6, relayTo, translates: value.translates };
}

const ssid_securityValues = new Set<unknown>(["open", "owe", "wep", "pskTkip", "psk", "pskSae", "sae",
  "enterprise", "enterprise192"]);

const is_ssid_bands = (value: unknown): boolean =>
  (value === "5" || value === "6" || value === "2.4");

const is_ssid = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.name === "string" &&
  typeof value.segment === "string" &&
  everyIs(value.moreSegments, is_room_beside) &&
  ssid_securityValues.has(value.security) &&
  (value.profile === null || typeof value.profile === "string") &&
  typeof value.hidden === "boolean" &&
  typeof value.isolation === "boolean" &&
  everyIs(value.bands, is_ssid_bands) &&
  everyIs(value.at, is_room_beside) &&
  Object.keys(value).length === 10;

const read_ssid = (value: unknown): unknown =>
  is_ssid(value) ? value : MISFIT;

const is_radio_widthMhz = (value: unknown): boolean =>
  (value === 20) || (value === 40) || (value === 80) || (value === 160) || (value === 320);

const is_radio = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.device === "string" &&
  (value.band === "5" || value.band === "6" || value.band === "2.4") &&
  typeof value.enabled === "boolean" &&
  (value.channel === null || typeof value.channel === "number") &&
  is_radio_widthMhz(value.widthMhz) &&
  typeof value.power === "string" &&
  Object.keys(value).length === 7;

const read_radio = (value: unknown): unknown =>
  is_radio(value) ? value : MISFIT;

const is_host_attachment = (value: unknown): boolean =>
  isRow(value) &&
  (value.at === "port") &&
  typeof value.port === "string" &&
  Object.keys(value).length === 2;

const is_host_attachment2 = (value: unknown): boolean =>
  isRow(value) &&
  (value.at === "ssid") &&
  typeof value.ssid === "string" &&
  (value.accessPoint === null || typeof value.accessPoint === "string") &&
  Object.keys(value).length === 3;

const is_host_attachment3 = (value: unknown): boolean =>
  isRow(value) &&
  (value.at === "behind") &&
  typeof value.host === "string" &&
  Object.keys(value).length === 2;

const is_host_attachment4 = (value: unknown): boolean =>
  isRow(value) &&
  (value.at === "unplaced") &&
  Object.keys(value).length === 1;

const is_host_attachment5 = (value: unknown): boolean =>
  isRow(value) && (value.at === "port" ? is_host_attachment(value) :
  value.at === "ssid" ? is_host_attachment2(value) :
  value.at === "behind" ? is_host_attachment3(value) :
  value.at === "unplaced" ? is_host_attachment4(value) :
  false);

const is_host_surveyed = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.room === "string" &&
  typeof value.what === "string" &&
  Object.keys(value).length === 2;

function read_host(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    typeof value.name === "string" &&
    hostKind_baseValues.has(value.kind) &&
    (value.manner === "typed" || value.manner === "reserved" || value.manner === "dynamic") &&
    (value.length4 === null || typeof value.length4 === "number") &&
    (value.length6 === null || typeof value.length6 === "number") &&
    (value.segment === null || typeof value.segment === "string") &&
    is_host_attachment5(value.attachment) &&
    (value.tag === null || typeof value.tag === "number") &&
    typeof value.changesMac === "boolean" &&
    device_poeValues.has(value.poe) &&
    typeof value.place === "string" &&
    (value.surveyed === null || is_host_surveyed(value.surveyed)) &&
    typeof value.notes === "string" &&
    Object.keys(value).length === 20)) return MISFIT;
  const mac = read_device_bridgeMacOrNull(value.mac);
  if (mac === MISFIT) return MISFIT;
  const ipv4 = read_leaflet_address4OrNull(value.ipv4);
  if (ipv4 === MISFIT) return MISFIT;
  const ipv6 = read_line_nextHop6OrNull(value.ipv6);
  if (ipv6 === MISFIT) return MISFIT;
  const gateway4 = read_leaflet_address4OrNull(value.gateway4);
  if (gateway4 === MISFIT) return MISFIT;
  const gateway6 = read_line_nextHop6OrNull(value.gateway6);
  if (gateway6 === MISFIT) return MISFIT;
  const dns = read_site_conventions_dnsServersList(value.dns);
  if (dns === MISFIT) return MISFIT;
  return { id: value.id, name: value.name, kind: value.kind, mac, manner: value.manner, ipv4, ipv6,
    length4: value.length4, gateway4, length6: value.length6, gateway6, dns, segment: value.segment,
    attachment: value.attachment, tag: value.tag, changesMac: value.changesMac, poe: value.poe,
    place: value.place, surveyed: value.surveyed, notes: value.notes };
}

const is_scope_family = (value: unknown): boolean =>
  (value === 4) || (value === 6);

const is_scope_options = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.code === "number" &&
  typeof value.name === "string" &&
  typeof value.value === "string" &&
  Object.keys(value).length === 3;

function read_scope_pools(value: unknown): unknown {
  if (!(isRow(value) &&
    Object.keys(value).length === 2)) return MISFIT;
  const first = read_addressField(value.first);
  if (first === MISFIT) return MISFIT;
  const last = read_addressField(value.last);
  if (last === MISFIT) return MISFIT;
  return { first, last };
}

const read_scope_poolsList = (value: unknown): unknown =>
  listOf(value, read_scope_pools);

function read_scope(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    typeof value.segment === "string" &&
    (value.serverDevice === null || typeof value.serverDevice === "string") &&
    (value.serverHost === null || typeof value.serverHost === "string") &&
    is_scope_family(value.family) &&
    typeof value.leaseSeconds === "number" &&
    everyIs(value.options, is_scope_options) &&
    Object.keys(value).length === 9)) return MISFIT;
  const pools = read_scope_poolsList(value.pools);
  if (pools === MISFIT) return MISFIT;
  const exclusions = read_scope_poolsList(value.exclusions);
  if (exclusions === MISFIT) return MISFIT;
  return { id: value.id, segment: value.segment, serverDevice: value.serverDevice,
    serverHost: value.serverHost, family: value.family, pools, exclusions, leaseSeconds: value.leaseSeconds,
    options: value.options };
}

const is_service_parts = (value: unknown): boolean =>
  isRow(value) &&
  (value.protocol === "tcp" || value.protocol === "udp" || value.protocol === "icmp") &&
  everyIs(value.ports, is_line_pins_service_ports) &&
  Object.keys(value).length === 2;

const is_service = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.name === "string" &&
  everyIs(value.parts, is_service_parts) &&
  everyIs(value.includes, is_room_beside) &&
  typeof value.note === "string" &&
  Object.keys(value).length === 5;

const read_service = (value: unknown): unknown =>
  is_service(value) ? value : MISFIT;

const is_conduit = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.name === "string" &&
  typeof value.securityLevel === "number" &&
  typeof value.owner === "string" &&
  typeof value.note === "string" &&
  Object.keys(value).length === 5;

const read_conduit = (value: unknown): unknown =>
  is_conduit(value) ? value : MISFIT;

const is_wall_from = (value: unknown): boolean =>
  isRow(value) &&
  (value.at === "zone") &&
  typeof value.zone === "string" &&
  Object.keys(value).length === 2;

const is_wall_from2 = (value: unknown): boolean =>
  isRow(value) &&
  (value.at === "internet") &&
  Object.keys(value).length === 1;

const is_wall_from3 = (value: unknown): boolean =>
  isRow(value) &&
  (value.at === "gateway") &&
  Object.keys(value).length === 1;

const is_wall_from4 = (value: unknown): boolean =>
  isRow(value) && (value.at === "zone" ? is_wall_from(value) :
  value.at === "internet" ? is_wall_from2(value) :
  value.at === "gateway" ? is_wall_from3(value) :
  false);

const is_wall = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  is_wall_from4(value.from) &&
  is_wall_from4(value.to) &&
  (value.door === "closed" || value.door === "open" || value.door === "services") &&
  everyIs(value.services, is_line_pins_service) &&
  typeof value.reason === "string" &&
  (value.conduit === null || typeof value.conduit === "string") &&
  Object.keys(value).length === 7;

const read_wall = (value: unknown): unknown =>
  is_wall(value) ? value : MISFIT;

const is_exception_hours = (value: unknown): boolean =>
  isRow(value) &&
  everyIs(value.days, is_device_tree_instances_vids) &&
  typeof value.from === "number" &&
  typeof value.to === "number" &&
  Object.keys(value).length === 3;

const read_exception_from = (value: unknown): unknown =>
  is_wall_from(value) ? value : MISFIT;

const is_exception_from = (value: unknown): boolean =>
  isRow(value) &&
  (value.at === "segment") &&
  typeof value.segment === "string" &&
  Object.keys(value).length === 2;

const read_exception_from2 = (value: unknown): unknown =>
  is_exception_from(value) ? value : MISFIT;

const is_exception_from2 = (value: unknown): boolean =>
  isRow(value) &&
  (value.at === "host") &&
  typeof value.host === "string" &&
  Object.keys(value).length === 2;

const read_exception_from3 = (value: unknown): unknown =>
  is_exception_from2(value) ? value : MISFIT;

function read_exception_from4(value: unknown): unknown {
  if (!(isRow(value) &&
    (value.at === "prefix") &&
    Object.keys(value).length === 2)) return MISFIT;
  const prefix = read_prefixField(value.prefix);
  if (prefix === MISFIT) return MISFIT;
  return { at: value.at, prefix };
}

const read_exception_from5 = (value: unknown): unknown =>
  is_wall_from2(value) ? value : MISFIT;

const read_exception_from6 = (value: unknown): unknown =>
  is_wall_from3(value) ? value : MISFIT;

const read_exception_from7 = (value: unknown): unknown =>
  !isRow(value) ? MISFIT : value.at === "zone" ? read_exception_from(value) :
  value.at === "segment" ? read_exception_from2(value) :
  value.at === "host" ? read_exception_from3(value) :
  value.at === "prefix" ? read_exception_from4(value) :
  value.at === "internet" ? read_exception_from5(value) :
  value.at === "gateway" ? read_exception_from6(value) :
  MISFIT;

function read_exception(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    typeof value.name === "string" &&
    everyIs(value.services, is_line_pins_service) &&
    typeof value.owner === "string" &&
    typeof value.reason === "string" &&
    (value.firstDay === null || typeof value.firstDay === "string") &&
    (value.lastDay === null || typeof value.lastDay === "string") &&
    (value.hours === null || is_exception_hours(value.hours)) &&
    (value.conduit === null || typeof value.conduit === "string") &&
    Object.keys(value).length === 11)) return MISFIT;
  const from = read_exception_from7(value.from);
  if (from === MISFIT) return MISFIT;
  const to = read_exception_from7(value.to);
  if (to === MISFIT) return MISFIT;
  return { id: value.id, name: value.name, from, to, services: value.services, owner: value.owner,
    reason: value.reason, firstDay: value.firstDay, lastDay: value.lastDay, hours: value.hours,
    conduit: value.conduit };
}

const read_rule_fromList = (value: unknown): unknown =>
  listOf(value, read_exception_from7);

function read_rule(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    typeof value.device === "string" &&
    typeof value.place === "number" &&
    everyIs(value.services, is_line_pins_service) &&
    (value.action === "accept" || value.action === "drop" || value.action === "reject") &&
    typeof value.enabled === "boolean" &&
    typeof value.log === "boolean" &&
    typeof value.note === "string" &&
    Object.keys(value).length === 10)) return MISFIT;
  const from = read_rule_fromList(value.from);
  if (from === MISFIT) return MISFIT;
  const to = read_rule_fromList(value.to);
  if (to === MISFIT) return MISFIT;
  return { id: value.id, device: value.device, place: value.place, from, to, services: value.services,
    action: value.action, enabled: value.enabled, log: value.log, note: value.note };
}

const is_signIn_timers = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.waitSeconds === "number" &&
  typeof value.tries === "number" &&
  typeof value.quietSeconds === "number" &&
  (value.againSeconds === null || typeof value.againSeconds === "number") &&
  typeof value.serverSeconds === "number" &&
  typeof value.serverTries === "number" &&
  typeof value.deadSeconds === "number" &&
  (value.testSeconds === null || typeof value.testSeconds === "number") &&
  Object.keys(value).length === 8;

const is_signIn = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.name === "string" &&
  everyIs(value.servers, is_room_beside) &&
  typeof value.port === "number" &&
  typeof value.byMac === "boolean" &&
  (value.visitors === null || typeof value.visitors === "number") &&
  (value.failed === null || typeof value.failed === "number") &&
  (value.serverDown === null || typeof value.serverDown === "number") &&
  (value.serverDownVoice === null || typeof value.serverDownVoice === "number") &&
  (value.stage === "watch" || value.stage === "limited" || value.stage === "closed") &&
  everyIs(value.before, is_line_pins_service) &&
  (value.hosts === "one" || value.hosts === "phone" || value.hosts === "several" || value.hosts === "many") &&
  (value.order === "signInFirst" || value.order === "macFirst") &&
  typeof value.signInWins === "boolean" &&
  typeof value.byAnswer === "boolean" &&
  (value.accountingPort === null || typeof value.accountingPort === "number") &&
  (value.changePort === null || typeof value.changePort === "number") &&
  is_signIn_timers(value.timers) &&
  everyIs(value.sends, is_device_tree_instances_vids) &&
  (value.certificateUntil === null || typeof value.certificateUntil === "string") &&
  typeof value.secretPlace === "string" &&
  typeof value.note === "string" &&
  Object.keys(value).length === 22;

const read_signIn = (value: unknown): unknown =>
  is_signIn(value) ? value : MISFIT;

function read_forward(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    typeof value.name === "string" &&
    typeof value.line === "string" &&
    (value.protocol === "tcp" || value.protocol === "udp") &&
    is_line_pins_service_ports(value.ports) &&
    typeof value.host === "string" &&
    (value.toPort === null || typeof value.toPort === "number") &&
    typeof value.hairpin === "boolean" &&
    (value.until === null || typeof value.until === "string") &&
    Object.keys(value).length === 10)) return MISFIT;
  const sources = read_site_blocksList(value.sources);
  if (sources === MISFIT) return MISFIT;
  return { id: value.id, name: value.name, line: value.line, protocol: value.protocol, ports: value.ports,
    host: value.host, toPort: value.toPort, hairpin: value.hairpin, sources, until: value.until };
}

const wish_wayValues = new Set<unknown>(["open", "forward", "vpn", "push", "ipv6"]);

function read_wish(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    typeof value.name === "string" &&
    typeof value.host === "string" &&
    is_line_pins_service(value.service) &&
    wish_wayValues.has(value.way) &&
    typeof value.note === "string" &&
    Object.keys(value).length === 7)) return MISFIT;
  const from = read_site_blocksList(value.from);
  if (from === MISFIT) return MISFIT;
  return { id: value.id, name: value.name, host: value.host, service: value.service, from, way: value.way,
    note: value.note };
}

const is_expectation_question_from = (value: unknown): boolean =>
  isRow(value) &&
  (value.at === "port") &&
  typeof value.port === "string" &&
  (value.tag === null || typeof value.tag === "number") &&
  Object.keys(value).length === 3;

const is_expectation_question_from2 = (value: unknown): boolean =>
  isRow(value) &&
  (value.at === "ssid") &&
  typeof value.ssid === "string" &&
  typeof value.device === "string" &&
  Object.keys(value).length === 3;

const is_expectation_question_from3 = (value: unknown): boolean =>
  isRow(value) &&
  (value.at === "internet") &&
  typeof value.line === "string" &&
  Object.keys(value).length === 2;

const is_expectation_question_from4 = (value: unknown): boolean =>
  isRow(value) &&
  (value.at === "tunnel") &&
  typeof value.segment === "string" &&
  Object.keys(value).length === 2;

const is_expectation_question_from5 = (value: unknown): boolean =>
  isRow(value) && (value.at === "port" ? is_expectation_question_from(value) :
  value.at === "ssid" ? is_expectation_question_from2(value) :
  value.at === "host" ? is_exception_from2(value) :
  value.at === "internet" ? is_expectation_question_from3(value) :
  value.at === "tunnel" ? is_expectation_question_from4(value) :
  false);

const is_expectation_question_goal = (value: unknown): boolean =>
  isRow(value) &&
  (value.to === "address") &&
  Object.keys(value).length === 1;

const is_expectation_question_goal2 = (value: unknown): boolean =>
  isRow(value) &&
  (value.to === "internet") &&
  (value.service === null || is_line_pins_service(value.service)) &&
  Object.keys(value).length === 2;

const is_expectation_question_goal3 = (value: unknown): boolean =>
  isRow(value) &&
  (value.to === "gateway") &&
  (value.service === null || is_line_pins_service(value.service)) &&
  Object.keys(value).length === 2;

const is_expectation_question_goal4 = (value: unknown): boolean =>
  isRow(value) &&
  (value.to === "device") &&
  typeof value.device === "string" &&
  (value.service === null || is_line_pins_service(value.service)) &&
  Object.keys(value).length === 3;

const is_expectation_question_goal5 = (value: unknown): boolean =>
  isRow(value) &&
  (value.to === "host") &&
  typeof value.host === "string" &&
  (value.service === null || is_line_pins_service(value.service)) &&
  Object.keys(value).length === 3;

const is_expectation_question_goal6 = (value: unknown): boolean =>
  isRow(value) &&
  (value.to === "forward") &&
  typeof value.forward === "string" &&
  Object.keys(value).length === 2;

const is_expectation_question_goal7 = (value: unknown): boolean =>
  isRow(value) &&
  (value.to === "port") &&
  typeof value.port === "string" &&
  (value.service === null || is_line_pins_service(value.service)) &&
  Object.keys(value).length === 3;

const is_expectation_question_goal8 = (value: unknown): boolean =>
  isRow(value) && (value.to === "address" ? is_expectation_question_goal(value) :
  value.to === "internet" ? is_expectation_question_goal2(value) :
  value.to === "gateway" ? is_expectation_question_goal3(value) :
  value.to === "device" ? is_expectation_question_goal4(value) :
  value.to === "host" ? is_expectation_question_goal5(value) :
  value.to === "forward" ? is_expectation_question_goal6(value) :
  value.to === "port" ? is_expectation_question_goal7(value) :
  false);

const is_expectation_question_as = (value: unknown): boolean =>
  isRow(value) &&
  (value.as === "client") &&
  Object.keys(value).length === 1;

const read_expectation_question_as = (value: unknown): unknown =>
  is_expectation_question_as(value) ? value : MISFIT;

const is_expectation_question_as2 = (value: unknown): boolean =>
  isRow(value) &&
  (value.as === "kind") &&
  typeof value.word === "string" &&
  Object.keys(value).length === 2;

const read_expectation_question_as2 = (value: unknown): unknown =>
  is_expectation_question_as2(value) ? value : MISFIT;

const read_expectation_question_as_gatewayOrNull = (value: unknown): unknown =>
  value === null ? null : read_addressField(value);

function read_expectation_question_as3(value: unknown): unknown {
  if (!(isRow(value) &&
    (value.as === "typed") &&
    typeof value.length === "number" &&
    Object.keys(value).length === 4)) return MISFIT;
  const address = read_addressField(value.address);
  if (address === MISFIT) return MISFIT;
  const gateway = read_expectation_question_as_gatewayOrNull(value.gateway);
  if (gateway === MISFIT) return MISFIT;
  return { as: value.as, address, length: value.length, gateway };
}

const is_expectation_question_as3 = (value: unknown): boolean =>
  isRow(value) &&
  (value.as === "behindPhone") &&
  Object.keys(value).length === 1;

const read_expectation_question_as4 = (value: unknown): unknown =>
  is_expectation_question_as3(value) ? value : MISFIT;

const is_expectation_question_as4 = (value: unknown): boolean =>
  isRow(value) &&
  (value.as === "falseServer") &&
  Object.keys(value).length === 1;

const read_expectation_question_as5 = (value: unknown): unknown =>
  is_expectation_question_as4(value) ? value : MISFIT;

const is_expectation_question_as5 = (value: unknown): boolean =>
  isRow(value) &&
  (value.as === "falseRouter") &&
  Object.keys(value).length === 1;

const read_expectation_question_as6 = (value: unknown): unknown =>
  is_expectation_question_as5(value) ? value : MISFIT;

function read_expectation_question_as7(value: unknown): unknown {
  if (!(isRow(value) &&
    (value.as === "spoofer") &&
    Object.keys(value).length === 2)) return MISFIT;
  const address = read_addressField(value.address);
  if (address === MISFIT) return MISFIT;
  return { as: value.as, address };
}

const read_expectation_question_as8 = (value: unknown): unknown =>
  !isRow(value) ? MISFIT : value.as === "client" ? read_expectation_question_as(value) :
  value.as === "kind" ? read_expectation_question_as2(value) :
  value.as === "typed" ? read_expectation_question_as3(value) :
  value.as === "behindPhone" ? read_expectation_question_as4(value) :
  value.as === "falseServer" ? read_expectation_question_as5(value) :
  value.as === "falseRouter" ? read_expectation_question_as6(value) :
  value.as === "spoofer" ? read_expectation_question_as7(value) :
  MISFIT;

function read_expectation_question(value: unknown): unknown {
  if (!(isRow(value) &&
    is_expectation_question_from5(value.from) &&
    is_scope_family(value.family) &&
    is_expectation_question_goal8(value.goal) &&
    Object.keys(value).length === 5)) return MISFIT;
  const as = read_expectation_question_as8(value.as);
  if (as === MISFIT) return MISFIT;
  const mac = read_device_bridgeMacOrNull(value.mac);
  if (mac === MISFIT) return MISFIT;
  return { from: value.from, as, mac, family: value.family, goal: value.goal };
}

function read_expectation(value: unknown): unknown {
  if (!(isRow(value) &&
    typeof value.id === "string" &&
    typeof value.name === "string" &&
    typeof value.passes === "boolean" &&
    (value.segment === null || typeof value.segment === "string") &&
    typeof value.note === "string" &&
    Object.keys(value).length === 6)) return MISFIT;
  const question = read_expectation_question(value.question);
  if (question === MISFIT) return MISFIT;
  return { id: value.id, name: value.name, question, passes: value.passes, segment: value.segment,
    note: value.note };
}

const is_acceptance = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.finding === "string" &&
  typeof value.says === "string" &&
  typeof value.reason === "string" &&
  typeof value.by === "string" &&
  (value.until === null || typeof value.until === "string") &&
  Object.keys(value).length === 6;

const read_acceptance = (value: unknown): unknown =>
  is_acceptance(value) ? value : MISFIT;

const is_window = (value: unknown): boolean =>
  isRow(value) &&
  typeof value.id === "string" &&
  typeof value.name === "string" &&
  typeof value.starts === "string" &&
  typeof value.minutes === "number" &&
  everyIs(value.segments, is_room_beside) &&
  typeof value.permit === "string" &&
  typeof value.consent === "string" &&
  typeof value.notes === "string" &&
  Object.keys(value).length === 8;

const read_window = (value: unknown): unknown =>
  is_window(value) ? value : MISFIT;

const write_prefixField = written(fields.prefixField);

const write_site_blocksList = (value: unknown): unknown =>
  writtenList(value, write_prefixField);

const write_addressField = written(fields.addressField);

const write_site_conventions_dnsServersList = (value: unknown): unknown =>
  writtenList(value, write_addressField);

const write_site_conventions = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, dnsServers: write_site_conventions_dnsServersList(value.dnsServers) };

const write_site_baseline = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, nameServers: write_site_conventions_dnsServersList(value.nameServers),
    timeServers: write_site_conventions_dnsServersList(value.timeServers),
    logTo: write_site_conventions_dnsServersList(value.logTo) };

const write_site_keepClear = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, prefix: write_prefixField(value.prefix) };

const write_site_keepClearList = (value: unknown): unknown =>
  writtenList(value, write_site_keepClear);

const write_site = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, blocks: write_site_blocksList(value.blocks),
    conventions: write_site_conventions(value.conventions), baseline: write_site_baseline(value.baseline),
    keepClear: write_site_keepClearList(value.keepClear) };

const write_same = (value: unknown): unknown =>
  value;

const write_ipv4Field = written(fields.ipv4Field);

const write_leaflet_address4OrNull = (value: unknown): unknown =>
  value === null ? null : write_ipv4Field(value);

const write_leaflet = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, address4: write_leaflet_address4OrNull(value.address4) };

const write_line_boxPrefixOrNull = (value: unknown): unknown =>
  value === null ? null : write_prefixField(value);

const write_ipv6Field = written(fields.ipv6Field);

const write_line_nextHop6OrNull = (value: unknown): unknown =>
  value === null ? null : write_ipv6Field(value);

const write_line_watch = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, targets: write_site_conventions_dnsServersList(value.targets) };

const write_prefix6Field = written(fields.prefix6Field);

const write_line_delegated_prefixOrNull = (value: unknown): unknown =>
  value === null ? null : write_prefix6Field(value);

const write_line_delegated = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, prefix: write_line_delegated_prefixOrNull(value.prefix) };

const write_line = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, boxPrefix: write_line_boxPrefixOrNull(value.boxPrefix),
    nextHop4: write_leaflet_address4OrNull(value.nextHop4),
    nextHop6: write_line_nextHop6OrNull(value.nextHop6),
    dns: write_site_conventions_dnsServersList(value.dns), watch: write_line_watch(value.watch),
    delegated: write_line_delegated(value.delegated) };

const write_prefix4Field = written(fields.prefix4Field);

const write_segment_prefixes4List = (value: unknown): unknown =>
  writtenList(value, write_prefix4Field);

const write_segment_prefixes6List = (value: unknown): unknown =>
  writtenList(value, write_prefix6Field);

const write_segment = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, prefixes4: write_segment_prefixes4List(value.prefixes4),
    prefixes6: write_segment_prefixes6List(value.prefixes6),
    dns: write_site_conventions_dnsServersList(value.dns),
    time: write_site_conventions_dnsServersList(value.time) };

const write_macField = written(fields.macField);

const write_device_bridgeMacOrNull = (value: unknown): unknown =>
  value === null ? null : write_macField(value);

const write_device_routes = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, prefix: write_prefixField(value.prefix),
    via: write_addressField(value.via) };

const write_device_routesList = (value: unknown): unknown =>
  writtenList(value, write_device_routes);

const write_device = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, bridgeMac: write_device_bridgeMacOrNull(value.bridgeMac),
    routes: write_device_routesList(value.routes), baseline: write_site_baseline(value.baseline) };

const write_gear = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, addresses: write_site_conventions_dnsServersList(value.addresses),
    prefixes: write_site_blocksList(value.prefixes) };

const write_interface_addresses4List = (value: unknown): unknown =>
  writtenList(value, write_ipv4Field);

const write_interface_addresses6List = (value: unknown): unknown =>
  writtenList(value, write_ipv6Field);

const write_interface = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, mac: write_device_bridgeMacOrNull(value.mac),
    addresses4: write_interface_addresses4List(value.addresses4),
    addresses6: write_interface_addresses6List(value.addresses6),
    relayTo: write_leaflet_address4OrNull(value.relayTo) };

const write_host = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, mac: write_device_bridgeMacOrNull(value.mac),
    ipv4: write_leaflet_address4OrNull(value.ipv4), ipv6: write_line_nextHop6OrNull(value.ipv6),
    gateway4: write_leaflet_address4OrNull(value.gateway4),
    gateway6: write_line_nextHop6OrNull(value.gateway6),
    dns: write_site_conventions_dnsServersList(value.dns) };

const write_scope_pools = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, first: write_addressField(value.first),
    last: write_addressField(value.last) };

const write_scope_poolsList = (value: unknown): unknown =>
  writtenList(value, write_scope_pools);

const write_scope = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, pools: write_scope_poolsList(value.pools),
    exclusions: write_scope_poolsList(value.exclusions) };

const write_exception_from = (value: unknown): unknown =>
  !isRow(value) ? value : value.at === "zone" ? write_same(value) :
  value.at === "segment" ? write_same(value) :
  value.at === "host" ? write_same(value) :
  value.at === "prefix" ? write_site_keepClear(value) :
  value.at === "internet" ? write_same(value) :
  value.at === "gateway" ? write_same(value) :
  value;

const write_exception = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, from: write_exception_from(value.from),
    to: write_exception_from(value.to) };

const write_rule_fromList = (value: unknown): unknown =>
  writtenList(value, write_exception_from);

const write_rule = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, from: write_rule_fromList(value.from),
    to: write_rule_fromList(value.to) };

const write_forward = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, sources: write_site_blocksList(value.sources) };

const write_wish = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, from: write_site_blocksList(value.from) };

const write_expectation_question_as_gatewayOrNull = (value: unknown): unknown =>
  value === null ? null : write_addressField(value);

const write_expectation_question_as = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, address: write_addressField(value.address),
    gateway: write_expectation_question_as_gatewayOrNull(value.gateway) };

const write_expectation_question_as2 = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, address: write_addressField(value.address) };

const write_expectation_question_as3 = (value: unknown): unknown =>
  !isRow(value) ? value : value.as === "client" ? write_same(value) :
  value.as === "kind" ? write_same(value) :
  value.as === "typed" ? write_expectation_question_as(value) :
  value.as === "behindPhone" ? write_same(value) :
  value.as === "falseServer" ? write_same(value) :
  value.as === "falseRouter" ? write_same(value) :
  value.as === "spoofer" ? write_expectation_question_as2(value) :
  value;

const write_expectation_question = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, as: write_expectation_question_as3(value.as),
    mac: write_device_bridgeMacOrNull(value.mac) };

const write_expectation = (value: unknown): unknown =>
  !isRow(value) ? value : { ...value, question: write_expectation_question(value.question) };

export const READERS: Readonly<Record<Kind, (value: unknown) => unknown>> = {
  site: read_site,
  domain: read_domain,
  zone: read_zone,
  room: read_room,
  hostKind: read_hostKind,
  deviceModel: read_deviceModel,
  leaflet: read_leaflet,
  template: read_template,
  line: read_line,
  vlan: read_vlan,
  segment: read_segment,
  device: read_device,
  gear: read_gear,
  deviceVlan: read_deviceVlan,
  lag: read_lag,
  port: read_port,
  link: read_link,
  interface: read_interface,
  ssid: read_ssid,
  radio: read_radio,
  host: read_host,
  scope: read_scope,
  service: read_service,
  conduit: read_conduit,
  wall: read_wall,
  exception: read_exception,
  rule: read_rule,
  signIn: read_signIn,
  forward: read_forward,
  wish: read_wish,
  expectation: read_expectation,
  acceptance: read_acceptance,
  window: read_window,
};

export const WRITERS: Readonly<Record<Kind, (value: unknown) => unknown>> = {
  site: write_site,
  domain: write_same,
  zone: write_same,
  room: write_same,
  hostKind: write_same,
  deviceModel: write_same,
  leaflet: write_leaflet,
  template: write_same,
  line: write_line,
  vlan: write_same,
  segment: write_segment,
  device: write_device,
  gear: write_gear,
  deviceVlan: write_same,
  lag: write_same,
  port: write_same,
  link: write_same,
  interface: write_interface,
  ssid: write_same,
  radio: write_same,
  host: write_host,
  scope: write_scope,
  service: write_same,
  conduit: write_same,
  wall: write_same,
  exception: write_exception,
  rule: write_rule,
  signIn: write_same,
  forward: write_forward,
  wish: write_wish,
  expectation: write_expectation,
  acceptance: write_same,
  window: write_same,
};
