import { z } from "zod";
import { bandField, SECURITIES } from "./abilities";
import { purposeField } from "./survey";
import {
  addressField,
  countField,
  dateField,
  idField,
  ipv4Field,
  lineField,
  markField,
  nameField,
  prefix4Field,
  prefix6Field,
  prefixField,
  setField,
  shortText,
  tapeField,
  vidField,
} from "./fields";

/** A layer-2 domain: gear that shares VLAN numbers. */
export const domainSchema = z.strictObject({ id: idField, name: nameField });
export type Domain = z.output<typeof domainSchema>;

export const vlanSchema = z.strictObject({
  id: idField,
  domain: idField,
  vid: vidField,
  name: nameField,
  purpose: z.enum(["segment", "parked", "wayBack", "transit"]),
});
export type Vlan = z.output<typeof vlanSchema>;

/** Classes of traffic, by what they carry (RFC 4594 section 2). */
export const TRAFFIC_CLASSES = ["bestEffort", "bulk", "signalling", "video", "voice"] as const;
export type TrafficClass = (typeof TRAFFIC_CLASSES)[number];

/** Levels of the hierarchy of control from the machine up (IEC 62264-1), and the DMZ before the offices. */
export const CONTROL_LEVELS = [
  "none",
  "process",
  "control",
  "supervision",
  "operations",
  "dmz",
  "business",
] as const;
export type ControlLevel = (typeof CONTROL_LEVELS)[number];

const securityLevelField = countField(4).meta({
  description: "Target security level, 1 to 4 (IEC 62443-3-3); 0 where none is set",
});

/** Segments that share a level of trust. */
export const zoneSchema = z.strictObject({
  id: idField,
  name: nameField,
  insideOpen: z.boolean().meta({ description: "Whether the zone's own segments may talk to one another" }),
  level: z.enum(CONTROL_LEVELS).meta({
    description: "Its level in the hierarchy of control (IEC 62264-1); none where nothing is controlled",
  }),
  securityLevel: securityLevelField,
});
export type Zone = z.output<typeof zoneSchema>;

/** A subnet with its services, on a VLAN wherever VLANs separate. */
export const segmentSchema = z.strictObject({
  id: idField,
  zone: idField,
  vlan: idField.nullable(),
  name: nameField,
  mark: markField,
  tape: tapeField,
  prefixes4: z.array(prefix4Field).max(8),
  prefixes6: z.array(prefix6Field).max(8),
  gatewayInterface: idField
    .nullable()
    .meta({ description: "The interface that clients are given as their gateway" }),
  dns: z.array(addressField).max(8),
  time: z.array(addressField).max(8),
  domainName: shortText,
  planned: countField(1_000_000).meta({
    description: "Devices and visitors planned, those already in the register included",
  }),
  growth: countField(1000).meta({ description: "Growth in percent of the planned number" }),
  management: z.boolean().meta({ description: "The segment for the gear's own addresses" }),
  purpose: purposeField,
  group: shortText.meta({
    description: "The group of the survey it was drafted for; empty when the purpose is not split",
  }),
  advertise: z
    .enum(["none", "slaac", "stateless", "stateful"])
    .meta({ description: "What the router advertisements tell IPv6 clients (RFC 4861 section 4.2)" }),
  trafficClass: z.enum(TRAFFIC_CLASSES).meta({
    description: "What its packets are marked with where marks are not trusted (RFC 4594)",
  }),
  visit: z
    .strictObject({
      perHour: countField(100_000),
      staySeconds: countField(31_536_000),
      openSeconds: countField(86_400),
    })
    .nullable()
    .meta({
      description: "Who comes and goes: arrivals in an hour, how long they stay, how long the doors are open",
    }),
  tunnel: z
    .strictObject({
      kind: z.enum(["users", "site"]).meta({
        description: "users: people who come in one by one; site: the far end's own network",
      }),
      protocol: z.enum(["tcp", "udp"]),
      port: z.int().min(1).max(65_535).meta({ description: "Where the gateway answers it" }),
      line: idField.nullable().meta({ description: "The line it comes in by; null for any" }),
    })
    .nullable()
    .meta({
      description: "A segment that is reached over the internet by a tunnel; null for one of the site",
    }),
});
export type Segment = z.output<typeof segmentSchema>;

const rangeField = z.strictObject({ first: addressField, last: addressField });

/** One server's offer in one segment. */
export const scopeSchema = z.strictObject({
  id: idField,
  segment: idField,
  serverDevice: idField.nullable(),
  serverHost: idField.nullable(),
  family: z.union([z.literal(4), z.literal(6)]),
  pools: z.array(rangeField).max(32),
  exclusions: z.array(rangeField).max(64),
  leaseSeconds: z
    .int()
    .min(60, "A lease lasts at least 60 seconds")
    .max(31_536_000, "A lease lasts at most a year"),
  options: z
    .array(z.strictObject({ code: z.int().min(1).max(254), name: shortText, value: shortText }))
    .max(64),
});
export type Scope = z.output<typeof scopeSchema>;

/** A wireless name and the segment behind it. */
export const ssidSchema = z.strictObject({
  id: idField,
  name: lineField(32, "A wireless name has at most 32 characters").min(1),
  segment: idField,
  moreSegments: setField(z.array(idField).max(32)).meta({
    description: "Where the sign-in may put someone instead (IEEE 802.1X)",
  }),
  security: z.enum(SECURITIES),
  profile: idField.nullable().meta({
    description:
      "The sign-in profile whose servers it asks, where it asks any; null: the only one, if there is one",
  }),
  hidden: z.boolean(),
  isolation: z.boolean().meta({ description: "Stations can't reach one another" }),
  bands: setField(z.array(bandField).max(3)),
  at: setField(z.array(idField).max(500)).meta({
    description: "The access points that offer it; empty for every one of the segment's domain",
  }),
});
export type Ssid = z.output<typeof ssidSchema>;

