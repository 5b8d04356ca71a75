import { parseMac } from "../address";
import { FABRIC } from "../fabric";
import { must } from "../kernel";
import {
  afterEdits,
  BLANK_TREE as BLANK,
  NO_GUARDS,
  PlanEdits,
  PlanIndex,
  type Device,
  type Port,
} from "../plan";
import { aDevice, aHost, aLink, anInterface, aPort, testId } from "../testing/build-plan";
import { cabledGear, endId, letterId, type CabledGear } from "../testing/cabled-gear";
import { v } from "../testing/written";
import { TREE, type PlanTree } from "./plan-tree";

const RING = ["A1-B1", "B2-C1", "C2-A2"];
const NONE = { tree: { kind: "none" } } as const;
const PER_VLAN = { tree: { kind: "perVlan" } } as const;
/** A is the root, then B: what stands by is C's end at B. */
const ORDERED = { A: { tree: { priority: 0 } }, B: { tree: { priority: 4096 } }, C: {} };
const mac = (text: string) => must(parseMac(text), "a MAC address");

const treeOf = (gear: CabledGear): { tree: PlanTree; index: PlanIndex } => {
  const index = PlanIndex.of(cabledGear(gear));
  return { index, tree: index.derived(TREE) };
};

/** The ends that neither send nor take frames of a VLAN, as "C1", in the order of their names. */
function closed(gear: CabledGear, vid: number): string[] {
  const { tree, index } = treeOf(gear);
  const { portNumber } = index.derived(FABRIC);
  const ends = [
    ...new Set([...gear.cables.flatMap((cable) => cable.split("-")), ...Object.keys(gear.ports ?? {})]),
  ];
  return ends.filter((end) => tree.discards(must(portNumber.get(endId(end)), end), vid)).sort();
}

describe("what a port discards", () => {
  test("in a ring with one tree the end that stands by, in every VLAN", () => {
    const ring = { gear: ORDERED, cables: RING };
    expect([1, 10, 4094].map((vid) => closed(ring, vid))).toEqual([["C1"], ["C1"], ["C1"]]);
  });

  test("nothing where no gear runs a tree, nothing in a chain", () => {
    expect(closed({ gear: { A: NONE, B: NONE, C: NONE }, cables: RING }, 10)).toEqual([]);
    expect(closed({ gear: ORDERED, cables: RING.slice(1) }, 10)).toEqual([]);
  });

  test("in a region each VLAN what its own tree says; what is in none, or outside, the common one", () => {
    const instance = (number: number, vid: number, priority: number) => ({
      number,
      vids: [v(vid)],
      priority,
    });
    const inRegion = (priority: number, ofTwenty: number): CabledGear["gear"][string] => ({
      tree: {
        kind: "multiple",
        region: "hall",
        priority,
        instances: [instance(1, 10, priority), instance(2, 20, ofTwenty)],
      },
    });
    // In tree 1 C's end at B stands by as in the common tree; in tree 2 C is the root and then B: it is A's.
    const ring = {
      gear: { A: inRegion(0, 32_768), B: inRegion(4096, 4096), C: inRegion(32_768, 0) },
      ...{ cables: RING, tagged: [10, 20, 30] },
    };
    expect([10, 20, 30].map((vid) => closed(ring, vid))).toEqual([["C1"], ["A1"], ["C1"]]);
    expect(treeOf(ring).tree.anywhere).toBe(true);
    // A fourth that is in no region has a tree of its own kind; its ports go by the common one alone.
    const beside = {
      ...ring,
      gear: { ...ring.gear, D: { tree: { priority: 61_440 } } },
      cables: [...RING, "A3-D1", "B3-D2"],
    };
    expect([10, 20, 30].map((vid) => closed(beside, vid))).toEqual([
      ["C1", "D2"],
      ["A1", "D2"],
      ["C1", "D2"],
    ]);
  });

  test("where each VLAN has its own tree, each by its own; a VLAN nobody carries is not discarded", () => {
    const own = (ofTwenty: number): CabledGear["gear"][string] => ({
      tree: { kind: "perVlan", perVlan: [{ vid: v(20), priority: ofTwenty }] },
    });
    const gear = {
      A: { ...own(32_768), bridgeMac: mac("02:00:00:00:00:01") },
      B: { ...own(4096), bridgeMac: mac("02:00:00:00:00:02") },
      C: { ...own(0), bridgeMac: mac("02:00:00:00:00:03") },
    };
    const ring = { gear, cables: RING, tagged: [10, 20] };
    expect([10, 20, 30].map((vid) => closed(ring, vid))).toEqual([["C1"], ["A1"], []]);
  });

  test("a port that a BPDU guard shuts discards all and is in no tree; its other end is not closed", () => {
    const guarded: Partial<Port> = { guards: { ...NO_GUARDS, bpduGuard: true } };
    const gear = { gear: ORDERED, cables: RING, ports: { B1: guarded } };
    expect(closed(gear, 10)).toEqual(["B1"]);
    const { tree } = treeOf(gear);
    expect(tree.shut).toEqual(new Set([endId("B1")]));
    expect(tree.ports.has(endId("B1"))).toBe(false);
    // A guard at a port that hears no gear shuts nothing, and none is shut where no guard is.
    expect(treeOf({ gear: ORDERED, cables: RING, ports: { B9: guarded } }).tree.shut.size).toBe(0);
  });

  test("whether anything discards at all is told", () => {
    expect(treeOf({ gear: ORDERED, cables: RING }).tree.anywhere).toBe(true);
    expect(treeOf({ gear: ORDERED, cables: RING.slice(1) }).tree.anywhere).toBe(false);
    expect(treeOf({ gear: { A: PER_VLAN, B: PER_VLAN }, cables: ["A1-B1"] }).tree.anywhere).toBe(true);
  });
});

