import fc from "fast-check";
import { FABRIC } from "../fabric";
import { must } from "../kernel";
import { afterEdits, PlanEdits, PlanIndex, type Port } from "../plan";
import { cabledGear, endId, letterId, type CabledGear } from "../testing/cabled-gear";
import { v } from "../testing/written";
import { carriedVids, JOINS } from "./joins";

const NONE = { tree: { kind: "none" } } as const;
const LETTERS = ["A", "B", "C", "D"];
const VIDS = [10, 20, 30];
const CHAIN: CabledGear = {
  gear: { A: NONE, B: NONE, C: NONE, D: NONE },
  ...{ cables: ["A1-B1", "B2-C1", "C2-D1"], ports: { A9: { pvid: v(10), untagged: [v(10)], tagged: [] } } },
  tagged: [10, 20],
};
const ENDS = ["A1", "B1", "B2", "C1", "C2", "D1", "A9"];

/** By device and VLAN, as "A10", the first that it is joined with; and what leaks, as "A1 10 > B1 20". */
function joined(index: PlanIndex): Record<string, unknown> {
  const { nodes, crossings } = index.derived(JOINS);
  const { deviceNumber } = index.derived(FABRIC);
  const first = new Map<number, string>();
  const entries = VIDS.flatMap((vid) =>
    LETTERS.map((letter): [string, string] => {
      const column = nodes.number.get(vid);
      if (column === undefined) return [`${letter}${vid}`, `${letter}${vid}`];
      const root = nodes.sets.rootOf((deviceNumber.get(letterId(letter)) ?? 0) * nodes.vids.length + column);
      first.set(root, first.get(root) ?? `${letter}${vid}`);
      return [`${letter}${vid}`, must(first.get(root), "just set")];
    }),
  );
  const end = ({ id }: Port) =>
    must(
      ENDS.find((known) => endId(known) === id),
      "an end",
    );
  const leaks = crossings.map(
    ({ from, fromVid, to, toVid }) => `${end(from)} ${fromVid} > ${end(to)} ${toVid}`,
  );
  return { ...Object.fromEntries(entries), leaks: [...new Set(leaks)].sort() };
}

/** The plan after an edit, held to what asking anew gives. */
function after(index: PlanIndex, edit: (edits: PlanEdits) => void): PlanIndex {
  index.derived(JOINS);
  const edits = new PlanEdits(index.plan);
  edit(edits);
  const next = must(afterEdits(index, edits), "an edit");
  expect(joined(next)).toEqual(joined(PlanIndex.of(next.plan)));
  return next;
}
const edited = (index: PlanIndex, end: string, fields: Partial<Port>): PlanIndex =>
  after(index, (edits) => edits.patch("port", endId(end), fields));
const begun = (gear: CabledGear = CHAIN) => PlanIndex.of(cabledGear(gear));
const rejoined = (index: PlanIndex) => [...index.derived(JOINS).nodes.rejoined];

test("the numbers that ports carry in any way, each once, in ascending order", () => {
  const vids = (ports: CabledGear["ports"], tagged: readonly number[]) =>
    carriedVids(begun({ ...CHAIN, ports: ports ?? {}, tagged }).derived(FABRIC));
  expect(vids({}, [])).toEqual([]);
  expect(vids({}, [300, 20])).toEqual([20, 300]);
  expect(vids({ A8: { pvid: v(7) }, A9: { pvid: v(4), untagged: [v(4), v(5)] } }, [20, 6])).toEqual([
    4, 5, 6, 7, 20,
  ]);
});

