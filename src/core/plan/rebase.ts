import { equal, err, ok, type Result } from "../kernel";
import type { Change } from "./change";
import { entityOf, type Plan } from "./plan";
import type { Entity, Kind } from "./schema/kinds";

/** Two people want different things of one field; `field` is null when one of them deleted what the other changed. */
export interface Clash {
  readonly kind: Kind;
  readonly id: string;
  readonly field: string | null;
  readonly mine: unknown;
  readonly theirs: unknown;
}

/**
 * My changes, made on an older plan, as changes on `plan`. Fields merge one by one; lists merge as sets (what I added is
 * added, what I removed is removed). Never runs a planner again. Answers all clashes when there are any.
 */
export function rebase(plan: Plan, changes: readonly Change[]): Result<Change[], readonly Clash[]> {
  const rebased: Change[] = [];
  const clashes: Clash[] = [];
  for (const change of changes) {
    const outcome = rebaseOne(entityOf(plan, change.kind, change.id) ?? null, change);
    if (outcome.ok) rebased.push(...outcome.value);
    else clashes.push(...outcome.error);
  }
  return clashes.length > 0 ? err(clashes) : ok(rebased);
}

/** My changes on `plan` where what I changed wins every clash; what others changed beside it stays. */
export function rebaseMine(plan: Plan, changes: readonly Change[]): Change[] {
  return changes.flatMap((change) => {
    const current = entityOf(plan, change.kind, change.id) ?? null;
    const { before, after } = change;
    if (before === null || after === null || current === null) return equal(current, after) ? [] : [{ ...change, before: current } as Change];
    const was = before as unknown as Record<string, unknown>;
    const mine = Object.fromEntries(Object.entries(after).filter(([field, value]) => !equal(value, was[field])));
    const merged = { ...current, ...mine };
    return equal(current, merged) ? [] : [{ ...change, before: current, after: merged } as Change];
  });
}

function rebaseOne(current: Entity | null, change: Change): Result<Change[], Clash[]> {
  const { kind, id, before, after } = change;
  if (equal(current, before)) return ok(equal(before, after) ? [] : [{ ...change, before: current } as Change]);
  if (equal(current, after)) return ok([]);
  if (current === null || before === null || after === null) {
    return err([{ kind, id, field: null, mine: after, theirs: current }]);
  }
  const merged = mergeFields(current, change, before, after);
  return merged.ok ? ok([{ kind, id, before: current, after: merged.value } as Change]) : merged;
}

function mergeFields(current: Entity, change: Change, before: Entity, after: Entity): Result<Entity, Clash[]> {
  const fields = (entity: Entity) => entity as unknown as Record<string, unknown>;
  const merged: Record<string, unknown> = { ...fields(current) };
  const clashes: Clash[] = [];
  for (const [field, mine] of Object.entries(fields(after))) {
    const was = fields(before)[field];
    const theirs = fields(current)[field];
    if (equal(mine, was) || equal(mine, theirs)) continue;
    if (equal(theirs, was)) merged[field] = mine;
    else if (Array.isArray(mine) && Array.isArray(was) && Array.isArray(theirs)) merged[field] = mergeLists(was, mine, theirs);
    else clashes.push({ kind: change.kind, id: change.id, field, mine, theirs });
  }
  return clashes.length > 0 ? err(clashes) : ok(merged as unknown as Entity);
}

function mergeLists(was: unknown[], mine: unknown[], theirs: unknown[]): unknown[] {
  const has = (list: unknown[], item: unknown) => list.some((other) => equal(other, item));
  const kept = theirs.filter((item) => has(mine, item) || !has(was, item));
  const added = mine.filter((item) => !has(was, item) && !has(kept, item));
  return [...kept, ...added];
}
