import type { z } from "zod";
import { equal, err, ok, type Result } from "../kernel";
import type { Change } from "./change";
import { merge, type Winner } from "./merge";
import { entityOf, type Plan } from "./plan";
import { entityFault } from "./schema/faults";
import { SCHEMAS, type Entity, type Kind } from "./schema/kinds";

/**
 * Two people want different things of one field; `field` is null when one of them deleted what the other
 * changed.
 */
export interface Clash {
  readonly kind: Kind;
  readonly id: string;
  readonly field: string | null;
  readonly mine: unknown;
  readonly theirs: unknown;
}

/** Whose value a person has chosen for a clash; null when nobody has been asked yet. */
export type Choose = (clash: Pick<Clash, "id" | "field">) => Winner | null;
const NOBODY_ASKED: Choose = () => null;

/**
 * My changes, made on an older plan, as changes on `plan`. Fields merge one by one, as the schema says of
 * each (`MERGING`); a clash is settled by `choose`. Never runs a planner again. Answers all clashes that
 * nobody has settled when there are any.
 */
export function rebase(
  plan: Plan,
  changes: readonly Change[],
  choose: Choose = NOBODY_ASKED,
): Result<Change[], readonly Clash[]> {
  const rebased: Change[] = [];
  const clashes: Clash[] = [];
  for (const change of changes) {
    const outcome = rebaseOne(entityOf(plan, change.kind, change.id) ?? null, change, choose);
    if (outcome.ok) rebased.push(...outcome.value);
    else clashes.push(...outcome.error);
  }
  return clashes.length > 0 ? err(clashes) : ok(rebased);
}

/** My changes on `plan` where what I changed wins every clash; what others changed beside it stays. */
export function rebaseMine(plan: Plan, changes: readonly Change[]): Change[] {
  const rebased = rebase(plan, changes, () => "mine");
  return rebased.ok ? rebased.value : [];
}

function rebaseOne(current: Entity | null, change: Change, choose: Choose): Result<Change[], Clash[]> {
  const { kind, id, before, after } = change;
  const written = (to: Entity | null): Change[] =>
    equal(current, to) ? [] : [{ kind, id, before: current, after: to } as Change];
  if (equal(current, before)) return ok(written(after));
  if (equal(current, after)) return ok([]);
  if (current === null || before === null || after === null) {
    const chosen = choose({ id, field: null });
    return chosen === null
      ? err([{ kind, id, field: null, mine: after, theirs: current }])
      : ok(chosen === "mine" ? written(after) : []);
  }
  const merged = mergeFields(change, current, choose);
  return merged.ok ? ok(written(merged.value)) : merged;
}

interface FieldSides {
  readonly field: string;
  readonly was: unknown;
  readonly mine: unknown;
  readonly theirs: unknown;
}

function mergeFields(change: Change, current: Entity, choose: Choose): Result<Entity, Clash[]> {
  const { kind, id } = change;
  const fields = (entity: Entity | null) => entity as unknown as Record<string, unknown>;
  const shape = (SCHEMAS[kind] as z.ZodObject).shape as Record<string, z.ZodType>;
  const merged: Record<string, unknown> = { ...fields(current) };
  const clashes: Clash[] = [];
  const both: FieldSides[] = [];
  for (const [field, mine] of Object.entries(fields(change.after))) {
    const sides: FieldSides = {
      field,
      was: fields(change.before)[field],
      mine,
      theirs: fields(current)[field],
    };
    const chosen = choose({ id, field });
    const { value, clashes: isClash } = merge(shape[field], sides, chosen ?? "theirs");
    merged[field] = chosen !== null && isSwap(sides) ? sides[chosen] : value;
    if (isClash && chosen === null) clashes.push({ kind, id, field, mine, theirs: sides.theirs });
    else if (
      !equal(sides.mine, sides.was) &&
      !equal(sides.theirs, sides.was) &&
      !equal(sides.mine, sides.theirs)
    )
      both.push(sides);
  }
  const asked = (sides: FieldSides): Clash => ({
    kind,
    id,
    field: sides.field,
    mine: sides.mine,
    theirs: sides.theirs,
  });
  const undecided = both.filter(({ field }) => choose({ id, field }) === null);
  // Where the port's VLAN is asked about, so is the list of one that goes with it: the two are one answer.
  if (clashes.length > 0) return err([...clashes, ...undecided.filter(isSwap).map(asked)]);
  const whole = merged as unknown as Entity;
  // Each of the two fits the schema; what comes of both may not, such as a list that grows too long.
  return entityFault(kind, whole) === null || undecided.length === 0 ? ok(whole) : err(undecided.map(asked));
}

/** Whether each of the two wants one member of a list at most, and not the same. */
const isSwap = ({ mine, theirs }: FieldSides): boolean =>
  Array.isArray(mine) &&
  Array.isArray(theirs) &&
  mine.length <= 1 &&
  theirs.length <= 1 &&
  !equal(mine, theirs);
