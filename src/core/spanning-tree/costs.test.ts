import { must } from "../kernel";
import { PlanIndex, type Lag } from "../plan";
import { testId } from "../testing/build-plan";
import { cabledGear, endId, letterId, type CabledGear } from "../testing/cabled-gear";
import { costOfPort, pathCost, shortPathCost } from "./costs";

test("costs by speed are those of the standard's table", () => {
  expect([10, 100, 1000, 2500, 10_000, 40_000, 100_000].map(pathCost)).toEqual([
    2_000_000, 200_000, 20_000, 8000, 2000, 500, 200,
  ]);
});

test("a cost is never less than 1, and a port without a speed costs as one of 1 Mbit/s", () => {
  expect([1_000_000_000, 1, 0].map(pathCost)).toEqual([1, 20_000_000, 20_000_000]);
});

test("short costs are the old table's, from each speed on up to the next", () => {
  const speeds = [9, 10, 15, 16, 99, 100, 999, 1000, 1999, 2000, 9999, 10_000, 19_999, 20_000, 100_000];
  expect(speeds.map(shortPathCost)).toEqual([250, 100, 100, 62, 62, 19, 19, 4, 4, 3, 3, 2, 2, 1, 1]);
});

const lag: Lag = { id: testId("lag", "A"), device: letterId("A"), name: "To B", mode: "active" };
/** What port A1 costs; two cables lead to B, and a third port has none. */
const costAt = (ports: CabledGear["ports"], tree: object = {}): number => {
  const cables = ["A1-B1", "A2-B2"];
  const plan = cabledGear({ gear: { A: { tree }, B: {} }, cables, lag: [lag], ports: { A3: {}, ...ports } });
  const index = PlanIndex.of(plan);
  return costOfPort(index, must(index.plan.port.get(endId("A1")), "A1"));
};

test("a cost entered by hand counts, also 0; else the speed that both ends of the cable have", () => {
  expect(costAt({ A1: { treeCost: 77 } }, { costs: "short" })).toBe(77);
  expect(costAt({ A1: { treeCost: 0 } })).toBe(0);
  expect(costAt({})).toBe(20_000);
  expect(costAt({ B1: { speedMbps: 100 } })).toBe(200_000);
  expect(costAt({ A1: { speedMbps: 10_000 } })).toBe(20_000);
  expect(costAt({}, { costs: "short" })).toBe(4);
});

test("the first port of a LAG has the speed of all that are cabled and on", () => {
  const own = { lag: lag.id };
  expect(costAt({ A1: own, A2: own })).toBe(10_000);
  // Without a cable, or off, a port carries nothing; a port outside of the LAG is none of its.
  expect(costAt({ A1: own, A2: own, A3: own })).toBe(10_000);
  expect(costAt({ A1: own, A2: { ...own, enabled: false } })).toBe(20_000);
  expect(costAt({ A1: own })).toBe(20_000);
  expect(costAt({ A1: { ...own, enabled: false } })).toBe(20_000);
});

test("a port without a cable costs by its own speed", () => {
  const plan = cabledGear({ gear: { A: {} }, cables: [], ports: { A1: { speedMbps: 100 } } });
  const index = PlanIndex.of(plan);
  expect(costOfPort(index, must(index.plan.port.get(endId("A1")), "A1"))).toBe(200_000);
});
