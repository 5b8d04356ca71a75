import { z } from "zod";
import { radioRulesField } from "./abilities";
import {
  addressField,
  countField,
  groupField,
  idField,
  ipv4Field,
  ipv6Field,
  lineField,
  nameField,
  prefixField,
  shortText,
} from "./fields";

/** The site itself: what the whole plan shares. */
export const siteSchema = z.strictObject({
  id: idField,
  name: nameField,
  kind: z.enum(["home", "office", "industrial"]),
  timeZone: z.string().regex(/^[A-Za-z0-9_+\-/]{1,60}$/, "A time zone is written as Area/City"),
  blocks: z.array(prefixField).max(16).meta({ description: "Address blocks that subnets are taken from" }),
  conventions: groupField(
    z.strictObject({
      vidStart: z.int().min(2).max(4094).meta({ description: "The first VLAN ID" }),
      vidStep: z.int().min(1).max(1000).meta({ description: "From one VLAN ID to the next" }),
      subnetScheme: z
        .enum(["octet", "packed"])
        .meta({ description: "octet: the VLAN ID is the third octet of the subnet" }),
      gatewayAt: z.enum(["first", "last"]),
      staticAt: z.enum(["start", "end"]).meta({ description: "Where the block for static devices lies" }),
      staticSize: countField(4096).meta({ description: "Addresses kept for static devices" }),
      namePattern: lineField(60)
        .min(1)
        .meta({ description: "Names of end devices, made of {place}, {kind}, {segment} and {n}" }),
      devicePattern: lineField(60)
        .min(1)
        .meta({ description: "Names of gear, made of {place}, {kind} and {n}" }),
      cablePattern: lineField(60).min(1).meta({
        description: "Labels of cables, made of {from}, {fromPort}, {to}, {toPort}, {place} and {n}",
      }),
      wifiNames: z
        .enum(["one", "each"])
        .meta({ description: "one: the same wireless name everywhere; each: one for each access point" }),
      dns: z.enum(["gateway", "listed"]).meta({
        description: "gateway: clients ask their gateway for DNS; listed: the servers listed here",
      }),
      dnsServers: z.array(addressField).max(8),
      leaseSeconds: z.int().min(60).max(31_536_000),
      guestLeaseSeconds: z.int().min(60).max(31_536_000),
      school: z
        .enum(["reserve", "type"])
        .meta({ description: "How devices with a fixed address that speak DHCP get it" }),
      growth: countField(1000).meta({
        description: "Growth in percent where a line of the survey says none",
      }),
      domainName: shortText,
      separation: z.enum(["auto", "vlans", "routers", "gap"]),
    }),
  ),
  radio: radioRulesField,
  keepClear: z
    .array(z.strictObject({ prefix: prefixField, reason: shortText }))
    .max(64)
    .meta({ description: "Ranges that no subnet may meet: the provider's box, the far end of a VPN" }),
});
export type Site = z.output<typeof siteSchema>;

/** The provider's line. */
export const lineSchema = z.strictObject({
  id: idField,
  name: nameField,
  access: z.enum(["fibre", "cable", "dsl", "mobile", "radio", "other"]),
  addressing: z.enum(["dhcp", "login", "fixed"]),
  vlanTag: z.int().min(1).max(4094).nullable(),
  carrierNat: z.enum(["yes", "no", "unknown"]),
  providerBox: z.enum(["none", "routes", "bridges", "cannotBridge"]),
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
  use: z.enum(["main", "standby", "shared"]).meta({
    description:
      "main: what goes out goes here; standby: when no main " +
      "line works; shared: takes its share beside the main one",
  }),
});
export type Line = z.output<typeof lineSchema>;

/** What a new site begins with. */
export const CONVENTIONS: Site["conventions"] = {
  vidStart: 10,
  vidStep: 10,
  subnetScheme: "octet",
  gatewayAt: "first",
  staticAt: "start",
  staticSize: 18,
  namePattern: "{place}-{kind}-{n}",
  devicePattern: "{place} {kind} {n}",
  cablePattern: "{from}-{fromPort}",
  wifiNames: "one",
  dns: "gateway",
  dnsServers: [],
  leaseSeconds: 28_800,
  guestLeaseSeconds: 7200,
  school: "reserve",
  growth: 25,
  domainName: "",
  separation: "auto",
};
