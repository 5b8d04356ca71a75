import type { Change, Kind, PlanIndex } from "../plan";
import type { Finding } from "./check";
import { CHECKS, type FindingsByCode } from "./registry";

/**
 * The findings after an edit, check by check: whoever asks may do something else between two of them. Checks
 * that read none of the changed kinds keep theirs.
 */
export function* recheckByCheck(
  previous: FindingsByCode,
  index: PlanIndex,
  changes: readonly Change[],
): Generator<void, FindingsByCode> {
  const changed = new Set<Kind>(changes.map((change) => change.kind));
  if (changed.size === 0) return previous;
  const findings = new Map<string, readonly Finding[]>();
  for (const check of CHECKS) {
    const known = previous.get(check.code);
    const isTouched = check.reads.some((kind) => changed.has(kind));
    if (known === undefined) findings.set(check.code, check.run(index));
    else findings.set(check.code, isTouched ? check.rerun(known, index, changes) : known);
    if (isTouched) yield;
  }
  return findings;
}

/** The findings after an edit, at once. */
export function recheck(
  previous: FindingsByCode,
  index: PlanIndex,
  changes: readonly Change[],
): FindingsByCode {
  const steps = recheckByCheck(previous, index, changes);
  for (;;) {
    const { done, value } = steps.next();
    if (done === true) return value;
  }
}
