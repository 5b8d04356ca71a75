import { z } from "zod";
import {
  addressField,
  countField,
  dateField,
  idField,
  longText,
  nameField,
  prefixField,
  setField,
  shortText,
} from "./fields";
import { HOST_KINDS } from "./host-kinds";

/** What a group of devices is there for; a drafted plan has a segment for each purpose and group in use. */
export const PURPOSES = [
  "management",
  "people",
  "voice",
  "instruments",
  "cards",
  "servers",
  "building",
  "cameras",
  "guests",
  "gadgets",
  "cell",
  "operations",
  "dmz",
  "vendor",
  "safety",
  "other",
] as const;
export type Purpose = (typeof PURPOSES)[number];
export const purposeField = z.enum(PURPOSES);

/** A place of the survey, and who and what has to be connected there, as the installer typed it. */
export const roomSchema = z.strictObject({
  id: idField,
  name: nameField,
  kind: z.enum(["room", "cabinet", "outdoor"]),
  position: countField(10_000),
  cabinet: idField.nullable().meta({ description: "The cabinet its sockets lead to" }),
  cableCm: countField(10_000_000).nullable().meta({ description: "Length of the way to the cabinet" }),
  heightUnits: countField(100).nullable().meta({ description: "Height of a cabinet in rack units" }),
  building: shortText.meta({
    description: "The building, or the earthing system, it stands in; empty for the main one",
  }),
  beside: setField(z.array(idField).max(60)).meta({ description: "Rooms next to it, above or below it" }),
  group: shortText.meta({
    description:
      "Whose room it is where one purpose is kept apart room by room: a flat, a department, a cell",
  }),
  needs: longText.meta({ description: "One line as typed: number, then what" }),
});
export type Room = z.output<typeof roomSchema>;

/** Gear that is there before the work begins. */
export const gearSchema = z.strictObject({
  id: idField,
  name: nameField,
  kind: z.enum([
    "gateway",
    "firewall",
    "switch",
    "accessPoint",
    "providerBox",
    "converter",
    "server",
    "other",
  ]),
  model: shortText.meta({ description: "The generic model it is like, by its id; empty when none fits" }),
  room: idField.nullable(),
  addresses: z.array(addressField).max(16),
  prefixes: z.array(prefixField).max(16).meta({ description: "Subnets that it uses" }),
  dhcp: z.enum(["on", "off", "unknown"]).meta({ description: "Whether it gives addresses itself" }),
  facesInternet: z.boolean(),
  supportUntil: dateField.nullable(),
  fate: z.enum(["keep", "replace", "remove"]),
  device: idField.nullable().meta({ description: "The device of the plan that it has become" }),
  notes: longText,
});
export type Gear = z.output<typeof gearSchema>;

/** A kind of end device that the catalogue does not have. */
export const hostKindSchema = z.strictObject({
  id: idField,
  name: nameField,
  aliases: z.array(nameField).max(16),
  base: z.enum(HOST_KINDS),
  purpose: purposeField,
  manner: z.enum(["typed", "reserved", "dynamic"]),
  wireless: z.boolean(),
  poeClass: z
    .int()
    .min(0)
    .max(8)
    .nullable()
    .meta({ description: "Class of IEEE 802.3 section 145.2.8, null when it takes no power over the cable" }),
  kbps: countField(100_000_000).meta({ description: "Typical bandwidth" }),
  speaksDhcp: z.boolean(),
  speaksSignIn: z.boolean().meta({ description: "Signs in by IEEE 802.1X" }),
  internet: z.enum(["may", "never"]),
});
export type HostKind = z.output<typeof hostKindSchema>;
