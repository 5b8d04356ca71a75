import { z } from "zod";
import {
  addressField,
  countField,
  groupField,
  idField,
  ipv4Field,
  ipv6Field,
  nameField,
  prefix6Field,
  prefixField,
  shortText,
} from "./fields";
import { serviceSchema } from "./separation";

/** How the loss of a line is noticed, and when it carries again. */
const watchField = groupField(
  z.strictObject({
    by: z.enum(["link", "target"]).meta({
      description: "link: the cable goes dark; target: none of the targets answers any more",
    }),
    targets: z.array(addressField).max(4),
    afterSeconds: countField(3600).meta({
      description: "How long it has to be gone before the next takes over",
    }),
    backSeconds: countField(86_400).meta({
      description: "How long it has to be well before it carries again",
    }),
    returns: z.boolean().meta({ description: "Whether it carries again by itself" }),
  }),
);

/** What happens to what is pinned while the line does not work. */
const orElseField = z.enum(["next", "stays"]).meta({
  description: "next: goes out by the other lines; stays: goes out nowhere",
});
const pinField = z.discriminatedUnion("what", [
  z.strictObject({ what: z.literal("segment"), segment: idField, orElse: orElseField }),
  z.strictObject({ what: z.literal("host"), host: idField, orElse: orElseField }),
  z.strictObject({ what: z.literal("service"), service: serviceSchema, orElse: orElseField }),
]);
export type Pin = z.output<typeof pinField>;

/** The provider's line. */
export const lineSchema = z.strictObject({
  id: idField,
  name: nameField,
  access: z.enum(["fibre", "cable", "dsl", "mobile", "radio", "other"]),
  addressing: z.enum(["dhcp", "login", "fixed"]),
  vlanTag: z.int().min(1).max(4094).nullable(),
  carrierNat: z.enum(["yes", "no", "unknown"]),
  providerBox: z.enum(["none", "routes", "bridges", "cannotBridge"]),
  boxForwards: z.boolean().meta({
    description: "Whether the provider's box, where it routes, sends everything that comes in on to ours",
  }),
  boxPrefix: prefixField.nullable().meta({ description: "The range inside the provider's box" }),
  locked: shortText.meta({ description: "What only works at the provider's box, such as a phone service" }),
  downMbps: countField(1_000_000),
  upMbps: countField(1_000_000),
  length4: z
    .int()
    .min(1)
    .max(32)
    .nullable()
    .meta({ description: "Prefix length of the outside IPv4 address; null when not known" }),
  nextHop4: ipv4Field
    .nullable()
    .meta({ description: "The provider's router by IPv4; null when not known, or told by DHCP" }),
  length6: z
    .int()
    .min(1)
    .max(128)
    .nullable()
    .meta({ description: "Prefix length of the outside IPv6 address; null when not known" }),
  nextHop6: ipv6Field.nullable().meta({
    description:
      "The provider's router by IPv6, often a link-local address; null when not known, or advertised",
  }),
  dns: z
    .array(addressField)
    .max(8)
    .meta({ description: "The provider's name servers; empty when not known, or told by DHCP" }),
  place: countField(1000).meta({
    description: "Its place in the order of failover: the lowest that works carries what goes out",
  }),
  share: countField(100).meta({
    description:
      "Percent of what goes out that it takes beside the others with a share; " +
      "0: everything while it is the first that works",
  }),
  watch: watchField,
  marks: groupField(
    z.strictObject({
      kept: z
        .boolean()
        .meta({ description: "Whether the provider goes by the marks of what is sent (DSCP)" }),
      voicePriority: z.int().min(0).max(7).nullable().meta({
        description: "The priority that calls have to bear in the provider's tag (PCP); null: none is wanted",
      }),
    }),
  ),
  delegated: groupField(
    z.strictObject({
      length: z.int().min(32).max(64).nullable().meta({
        description: "Length of the IPv6 prefix that the provider delegates (RFC 8415); null for none",
      }),
      prefix: prefix6Field.nullable().meta({ description: "The prefix it has now; null when not known" }),
      keeps: z.boolean().meta({ description: "Whether the provider always gives the same one" }),
    }),
  ),
  pins: z
    .array(pinField)
    .max(64)
    .meta({ description: "What goes out by this line in every case, as far as it works" }),
  dynamicName: groupField(
    z.strictObject({
      name: shortText.meta({ description: "The name that follows the line's address; empty for none" }),
      updatedBy: z.enum(["gateway", "providerBox", "host"]),
      account: shortText.meta({ description: "Where the account is kept; never the account" }),
    }),
  ),
});
export type Line = z.output<typeof lineSchema>;
