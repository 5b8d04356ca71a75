import type { z } from "zod";
import { equal } from "../kernel";
import { MERGING } from "./schema/fields";

/** One value as it was, as I want it and as somebody else made it meanwhile. */
export interface Sides {
  readonly was: unknown;
  readonly mine: unknown;
  readonly theirs: unknown;
}
/**
 * What the two edits come to; `clashes` when they want different things of one part, which `winner` has
 * decided then.
 */
export interface Merged {
  readonly value: unknown;
  readonly clashes: boolean;
}
export type Winner = "mine" | "theirs";

/** Stands for an element that one of the lists does not have. */
const ABSENT = Symbol("no such element");

/**
 * Merges two edits of one field by what its schema says of it (`MERGING`). Who asks: `rebase`. A part that
 * both changed to different values clashes; the value then holds the winner's.
 */
export function merge(schema: z.ZodType | undefined, sides: Sides, winner: Winner): Merged {
  const { was, mine, theirs } = sides;
  if (equal(mine, was) || equal(mine, theirs)) return { value: theirs, clashes: false };
  if (equal(theirs, was)) return { value: mine, clashes: false };
  const merging = schema === undefined ? undefined : MERGING.get(schema)?.merging;
  if (merging === "group") return mergeGroup(schema as z.ZodObject, sides, winner);
  if (!Array.isArray(was) || !Array.isArray(mine) || !Array.isArray(theirs))
    return { value: sides[winner], clashes: true };
  const merged = merging === "set" ? mergeSets(was, mine, theirs) : mergeElements(was, mine, theirs);
  return merged === null ? { value: sides[winner], clashes: true } : { value: merged, clashes: false };
}

function mergeGroup(schema: z.ZodObject, { was, mine, theirs }: Sides, winner: Winner): Merged {
  const [before, own, other] = [was, mine, theirs] as Record<string, unknown>[];
  let clashes = false;
  const value = Object.fromEntries(
    Object.entries(schema.shape).map(([field, inner]) => {
      const merged = merge(
        inner as z.ZodType,
        { was: before?.[field], mine: own?.[field], theirs: other?.[field] },
        winner,
      );
      clashes ||= merged.clashes;
      return [field, merged.value];
    }),
  );
  return { value, clashes };
}

const holds = (list: readonly unknown[], item: unknown): boolean => list.some((other) => equal(other, item));

function mergeSets(was: readonly unknown[], mine: readonly unknown[], theirs: readonly unknown[]): unknown[] {
  const kept = theirs.filter((item) => holds(mine, item) || !holds(was, item));
  return [...kept, ...mine.filter((item) => !holds(was, item) && !holds(kept, item))];
}

/**
 * Element by element, each as a whole: two pools merged into one are a pool that nobody wanted. Null when
 * both changed the same element, or when what comes out is a list that neither could have meant (a gap, or
 * the same element twice).
 */
function mergeElements(
  was: readonly unknown[],
  mine: readonly unknown[],
  theirs: readonly unknown[],
): unknown[] | null {
  const at = (list: readonly unknown[], i: number): unknown => (i < list.length ? list[i] : ABSENT);
  const merged: unknown[] = [];
  let ended = false;
  for (let i = 0; i < Math.max(was.length, mine.length, theirs.length); i += 1) {
    const [before, own, other] = [at(was, i), at(mine, i), at(theirs, i)];
    const isTheirs = equal(own, before) || equal(own, other);
    if (!isTheirs && !equal(other, before)) return null;
    const item = isTheirs ? other : own;
    if (item === ABSENT) ended = true;
    else if (
      ended ||
      (holds(merged, item) && !(holds(mine, item) && holds(theirs, item) && holds(was, item)))
    )
      return null;
    else merged.push(item);
  }
  return merged;
}
