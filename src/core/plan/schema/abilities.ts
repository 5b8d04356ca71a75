import { z } from "zod";
import { groupField, setField, shortText } from "./fields";

/** What the software of some gear does not do, of what a baseline may ask of it. */
export const LACKS = [
  "https",
  "ssh",
  "snmpV3",
  "idle",
  "passwords",
  "names",
  "time",
  "log",
  "descriptions",
] as const;
export type Lack = (typeof LACKS)[number];

/** What a device's software can do. */
export const abilitiesField = groupField(
  z.strictObject({
    maxVlans: z
      .int()
      .min(1)
      .max(4094)
      .nullable()
      .meta({ description: "The most VLANs it can hold at once; null when not known" }),
    mixesTagged: z
      .boolean()
      .meta({ description: "Whether a port can be untagged in one VLAN and tagged in others" }),
    trees: z.array(z.enum(["rapid", "multiple", "perVlan"])).max(3),
    snooping: z.boolean(),
    arpInspection: z.boolean(),
    signIn: z.boolean().meta({ description: "IEEE 802.1X at its ports" }),
    ipv6Guards: z
      .boolean()
      .meta({ description: "Router advertisement guard and DHCPv6 shield (RFC 6105, RFC 7610)" }),
    sourceChecks: z.boolean().meta({ description: "Checks source addresses against bindings" }),
    isolation: z.boolean().meta({ description: "Ports that send nothing to each other" }),
    stormLimits: z.boolean().meta({ description: "Limits for flooded frames" }),
    routes: z
      .boolean()
      .meta({ description: "Routes between VLANs: a layer-3 switch, a gateway, a firewall" }),
    ownTag: z.enum(["accept", "drop"]).meta({
      description:
        "What happens at an access port to a frame that comes in tagged with the port's " +
        "own VLAN: IEEE 802.1Q accepts it, some gear drops every tagged frame there",
    }),
    radios: z.boolean().meta({
      description: "Has radios of its own, as an access point always has: a router with wireless in it",
    }),
    lists: z
      .enum(["one", "two"])
      .meta({ description: "two: its pages show PVID and membership as two lists, and both have to be set" }),
    fallsBack: z.boolean().meta({
      description: "Goes back by itself to what it had unless a change is confirmed",
    }),
    lacks: setField(z.array(z.enum(LACKS)).max(LACKS.length)).meta({
      description: "What it is known not to do of what a baseline asks",
    }),
  }),
);
export type Abilities = z.output<typeof abilitiesField>;

/**
 * How something takes power over the cable: the class of IEEE 802.3 section 145.2.8, nothing, or as its kind
 * usually does.
 */
export const POE_CHOICES = [
  "asKind",
  "none",
  "class1",
  "class2",
  "class3",
  "class4",
  "class5",
  "class6",
  "class7",
  "class8",
] as const;
export type PoeChoice = (typeof POE_CHOICES)[number];
export const poeField = z.enum(POE_CHOICES);

/** Cable by the names of ISO/IEC 11801: copper categories, multimode and single-mode fibre. */
export const CABLES = [
  "unknown",
  "cat5e",
  "cat6",
  "cat6a",
  "cat8",
  "om1",
  "om2",
  "om3",
  "om4",
  "om5",
  "os1",
  "os2",
  "twinax",
] as const;
export type Cable = (typeof CABLES)[number];
export const cableField = z.enum(CABLES);

/**
 * What is plugged into a fibre or combined port, by the names of IEEE 802.3; `none` when nothing is or nobody
 * knows.
 */
export const OPTICS = [
  "none",
  "1000BASE-T",
  "1000BASE-SX",
  "1000BASE-LX",
  "10GBASE-T",
  "10GBASE-SR",
  "10GBASE-LR",
  "10GBASE-ER",
  "25GBASE-SR",
  "25GBASE-LR",
  "40GBASE-SR4",
  "40GBASE-LR4",
  "100GBASE-SR4",
  "100GBASE-LR4",
  "direct attach",
] as const;
export type Optic = (typeof OPTICS)[number];
export const opticField = z.enum(OPTICS);

/** Radio bands in GHz. */
export const BANDS = ["2.4", "5", "6"] as const;
export type Band = (typeof BANDS)[number];
export const bandField = z.enum(BANDS);

/** How a wireless name is secured, by the key management of IEEE 802.11. */
export const SECURITIES = [
  "open",
  "owe",
  "wep",
  "pskTkip",
  "psk",
  "pskSae",
  "sae",
  "enterprise",
  "enterprise192",
] as const;
export type Security = (typeof SECURITIES)[number];

/** The channels that may be used, as the user has them from the regulator; the numbers are 20 MHz channels. */
export const radioRulesField = z.strictObject({
  region: shortText,
  channels: z
    .array(
      z.strictObject({
        band: bandField,
        number: z.int().min(1).max(253),
        dfs: z.boolean().meta({ description: "Left at once when radar is heard" }),
        indoor: z.boolean().meta({ description: "Indoors only" }),
      }),
    )
    .max(200),
});
export type RadioRules = z.output<typeof radioRulesField>;
