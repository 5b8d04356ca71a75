import { z } from "zod";
import { countField, idField, nameField, prefixField, shortText } from "./fields";

/** The site itself: what the whole plan shares. */
export const siteSchema = z.strictObject({
  id: idField,
  name: nameField,
  kind: z.enum(["home", "office", "industrial"]),
  timeZone: z.string().regex(/^[A-Za-z0-9_+\-/]{1,60}$/, "A time zone is written as Area/City"),
  blocks: z.array(prefixField).max(16).meta({ description: "Address blocks that subnets are taken from" }),
  conventions: z.strictObject({
    vidScheme: z.enum(["octet", "packed"]).meta({ description: "octet: the VLAN ID is the third octet of the subnet" }),
    gatewayAt: z.enum(["first", "last"]),
    staticSize: countField(4096).meta({ description: "Addresses kept for typed-in devices behind the gateway" }),
  }),
  keepClear: z.array(z.strictObject({ prefix: prefixField, reason: shortText })).max(64)
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
  providerBox: z.enum(["none", "routes", "bridges"]),
  downMbps: countField(1_000_000),
  upMbps: countField(1_000_000),
});
export type Line = z.output<typeof lineSchema>;
