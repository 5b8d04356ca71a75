import type { Abilities, RadioRules } from "./schema/abilities";
import type { Baseline } from "./schema/baseline";
import type { Paper } from "./schema/paper";
import type { Leaflet } from "./schema/leaflet";
import type { Device, Host, Link, Port } from "./schema/hardware";
import type { Line } from "./schema/line";
import type { Forward } from "./schema/reach";
import type { Exception, Rule, Segment, Ssid, Zone } from "./schema/separation";
import type { SignIn } from "./schema/protection";
import type { Gear, Room } from "./schema/survey";

// What a new entity has before anything is known of it. Everything but ids, names and references, which the
// planner gives.

export const BLANK_LINE: Omit<Line, "id" | "name"> = {
  access: "fibre",
  addressing: "dhcp",
  vlanTag: null,
  carrierNat: "unknown",
  providerBox: "none",
  boxForwards: false,
  boxPrefix: null,
  locked: "",
  downMbps: 0,
  upMbps: 0,
  length4: null,
  nextHop4: null,
  length6: null,
  nextHop6: null,
  dns: [],
  place: 0,
  share: 0,
  watch: { by: "link", targets: [], afterSeconds: 10, backSeconds: 60, returns: true },
  pins: [],
  marks: { kept: false, voicePriority: null },
  delegated: { length: null, prefix: null, keeps: false },
  dynamicName: { name: "", updatedBy: "gateway", account: "" },
};
/** What sign-in comes to where nothing else is said; the timers are those that IEEE 802.1X begins with. */
export const BLANK_SIGN_IN: Omit<SignIn, "id" | "name"> = {
  servers: [],
  port: 1812,
  byMac: false,
  visitors: null,
  failed: null,
  serverDown: null,
  serverDownVoice: null,
  stage: "closed",
  before: [],
  hosts: "several",
  order: "signInFirst",
  signInWins: true,
  byAnswer: false,
  accountingPort: null,
  changePort: null,
  timers: {
    waitSeconds: 30,
    tries: 3,
    quietSeconds: 60,
    againSeconds: null,
    serverSeconds: 5,
    serverTries: 2,
    deadSeconds: 0,
    testSeconds: null,
  },
  sends: [],
  certificateUntil: null,
  secretPlace: "",
  note: "",
};
export const BLANK_ZONE: Omit<Zone, "id" | "name"> = { insideOpen: false, level: "none", securityLevel: 0 };
export const BLANK_EXCEPTION: Omit<Exception, "id" | "name" | "from" | "to"> = {
  services: [],
  owner: "",
  reason: "",
  firstDay: null,
  lastDay: null,
  hours: null,
  conduit: null,
};
export const BLANK_SEGMENT: Omit<Segment, "id" | "zone" | "vlan" | "name" | "mark" | "tape"> = {
  prefixes4: [],
  prefixes6: [],
  gatewayInterface: null,
  dns: [],
  time: [],
  domainName: "",
  planned: 0,
  growth: 0,
  management: false,
  purpose: "other",
  group: "",
  advertise: "none",
  trafficClass: "bestEffort",
  visit: null,
  tunnel: null,
};
/** What gear that knows VLANs can usually do. */
export const USUAL_ABILITIES: Abilities = {
  maxVlans: null,
  mixesTagged: true,
  trees: ["rapid", "multiple"],
  snooping: true,
  arpInspection: true,
  signIn: true,
  ipv6Guards: true,
  sourceChecks: true,
  isolation: true,
  stormLimits: true,
  routes: false,
  ownTag: "accept",
  lists: "one",
  radios: false,
  fallsBack: false,
  lacks: [],
};
export const NO_ABILITIES: Abilities = {
  ...USUAL_ABILITIES,
  mixesTagged: false,
  trees: [],
  snooping: false,
  arpInspection: false,
  signIn: false,
  ipv6Guards: false,
  sourceChecks: false,
  isolation: false,
  stormLimits: false,
};
/** Nothing is said yet for the papers. */
export const NO_PAPER: Paper = { firm: "", customer: "", agreed: "", calls: "", linkBase: "" };
export const NO_RADIO_RULES: RadioRules = { region: "", channels: [] };
/** Whether stations can join it over the air: an access point, or a router with wireless in it. */
export const hasRadios = ({ kind, abilities }: Pick<Device, "kind" | "abilities">): boolean =>
  kind === "accessPoint" || abilities.radios;
/** Whether it stands between the inside and a line: a gateway, a firewall. */
export const isGateway = ({ kind }: Pick<Device, "kind">): boolean =>
  kind === "gateway" || kind === "firewall";
/** Whether a device is set up by administrators: gear that knows VLANs. What knows none has nothing to set. */
export const isAdministered = ({ bridging, kind }: Pick<Device, "bridging" | "kind">): boolean =>
  bridging === "vlan" && kind !== "providerBox" && kind !== "server";
export const BLANK_TREE: Device["tree"] = {
  kind: "none",
  priority: 32_768,
  costs: "long",
  region: "",
  revision: 0,
  helloSeconds: 2,
  maxAge: 20,
  forwardDelay: 15,
  hops: 20,
  instances: [],
  perVlan: [],
};
/** Nothing of how gear is administered is decided. */
export const NO_BASELINE: Baseline = {
  waysIn: [],
  idleMinutes: null,
  passwordLength: null,
  passwordDays: null,
  nameServers: [],
  timeServers: [],
  logTo: [],
  clock: "open",
  uplinks: "open",
  describes: "open",
};
export const NO_PROTECTIONS: Device["protections"] = {
  snooping: [],
  option82: false,
  arpInspection: [],
  bound: [],
  keepsBindings: false,
  routerGuard: [],
  dhcp6Guard: [],
};
/** By its own accounts. */
const LOCAL_ADMIN: Device["adminSignIn"] = {
  by: "local",
  servers: [],
  port: null,
  localAccount: true,
};
/** By what the walls need: everything else is dropped, answers pass. */
const PLANNED_FILTER: Device["filter"] = {
  list: "planned",
  forwardDefault: "drop",
  inputDefault: "drop",
  established: true,
  logsRefused: false,
  hostsOpen: false,
};
/**
 * A switch that routes filters nothing until somebody says so, and then without remembering what it let
 * through.
 */
