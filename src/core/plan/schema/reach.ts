import { z } from "zod";
import {
  addressField,
  dateField,
  idField,
  macField,
  nameField,
  prefixField,
  shortText,
  vidField,
} from "./fields";
import { serviceSchema } from "./separation";

/** A route that somebody entered: where a prefix is reached. */
export const routeSchema = z.strictObject({
  prefix: prefixField,
  via: addressField,
  metric: z.int().min(0).max(65_535).meta({
    description: "Of several routes for one subnet the lowest whose next hop can be reached is taken",
  }),
});
export type Route = z.output<typeof routeSchema>;

const portNumber = z.int().min(1).max(65_535);

/** What comes in on a line at these ports is sent on to a host inside. */
export const forwardSchema = z.strictObject({
  id: idField,
  name: nameField,
  line: idField,
  protocol: z.enum(["tcp", "udp"]),
  ports: z
    .tuple([portNumber, portNumber])
    .refine(([low, high]) => low <= high, "A port range runs from low to high"),
  host: idField,
  toPort: portNumber.nullable().meta({ description: "The port inside; null keeps the outside one" }),
  hairpin: z
    .boolean()
    .meta({ description: "Whether it also holds for those inside who ask the outside address" }),
  sources: z.array(prefixField).max(32).meta({ description: "Who may come in by it; empty for anybody" }),
  until: dateField.nullable().meta({ description: "The last day on which it holds; null for always" }),
});
export type Forward = z.output<typeof forwardSchema>;

/** Somebody outside who wants to reach one service of one host. */
export const wishSchema = z.strictObject({
  id: idField,
  name: nameField,
  host: idField,
  service: serviceSchema,
  from: z.array(prefixField).max(32).meta({ description: "Where they ask from; empty for anywhere" }),
  way: z.enum(["open", "forward", "vpn", "push", "ipv6"]).meta({
    description: "The way that was chosen; open: none yet",
  }),
  note: shortText,
});
export type Wish = z.output<typeof wishSchema>;

/** Where a probe is plugged in. */
const probePlaceSchema = z.discriminatedUnion("at", [
  z.strictObject({ at: z.literal("port"), port: idField, tag: vidField.nullable() }),
  z.strictObject({ at: z.literal("ssid"), ssid: idField, device: idField }),
  z.strictObject({ at: z.literal("host"), host: idField }),
  z.strictObject({ at: z.literal("internet"), line: idField }),
  z
    .strictObject({ at: z.literal("tunnel"), segment: idField })
    .meta({ description: "Somebody outside who has come in by the segment's tunnel" }),
]);
/** What is plugged in there. */
const probeAsSchema = z.discriminatedUnion("as", [
  z.strictObject({ as: z.literal("client") }),
  z.strictObject({
    as: z.literal("kind"),
    word: shortText.meta({ description: "A kind of the catalogue or of the site's own, by its word" }),
  }),
  z.strictObject({
    as: z.literal("typed"),
    address: addressField,
    length: z.int().min(0).max(128),
    gateway: addressField.nullable(),
  }),
  z.strictObject({ as: z.literal("behindPhone") }),
  z.strictObject({ as: z.literal("falseServer") }),
  z.strictObject({ as: z.literal("falseRouter") }),
  z.strictObject({ as: z.literal("spoofer"), address: addressField }),
]);
/** What it asks for. */
const probeGoalSchema = z.discriminatedUnion("to", [
  z.strictObject({ to: z.literal("address") }),
  z.strictObject({ to: z.literal("internet"), service: serviceSchema.nullable() }),
  z.strictObject({ to: z.literal("gateway"), service: serviceSchema.nullable() }),
  z.strictObject({ to: z.literal("device"), device: idField, service: serviceSchema.nullable() }),
  z.strictObject({ to: z.literal("host"), host: idField, service: serviceSchema.nullable() }),
  z.strictObject({ to: z.literal("forward"), forward: idField }),
  z
    .strictObject({ to: z.literal("port"), port: idField, service: serviceSchema.nullable() })
    .meta({ description: "Another laptop, plugged in there" }),
]);
const probeQuestionSchema = z.strictObject({
  from: probePlaceSchema,
  as: probeAsSchema,
  mac: macField.nullable(),
  family: z.union([z.literal(4), z.literal(6)]),
  goal: probeGoalSchema,
});
export type ProbeQuestion = z.output<typeof probeQuestionSchema>;
export type ProbePlace = z.output<typeof probePlaceSchema>;
export type ProbeAs = z.output<typeof probeAsSchema>;
export type ProbeGoal = z.output<typeof probeGoalSchema>;

/** A question as one line of text, the same for the same question. */
export const questionText = (question: ProbeQuestion): string =>
  JSON.stringify(z.encode(probeQuestionSchema, question));

/** The question of such a line; null for none. */
export function readQuestion(text: string): ProbeQuestion | null {
  try {
    const read = probeQuestionSchema.safeParse(JSON.parse(text));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}

/** A probe kept with what has to come of it. */
export const expectationSchema = z.strictObject({
  id: idField,
  name: nameField,
  question: probeQuestionSchema,
  passes: z
    .boolean()
    .meta({ description: "Whether it is meant to get through; false for a wall that has to hold" }),
  segment: idField
    .nullable()
    .meta({ description: "The segment whose address it has to get; null when that is not asked" }),
  note: shortText,
});
export type Expectation = z.output<typeof expectationSchema>;