describe("what is not known or not simulated", () => {
  test("gear that takes part and has no address is named; gear that runs no tree is not", () => {
    const known = { bridgeMac: mac("02:00:00:00:00:01") };
    const { tree } = treeOf({ gear: { A: known, B: {}, C: NONE }, cables: RING });
    expect([...tree.unknownAddress]).toEqual([letterId("B")]);
  });

  const mixed = (gear: CabledGear) =>
    treeOf(gear).tree.mixed.map(([a, b]) => `${a.label}-${b.label} ${a.device === letterId("A") ? "A" : ""}`);

  test("two kinds of tree at one cable are a pair, cable by cable; one kind is none", () => {
    const cables = ["A1-B2", "A3-B4"];
    expect(mixed({ gear: { A: {}, B: PER_VLAN }, cables })).toEqual(["1-2 A", "3-4 A"]);
    expect(mixed({ gear: { A: {}, B: {} }, cables })).toEqual([]);
    expect(mixed({ gear: { A: PER_VLAN, B: PER_VLAN }, cables })).toEqual([]);
  });

  test("through gear that runs none they meet as well", () => {
    const { tree } = treeOf({
      gear: { A: {}, B: PER_VLAN, C: PER_VLAN, D: NONE },
      cables: ["A1-D1", "B1-D2", "C1-D3"],
    });
    // Which of the two that are alike is told with A goes by the order of their ids.
    expect(tree.mixed.length).toBeGreaterThan(0);
    for (const pair of tree.mixed) expect(pair.map(({ id }) => id)).toContain(endId("A1"));
  });
});

