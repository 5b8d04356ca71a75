import { recheck, type FindingsByCode } from "@/core/checks";
import { err, ok, type Result } from "@/core/kernel";
import { applyChanges, diff, rebase, rebaseMine, type Change, type ChangeBatch, type Clash, type IntegrityError, type Plan, type PlanIndex } from "@/core/plan";

/** A plan in the browser: what the server has confirmed, what is still on its way, and the two together as it is shown. */
export interface Held {
  readonly base: Plan;
  readonly revision: number;
  readonly pending: readonly ChangeBatch[];
  readonly index: PlanIndex;
  readonly findings: FindingsByCode;
}

/** A batch of somebody, as the server logged it. */
export interface Logged { readonly id: string; readonly revision: number; readonly changes: readonly Change[] }

/** One of my batches that can't go on top of what others did. */
export interface Stuck { readonly batch: ChangeBatch; readonly clashes: readonly Clash[] }

/** The shown plan brought to `plan`, its look-ups and findings along with it. */
function shownAs(held: Held, plan: Plan): Pick<Held, "index" | "findings"> {
  const changes = diff(held.index.plan, plan);
  if (changes.length === 0) return { index: held.index, findings: held.findings };
  const index = held.index.derive(plan, changes);
  return { index, findings: recheck(held.findings, index, changes) };
}

/** My edit, at once on screen and in the queue to the server. */
export function addBatch(held: Held, batch: ChangeBatch): Result<Held, IntegrityError> {
  const applied = applyChanges(held.index.plan, batch.changes);
  if (!applied.ok) return applied;
  const index = held.index.derive(applied.value, batch.changes);
  return ok({ ...held, pending: [...held.pending, batch], index, findings: recheck(held.findings, index, batch.changes) });
}

/** The server has my oldest batch: it belongs to the confirmed plan now. */
export function confirmFirst(held: Held, revision: number): Held {
  const [first, ...rest] = held.pending;
  const applied = first === undefined ? ok(held.base) : applyChanges(held.base, first.changes);
  return { ...held, base: applied.ok ? applied.value : held.base, pending: rest, revision };
}

/**
 * Takes in what the server logged after my revision, mine and others', and puts what I still have on top. Answers the first
 * batch that clashes instead; nothing is changed then.
 */
export function catchUp(held: Held, entries: readonly Logged[]): Result<Held, Stuck> {
  let base = held.base;
  let revision = held.revision;
  for (const entry of entries) {
    if (entry.revision <= revision) continue;
    const applied = applyChanges(base, entry.changes);
    if (applied.ok) base = applied.value;
    revision = entry.revision;
  }
  const known = new Set(entries.map((entry) => entry.id));
  return onTop(held, base, revision, held.pending.filter((batch) => !known.has(batch.id)));
}

function onTop(held: Held, base: Plan, revision: number, mine: readonly ChangeBatch[]): Result<Held, Stuck> {
  let plan = base;
  const pending: ChangeBatch[] = [];
  for (const batch of mine) {
    const rebased = rebase(plan, batch.changes);
    if (!rebased.ok) return err({ batch, clashes: rebased.error });
    if (rebased.value.length === 0) continue;
    const applied = applyChanges(plan, rebased.value);
    if (!applied.ok) return err({ batch, clashes: [] });
    plan = applied.value;
    pending.push({ ...batch, changes: rebased.value });
  }
  return ok({ base, revision, pending, ...shownAs(held, plan) });
}

/** Gives up one of my batches and puts the others on top of the confirmed plan. */
export function giveUp(held: Held, batchId: string): Held {
  const kept = held.pending.filter((batch) => batch.id !== batchId);
  const again = onTop(held, held.base, held.revision, kept);
  return again.ok ? again.value : { ...held, pending: [], ...shownAs(held, held.base) };
}

/** Makes one of my batches win over what others did since; null when even so it can't be applied. */
export function insist(held: Held, batchId: string): Held | null {
  const pending = held.pending.map((batch) => (batch.id === batchId ? { ...batch, changes: rebaseMine(held.base, batch.changes) } : batch));
  const again = onTop(held, held.base, held.revision, pending);
  return again.ok ? again.value : null;
}

/** The confirmed plan moved on to what others did, with my queue untouched: what a clash is shown against. */
export function moveBase(held: Held, entries: readonly Logged[]): Held {
  const moved = catchUp({ ...held, pending: [] }, entries);
  return moved.ok ? { ...moved.value, pending: held.pending } : held;
}
