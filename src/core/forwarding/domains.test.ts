import { PlanIndex, type Port } from "../plan";
import { cabledGear, letterId, type CabledGear } from "../testing/cabled-gear";
import { v } from "../testing/written";
import { DOMAINS } from "./domains";

const NONE = { tree: { kind: "none" } } as const;
const GEAR = { A: NONE, B: NONE, C: NONE };
const CHAIN = ["A1-B1", "B2-C1"];
const carrying = (...vids: readonly number[]): Partial<Port> => ({ tagged: vids.map(v) });

/** At each of A, B and C the domain of a VLAN: the same letter where it is the same, null where it is none. */
function domains(gear: CabledGear, vid: number): (string | null)[] {
  const known = PlanIndex.of(cabledGear(gear)).derived(DOMAINS);
  const numbers = ["A", "B", "C"].map((letter) => known.at(letterId(letter), vid));
  return numbers.map((number) =>
    number === null ? null : (["A", "B", "C"][numbers.indexOf(number)] ?? null),
  );
}

describe("the broadcast domain at a device", () => {
  test("is one as far as the cables carry the VLAN, and another beyond", () => {
    expect(domains({ gear: GEAR, cables: CHAIN }, 10)).toEqual(["A", "A", "A"]);
    const parted = { gear: GEAR, cables: CHAIN, ports: { B2: carrying(20), C1: carrying(20) } };
    expect(domains({ ...parted, tagged: [10, 20] }, 10)).toEqual(["A", "A", "C"]);
    expect(domains({ ...parted, tagged: [10, 20] }, 20)).toEqual(["A", "A", "A"]);
  });

  test("of two VLANs is not the same", () => {
    const known = PlanIndex.of(cabledGear({ gear: GEAR, cables: CHAIN, tagged: [10, 20] })).derived(DOMAINS);
    const [ten, twenty, again] = [10, 20, 10].map((vid) => known.at(letterId("B"), vid));
    expect(ten).toEqual(expect.any(Number));
    expect(twenty).toEqual(expect.any(Number));
    expect(again).toBe(ten);
    expect(twenty).not.toBe(ten);
  });

  test("is none for a VLAN that nothing carries, and at what is no gear of the plan", () => {
    const index = PlanIndex.of(cabledGear({ gear: GEAR, cables: CHAIN }));
    expect(index.derived(DOMAINS).at(letterId("A"), 30)).toBeNull();
    expect(index.derived(DOMAINS).at(letterId("Z"), 10)).toBeNull();
  });

  test.each(["B1", "A1", "C1", "B2"])("is none where a cable passes it one way only: %s lacks it", (end) => {
    const gear = { gear: GEAR, cables: CHAIN, tagged: [10, 20] };
    // A frame that comes in tagged with what the port is no member of is dropped by its ingress filter alone.
    const open = { ...gear, ports: { [end]: { ...carrying(20), ingressFilter: false } } };
    expect(domains(open, 10)).toEqual([null, null, null]);
    expect(domains(open, 20)).toEqual(["A", "A", "A"]);
    const filtered = { ...gear, ports: { [end]: { ...carrying(20), ingressFilter: true } } };
    expect(new Set(domains(filtered, 10)).size).toBe(2);
  });

  test("heeds no cable that stands by", () => {
    const ring = {
      gear: { A: { tree: { priority: 0 } }, B: { tree: { priority: 4096 } }, C: {} },
      cables: [...CHAIN, "C2-A2"],
      tagged: [10, 20],
    };
    // C1 stands by: whether either of its ends lacks the VLAN says nothing.
    for (const end of ["B2", "C1"])
      expect(domains({ ...ring, ports: { [end]: { ...carrying(20), ingressFilter: false } } }, 10)).toEqual([
        "A",
        "A",
        "A",
      ]);
    expect(domains({ ...ring, ports: { A2: { ...carrying(20), ingressFilter: false } } }, 10)).toEqual([
      null,
      null,
      null,
    ]);
  });

  test("is none anywhere where a cable lets one VLAN into another", () => {
    const untagged = (vid: number): Partial<Port> => ({
      ...{ pvid: v(vid), untagged: [v(vid)], tagged: [v(30)] },
    });
    const leaking = {
      gear: GEAR,
      cables: CHAIN,
      ports: { A1: untagged(10), B1: untagged(20) },
      tagged: [30],
    };
    expect([10, 20, 30].map((vid) => domains(leaking, vid))).toEqual(Array(3).fill([null, null, null]));
    const even = { ...leaking, ports: { A1: untagged(10), B1: untagged(10) } };
    expect(domains(even, 30)).toEqual(["A", "A", "A"]);
  });
});
