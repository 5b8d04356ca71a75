import { recheck, runChecks, type FindingsByCode } from "@/core/checks";
import { ok, type Result } from "@/core/kernel";
import {
  applyChanges,
  diff,
  rebase,
  rebaseMine,
  type Change,
  type ChangeBatch,
  type Choose,
  type Clash,
  type IntegrityError,
  type Plan,
  type PlanIndex,
} from "@/core/plan";

/**
 * One of my batches that can't go on top of what others did; without clashes it no longer fits the plan, and
 * `fault` says why.
 */
export interface Stuck {
  readonly batch: ChangeBatch;
  readonly clashes: readonly Clash[];
  readonly fault: IntegrityError | null;
}

/** A plan in the browser: what the server has confirmed, what waits, and the two together as it is shown. */
export interface Held {
  readonly base: Plan;
  readonly revision: number;
  /** My batches that the server does not have yet, oldest first, those that are stuck among them. */
  readonly pending: readonly ChangeBatch[];
  /** Those of `pending` that wait for a person's decision: not shown, not sent, never dropped by themselves. */
  readonly stuck: readonly Stuck[];
  readonly index: PlanIndex;
  /** What was found in the plan that is shown, or in that of a moment ago; null until it was judged once. */
  readonly judged: Judged | null;
}

/** What was found, and in which plan. */
export interface Judged {
  readonly index: PlanIndex;
  readonly findings: FindingsByCode;
}

/** A batch of somebody, as the server logged it. */
export interface Logged {
  readonly id: string;
  readonly revision: number;
  readonly changes: readonly Change[];
}

/** A person's choices for one stuck batch. */
interface Chosen {
  readonly batch: string;
  readonly choose: Choose;
}

/** The look-ups of the shown plan brought to `plan`. */
function shownAs({ index }: Held, plan: Plan): PlanIndex {
  const changes = diff(index.plan, plan);
  return changes.length === 0 ? index : index.derive(plan, changes);
}

/** Whether the findings are those of what is shown. */
export const isJudged = ({ judged, index }: Pick<Held, "judged" | "index">): boolean =>
  judged?.index === index;

/** The findings of what is shown, worked out now where nobody has yet. */
export function findingsOf({ judged, index }: Pick<Held, "judged" | "index">): FindingsByCode {
  if (judged === null) return runChecks(index);
  return judged.index === index
    ? judged.findings
    : recheck(judged.findings, index, diff(judged.index.plan, index.plan));
}

/** My edit, at once in the shown plan and in the queue to the server. */
export function addBatch(held: Held, batch: ChangeBatch): Result<Held, IntegrityError> {
  const applied = applyChanges(held.index.plan, batch.changes);
  if (!applied.ok) return applied;
  const index = held.index.derive(applied.value, batch.changes);
  return ok({ ...held, pending: [...held.pending, batch], index });
}

/**
 * My batches on top of `base`, one after another; what does not fit stays as it was made, so that it can be
 * asked about again.
 */
function onTop(held: Held, base: Plan, mine: readonly ChangeBatch[], chosen: Chosen | null = null): Held {
  let plan = base;
  const pending: ChangeBatch[] = [];
  const stuck: Stuck[] = [];
  for (const batch of mine) {
    const rebased = rebase(plan, batch.changes, batch.id === chosen?.batch ? chosen.choose : undefined);
    const applied = rebased.ok ? applyChanges(plan, rebased.value) : null;
    if (rebased.ok && applied?.ok === true) {
      plan = applied.value;
      if (rebased.value.length > 0) pending.push({ ...batch, changes: rebased.value });
    } else {
      pending.push(batch);
      stuck.push({
        batch,
        clashes: rebased.ok ? [] : rebased.error,
        fault: applied === null || applied.ok ? null : applied.error,
      });
    }
  }
  return { ...held, base, pending, stuck, index: shownAs(held, plan) };
}

