import { equal } from "../kernel";
import { afterEdits, PlanEdits, type Change, type CollectionKind, type PlanIndex } from "../plan";
import { foundState } from "../runbook";
import type { RecordEntry } from "./entry";
import { beginnings, takenBack } from "./visit";

// What is on the devices by the record: what a visit found, and on top of it everything that was ticked since.
// The plan may have changed meanwhile; what was done is laid on it field by field, and what it was done to and
// is gone from the plan goes with it.

/** The fields of an entity that a change made different. */
function fieldsOf({ before, after }: Change): Record<string, unknown> {
  const [was, is] = [before, after] as unknown as Record<string, unknown>[];
  return Object.fromEntries(Object.entries(is ?? {}).filter(([field, value]) => !equal(was?.[field], value)));
}

function lay(edits: PlanEdits, change: Change): void {
  const { kind, id, before, after } = change;
  if (kind === "site") return;
  const here: CollectionKind = kind;
  const isThere = edits.get(here, id) !== undefined;
  if (after === null) {
    if (isThere) edits.remove(here, id);
  } else if (before === null) edits.put(here, after);
  else if (isThere) edits.patch(here, id, fieldsOf(change));
}

const laid = (index: PlanIndex, changes: readonly Change[]): PlanIndex | null => {
  const edits = new PlanEdits(index.plan);
  for (const change of changes) lay(edits, change);
  return afterEdits(index, edits);
};

/** An entry that makes something different on devices. */
export type Changing = Extract<RecordEntry, { readonly changes: readonly Change[] }>;

/** What was found, done and read since the record last began anew, in its order. */
export function countingEntries(entries: readonly RecordEntry[]): Changing[] {
  const gone = takenBack(entries);
  const begin = beginnings(entries);
  const anew = begin.findLast((at) => {
    const entry = entries[at];
    return entry?.do === "start" && entry.from !== "last";
  });
  return entries.flatMap((entry, at) => {
    const counts = entry.do === "start" ? begin.includes(at) : !gone.has(entry.id);
    return counts && at >= (anew ?? 0) && "changes" in entry ? [entry] : [];
  });
}

/** Changes in their order on gear out of the box; what no longer fits the plan is left out. */
function onTheBox(index: PlanIndex, all: readonly (readonly Change[])[]): PlanIndex | null {
  const box = foundState(index, null);
  if (box === null) return null;
  const whole = laid(box, all.flat());
  if (whole !== null) return whole;
  // Something refers to what is gone: what can be laid by itself is.
  let now = box;
  for (const changes of all)
    now = laid(now, changes) ?? changes.reduce((at, change) => laid(at, [change]) ?? at, now);
  return now;
}

/**
 * The site with what is on its devices by the record; out of the box where the record has nothing. What no
 * longer fits the plan is left out. Null where not even gear out of the box is a state of it.
 */
export const siteAsIs = (index: PlanIndex, entries: readonly RecordEntry[]): PlanIndex | null =>
  onTheBox(
    index,
    countingEntries(entries).map(({ changes }) => changes),
  );

/** The state of a site that changes lead to from gear out of the box; null as above. */
export const stateFrom = (index: PlanIndex, changes: readonly Change[]): PlanIndex | null =>
  onTheBox(index, [changes]);
