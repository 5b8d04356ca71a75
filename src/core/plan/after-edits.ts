import { supposeChanges } from "./change";
import type { PlanEdits } from "./plan-edits";
import type { PlanIndex } from "./plan-index";

/** The plan with edits done, to ask what would be then; null where it does not take them. */
export function afterEdits(index: PlanIndex, edits: PlanEdits): PlanIndex | null {
  const changes = edits.changes();
  if (changes.length === 0) return index;
  const applied = supposeChanges(index.plan, changes);
  return applied.ok ? index.derive(applied.value, changes) : null;
}
