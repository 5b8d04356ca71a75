import { applyChanges, type Change, type IntegrityError, type PlanIndex } from "../plan";
import { err, ok, type Result } from "../kernel";
import type { Finding } from "./check";
import { recheck } from "./recheck";
import { listFindings, type FindingsByCode } from "./registry";

/** A plan as it would be, and how its findings would differ. */
export interface Preview {
  readonly index: PlanIndex;
  readonly findings: FindingsByCode;
  /** Findings that go, of the plan as it is. */
  readonly gone: readonly Finding[];
  /** Findings that come, of the plan as it would be. */
  readonly come: readonly Finding[];
}

/** What changes would do; nothing is changed. */
export function previewChanges(
  index: PlanIndex,
  findings: FindingsByCode,
  changes: readonly Change[],
): Result<Preview, IntegrityError> {
  const applied = applyChanges(index.plan, changes);
  if (!applied.ok) return err(applied.error);
  const next = index.derive(applied.value, changes);
  const after = recheck(findings, next, changes);
  const [before, later] = [listFindings(findings), listFindings(after)];
  const [keysBefore, keysAfter] = [new Set(before.map((f) => f.key)), new Set(later.map((f) => f.key))];
  return ok({
    index: next,
    findings: after,
    gone: before.filter((f) => !keysAfter.has(f.key)),
    come: later.filter((f) => !keysBefore.has(f.key)),
  });
}
