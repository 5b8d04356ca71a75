import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import { PlanIndex, type Plan, type Zone } from "../plan";
import { edited } from "../testing/asking";
import { gapCost, gapCostWords, HOLDS_AGAINST } from "./air-gap";

const zoneOf = (plan: Plan, name: string): Zone =>
  must(
    [...plan.zone.values()].find((zone) => zone.name === name),
    name,
  );
const costOf = (plan: Plan, name: string) => gapCost(PlanIndex.of(plan), zoneOf(plan, name));

test("what an air gap costs is counted: shared switches, cables, access points, doors, devices", () => {
  const plan = fennelStreet();
  const cost = costOf(plan, "Visitors");
  expect(cost.switches.map(({ name }) => name)).toEqual(["Lower switch", "Switch B", "Upper switch"]);
  expect(cost.points).toHaveLength(4);
  expect(cost.doors).toContain("Visitors to Internet");
  expect([cost.internet, cost.cables > 5]).toEqual([true, true]);
  expect(gapCostWords(cost)).toMatch(
    /^3 more switches, \d+ more cables between gear and 4 more access points$/,
  );
});

test("a group with its own gear costs no more gear; each closed door is one way less that ends", () => {
  const plan = bramblewick();
  const index = PlanIndex.of(plan);
  for (const zone of plan.zone.values()) {
    const cost = gapCost(index, zone);
    const closed = edited(plan, (edits) => {
      for (const wall of edits.all("wall"))
        if (wall.door !== "closed") edits.patch("wall", wall.id, { door: "closed", services: [] });
    });
    expect(costOf(closed, zone.name)).toEqual({ ...cost, doors: [], internet: false });
  }
  const safety = gapCost(index, zoneOf(plan, "Safety"));
  expect([gapCostWords(safety), safety.switches]).toEqual(["no gear: it shares none", []]);
});

test("neither holds against everything", () => {
  expect(HOLDS_AGAINST.every(({ vlans }) => vlans)).toBe(false);
  expect(HOLDS_AGAINST.every(({ gap }) => gap)).toBe(false);
});