const serviceNameField = z
  .string()
  .regex(/^[a-z0-9][a-z0-9 .-]{0,23}$/, "A service's name is short and in lower case");
const protocolField = z.enum(["tcp", "udp", "icmp"]);
const portsField = z
  .array(
    z
      .tuple([z.int().min(0).max(65535), z.int().min(0).max(65535)])
      .refine(([low, high]) => low <= high, "A port range runs from low to high"),
  )
  .max(16);
export const serviceSchema = z.strictObject({
  name: serviceNameField,
  protocol: protocolField,
  ports: portsField,
});
export type Service = z.output<typeof serviceSchema>;

/** A service that the site has beside those of the catalogue: what it is made of, and what it takes in. */
export const ownServiceSchema = z.strictObject({
  id: idField,
  name: serviceNameField,
  parts: z.array(z.strictObject({ protocol: protocolField, ports: portsField })).max(16),
  includes: setField(z.array(serviceNameField).max(16)).meta({
    description: "Names of other services, of the catalogue or the site's own, that it takes in",
  }),
  note: shortText,
});
export type OwnService = z.output<typeof ownServiceSchema>;

/** What leads from zone to zone: doors that are planned, guarded and answered for together (IEC 62443-1-1). */
export const conduitSchema = z.strictObject({
  id: idField,
  name: nameField,
  securityLevel: securityLevelField,
  owner: shortText.meta({ description: "Who answers for it" }),
  note: shortText,
});
export type Conduit = z.output<typeof conduitSchema>;

const conduitField = idField
  .nullable()
  .meta({ description: "The conduit it belongs to; null where none is planned" });

const wallEndSchema = z.discriminatedUnion("at", [
  z.strictObject({ at: z.literal("zone"), zone: idField }),
  z.strictObject({ at: z.literal("internet") }),
  z.strictObject({ at: z.literal("gateway") }),
]);
export type WallEnd = z.output<typeof wallEndSchema>;

/** What may start talking to what; a pair without a wall is closed. Answers always return. */
export const wallSchema = z
  .strictObject({
    id: idField,
    from: wallEndSchema,
    to: wallEndSchema,
    door: z.enum(["closed", "open", "services"]),
    services: z.array(serviceSchema).max(32),
    reason: shortText,
    conduit: conduitField,
  })
  .refine(
    (wall) => (wall.door === "services") === wall.services.length > 0,
    "Services are listed exactly when the door is for services",
  );
export type Wall = z.output<typeof wallSchema>;

/** One end of a rule as a device has it. */
const ruleSideSchema = z.discriminatedUnion("at", [
  z.strictObject({ at: z.literal("zone"), zone: idField }),
  z.strictObject({ at: z.literal("segment"), segment: idField }),
  z.strictObject({ at: z.literal("host"), host: idField }),
  z.strictObject({ at: z.literal("prefix"), prefix: prefixField }),
  z.strictObject({ at: z.literal("internet") }),
  z.strictObject({ at: z.literal("gateway") }),
]);
export type RuleSide = z.output<typeof ruleSideSchema>;

/**
 * A rule that stands on a device, beside what its walls need: the first of the device's rules that matches
 * decides.
 */
export const ruleSchema = z.strictObject({
  id: idField,
  device: idField,
  place: countField(1_000_000_000).meta({
    description: "Its place in the device's list: the lowest comes first",
  }),
  from: z
    .array(ruleSideSchema)
    .max(64)
    .meta({ description: "Where it comes from, any of these; empty for anywhere" }),
  to: z.array(ruleSideSchema).max(64).meta({
    description: "Where it goes, any of these; empty for anywhere but the device itself",
  }),
  services: z.array(serviceSchema).max(32).meta({ description: "Any of these; empty for everything" }),
  action: z.enum(["accept", "drop", "reject"]),
  enabled: z.boolean(),
  log: z.boolean().meta({ description: "Whether what it decides is recorded" }),
  note: shortText,
});
export type Rule = z.output<typeof ruleSchema>;

/**
 * What may pass beside the walls: narrower than a zone, with somebody who answers for it, and for a time.
 */
export const exceptionSchema = z.strictObject({
  id: idField,
  name: nameField,
  from: ruleSideSchema,
  to: ruleSideSchema,
  services: z.array(serviceSchema).max(32).meta({ description: "Any of these; empty for everything" }),
  owner: shortText.meta({ description: "Who answers for it" }),
  reason: shortText,
  firstDay: dateField.nullable().meta({ description: "The first day on which it holds; null for always" }),
  lastDay: dateField.nullable().meta({ description: "The last day on which it holds; null for always" }),
  hours: z
    .strictObject({
      days: setField(z.array(z.int().min(1).max(7)).max(7)).meta({
        description: "Days of the week, 1 is Monday (ISO 8601)",
      }),
      from: z.int().min(0).max(1439).meta({ description: "The first minute of the day, site time" }),
      to: z.int().min(1).max(1440).meta({ description: "The minute at which it ends" }),
    })
    .nullable()
    .meta({ description: "Hours of the week in which it holds; null for all" }),
  conduit: conduitField,
});
export type Exception = z.output<typeof exceptionSchema>;

export const relayField = ipv4Field.nullable();
