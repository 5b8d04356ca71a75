import type { Repair } from "../repairs";
import { applyChanges, PlanEdits, type PlanIndex } from "../plan";
import { probe, type Outcome } from "./probe";

/** A repair that was tried: the same question asked again on the plan with it. */
export interface Tried {
  readonly repair: Repair;
  readonly result: "passes" | "further" | "same";
}

const RANK = { passes: 0, further: 1, same: 2 } as const;

/**
 * Tries each repair that a failed probe offers; those that make it pass come first, and of those that were
 * said first the first.
 */
export function tryRepairs(index: PlanIndex, outcome: Outcome, ids: () => string): Tried[] {
  const tried = (outcome.cause?.repairs ?? []).map((repair): Tried => {
    const edits = new PlanEdits(index.plan);
    const refused = typeof repair.edit(edits, ids) === "string";
    const changes = edits.changes();
    const applied = refused ? null : applyChanges(index.plan, changes);
    if (applied?.ok !== true) return { repair, result: "same" };
    const again = probe(index.derive(applied.value, changes), outcome.question, ids);
    const further =
      (again.stopsAt ?? Infinity) > (outcome.stopsAt ?? 0) ||
      (again.cause !== null && again.cause.sentence !== outcome.cause?.sentence);
    const failed = further ? "further" : "same";
    return { repair, result: again.cause === null ? "passes" : failed };
  });
  return tried.sort((a, b) => RANK[a.result] - RANK[b.result]);
}
