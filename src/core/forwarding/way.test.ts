import { must } from "../kernel";
import { PlanIndex, type Plan, type Port } from "../plan";
import { cabledGear, endId, letterId, type CabledGear } from "../testing/cabled-gear";
import { v } from "../testing/written";
import { cableWay } from "./way";

const NONE = { tree: { kind: "none" } } as const;
const RING = ["A1-B1", "B2-C1", "C2-A2"];

/** The way as "A1 B1, B2 C1", in ends; null where there is none. */
function way(gear: CabledGear, from: string, to: string, vid = 10): string | null {
  const plan: Plan = cabledGear(gear);
  const ends = new Map(
    gear.cables.flatMap((cable) => cable.split("-")).map((end) => [endId(end), end] as const),
  );
  const end = ({ id }: Port) => must(ends.get(id), "an end of a cable");
  const hops = cableWay(PlanIndex.of(plan), letterId(from), letterId(to), vid);
  return hops?.map(({ near, far }) => `${end(near)} ${end(far)}`).join(", ") ?? null;
}

describe("the way by cable", () => {
  const chain = { gear: { A: NONE, B: NONE, C: NONE, D: NONE }, cables: ["A1-B1", "B2-C1"], tagged: [] };

  test("goes from cable to cable, whatever VLANs they carry", () => {
    expect(way(chain, "A", "C")).toBe("A1 B1, B2 C1");
    expect(way(chain, "C", "A")).toBe("C1 B2, B1 A1");
    expect(way(chain, "B", "A")).toBe("B1 A1");
  });

  test("is none to where it starts; null where no cable leads, and for what is no gear of the plan", () => {
    expect(way(chain, "B", "B")).toBe("");
    expect([way(chain, "A", "D"), way(chain, "D", "A")]).toEqual([null, null]);
    expect([way(chain, "A", "Z"), way(chain, "Z", "A"), way(chain, "Z", "Z")]).toEqual([null, null, null]);
  });

  test("is the one of the fewest cables", () => {
    const ring = {
      gear: Object.fromEntries(["A", "B", "C", "D", "E"].map((letter) => [letter, NONE])),
      cables: ["A1-B1", "B2-C1", "C2-D1", "D2-E1", "E2-A2"],
    };
    expect(way(ring, "A", "D")).toBe("A2 E2, E1 D2");
    expect(way(ring, "A", "C")).toBe("A1 B1, B2 C1");
    expect(way({ gear: chain.gear, cables: RING }, "B", "C")).toBe("B2 C1");
  });

  test("leaves out a cable of which either end stands by, in that VLAN alone", () => {
    const ordered = { A: { tree: { priority: 0 } }, B: { tree: { priority: 4096 } }, C: {} };
    // C's end at B stands by.
    expect(way({ gear: ordered, cables: RING }, "B", "C")).toBe("B1 A1, A2 C2");
    expect(way({ gear: ordered, cables: RING }, "C", "B")).toBe("C2 A2, A1 B1");
    const instance = (number: number, vid: number, priority: number) => ({
      number,
      vids: [v(vid)],
      priority,
    });
    const inRegion = (priority: number, ofTwenty: number): CabledGear["gear"][string] => ({
      tree: {
        ...{ kind: "multiple", region: "hall", priority },
        instances: [instance(1, 10, priority), instance(2, 20, ofTwenty)],
      },
    });
    // In tree 2 C is the root and then B: A's end at B stands by.
    const gear = { A: inRegion(0, 32_768), B: inRegion(4096, 4096), C: inRegion(32_768, 0) };
    expect([10, 20].map((vid) => way({ gear, cables: RING, tagged: [10, 20] }, "A", "B", vid))).toEqual([
      "A1 B1",
      "A2 C2, C1 B2",
    ]);
  });
});
