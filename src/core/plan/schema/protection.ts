import { z } from "zod";
import {
  countField,
  groupField,
  idField,
  lineField,
  nameField,
  setField,
  shortText,
  vidField,
} from "./fields";

const priorityField = z
  .int()
  .min(0)
  .max(61_440)
  .refine((n) => n % 4096 === 0, "A bridge priority comes in steps of 4096");

/** A device's part in the spanning tree (IEEE 802.1Q clause 13). */
export const treeSchema = groupField(
  z.strictObject({
    kind: z.enum(["none", "rapid", "multiple", "perVlan"]),
    priority: countField(61_440),
    costs: z.enum(["long", "short"]).meta({
      description:
        "Which table gives a port its cost: long is IEEE 802.1Q " +
        "table 13-4, short the 16-bit one of older bridges",
    }),
    region: lineField(32, "A region's name has at most 32 characters").meta({
      description: "Name of the region of multiple trees (IEEE 802.1Q section 13.8)",
    }),
    revision: countField(65_535),
    instances: z
      .array(
        z.strictObject({
          number: z.int().min(1).max(4094),
          vids: z.array(vidField).max(4094),
          priority: priorityField,
        }),
      )
      .max(64)
      .meta({ description: "The trees of a region beside the common one, with the VLANs that each carries" }),
    perVlan: z
      .array(z.strictObject({ vid: vidField, priority: priorityField }))
      .max(4094)
      .meta({ description: "With one tree per VLAN: VLANs with another priority than the device's own" }),
  }),
);

/** What a device does against false servers and false addresses. */
export const protectionsSchema = groupField(
  z.strictObject({
    snooping: setField(z.array(vidField).max(4094)).meta({
      description: "VLANs in which answers of DHCP servers pass from trusted ports only",
    }),
    option82: z.boolean().meta({
      description: "Whether snooping adds the relay agent's information (RFC 3046) to what clients ask",
    }),
    arpInspection: setField(z.array(vidField).max(4094)).meta({
      description: "VLANs in which ARP from untrusted ports has to match a binding",
    }),
    bound: setField(z.array(idField).max(4096)).meta({ description: "Hosts with a binding entered by hand" }),
  }),
);

/**
 * How ports with sign-in (IEEE 802.1X) let devices in; ports name it as their profile. VLANs are named by
 * number, in the device's domain.
 */
export const signInSchema = z.strictObject({
  id: idField,
  name: nameField,
  servers: z
    .array(idField)
    .max(8)
    .meta({ description: "Hosts that are the authentication servers, the first asked first" }),
  port: z
    .int()
    .min(1)
    .max(65_535)
    .meta({ description: "UDP port of the servers: 1812 (RFC 2865); 1645 is an old one" }),
  byMac: z.boolean().meta({
    description: "Devices without a sign-in are let in by their MAC address, if the register knows it",
  }),
  visitors: vidField.nullable().meta({ description: "VLAN for devices that do not try to sign in" }),
  failed: vidField.nullable().meta({ description: "VLAN for devices whose sign-in fails" }),
  serverDown: vidField.nullable().meta({ description: "VLAN while no server answers" }),
  note: shortText,
});
export type SignIn = z.output<typeof signInSchema>;