const NO_FILTER: Device["filter"] = { ...PLANNED_FILTER, list: "none", established: false };
/** How a device of a kind filters, where nobody said it. */
export const usualFilter = (device: Pick<Device, "kind">): Device["filter"] =>
  isGateway(device) ? PLANNED_FILTER : NO_FILTER;
/** Whether what passes through a device, or is for itself, meets a list of rules there. */
export const isFilter = (device: Pick<Device, "kind" | "abilities" | "filter">): boolean =>
  device.filter.list !== "none" && (isGateway(device) || device.abilities.routes);
/**
 * Whether a filter remembers what it let through, so that the answers pass. A gateway that goes by what its
 * walls need always does.
 */
export const keepsState = (device: Pick<Device, "kind" | "filter">): boolean =>
  device.filter.established || (isGateway(device) && device.filter.list === "planned");
/** The metric of a route of which nobody said one. */
export const USUAL_METRIC = 1;

export const BLANK_DEVICE: Omit<Device, "id" | "kind" | "bridging" | "name" | "model" | "domain" | "filter"> =
  {
    place: "",
    abilities: USUAL_ABILITIES,
    rackUnit: null,
    heightUnits: 0,
    feed: "",
    backupFeed: "",
    poe: "asKind",
    poeBudgetMw: 0,
    poeOneLostMw: null,
    hears: [],
    repeatsDiscovery: [],
    bridgeMac: null,
    tree: BLANK_TREE,
    protections: NO_PROTECTIONS,
    adminSignIn: LOCAL_ADMIN,
    routes: [],
    defaultRoute: "asSegment",
    asksFrom: null,
    baseline: NO_BASELINE,
    serial: "",
    hardwareRevision: "",
    softwareFound: "",
    softwareWanted: "",
    registration: "",
    licenceUntil: null,
    supportUntil: null,
    credentialsPlace: "",
    vlanNameLimit: null,
    position: null,
    notes: "",
  };
export const BLANK_HOST: Omit<Host, "id" | "name"> = {
  kind: "pc",
  mac: null,
  manner: "dynamic",
  ipv4: null,
  ipv6: null,
  length4: null,
  gateway4: null,
  length6: null,
  gateway6: null,
  dns: [],
  segment: null,
  attachment: { at: "unplaced" },
  tag: null,
  changesMac: false,
  poe: "asKind",
  place: "",
  surveyed: null,
  notes: "",
};
export const BLANK_ROOM: Omit<Room, "id" | "name" | "position"> = {
  kind: "room",
  cabinet: null,
  cableCm: null,
  heightUnits: null,
  building: "",
  beside: [],
  group: "",
  needs: "",
};
export const BLANK_GEAR: Omit<Gear, "id" | "name"> = {
  kind: "switch",
  model: "",
  room: null,
  addresses: [],
  prefixes: [],
  dhcp: "unknown",
  facesInternet: false,
  supportUntil: null,
  fate: "keep",
  device: null,
  notes: "",
};

export const NO_GUARDS: Port["guards"] = {
  edge: false,
  bpduGuard: false,
  loopGuard: false,
  dhcpTrust: false,
  arpTrust: false,
  signIn: false,
  profile: null,
  macLimit: null,
  trustsMarks: false,
  restrictedRole: false,
  raTrust: false,
  sourceCheck: false,
  isolated: false,
  stormPercent: null,
};
export const BLANK_PORT: Omit<Port, "id" | "device" | "label" | "softwareName" | "position"> = {
  medium: "copper",
  speedMbps: 1000,
  optic: "none",
  lag: null,
  poeMw: 0,
  enabled: true,
  pvid: null,
  untagged: [],
  tagged: [],
  admit: "all",
  ingressFilter: true,
  treePriority: 128,
  treeCost: null,
  guards: NO_GUARDS,
  voicePolicy: null,
  note: "",
};
export const BLANK_LINK: Omit<Link, "id" | "a" | "b"> = {
  medium: "copper",
  cable: "unknown",
  lengthCm: null,
  label: "",
  panel: "",
  socket: "",
};
export const BLANK_SSID: Omit<Ssid, "id" | "name" | "segment"> = {
  moreSegments: [],
  security: "pskSae",
  profile: null,
  hidden: false,
  isolation: false,
  bands: ["2.4", "5"],
  at: [],
};
export const BLANK_FORWARD: Omit<Forward, "id" | "name" | "line" | "host"> = {
  protocol: "tcp",
  ports: [443, 443],
  toPort: null,
  hairpin: false,
  sources: [],
  until: null,
};
export const BLANK_RULE: Omit<Rule, "id" | "device" | "place"> = {
  from: [],
  to: [],
  services: [],
  action: "accept",
  enabled: true,
  log: false,
  note: "",
};

/** A leaflet that nobody has read yet. */
export const BLANK_LEAFLET: Omit<Leaflet, "id" | "model"> = {
  addressing: "unknown",
  address4: null,
  length4: null,
  gives: "unknown",
  opens: "",
  light: "",
  startSeconds: null,
  resetSeconds: null,
  restarts: false,
  nameRule: "any",
  nameMost: null,
  notes: "",
};
