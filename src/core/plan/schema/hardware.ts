import { z } from "zod";
import { countField, idField, ipv4Field, ipv6Field, longText, macField, nameField, shortText, vidField } from "./fields";
import { HOST_KINDS } from "./host-kinds";
import { relayField } from "./separation";

/** Anything with more than one port or more than one address. */
export const deviceSchema = z.strictObject({
  id: idField,
  kind: z.enum(["gateway", "switch", "accessPoint", "providerBox", "converter", "server"]),
  bridging: z.enum(["vlan", "plain", "none"]).meta({ description: "vlan: knows VLANs; plain: passes every tag untouched; none: does not bridge" }),
  name: nameField,
  model: shortText,
  domain: idField.nullable(),
  place: shortText,
  poeBudgetMw: countField(10_000_000),
  tree: z.strictObject({ kind: z.enum(["none", "rapid", "multiple", "perVlan"]), priority: countField(61_440) }),
  supportUntil: z.iso.date().nullable(),
  credentialsPlace: shortText.meta({ description: "Where the credentials are kept; never the credentials" }),
  vlanNameLimit: z.int().min(1).max(80).nullable().meta({ description: "The longest VLAN name its software takes; null when not known" }),
  position: z.strictObject({ x: z.int().min(-1e6).max(1e6), y: z.int().min(-1e6).max(1e6) }).nullable(),
  notes: longText,
});
export type Device = z.output<typeof deviceSchema>;

export const guardsSchema = z.strictObject({
  edge: z.boolean(),
  bpduGuard: z.boolean(),
  loopGuard: z.boolean(),
  dhcpTrust: z.boolean(),
  arpTrust: z.boolean(),
  signIn: z.boolean(),
  macLimit: z.int().min(1).max(4096).nullable(),
});

/** `label` is printed on the case, `softwareName` is what the software calls it. Membership may be inconsistent: a finding. */
export const portSchema = z.strictObject({
  id: idField,
  device: idField,
  label: z.string().min(1).max(24),
  softwareName: z.string().max(40),
  position: countField(10_000),
  medium: z.enum(["copper", "fibre", "directAttach", "combo"]),
  speedMbps: countField(1_000_000),
  poeMw: countField(100_000).meta({ description: "Power this port can give; 0 for none" }),
  enabled: z.boolean(),
  pvid: vidField.nullable(),
  untagged: z.array(vidField).max(4094),
  tagged: z.array(vidField).max(4094),
  admit: z.enum(["all", "tagged", "untagged"]),
  ingressFilter: z.boolean(),
  guards: guardsSchema,
  note: shortText,
});
export type Port = z.output<typeof portSchema>;

export const linkSchema = z.strictObject({
  id: idField,
  a: idField,
  b: idField,
  medium: z.enum(["copper", "fibre", "directAttach"]),
  lengthCm: countField(10_000_000).nullable(),
  label: shortText,
});
export type Link = z.output<typeof linkSchema>;

/** A device's leg in a segment or on a line; `port` is set for a routed port and null for a leg in the device's VLAN. */
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
});
export type Interface = z.output<typeof interfaceSchema>;

export const attachmentSchema = z.discriminatedUnion("at", [
  z.strictObject({ at: z.literal("port"), port: idField }),
  z.strictObject({ at: z.literal("ssid"), ssid: idField }),
  z.strictObject({ at: z.literal("behind"), host: idField }),
  z.strictObject({ at: z.literal("unplaced") }),
]);

/** An end device with one interface. */
export const hostSchema = z.strictObject({
  id: idField,
  name: nameField,
  kind: z.enum(HOST_KINDS),
  mac: macField.nullable(),
  manner: z.enum(["typed", "reserved", "dynamic"]).meta({ description: "typed into the device, reserved in DHCP, or given by DHCP" }),
  ipv4: ipv4Field.nullable(),
  ipv6: ipv6Field.nullable(),
  segment: idField.nullable(),
  attachment: attachmentSchema,
  tag: vidField.nullable().meta({ description: "The VLAN tag it sends, or null" }),
  place: shortText,
  surveyed: z.strictObject({ room: idField, what: shortText }).nullable().meta({ description: "The survey's line it was drafted from: the room and the kind in its words" }),
  notes: longText,
});
export type Host = z.output<typeof hostSchema>;

/** A VLAN as one device itself has created it; a device without any is taken to know whatever its ports carry. */
export const deviceVlanSchema = z.strictObject({ id: idField, device: idField, vid: vidField, name: z.string().max(80) });
export type DeviceVlan = z.output<typeof deviceVlanSchema>;
