import { fennelStreet } from "../../../demo/fennel-street";
import { testSheet } from "../commissioning";
import { must } from "../kernel";
import { afterEdits, PlanEdits } from "../plan";
import { withIpv6 } from "../testing/with-ipv6";
import { onPlan, outcomeText } from "./predict";
import { Study, type Named } from "./study";

const index = withIpv6(fennelStreet());
const test6 = must(
  testSheet(index).tests.find(({ question }) => question?.family === 6),
  "a reading of IPv6",
);
const ask = { what: "try" as const, question: must(test6.question, "its question") };
const NONE: Named = {};

/** What explains that a site with a fault shows what it shows. */
function explained(edit: (edits: PlanEdits) => void): string[] {
  const edits = new PlanEdits(index.plan);
  edit(edits);
  const truth = must(afterEdits(index, edits), "a plan");
  const text = outcomeText(truth, onPlan(index, ask).expected, onPlan(truth, ask).expected);
  expect(onPlan(truth, ask).key).not.toBe(onPlan(index, ask).key);
  const { candidates, readings } = new Study(index, { named: NONE }).diagnose([
    { id: "1", ask, seen: { is: "text", text } },
  ]);
  return candidates.filter(({ count }) => count === readings.length).map(({ suspect }) => suspect.id);
}

test("no IPv6 address is explained by a silent router, and by a guard that drops its word", () => {
  const segment = test6.expected.is === "lease" ? (test6.expected.segment ?? "") : "";
  const silent = explained((edits) => edits.patch("segment", segment, { advertise: "none" }));
  expect(silent).toContain(`no advertising ${segment}`);
  expect(silent.some((id) => id.startsWith("router guard "))).toBe(true);
});

test("where nobody asks for IPv6, nothing of it is tried", () => {
  const four = { what: "try" as const, question: { ...ask.question, family: 4 as const } };
  const tried = new Study(index).suspects([{ id: "1", ask: four, seen: { is: "not planned" } }]);
  expect(tried.length).toBeGreaterThan(0);
  expect(tried.filter(({ kind }) => kind === "advertising")).toEqual([]);
});
