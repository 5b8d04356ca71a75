import { bramblewick } from "../../../demo/bramblewick";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { FailureStudy, ranked, singleFailures } from "../failure";
import { must } from "../kernel";
import { emptyPlan, PlanIndex } from "../plan";
import { recordExports } from "./record-exports";
import { studyExports } from "./study-exports";

const house = PlanIndex.of(lockkeepersHouse(), "2026-12-01");
const rowsOf = (file: string, index = house): readonly (readonly string[])[] => {
  const content = must(
    studyExports([]).find((siteExport) => siteExport.file === file),
    file,
  ).make(index);
  return content.is === "table" ? content.rows : [];
};

test("what is worked out leaves as tables: a row for each failure, step, segment that reaches", () => {
  const work = new FailureStudy(house);
  const losses = ranked(
    house,
    singleFailures(house).map((failure) => work.fail([failure])),
  );
  expect(losses.length).toBeGreaterThan(5);
  expect(rowsOf("failures.csv").map(([name, , cutOff]) => [name, cutOff])).toEqual([
    ["what fails", "cut off"],
    ...losses.map(({ name, cutOff }) => [name, String(cutOff.length)]),
  ]);
  const [heads, ...segments] = rowsOf("reach.csv");
  expect(segments).toHaveLength(house.plan.segment.size);
  expect(segments.every((row) => row.length === heads?.length)).toBe(true);
  const steps = rowsOf("runbook.csv");
  expect(steps.length).toBeGreaterThan(20);
  expect(steps.slice(1).map(([step]) => step)).toEqual(steps.slice(1).map((_, at) => String(at + 1)));
});

test("a plan of nothing gives tables of nothing, and no name stands twice among the exports", () => {
  const nothing = PlanIndex.of(emptyPlan(bramblewick().site), "2026-12-01");
  expect(rowsOf("failures.csv", nothing)).toHaveLength(1);
  expect(rowsOf("reach.csv", nothing)).toHaveLength(1);
  const files = [...studyExports([]), ...recordExports([])].map(({ file }) => file);
  expect(new Set(files).size).toBe(files.length);
});
