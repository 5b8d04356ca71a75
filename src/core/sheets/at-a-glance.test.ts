import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { listFindings, runChecks } from "../checks";
import { emptyPlan, PlanIndex, type Plan } from "../plan";
import { aSegment, aSite, aZone, planWith } from "../testing/build-plan";
import { glanceAt, nextStep, SHEET_ORDER } from "./at-a-glance";

const next = (plan: Plan) => {
  const index = PlanIndex.of(plan);
  return nextStep(index, listFindings(runChecks(index)));
};

test("figures of the practice, by hand", () => {
  const index = PlanIndex.of(fennelStreet());
  const at = (sheet: (typeof SHEET_ORDER)[number]) =>
    Object.fromEntries(glanceAt(index, sheet).map(({ name, value }) => [name, value]));
  expect(at("segments").Segments).toBe("10 in 8 zones");
  expect(at("hardware").Gear).toBe("4 access points, 3 switches, 1 gateway");
  expect(at("addresses")).toMatchObject({ "End devices": "60" });
  expect(at("guards")["802.1X"]).toBe("6 ports");
  expect(at("ports").Ports).toMatch(/ on gear that knows VLANs$/);
});

test("the next step: a stop first, in the job's order; then what is empty, warnings, proof", () => {
  expect(next(emptyPlan(aSite()))).toEqual({ sheet: "survey", why: "Nothing is planned there yet." });
  expect(next(fennelStreet())).toEqual({
    sheet: "segments",
    why: "1 stop has to be mended before anything is set up.",
  });
  expect(next(planWith({ zone: [aZone()], segment: [aSegment({ name: "Staff" })] }))).toEqual({
    sheet: "addresses",
    why: "Nothing is planned there yet.",
  });
  expect(next(bramblewick()).sheet).toBe("ports");
  expect(next(lockkeepersHouse())).toEqual({
    sheet: "probe",
    why: "Nothing is found wrong. Ask it what the customer will ask.",
  });
});