/** The batches that were kept from before, on top of the plan as it was loaded. */
export const withKept = (held: Held, kept: readonly ChangeBatch[]): Held =>
  onTop(held, held.base, [...kept, ...held.pending]);

/** The oldest of my batches that can be sent. */
export function nextToSend({ pending, stuck }: Held): ChangeBatch | undefined {
  return pending.find((batch) => !stuck.some(({ batch: { id } }) => id === batch.id));
}

/**
 * The server has written that batch of mine as the next revision: it belongs to the confirmed plan now. Null
 * when it can't.
 */
export function confirm(held: Held, batchId: string, revision: number): Held | null {
  const batch = held.pending.find(({ id }) => id === batchId);
  if (batch === undefined) return held;
  const applied = applyChanges(held.base, batch.changes);
  if (!applied.ok) return null;
  const confirmed = { ...held, base: applied.value, revision };
  const rest = held.pending.filter(({ id }) => id !== batchId);
  // The usual case: the first of those that wait, and nothing else moves.
  return held.stuck.length === 0 && held.pending[0]?.id === batchId
    ? { ...confirmed, pending: rest }
    : onTop(confirmed, applied.value, rest);
}

/** The server has had that batch for long, and its effect may have been undone since: it no longer waits. */
export const settle = (held: Held, batchId: string): Held =>
  onTop(
    held,
    held.base,
    held.pending.filter(({ id }) => id !== batchId),
  );

/**
 * Takes in what the server logged after my revision, mine and others', and puts what I still have on top.
 * Null when an entry does not follow from what is here: then the plan has to be loaded anew.
 */
export function catchUp(held: Held, entries: readonly Logged[]): Held | null {
  let { base, revision } = held;
  for (const entry of entries) {
    if (entry.revision <= revision) continue;
    const applied = entry.revision === revision + 1 ? applyChanges(base, entry.changes) : null;
    if (applied === null || !applied.ok) return null;
    base = applied.value;
    revision = entry.revision;
  }
  const known = new Set(entries.map((entry) => entry.id));
  return onTop(
    { ...held, revision },
    base,
    held.pending.filter((batch) => !known.has(batch.id)),
  );
}

/**
 * Puts one stuck batch on top as a person chose, field by field; it stays stuck where the choices do not
 * settle all of it.
 */
export const decide = (held: Held, batchId: string, choose: Choose): Held =>
  onTop(held, held.base, held.pending, { batch: batchId, choose });

/** The batch with its own values on `plan`; null when what it changes is not there, or it can't be applied. */
const withOwnValues = (plan: Plan, batch: ChangeBatch): ChangeBatch | null => {
  const isGone = batch.changes.some(
    ({ kind, id, before }) => before !== null && kind !== "site" && !plan[kind].has(id),
  );
  const changes = isGone ? null : rebaseMine(plan, batch.changes);
  return changes !== null && applyChanges(plan, changes).ok ? { ...batch, changes } : null;
};

/** Takes one of my batches away, and with it only those that build on it; answers what went. */
export function giveUp(
  held: Held,
  batchId: string,
): { readonly held: Held; readonly dropped: readonly ChangeBatch[] } {
  const wasStuck = new Set(held.stuck.map(({ batch }) => batch.id));
  const at = held.pending.findIndex(({ id }) => id === batchId);
  const dropped = held.pending.slice(at, at + 1);
  let kept = onTop(held, held.base, held.pending.slice(0, at));
  for (const batch of held.pending.slice(at + 1)) {
    const next = onTop(kept, kept.base, [...kept.pending, batch]);
    const isNewlyStuck = !wasStuck.has(batch.id) && next.stuck.some(({ batch: { id } }) => id === batch.id);
    const stands = isNewlyStuck ? withOwnValues(kept.index.plan, batch) : batch;
    if (stands === null) dropped.push(batch);
    else kept = isNewlyStuck ? onTop(kept, kept.base, [...kept.pending, stands]) : next;
  }
  return { held: kept, dropped };
}
