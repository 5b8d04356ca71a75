import { z } from "zod";
import { equal } from "../kernel";
import {
  entityOf,
  KIND_WORDS,
  KINDS,
  nameOf,
  SCHEMAS,
  UUID,
  type Change,
  type Clash,
  type Entity,
  type Kind,
  type PlanIndex,
} from "../plan";
import { encodeClash } from "./clash-codec";

/** One field of a change in words: both values as a person reads them. */
export interface FieldChange {
  readonly field: string;
  readonly before: string;
  readonly after: string;
}
/**
 * One entity's change: what happens to it, its name, and the fields that differ (none for a new or removed
 * one).
 */
export interface DescribedChange {
  readonly what: "new" | "changed" | "removed";
  readonly kind: Kind;
  readonly name: string;
  readonly fields: readonly FieldChange[];
}

const FIELD_WORDS: Readonly<Record<string, string>> = {
  pvid: "PVID",
  untagged: "untagged",
  tagged: "tagged",
  enabled: "switched on",
  ipv4: "IPv4",
  ipv6: "IPv6",
  mac: "MAC",
  manner: "how",
  dns: "DNS",
  prefixes4: "subnet",
  prefixes6: "IPv6 subnet",
  pools: "pool",
  exclusions: "left out of the pool",
  leaseSeconds: "lease in s",
  gatewayInterface: "gateway",
  addresses4: "address",
  addresses6: "IPv6 address",
  planned: "planned",
  attachment: "plugged in",
  vid: "VLAN ID",
  door: "door",
  services: "services",
  admit: "admits",
  guards: "guards",
  insideOpen: "inside open",
  lengthCm: "length in cm",
  timeZone: "time zone",
  keepClear: "keep clear",
  domainName: "domain name",
  supportUntil: "support until",
  credentialsPlace: "credentials kept",
  poeBudgetMw: "PoE budget in mW",
  serverDevice: "server",
  serverHost: "server",
  poeOneLostMw: "PoE with one supply lost in mW",
  heightUnits: "fills height units",
  backupFeed: "second feed",
  feed: "fed by",
  at: "offered at",
  moreSegments: "or, by sign-in",
  hears: "hears",
  speedMbps: "speed in Mbit/s",
  poeMw: "gives mW",
  macLimit: "MAC limit",
  wifiNames: "wireless names",
  lag: "LAG",
  maxVlans: "most VLANs",
  mixesTagged: "mixes untagged and tagged",
  gateway6: "own IPv6 gateway",
  bridgeMac: "bridge MAC",
  asksFrom: "asks its servers from",
  accessPoint: "at",
  profile: "802.1X profile",
  prefix: "subnet",
  prefix6: "IPv6 subnet",
  length4: "mask",
  length6: "IPv6 prefix length",
  gateway4: "own gateway",
  nextHop4: "next hop",
  nextHop6: "IPv6 next hop",
  rackUnit: "height unit",
  poeBudget: "PoE budget in W",
  poeOneLost: "PoE with one supply lost in W",
  downMbps: "down Mbit/s",
  upMbps: "up Mbit/s",
  vlanTag: "tag wanted",
  bpduGuard: "BPDU guard",
  raTrust: "RA trusted",
  sourceCheck: "source check",
  isolated: "isolated",
  stormPercent: "storm limit in %",
  voicePolicy: "tells phones",
  dscp: "DSCP",
  changesMac: "changes its MAC address",
  adminSignIn: "administrators sign in",
  localAccount: "local account",
  servers: "servers",
  certificateUntil: "certificate until",
  keepsBindings: "bindings kept over a restart",
  routerGuard: "router advertisements guarded",
  dhcp6Guard: "DHCPv6 guarded",
  ipv6Guards: "guards of IPv6",
  sourceChecks: "source checks",
  stormLimits: "storm limits",
  helloSeconds: "hello time in s",
  maxAge: "maximum age in s",
  forwardDelay: "forward delay in s",
  forwardDefault: "passing through without a rule",
  inputDefault: "to itself without a rule",
  established: "answers first",
  list: "filters by",
  dhcpTrust: "DHCP trusted",
  arpTrust: "ARP trusted",
  option82: "option 82",
  signIn: "802.1X",
  poeClass: "PoE class",
  speaksDhcp: "speaks DHCP",
  speaksSignIn: "speaks 802.1X",
  byMac: "by MAC address",
  serverDown: "VLAN without a server",
  serverDownVoice: "VLAN of phones without a server",
  before: "passes before a sign-in",
  hosts: "host mode",
  order: "tried first",
  signInWins: "a sign-in takes over",
  byAnswer: "VLAN by RADIUS",
  accountingPort: "accounting port",
  changePort: "CoA port",
  sends: "RADIUS attributes",
  secretPlace: "secret kept",
  waitSeconds: "waits s",
  quietSeconds: "quiet period s",
  againSeconds: "re-authentication s",
  serverSeconds: "server timeout s",
  serverTries: "server tries",
  deadSeconds: "dead time s",
  testSeconds: "tested every s",
  carrierNat: "carrier-grade NAT",
  providerBox: "provider's box",
  share: "share in %",
  watch: "loss noticed",
  afterSeconds: "next after s",
  backSeconds: "back after s",
  returns: "comes back by itself",
  pins: "pinned",
  dynamicName: "name that follows",
  marks: "marks",
  delegated: "delegated prefix",
  repeatsDiscovery: "discovery told between",
  securityLevel: "security level",
  includes: "takes in",
  voicePriority: "priority of calls",
  trafficClass: "class of traffic",
  trustsMarks: "marks kept",
  updatedBy: "updated by",
  orElse: "while it is down",
  firstDay: "from day",
  lastDay: "last day",
  widthMhz: "width in MHz",
  arpInspection: "ARP inspection",
  snooping: "DHCP snooping",
  waysIn: "ways in",
  idleMinutes: "signed out after min",
  passwordLength: "password, fewest characters",
  passwordDays: "password changed after days",
  nameServers: "name servers of its own",
  timeServers: "time servers",
  logTo: "log sent to",
  uplinks: "ports to other gear",
  describes: "says where ports lead",
  serial: "serial number",
  softwareFound: "software found",
  softwareWanted: "software wanted",
  licenceUntil: "licence until",
  registration: "registered",
  lacks: "does not do",
  fallsBack: "falls back unless confirmed",
  segments: "may stop",
};

