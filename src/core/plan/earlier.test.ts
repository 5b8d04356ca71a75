import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { dice } from "../testing/plants";
import { editField, FIELD_PATHS } from "../testing/schema-edits";
import { applyChanges, type Change } from "./change";
import { planBefore } from "./earlier";
import type { Plan } from "./plan";
import { PlanEdits } from "./plan-edits";

test("with its last batches taken back a plan is what it was, however many they are", () => {
  const roll = dice(7);
  const plans: Plan[] = [lockkeepersHouse()];
  const batches: Change[][] = [];
  for (let at = 0; at < 300; at += 1) {
    const plan = must(plans.at(-1), "a plan");
    const edits = new PlanEdits(plan);
    for (let edit = 0; edit < 3; edit += 1)
      editField(edits, must(FIELD_PATHS[roll(FIELD_PATHS.length)], "a field"), roll);
    const applied = applyChanges(plan, edits.changes());
    if (!applied.ok || edits.changes().length === 0) continue;
    plans.push(applied.value);
    batches.push(edits.changes());
  }
  expect(batches.length).toBeGreaterThan(20);
  const last = must(plans.at(-1), "a plan");
  for (const [at, plan] of plans.entries()) expect(planBefore(last, batches.slice(at))).toEqual(plan);
  expect(planBefore(last, batches.slice(0, 1))).toBeNull();
});
