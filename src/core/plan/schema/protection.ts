import { z } from "zod";
import {
  countField,
  dateField,
  groupField,
  idField,
  lineField,
  nameField,
  setField,
  shortText,
  vidField,
} from "./fields";
import { serviceSchema } from "./separation";

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
    helloSeconds: z.int().min(1).max(10).meta({ description: "Between two BPDUs of the root" }),
    maxAge: z
      .int()
      .min(6)
      .max(40)
      .meta({ description: "Seconds, and with a rapid tree hops, that the root's word holds" }),
    forwardDelay: z.int().min(4).max(30).meta({ description: "Seconds in each state before forwarding" }),
    hops: z.int().min(6).max(40).meta({ description: "Hops that a region's root's word holds" }),
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
    keepsBindings: z
      .boolean()
      .meta({ description: "What snooping learnt is stored, so that a restart does not lose it" }),
    routerGuard: setField(z.array(vidField).max(4094)).meta({
      description: "VLANs in which router advertisements pass from trusted ports only (RFC 6105)",
    }),
    dhcp6Guard: setField(z.array(vidField).max(4094)).meta({
      description: "VLANs in which answers of DHCPv6 servers pass from ports trusted for DHCP (RFC 7610)",
    }),
  }),
);

/** How administrators sign in to a device: by itself, or by servers. */
export const adminSignInSchema = groupField(
  z.strictObject({
    by: z.enum(["local", "radius", "tacacs"]).meta({
      description: "local: its own accounts; radius: RFC 2865 over UDP; tacacs: RFC 8907 over TCP",
    }),
    servers: z
      .array(idField)
      .max(4)
      .meta({ description: "Hosts that are its servers, the first asked first" }),
    port: z
      .int()
      .min(1)
      .max(65_535)
      .nullable()
      .meta({ description: "Port of the servers; null: 1812 for RADIUS, 49 for RFC 8907" }),
    localAccount: z
      .boolean()
      .meta({ description: "Whether an account of its own lets in while no server answers" }),
  }),
);

const seconds = (most: number) => z.int().min(1).max(most);

/** How long a port with sign-in waits, and how often it tries. */
const signInTimersSchema = groupField(
  z.strictObject({
    waitSeconds: seconds(3600).meta({ description: "How long a device is given to answer when it is asked" }),
    tries: z.int().min(1).max(10).meta({ description: "How often it is asked before it counts as unable" }),
    quietSeconds: countField(65_535).meta({ description: "How long a failed one is left alone" }),
    againSeconds: seconds(1_000_000)
      .nullable()
      .meta({ description: "After how long it signs in anew; null for never" }),
    serverSeconds: seconds(1000).meta({ description: "How long a server is given to answer" }),
    serverTries: z.int().min(1).max(10).meta({ description: "How often each server is asked" }),
    deadSeconds: countField(86_400).meta({
      description: "How long a server that does not answer is left out",
    }),
    testSeconds: seconds(86_400)
      .nullable()
      .meta({ description: "How often servers are asked for a test; null for never" }),
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
  serverDownVoice: vidField
    .nullable()
    .meta({ description: "VLAN in which phones go on while no server answers, tagged" }),
  stage: z.enum(["watch", "limited", "closed"]).meta({
    description:
      "What becomes of those who are not let in: they pass and are recorded; they pass by some services; " +
      "they stay out",
  }),
  before: z
    .array(serviceSchema)
    .max(32)
    .meta({ description: "At the stage limited: what passes before anybody has signed in" }),
  hosts: z.enum(["one", "phone", "several", "many"]).meta({
    description:
      "Who may be behind one port: one device; a phone and one device; several, each signing in by itself; " +
      "any number once one has signed in",
  }),
  order: z.enum(["signInFirst", "macFirst"]).meta({ description: "What is tried first at a port" }),
  signInWins: z
    .boolean()
    .meta({ description: "Whether a sign-in later takes the place of one by MAC address" }),
  byAnswer: z.boolean().meta({
    description: "Whether the server answers with the VLAN of the device's segment (RFC 3580 section 3.31)",
  }),
  accountingPort: z
    .int()
    .min(1)
    .max(65_535)
    .nullable()
    .meta({ description: "UDP port for accounting (RFC 2866: 1813); null for none" }),
  changePort: z.int().min(1).max(65_535).nullable().meta({
    description:
      "UDP port at which the switch takes changes of authorisation (RFC 5176: 3799); null for none",
  }),
  timers: signInTimersSchema,
  sends: setField(z.array(z.int().min(1).max(255)).max(32)).meta({
    description: "Attributes that the switch sends along with what it has to, by their numbers (RFC 2865)",
  }),
  certificateUntil: dateField.nullable().meta({
    description: "Last day of the servers' certificate, which devices check; null when not known",
  }),
  secretPlace: shortText.meta({ description: "Where the shared secret is kept; never the secret" }),
  note: shortText,
});
export type SignIn = z.output<typeof signInSchema>;
