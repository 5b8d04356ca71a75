import { bramblewick } from "../../../demo/bramblewick";
import { must } from "../kernel";
import { afterEdits, PlanEdits, PlanIndex } from "../plan";
import { asClient } from "../probe";
import { follow, readAt } from "../testing/diagnose";
import type { Ask } from "./asks";
import { onPlan } from "./predict";
import { Study } from "./study";

const index = PlanIndex.of(bramblewick());
const typed = [...index.plan.host.values()].filter(
  ({ manner, ipv4, attachment }) => manner === "typed" && ipv4 !== null && attachment.at !== "unplaced",
);

test.each([
  ["shorter", 16],
  ["longer", 30],
] as const)("a mask that is entered %s is named where somebody notices it", (way, length) => {
  const found = typed.slice(0, 8).flatMap((host) => {
    const edits = new PlanEdits(index.plan);
    edits.patch("host", host.id, { length4: length });
    const truth = must(afterEdits(index, edits), "a plan");
    const study = new Study(index);
    const asks = typed.map((other): Ask => ({
      what: "try",
      question: asClient({ at: "host", host: host.id }, { to: "host", host: other.id, service: null }),
    }));
    const noticed = asks.find((ask) => onPlan(index, ask).key !== onPlan(truth, ask).key);
    if (noticed === undefined) return [];
    const complaint = readAt(study, truth, noticed);
    const { left } = follow(study, truth, [complaint], { isSure: false, ask: (all) => study.diagnose(all) });
    return [left.some(({ suspect }) => suspect.id === `mask ${way} ${host.id}`)];
  });
  expect(found.length).toBeGreaterThan(0);
  expect(found).not.toContain(false);
});
