import { z } from "zod";
import { abilitiesField, bandField, cableField, opticField, poeField } from "./abilities";
import {
  addressField,
  countField,
  dateField,
  groupField,
  idField,
  ipv4Field,
  ipv6Field,
  lineField,
  longText,
  macField,
  nameField,
  setField,
  shortText,
  textField,
  vidField,
} from "./fields";
import { baselineField } from "./baseline";
import { HOST_KINDS } from "./host-kinds";
import { adminSignInSchema, protectionsSchema, treeSchema } from "./protection";
import { routeSchema } from "./reach";
import { relayField } from "./separation";

/** How a device filters what passes through it. */
const filterField = groupField(
  z.strictObject({
    list: z.enum(["planned", "found", "none"]).meta({
      description:
        "planned: by the rules that its walls need; found: by the rules that stand on it; none: not at all",
    }),
    forwardDefault: z.enum(["accept", "drop", "reject"]).meta({
      description: "What happens to what passes through it and no rule takes",
    }),
    inputDefault: z.enum(["accept", "drop", "reject"]).meta({
      description: "What happens to what is for the device itself and no rule takes",
    }),
    established: z
      .boolean()
      .meta({ description: "Whether answers to what was let through pass before any rule" }),
    logsRefused: z.boolean().meta({ description: "Whether what no rule takes is recorded" }),
    hostsOpen: z
      .boolean()
      .meta({ description: "Whether hosts inside may open ports on it for themselves (RFC 6887)" }),
  }),
);

/** Anything with more than one port or more than one address. */
export const deviceSchema = z.strictObject({
  id: idField,
  kind: z.enum(["gateway", "firewall", "switch", "accessPoint", "providerBox", "converter", "server"]),
  bridging: z
    .enum(["vlan", "plain", "none"])
    .meta({ description: "vlan: knows VLANs; plain: passes every tag untouched; none: does not bridge" }),
  name: nameField,
  model: shortText,
  domain: idField.nullable(),
  place: shortText,
  abilities: abilitiesField,
  rackUnit: z
    .int()
    .min(1)
    .max(100)
    .nullable()
    .meta({ description: "The lowest height unit it fills in its cabinet, counted from the floor" }),
  heightUnits: countField(60).meta({
    description: "Height units it fills; 0 for gear that is not made for a cabinet",
  }),
  feed: shortText.meta({ description: "What feeds it: a socket, a circuit, an uninterruptible supply" }),
  backupFeed: shortText.meta({ description: "What feeds its second supply; empty without one" }),
  poe: poeField,
  poeBudgetMw: countField(10_000_000),
  poeOneLostMw: countField(10_000_000)
    .nullable()
    .meta({ description: "Power it can still give with one supply lost; null when it has one supply only" }),
  bridgeMac: macField.nullable().meta({
    description:
      "The MAC address in its bridge identifier (IEEE 802.1Q section 14.2.5): " +
      "of equal priorities the lower one is the root; null when not known",
  }),
  tree: treeSchema,
  protections: protectionsSchema,
  adminSignIn: adminSignInSchema,
  routes: z
    .array(routeSchema)
    .max(256)
    .meta({ description: "Routes entered by hand, beside those to its own segments" }),
  defaultRoute: z.enum(["asSegment", "none"]).meta({
    description:
      "asSegment: its own traffic leaves by the gateway of its management segment, a gateway's by its line",
  }),
  filter: filterField,
  asksFrom: idField.nullable().meta({
    description:
      "The leg that its own questions leave from (sign-in, " +
      "time); null: the first of its legs with an address",
  }),
  baseline: baselineField.meta({ description: "How it is administered; the site says what is usual" }),
  serial: lineField(60).meta({ description: "The serial number on its case" }),
  hardwareRevision: lineField(40),
  softwareFound: lineField(60).meta({ description: "The version of its software as it was found" }),
  softwareWanted: lineField(60).meta({ description: "The version it has to run; empty: any" }),
  registration: shortText.meta({ description: "Where it is registered, and for what it has a licence" }),
  licenceUntil: dateField.nullable(),
  supportUntil: dateField.nullable(),
  credentialsPlace: shortText.meta({ description: "Where the credentials are kept; never the credentials" }),
  vlanNameLimit: z
    .int()
    .min(1)
    .max(80)
    .nullable()
    .meta({ description: "The longest VLAN name its software takes; null when not known" }),
  hears: setField(z.array(idField).max(200)).meta({
    description: "Access points whose radio it hears, beside those in the same or an adjacent room",
  }),
  repeatsDiscovery: setField(z.array(idField).max(64)).meta({
    description: "Segments of which it tells each what the others offer (RFC 6762, RFC 6763)",
  }),
  position: z.strictObject({ x: z.int().min(-1e6).max(1e6), y: z.int().min(-1e6).max(1e6) }).nullable(),
  notes: longText,
});
export type Device = z.output<typeof deviceSchema>;

