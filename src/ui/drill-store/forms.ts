import { z } from "zod";
import { askKey, askOfKey, type Ask } from "@/core/diagnosis";
import type { Act } from "@/core/drills";
import { must } from "@/core/kernel";

// What is kept of a drill: readings by the ids under which they stand in records, too.

const DRILL_ASKED = z.discriminatedUnion("what", [
  z.strictObject({ what: z.literal("course"), number: z.int().min(1).max(99) }),
  z.strictObject({
    what: z.literal("site"),
    number: z.union([z.literal(1), z.literal(2), z.literal(3)]),
    seed: z.int().min(0),
  }),
]);

const line = z.string().max(4000);
const actForm = z.discriminatedUnion("act", [
  z.strictObject({ act: z.literal("read"), ask: line.refine((text) => askOfKey(text) !== null) }),
  z.strictObject({ act: z.literal("move"), from: line, to: line }),
  z.strictObject({ act: z.literal("putBack") }),
  z.strictObject({ act: z.literal("name"), fault: line }),
  z.strictObject({ act: z.literal("mend"), fault: line }),
  z.strictObject({ act: z.literal("giveUp") }),
]);
/** More than the minutes of any drill allow. */
const ACTS = z.array(actForm).max(500);
type ActForm = z.output<typeof actForm>;

/** A drill that is being played, as it is kept in this browser. */
export const keptDrill = z.strictObject({
  version: z.literal(1),
  asked: DRILL_ASKED,
  acts: ACTS,
  /** The id under which its try is counted, once it is over. */
  id: z.uuid(),
  /** The revision of the site that it is played on; a drill of the course has none. */
  revision: z.int().nullable(),
});
export type KeptDrill = z.output<typeof keptDrill>;

/** An order of work that is being tried. */
export const keptOrder = z.strictObject({
  version: z.literal(1),
  level: z.union([z.literal(1), z.literal(2), z.literal(3)]),
  seed: z.int().min(0),
  revision: z.int(),
  id: z.uuid(),
  moves: z.array(z.strictObject({ operation: line, port: line })).max(200),
});
export type KeptOrder = z.output<typeof keptOrder>;

/** A round of sums with the answers so far. */
export const keptRound = z.strictObject({
  version: z.literal(1),
  kind: z.string().max(20),
  seed: z.int().min(0),
  id: z.uuid(),
  answers: z.array(z.string().max(200)).max(20),
});
export type KeptRound = z.output<typeof keptRound>;

const askOf = (key: string): Ask => must(askOfKey(key), "a reading's id was read when it was parsed");

export const actOf = (form: ActForm): Act =>
  form.act === "read" ? { act: "read", ask: askOf(form.ask) } : form;
export const formOf = (act: Act): ActForm =>
  act.act === "read" ? { act: "read", ask: askKey(act.ask) } : act;