/** A field's name as a person says it. */
export const fieldWord = (field: string): string =>
  FIELD_WORDS[field] ?? field.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

/** Words of our own for values of choices, where taking the value apart would not say it. */
const VALUE_WORDS: Readonly<Record<string, string>> = {
  typed: "static",
  dynamic: "by DHCP",
  dhcp: "DHCP",
  dsl: "DSL",
  pc: "PC",
  ioIsland: "I/O island",
  asUsual: "as usual",
  planned: "what its walls need",
  found: "what stands on it",
  dmz: "DMZ",
  vpn: "VPN",
  push: "push out",
  ipv6: "IPv6",
  asKind: "as its kind usually does",
  asSegment: "by the gateway of its segment",
  cannotBridge: "cannot bridge",
  providerBox: "provider's box",
  wayBack: "rescue port",
  slaac: "SLAAC",
  psk: "PSK",
  pskSae: "PSK and SAE",
  pskTkip: "PSK with TKIP",
  sae: "SAE",
  owe: "OWE",
  wep: "WEP",
  enterprise192: "enterprise, 192 bit",
  perVlan: "one for each VLAN",
  vlans: "VLANs",
  gap: "separate gear",
  auto: "what fits the survey",
  radius: "RADIUS",
  tacacs: "TACACS+",
  signInFirst: "sign-in",
  macFirst: "MAC address",
  https: "web over TLS",
  http: "web without TLS",
  ssh: "SSH",
  telnet: "Telnet",
  snmpV3: "SNMPv3",
  snmpV2: "SNMPv1 or v2c",
};

/**
 * Every value that some field of the plan is chosen from, so that a text a person wrote is never taken for
 * one.
 */
let choices: ReadonlySet<string> | null = null;
function isChoice(text: string): boolean {
  choices ??= new Set(
    [
      ...JSON.stringify(
        Object.values(SCHEMAS).map((schema) =>
          z.toJSONSchema(schema as z.ZodType, { io: "input", unrepresentable: "any" }),
        ),
      ).matchAll(/"enum":(\[[^\]]*\])/g),
    ].flatMap(([, list]) =>
      (JSON.parse(list ?? "[]") as unknown[]).filter((one): one is string => typeof one === "string"),
    ),
  );
  return choices.has(text);
}

/** A choice's value as a person says it: "cannot bridge", never "cannotBridge". */
const choiceWords = (value: string): string =>
  VALUE_WORDS[value] ?? value.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

/** The changes in words, new names from the plan as it would be, old ones from the plan as it is. */
export function describeChanges(
  before: PlanIndex,
  after: PlanIndex,
  changes: readonly Change[],
): DescribedChange[] {
  return changes.map((change): DescribedChange => {
    const kept = change.after === null ? "removed" : "changed";
    const what = change.before === null ? "new" : kept;
    const named = change.after === null ? before : after;
    return {
      what,
      kind: change.kind,
      name: nameOf(named, change.kind, change.id),
      fields: what === "changed" ? fieldsOf(before, after, change) : [],
    };
  });
}