const guardsSchema = groupField(
  z.strictObject({
    edge: z.boolean(),
    bpduGuard: z.boolean(),
    loopGuard: z.boolean(),
    dhcpTrust: z.boolean(),
    arpTrust: z.boolean(),
    signIn: z.boolean(),
    profile: idField.nullable().meta({
      description:
        "The sign-in profile (IEEE 802.1X) that the port uses; null: the only one, if there is one",
    }),
    macLimit: z.int().min(1).max(4096).nullable(),
    raTrust: z.boolean().meta({
      description: "Router advertisements may come in here (RFC 6105); asked where they are guarded",
    }),
    sourceCheck: z.boolean().meta({
      description: "Only IPv4 packets from addresses that are bound to the port pass (RFC 7039)",
    }),
    isolated: z.boolean().meta({ description: "Sends nothing to other isolated ports of the same device" }),
    stormPercent: z
      .int()
      .min(1)
      .max(100)
      .nullable()
      .meta({ description: "Most part of its speed that flooded frames may fill; null for no limit" }),
    trustsMarks: z.boolean().meta({
      description: "Keeps the marks (DSCP, PCP) of what comes in; else it gets the class of its segment",
    }),
    restrictedRole: z
      .boolean()
      .meta({ description: "Never becomes the way to the root (IEEE 802.1Q section 13.27.64)" }),
  }),
);

/** What a port announces to phones (LLDP-MED network policy, ANSI/TIA-1057 section 10.2.3). */
const voicePolicySchema = z
  .strictObject({
    vid: vidField,
    priority: z.int().min(0).max(7).meta({ description: "The priority in the tag (IEEE 802.1Q)" }),
    dscp: z.int().min(0).max(63),
  })
  .meta({ description: "What it announces to phones (LLDP-MED network policy); null for nothing" });
export type VoicePolicy = z.output<typeof voicePolicySchema>;

/** Several ports of one device as one (IEEE 802.1AX); the ports name it. */
export const lagSchema = z.strictObject({
  id: idField,
  device: idField,
  name: nameField,
  mode: z.enum(["static", "active", "passive"]).meta({
    description: "static: without a protocol; active or passive: with the link aggregation control protocol",
  }),
});
export type Lag = z.output<typeof lagSchema>;

/**
 * `label` is printed on the case, `softwareName` is what the software calls it. Membership may be
 * inconsistent: a finding.
 */
export const portSchema = z.strictObject({
  id: idField,
  device: idField,
  label: lineField(24).min(1),
  softwareName: lineField(40),
  position: countField(10_000),
  medium: z.enum(["copper", "fibre", "directAttach", "combo"]),
  speedMbps: countField(1_000_000),
  optic: opticField,
  lag: idField.nullable(),
  poeMw: countField(100_000).meta({ description: "Power this port can give; 0 for none" }),
  enabled: z.boolean(),
  pvid: vidField.nullable(),
  untagged: setField(z.array(vidField).max(4094)),
  tagged: setField(z.array(vidField).max(4094)),
  admit: z.enum(["all", "tagged", "untagged"]),
  ingressFilter: z.boolean(),
  treePriority: z
    .int()
    .min(0)
    .max(240)
    .refine((n) => n % 16 === 0, "A port's priority comes in steps of 16"),
  treeCost: z
    .int()
    .min(1)
    .max(200_000_000)
    .nullable()
    .meta({ description: "Path cost entered by hand; null takes it from the speed" }),
  guards: guardsSchema,
  voicePolicy: voicePolicySchema.nullable(),
  note: shortText,
});
export type Port = z.output<typeof portSchema>;

export const linkSchema = z.strictObject({
  id: idField,
  a: idField,
  b: idField,
  medium: z.enum(["copper", "fibre", "directAttach"]),
  cable: cableField,
  lengthCm: countField(10_000_000).nullable(),
  label: shortText,
  panel: shortText.meta({ description: "The port of the patch panel it is patched through" }),
  socket: shortText.meta({ description: "The label of the socket at its far end" }),
});
export type Link = z.output<typeof linkSchema>;

/**
 * A device's leg in a segment or on a line; `port` is set for a routed port and null for a leg in the
 * device's VLAN.
 */
export const interfaceSchema = z.strictObject({
  id: idField,
  device: idField,
  port: idField.nullable(),
  segment: idField.nullable(),
  line: idField.nullable(),
  name: nameField,
  mac: macField.nullable(),
  addresses4: z.array(ipv4Field).max(16),
  addresses6: z.array(ipv6Field).max(16),
  relayTo: relayField,
  translates: z.enum(["asUsual", "yes", "no"]).meta({
    description:
      "Whether what leaves here gets this leg's address (NAT); as usual: on a line yes, in a segment no",
  }),
});
export type Interface = z.output<typeof interfaceSchema>;

