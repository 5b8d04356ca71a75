import { readFileSync } from "node:fs";
import { must } from "../kernel";
import { listFindings, runChecks } from "../checks";
import { BLANK_DEVICE, COLLECTION_KINDS, emptyPlan, invert, applyChanges, LIST_NAMES, PlanIndex } from "../plan";
import { decodeChanges, readPlanFile, upgradedBatches, writePlanFile, changeBatchSchema } from ".";

/** A plan file as the application wrote it when the form was version 1. */
const text = readFileSync("tests/fixtures/plan-version-1.json", "utf8");
const file = JSON.parse(text) as Record<string, unknown>;
const read = readPlanFile(text);
const plan = must(read.ok ? read.value : null, "the old file is read");

test("a file of version 1 is read whole: nothing it says is lost, and what it lacks changes nothing", () => {
  for (const kind of COLLECTION_KINDS) expect(plan[kind].size).toBe(((file[LIST_NAMES[kind]] ?? []) as unknown[]).length);
  expect([...plan.device.values()][0]).toMatchObject({ abilities: BLANK_DEVICE.abilities, hears: [], poe: "asKind" });
  expect(plan.site.conventions.cablePattern).toBe("{from}-{fromPort}");
  expect(listFindings(runChecks(PlanIndex.of(plan))).filter((finding) => finding.severity === "stop")).toEqual([]);
  expect(readPlanFile(writePlanFile(plan))).toEqual({ ok: true, value: plan });
});

test("what is missing in a file of the present version is still refused", () => {
  const present = JSON.parse(writePlanFile(plan)) as { devices: Record<string, unknown>[] };
  delete must(present.devices[0], "a device").abilities;
  const again = readPlanFile(JSON.stringify(present));
  expect(again.ok ? "" : must(again.error[0], "a fault").sentence).toMatch(/^devices\[0\] "Gateway"\.abilities: is missing/);
});

const logged = COLLECTION_KINDS.flatMap((kind) => ((file[LIST_NAMES[kind]] ?? []) as { id: string }[]).map((after) => ({ kind, id: after.id, before: null, after })));

test("changes logged in version 1 can still be applied and undone, and those a browser kept are still sent", () => {
  const changes = decodeChanges(logged);
  expect(applyChanges(emptyPlan(plan.site), changes)).toEqual({ ok: true, value: plan });
  const back = applyChanges(plan, invert(changes));
  expect(back.ok ? back.value : back.error).toEqual(emptyPlan(plan.site));
  const batch = { id: must(logged[0], "a change").id, planner: "import-plan", summary: "kept", args: null, changes: logged };
  expect(changeBatchSchema.array().safeParse(upgradedBatches([batch])).success).toBe(true);
  expect(changeBatchSchema.array().safeParse([batch]).success).toBe(false);
});