describe("an edit of a port", () => {
  test("for end devices joins and parts nothing: all stays as it is", () => {
    const index = begun();
    const next = edited(index, "A9", { pvid: v(20), untagged: [v(20)] });
    expect(next.derived(JOINS).nodes).toBe(index.derived(JOINS).nodes);
  });

  test("for end devices that carries a number which nobody did is asked anew", () => {
    for (const fields of [
      { pvid: v(30), untagged: [v(30)] },
      { pvid: v(30), untagged: [] },
      { pvid: null, untagged: [], tagged: [v(30)] },
    ]) {
      const next = edited(begun(), "A9", fields);
      expect(next.derived(JOINS).nodes.vids).toEqual([10, 20, 30]);
    }
  });

  test("of a trunk's tags joins those VLANs anew, and counts it; what stays tagged is left", () => {
    const index = begun();
    const off = edited(index, "A1", { tagged: [v(20)] });
    expect([rejoined(index), rejoined(off)]).toEqual([[], [[10, 1]]]);
    expect(joined(off)).toMatchObject({ A10: "A10", B10: "B10", C10: "B10", B20: "A20", leaks: [] });
    const on = edited(off, "A1", { tagged: [v(20), v(10)] });
    expect(rejoined(on)).toEqual([[10, 2]]);
    expect(joined(on)).toMatchObject({ B10: "A10", C10: "A10" });
    const other = edited(on, "C1", { tagged: [v(10)] });
    expect(rejoined(other)).toEqual([
      [10, 2],
      [20, 1],
    ]);
    expect(other.derived(JOINS).nodes.number).toBe(index.derived(JOINS).nodes.number);
    // The same tags in another order.
    expect(rejoined(edited(index, "A1", { tagged: [v(20), v(10)] }))).toEqual([]);
  });

  const open = { ingressFilter: false };
  test.each<[string, Partial<Port>, Partial<Port>]>([
    ["its PVID", {}, { pvid: v(20) }],
    ["its untagged VLANs", {}, { untagged: [v(20)], tagged: [v(10)] }],
    ["what it admits", {}, { admit: "untagged" }],
    ["its ingress filter", { tagged: [v(20)] }, open],
    ["a tag that is its PVID, too, filtered", { pvid: v(20), tagged: [v(10)] }, { tagged: [v(10), v(20)] }],
    ["a tag that it sends untagged", { untagged: [v(20)], tagged: [v(10)] }, { tagged: [v(10), v(20)] }],
  ])("of %s asks all anew", (_, before, after) => {
    const index = begun({
      ...CHAIN,
      ports: { ...CHAIN.ports, B1: { ...before, tagged: before.tagged ?? [v(10), v(20)] } },
    });
    const next = edited(index, "B1", after);
    expect(next.derived(JOINS).nodes.number).not.toBe(index.derived(JOINS).nodes.number);
  });

  test("of a tag that is its PVID, too, and not filtered concerns that VLAN alone", () => {
    const before = { ...open, pvid: v(20), tagged: [v(10)] };
    const index = begun({ ...CHAIN, ports: { B1: before } });
    expect(rejoined(edited(index, "B1", { tagged: [v(10), v(20)] }))).toEqual([[20, 1]]);
  });

  test("asks all anew where a VLAN leaks into another, before it or by it", () => {
    const untagged = (vid: number): Partial<Port> => ({ pvid: v(vid), untagged: [v(vid)], tagged: [v(20)] });
    const leaking = begun({ ...CHAIN, ports: { A1: untagged(10), B1: untagged(30) } });
    expect(joined(leaking)).toMatchObject({ B30: "A10", leaks: ["A1 10 > B1 30", "B1 30 > A1 10"] });
    const next = edited(leaking, "C1", { tagged: [v(10)] });
    expect(next.derived(JOINS).nodes.number).not.toBe(leaking.derived(JOINS).nodes.number);
    expect(joined(next)).toMatchObject({ B30: "A10" });
  });
});

describe("an edit of anything else", () => {
  test("that frames do not go by leaves all as it is", () => {
    const index = begun();
    const moved = after(index, (edits) => edits.patch("device", letterId("A"), { place: "Loft" }));
    expect(moved.derived(JOINS).nodes).toBe(index.derived(JOINS).nodes);
  });

  test("of a cable asks all anew, with an edit of tags or without", () => {
    const index = begun();
    const cable = must(index.linkAt(endId("B2")), "B's cable to C");
    const off = after(index, (edits) => edits.remove("link", cable.id));
    expect(joined(off)).toMatchObject({ B10: "A10", C10: "C10", D10: "C10" });
    const both = after(off, (edits) => {
      edits.put("link", cable);
      edits.patch("port", endId("A1"), { tagged: [v(20)] });
    });
    expect(joined(both)).toMatchObject({ B10: "B10", C10: "B10", D10: "B10", D20: "A20" });
  });

  test("of a tree asks all anew: what stands by joins nothing", () => {
    const gear = { A: { tree: { priority: 0 } }, B: { tree: { priority: 4096 } }, C: {} };
    const index = begun({
      gear,
      cables: ["A1-B1", "B2-C1", "C2-A2"],
      ports: { A1: { tagged: [] } },
      tagged: [10],
    });
    // C's end at B stands by, and A's cable to B carries nothing.
    expect(joined(index)).toMatchObject({ A10: "A10", B10: "B10", C10: "A10" });
    const lower = after(index, (edits) => {
      const { tree } = edits.need("device", letterId("C"));
      edits.patch("device", letterId("C"), { tree: { ...tree, priority: 0 } });
      const root = edits.need("device", letterId("A"));
      edits.patch("device", letterId("A"), { tree: { ...root.tree, priority: 61_440 } });
    });
    // C is the root now, and A's end at B stands by.
    expect(joined(lower)).toMatchObject({ A10: "A10", B10: "A10", C10: "A10" });
  });
});

const anyEdit = fc.record({
  end: fc.constantFrom(...ENDS),
  field: fc.constantFrom("pvid", "untagged", "native", "tagged", "admit", "ingressFilter"),
  vids: fc.subarray(VIDS),
  admit: fc.constantFrom("all" as const, "tagged" as const, "untagged" as const),
});

test("after edits of whatever decides where frames go, what is joined is what joining anew gives", () => {
  let leaking = 0;
  fc.assert(
    fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 6 }), (edits) => {
      let index = begun();
      for (const { end, field, vids, admit } of edits) {
        const list = vids.map(v);
        const port = must(index.plan.port.get(endId(end)), end);
        const fields = {
          ...{ pvid: list[0] ?? null, untagged: list.slice(0, 1), tagged: list },
          ...{ admit, ingressFilter: !port.ingressFilter },
        };
        index = edited(
          index,
          end,
          field === "native" ? { pvid: fields.pvid, untagged: fields.untagged } : { [field]: fields[field] },
        );
        leaking += index.derived(JOINS).crossings.length;
      }
    }),
    { seed: 8025, numRuns: 300 },
  );
  expect(leaking).toBeGreaterThan(10);
});