const attachmentSchema = z.discriminatedUnion("at", [
  z.strictObject({ at: z.literal("port"), port: idField }),
  z.strictObject({
    at: z.literal("ssid"),
    ssid: idField,
    accessPoint: idField.nullable().meta({
      description:
        "Where it is planned to join; null, or where that one does not offer the name: the nearest that does",
    }),
  }),
  z.strictObject({ at: z.literal("behind"), host: idField }),
  z.strictObject({ at: z.literal("unplaced") }),
]);

/** An end device with one interface. */
export const hostSchema = z.strictObject({
  id: idField,
  name: nameField,
  kind: z.enum(HOST_KINDS),
  mac: macField.nullable(),
  manner: z
    .enum(["typed", "reserved", "dynamic"])
    .meta({ description: "static on the device, reserved in DHCP, or given by DHCP" }),
  ipv4: ipv4Field.nullable(),
  ipv6: ipv6Field.nullable(),
  length4: z
    .int()
    .min(1)
    .max(32)
    .nullable()
    .meta({ description: "Its own prefix length, where what is entered on it differs from its segment's" }),
  gateway4: ipv4Field
    .nullable()
    .meta({ description: "Its own IPv4 gateway, where it differs from its segment's" }),
  length6: z
    .int()
    .min(1)
    .max(128)
    .nullable()
    .meta({ description: "Its own IPv6 prefix length, where it differs" }),
  gateway6: ipv6Field.nullable().meta({ description: "Its own IPv6 gateway, where it differs" }),
  dns: z
    .array(addressField)
    .max(8)
    .meta({ description: "Its own name servers, where they differ; empty: as its segment" }),
  segment: idField.nullable(),
  attachment: attachmentSchema,
  tag: vidField.nullable().meta({ description: "The VLAN tag it sends, or null" }),
  changesMac: z
    .boolean()
    .meta({ description: "Shows another MAC address than its own, and from time to time a new one" }),
  poe: poeField,
  place: shortText,
  surveyed: z
    .strictObject({ room: idField, what: shortText })
    .nullable()
    .meta({ description: "The survey's line it was drafted from: the room and the kind in its words" }),
  notes: longText,
});
export type Host = z.output<typeof hostSchema>;

/**
 * A VLAN as one device itself has created it; a device without any is taken to know whatever its ports carry.
 */
export const deviceVlanSchema = z.strictObject({
  id: idField,
  device: idField,
  vid: vidField,
  name: lineField(80),
});

/** A radio of an access point; `channel` is the primary 20 MHz channel. */
export const radioSchema = z.strictObject({
  id: idField,
  device: idField,
  band: bandField,
  enabled: z.boolean(),
  channel: z.int().min(1).max(253).nullable(),
  widthMhz: z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160), z.literal(320)]),
  power: shortText.meta({ description: "A note on its power, by the local rules" }),
});
export type Radio = z.output<typeof radioSchema>;

/**
 * A run of like ports on a generic model; the numbers on the case run on from one run without a word before
 * it to the next.
 */
const portRunSchema = z.strictObject({
  count: z.int().min(1).max(512),
  prefix: lineField(12).meta({ description: "What stands before the number on the case" }),
  soft: lineField(20).meta({
    description: "What stands before the number in the software, which counts from 0",
  }),
  medium: z.enum(["copper", "fibre", "directAttach", "combo"]),
  speedMbps: countField(1_000_000),
  poeMw: countField(100_000),
});

/** A generic model of the site's own, beside those of the catalogue. */
export const deviceModelSchema = z.strictObject({
  id: idField,
  name: nameField,
  kind: deviceSchema.shape.kind,
  bridging: deviceSchema.shape.bridging,
  runs: z.array(portRunSchema).min(1, "A model has at least one run of ports").max(16),
  poeBudgetMw: countField(10_000_000),
  poeOneLostMw: countField(10_000_000).nullable(),
  heightUnits: countField(60),
  abilities: abilitiesField,
});
export type OwnModel = z.output<typeof deviceModelSchema>;

/** Text for a device's own software, written by the user; filled with what the device's sheet holds. */
export const templateSchema = z.strictObject({
  id: idField,
  name: nameField,
  ending: z.string().regex(/^[a-z0-9]{1,8}$/, "A file's ending is 1 to 8 small letters or digits"),
  text: textField(20_000, "A template has at most 20,000 characters").refine(
    (text) => !text.includes("\u0000"),
    "No control characters here",
  ),
});
export type Template = z.output<typeof templateSchema>;
