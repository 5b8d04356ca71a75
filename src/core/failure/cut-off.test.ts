import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { applyChanges, PlanEdits, PlanIndex, type Plan } from "../plan";
import { must } from "../kernel";
import { mixedSite } from "../testing/mixed-site";
import { dice, type Dice } from "../testing/plants";
import { failureName, singleFailures } from "./kinds";
import { FailureStudy, type Loss } from "./study";

// What a failure cuts off is told without settling the network anew, where that can be told; the slow way has
// to say the same of every failure.

/** Gear with all that could make a difference: guards, ways round, VLANs left out of trunks, priorities. */
function unsettled(plan: Plan, roll: Dice): Plan {
  const edits = new PlanEdits(plan);
  const ports = edits.all("port").filter((port) => PlanIndex.of(plan).linkAt(port.id) !== undefined);
  for (const port of ports) {
    if (roll(6) === 0)
      edits.patch("port", port.id, { guards: { ...port.guards, restrictedRole: roll(2) === 0 } });
    if (roll(6) === 0) edits.patch("port", port.id, { tagged: port.tagged.filter(() => roll(3) > 0) });
    if (roll(9) === 0) edits.patch("port", port.id, { guards: { ...port.guards, bpduGuard: true } });
  }
  for (const device of edits.all("device").filter(({ bridging }) => bridging === "vlan"))
    if (roll(3) === 0)
      edits.patch("device", device.id, {
        tree: {
          ...device.tree,
          kind: (["none", "rapid", "perVlan"] as const)[roll(3)] ?? "rapid",
          priority: 4096 * roll(9),
        },
      });
  const applied = applyChanges(plan, edits.changes());
  return must(applied.ok ? applied.value : null, "guards and priorities always apply");
}

const sorted = ({ cutOff, noGateway, noAddress, noInternet, takeOver }: Loss) =>
  [cutOff, noGateway, noAddress, noInternet, takeOver].map((ids) => [...ids].sort());

const DEMOS = [bramblewick, fennelStreet, lockkeepersHouse].map((plan) => plan());
const CASES: readonly (readonly [string, Plan])[] = [
  ...DEMOS.map((plan): [string, Plan] => [plan.site.name, plan]),
  ...Array.from({ length: 60 }, (_, seed): [string, Plan] => {
    const roll = dice(seed + 7);
    const site = seed % 3 === 0 ? must(DEMOS[seed % 9 === 0 ? 0 : 1], "a demo site") : mixedSite(roll);
    return [`made site ${seed}`, unsettled(site, roll)];
  }),
];

test.each(CASES)("%s: every failure is told as the slow way tells it", (_, plan) => {
  const index = PlanIndex.of(plan);
  const study = new FailureStudy(index);
  for (const failure of singleFailures(index))
    expect([failureName(index, failure), ...sorted(study.fail([failure]))]).toEqual([
      failureName(index, failure),
      ...sorted(study.failAnew([failure])),
    ]);
});

test("most failures of the demo sites need nothing settled anew", () => {
  const settled = jest.spyOn(FailureStudy.prototype, "failAnew");
  const index = PlanIndex.of(must(DEMOS[1], "the practice"));
  const study = new FailureStudy(index);
  const all = singleFailures(index);
  for (const failure of all) study.fail([failure]);
  expect(settled.mock.calls.length).toBeLessThan(all.length / 2);
  settled.mockRestore();
});
