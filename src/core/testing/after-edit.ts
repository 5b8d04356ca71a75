import { must } from "../kernel";
import { applyChanges, entityCount, PlanIndex, type Plan } from "../plan";
import { plan as runPlanner, type EditContext, type Refusal } from "../planners";
import { testId } from "./build-plan";

/** The plan after an edit, or its refusal; new ids follow from how many there were. */
export function afterEdit(plan: Plan, edit: (context: EditContext) => Refusal | void): Plan | string {
  let n = 0;
  const { batch, refusal } = runPlanner(
    PlanIndex.of(plan),
    () => testId("edit", `${entityCount(plan)} ${(n += 1)}`),
    { planner: "test", summary: "", args: null },
    edit,
  );
  if (batch === null) return refusal;
  const applied = applyChanges(plan, batch.changes);
  return must(
    applied.ok ? applied.value : null,
    `applies: ${applied.ok ? "" : JSON.stringify(applied.error)}`,
  );
}

/** The plan that an edit led to; a refusal fails the test with its sentence. */
export const donePlan = (plan: Plan | string): Plan =>
  must(typeof plan === "string" ? null : plan, String(plan));