describe("the trees after an edit", () => {
  const LEG = testId("interface", "leg");
  const leg = anInterface({ id: LEG, device: letterId("A"), name: "leg", segment: null });
  const ring: CabledGear = { gear: ORDERED, cables: RING, ports: { A9: {} }, interface: [leg] };

  /** Whether the trees are the very same after it; where not, they are as if worked out from nothing. */
  function isKept(gear: CabledGear, edit: (edits: PlanEdits) => void): boolean {
    const index = PlanIndex.of(cabledGear(gear));
    const before = index.derived(TREE);
    const edits = new PlanEdits(index.plan);
    edit(edits);
    expect(edits.changes().length).toBeGreaterThan(0);
    const next = must(afterEdits(index, edits), "an edit that the plan takes");
    const after = next.derived(TREE);
    expect(after.portNumber).toBe(next.derived(FABRIC).portNumber);
    expect(after.named).toEqual(PlanIndex.of(next.plan).derived(TREE).named);
    return after === before;
  }
  const patchPort = (end: string, fields: Partial<Port>) => (edits: PlanEdits) =>
    edits.patch("port", endId(end), fields);
  const patchDevice = (letter: string, fields: Partial<Device>) => (edits: PlanEdits) =>
    edits.patch("device", letterId(letter), fields);
  const patchLeg = (fields: Partial<typeof leg>) => (edits: PlanEdits) =>
    edits.patch("interface", LEG, fields);

  test.each<[string, (edits: PlanEdits) => void]>([
    ["membership at a cable", patchPort("A1", { tagged: [v(20)] })],
    ["the name of gear", patchDevice("A", { name: "Hall" })],
    ["a leg inside its device", patchLeg({ name: "other" })],
    [
      "a new leg inside its device",
      (edits) => edits.put("interface", { ...leg, id: testId("interface", "new") }),
    ],
    ["a leg taken out", (edits) => edits.remove("interface", LEG)],
    ["the speed of a port with nothing behind it", patchPort("A9", { speedMbps: 10_000 })],
    ["the cost at a port with nothing behind it", patchPort("A9", { treeCost: 5 })],
    [
      "an end device at a port",
      (edits) => edits.put("host", aHost({ name: "end", attachment: { at: "port", port: endId("A9") } })),
    ],
  ])("%s leaves them as they are", (_, edit) => {
    expect(isKept(ring, edit)).toBe(true);
  });

  test.each<[string, (edits: PlanEdits) => void]>([
    ["the cost at a cable", patchPort("C2", { treeCost: 150_000_000 })],
    ["a cable's end that is switched off", patchPort("A2", { enabled: false })],
    ["a guard at a cable", patchPort("B1", { guards: { ...NO_GUARDS, bpduGuard: true } })],
    ["a priority", patchDevice("C", { tree: { ...BLANK, priority: 4096 } })],
    ["the address of a bridge", patchDevice("A", { bridgeMac: mac("02:00:00:00:00:01") })],
    ["a leg's MAC address", patchLeg({ mac: mac("02:00:00:00:00:01") })],
    ["a new cable", (edits) => edits.put("link", aLink({ a: endId("A9"), b: endId("C9") }))],
    ["a cable taken out", (edits) => edits.remove("link", aLink({ a: endId("A1"), b: endId("B1") }).id)],
    ["new gear", (edits) => edits.put("device", aDevice({ name: "D", tree: { ...BLANK, kind: "rapid" } }))],
    ["a new port", (edits) => edits.put("port", aPort({ device: letterId("B"), label: "7" }))],
  ])("after %s they are worked out anew", (_, edit) => {
    expect(isKept({ ...ring, ports: { A9: {}, C9: {} } }, edit)).toBe(false);
  });

  test("where each VLAN has its own tree, membership decides", () => {
    const each = { ...ring, gear: { A: PER_VLAN, B: PER_VLAN, C: PER_VLAN } };
    expect(isKept(each, patchPort("A1", { tagged: [v(20)] }))).toBe(false);
    expect(isKept(each, patchDevice("A", { name: "Hall" }))).toBe(true);
  });

  test("one edit that leaves them and one that does not do not leave them", () => {
    expect(
      isKept(ring, (edits) => {
        edits.patch("device", letterId("A"), { name: "Hall" });
        edits.patch("port", endId("A2"), { enabled: false });
      }),
    ).toBe(false);
  });
});
