import { fennelStreet } from "../../../demo/fennel-street";
import { describeChanges } from "../formats";
import { must } from "../kernel";
import { PlanEdits, PlanIndex } from "../plan";
import { testId } from "../testing/build-plan";
import { recheck } from "./recheck";
import { listFindings, repairsOf, runChecks, sentenceOf } from "./registry";
import { previewChanges } from "./preview";

const index = PlanIndex.of(fennelStreet());
const findings = runChecks(index);

test("a repair's preview says what changes, which finding goes and that none comes", () => {
  const missing = must(
    listFindings(findings).find(
      (f) => f.code === "vlan-missing-on-hop" && sentenceOf(f, index).startsWith("Imaging"),
    ),
    "the finding",
  );
  const edits = new PlanEdits(index.plan);
  must(repairsOf(missing, index)[0], "a repair").edit(edits, () => testId("new", "one"));
  const preview = previewChanges(index, findings, edits.changes());
  const shown = must(preview.ok ? preview.value : null, "a preview");
  expect(shown.gone.map((f) => f.key)).toContain(missing.key);
  expect(shown.come).toEqual([]);
  expect(describeChanges(index, shown.index, edits.changes())).toContainEqual({
    what: "changed",
    kind: "port",
    name: "Upper switch port 25",
    fields: [
      { field: "tagged", before: "10, 20, 30, 50, 70, 80, 90", after: "10, 20, 30, 40, 50, 70, 80, 90" },
    ],
  });
  expect(listFindings(recheck(findings, shown.index, edits.changes()))).toEqual(
    listFindings(runChecks(shown.index)),
  );
});

test("every repair on offer for the demo's findings applies, and none brings a new stop", () => {
  let tried = 0;
  for (const finding of listFindings(findings)) {
    for (const repair of repairsOf(finding, index)) {
      let n = 0;
      const edits = new PlanEdits(index.plan);
      repair.edit(edits, () => testId("new", `${(n += 1)}`));
      const preview = previewChanges(index, findings, edits.changes());
      expect([repair.label, preview.ok]).toEqual([repair.label, true]);
      if (preview.ok)
        expect([
          repair.label,
          preview.value.come.filter((f) => f.severity === "stop").map((f) => f.key),
        ]).toEqual([repair.label, []]);
      tried += 1;
    }
  }
  expect(tried).toBeGreaterThan(5);
});
