import { must } from "../kernel";
import { afterEdits, PlanEdits, PlanIndex, type Port } from "../plan";
import { aLink } from "../testing/build-plan";
import { cabledGear, endId, letterId, type CabledGear } from "../testing/cabled-gear";
import { v } from "../testing/written";
import { LOOPS } from "./loops";

const NONE = { tree: { kind: "none" } } as const;
const ALONE = { A: NONE, B: NONE, C: NONE, D: NONE };
const RING = ["A1-B1", "B2-C1", "C2-A2"];

/** The loops of some gear: which cable closes it, in which VLANs, and what hangs together there. */
function loopsIn(gear: CabledGear): string[] {
  const index = PlanIndex.of(cabledGear(gear));
  const letters = new Map(Object.keys(gear.gear).map((letter) => [letterId(letter), letter]));
  const ends = new Map(gear.cables.flatMap((cable) => cable.split("-")).map((end) => [endId(end), end]));
  return index.derived(LOOPS).map(({ ports, vids, devices }) => {
    const cable = ports.map((port) => ends.get(port)).sort();
    return `${cable.join("-")}: ${vids.join(",")} in ${devices
      .map((id) => letters.get(id))
      .sort()
      .join("")}`;
  });
}

test("a ring without a tree is one loop, told of with what is on it and nothing beside", () => {
  expect(loopsIn({ gear: ALONE, cables: RING })).toEqual([
    expect.stringMatching(/^[ABC]\d-[ABC]\d: 10 in ABC$/),
  ]);
  expect(loopsIn({ gear: ALONE, cables: RING.slice(1) })).toEqual([]);
  expect(loopsIn({ gear: ALONE, cables: [...RING, "D1-A3"] })).toEqual([
    expect.stringMatching(/: 10 in ABCD$/),
  ]);
});

test("two cables between two switches are a loop; a third is another", () => {
  expect(loopsIn({ gear: ALONE, cables: ["A1-B1", "A2-B2"] })).toHaveLength(1);
  expect(loopsIn({ gear: ALONE, cables: ["A1-B1", "A2-B2", "A3-B3"] })).toHaveLength(2);
});

test("loops that have nothing to do with one another are two", () => {
  const gear = { ...ALONE, E: NONE, F: NONE, G: NONE };
  const loops = loopsIn({ gear, cables: [...RING, "E1-F1", "F2-G1", "G2-E2"] });
  expect(loops.map((loop) => loop.split(" in ")[1]).sort()).toEqual(["ABC", "EFG"]);
});

const carries = (...vids: number[]): Partial<Port> => ({ tagged: vids.map(v) });

test("a loop is in the VLANs that go all the way round, lowest first", () => {
  const ring = { gear: ALONE, cables: RING, tagged: [30, 10, 20] };
  expect(loopsIn(ring)).toEqual([expect.stringMatching(/: 10,20,30 in ABC$/)]);
  expect(loopsIn({ ...ring, ports: { B2: carries(20, 30) } })).toEqual([
    expect.stringMatching(/: 20,30 in ABC$/),
  ]);
  expect(loopsIn({ ...ring, ports: { B2: carries(30), C1: carries(10) } })).toEqual([]);
});

test("untagged at both ends is as good as tagged at both; what becomes another VLAN goes round in none", () => {
  const untagged = (vid: number): Partial<Port> => ({ pvid: v(vid), untagged: [v(vid)], tagged: [] });
  const ring = { gear: ALONE, cables: RING };
  expect(loopsIn({ ...ring, ports: { A1: untagged(10), B1: untagged(10) } })).toHaveLength(1);
  expect(loopsIn({ ...ring, ports: { A1: untagged(10), B1: untagged(20) } })).toEqual([]);
  // One way through is none: A's frames are taken in by B, and B's are not by A.
  const deaf: Partial<Port> = { ...untagged(10), admit: "tagged" };
  expect(loopsIn({ ...ring, ports: { A1: deaf, B1: untagged(10) } })).toEqual([]);
});

test("where a tree has a port stand by there is no loop, also through gear that runs none", () => {
  expect(loopsIn({ gear: { A: {}, B: {}, C: {} }, cables: RING })).toEqual([]);
  expect(loopsIn({ gear: { A: {}, B: {}, C: NONE }, cables: RING })).toEqual([]);
  expect(loopsIn({ gear: { A: {}, B: NONE, C: NONE }, cables: RING })).toEqual([]);
});

test("kinds of tree that do not know one another leave the loop between them", () => {
  const perVlan = { tree: { kind: "perVlan" } } as const;
  expect(loopsIn({ gear: { A: {}, B: perVlan }, cables: ["A1-B1", "A2-B2"] })).toHaveLength(1);
});

test("where each VLAN has a tree of its own none goes round", () => {
  const perVlan = { tree: { kind: "perVlan" } } as const;
  expect(loopsIn({ gear: { A: perVlan, B: perVlan }, cables: ["A1-B1", "A2-B2"], tagged: [10, 20] })).toEqual(
    [],
  );
});

test("what goes through gear without VLANs is left to those who look there", () => {
  const plain = { bridging: "plain", ...NONE } as const;
  expect(loopsIn({ gear: { A: NONE, B: NONE, C: plain }, cables: RING })).toEqual([]);
  // A loop beside it is seen all the same.
  const cables = [...RING, "A3-B3"];
  expect(loopsIn({ gear: { A: NONE, B: NONE, C: plain }, cables })).toEqual([
    expect.stringMatching(/: 10 in AB$/),
  ]);
});

test("a loop is told of anew after an edit that opens or closes it", () => {
  const edited = (index: PlanIndex, edit: (edits: PlanEdits) => void): PlanIndex => {
    const edits = new PlanEdits(index.plan);
    edit(edits);
    return must(afterEdits(index, edits), "an edit");
  };
  const ports = { A1: {}, B1: {} };
  const open = PlanIndex.of(cabledGear({ gear: ALONE, cables: RING.slice(1), ports }));
  expect(open.derived(LOOPS)).toEqual([]);
  const cable = aLink({ a: endId("A1"), b: endId("B1") });
  const closed = edited(open, (edits) => edits.put("link", cable));
  expect(closed.derived(LOOPS)).toHaveLength(1);
  // The cables stay, and a VLAN no longer goes round.
  const narrower = edited(closed, (edits) => edits.patch("port", endId("A1"), { tagged: [] }));
  expect(narrower.derived(LOOPS)).toEqual([]);
  const back = edited(narrower, (edits) => edits.patch("port", endId("A1"), { tagged: [v(10)] }));
  expect(back.derived(LOOPS)).toHaveLength(1);
  expect(edited(back, (edits) => edits.remove("link", cable.id)).derived(LOOPS)).toEqual([]);
});