function fieldsOf(
  before: PlanIndex,
  after: PlanIndex,
  { kind, before: was, after: is }: Change,
): FieldChange[] {
  if (was === null || is === null) return [];
  const [left, right] = [textSide(kind, was), textSide(kind, is)];
  return differing(left, right).flatMap((field): FieldChange[] => {
    const [old, now] = [left[field], right[field]];
    const word = fieldWord(field);
    const parts = isSettings(old) && isSettings(now) ? differing(old, now) : [];
    return isSettings(old) && isSettings(now) && parts.length > 0
      ? parts.map((part) => ({
          field: `${word}: ${fieldWord(part)}`,
          before: valueWords(before, old[part]),
          after: valueWords(after, now[part]),
        }))
      : [{ field: word, before: valueWords(before, old), after: valueWords(after, now) }];
  });
}

const differing = (left: Record<string, unknown>, right: Record<string, unknown>): string[] =>
  Object.keys(right).filter((field) => !equal(left[field], right[field]));

/** A group of settings, of which only those that differ are told; a place is one thing. */
const isSettings = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" &&
  value !== null &&
  !Array.isArray(value) &&
  !("at" in value) &&
  !("name" in value);

const textSide = (kind: Kind, entity: Entity): Record<string, unknown> =>
  z.encode(SCHEMAS[kind] as z.ZodType, entity) as Record<string, unknown>;

/** "a, b", "none", a name for an id: a value of the plan file's form in words. */
export function valueWords(index: PlanIndex, value: unknown): string {
  if (value === null || value === "") return "none";
  if (value === true) return "yes";
  if (value === false) return "no";
  if (Array.isArray(value))
    return value.length === 0 ? "none" : value.map((item) => valueWords(index, item)).join(", ");
  if (typeof value === "object") return objectText(index, value as Record<string, unknown>);
  const text = String(value);
  if (!UUID.test(text)) return isChoice(text) ? choiceWords(text) : text;
  const kind = KINDS.find((k) => entityOf(index.plan, k, text) !== undefined);
  return kind === undefined ? "something removed" : nameOf(index, kind, text);
}

/** Places that are one of a kind. */
const PLACE_WORDS: Readonly<Record<string, string>> = { internet: "Internet", gateway: "Gateway" };

function objectText(index: PlanIndex, value: Record<string, unknown>): string {
  if ("first" in value && "last" in value)
    return `${valueWords(index, value.first)} to ${valueWords(index, value.last)}`;
  if (value.at === "unplaced") return "nowhere";
  if (typeof value.at === "string" && Object.keys(value).length === 1)
    return PLACE_WORDS[value.at] ?? value.at;
  if ("name" in value) return valueWords(index, value.name);
  const parts = Object.entries(value).filter(
    ([, inner]) => inner !== false && inner !== null && inner !== "",
  );
  return parts.length === 0
    ? "none"
    : parts
        .map(([key, inner]) => {
          if (inner === true) return fieldWord(key);
          if (key === "at") return "";
          if (typeof inner === "number") return `${fieldWord(key)} ${inner}`;
          return valueWords(index, inner);
        })
        .filter((t) => t !== "")
        .join(", ");
}

/** "2 new, 1 changed": how much a batch does. */
export function countChanges(changes: readonly Change[]): string {
  const count = (test: (change: Change) => boolean) => changes.filter(test).length;
  const parts = [
    [count((c) => c.before === null), "new"],
    [count((c) => c.before !== null && c.after !== null), "changed"],
    [count((c) => c.after === null), "removed"],
  ] as const;
  return (
    parts
      .filter(([n]) => n > 0)
      .map(([n, word]) => `${n} ${word}`)
      .join(", ") || "nothing changes"
  );
}

/** "port", "VLAN": the word for a kind, for headings. */
export const kindWord = (kind: Kind): string => KIND_WORDS[kind];

export interface ClashSides {
  readonly field: string;
  readonly mine: string;
  readonly theirs: string;
}

/** Both sides of a clash in words. */
export const clashSides = (index: PlanIndex, clash: Clash): ClashSides =>
  encodedClashSides(index, encodeClash(clash));

/** The same for a clash as the server sends it: its values in the plan file's form. */
export function encodedClashSides(
  index: PlanIndex,
  { field, mine, theirs }: Pick<Clash, "field" | "mine" | "theirs">,
): ClashSides {
  if (field === null)
    return {
      field: "all of it",
      mine: mine === null ? "removed" : "changed",
      theirs: theirs === null ? "removed" : "changed",
    };
  return { field: fieldWord(field), mine: valueWords(index, mine), theirs: valueWords(index, theirs) };
}
