import { z } from "zod";
import { radioRulesField } from "./abilities";
import { baselineField } from "./baseline";
import { paperField } from "./paper";
import {
  addressField,
  countField,
  groupField,
  idField,
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
  baseline: baselineField.meta({ description: "How the site's devices are usually administered" }),
  keepClear: z
    .array(z.strictObject({ prefix: prefixField, reason: shortText }))
    .max(64)
    .meta({ description: "Ranges that no subnet may meet: the provider's box, the far end of a VPN" }),
  paper: paperField.meta({ description: "What stands on the papers beside the plan" }),
});
export type Site = z.output<typeof siteSchema>;

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
