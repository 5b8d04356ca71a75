import fc from "fast-check";
import { must } from "../kernel";
import { afterEdits, applyChanges, NO_GUARDS, PlanEdits, PlanIndex, type Plan, type Port } from "../plan";
import { aDomain, anInterface, aSegment, aVlan, aZone, testId } from "../testing/build-plan";
import { cabledGear, endId, letterId, type CabledGear } from "../testing/cabled-gear";
import { v } from "../testing/written";
import { CARRY, type Break } from "./carry";

const LETTERS = ["A", "B", "C", "D", "E"];
const ALL_LETTERS = [...LETTERS, "F"];
/** A port where an end device uses a VLAN. */
const used = (vid: number): Partial<Port> => ({
  pvid: v(vid),
  untagged: [v(vid)],
  tagged: [],
  guards: { ...NO_GUARDS, edge: true },
});
const carrying = (...vids: readonly number[]): Partial<Port> => ({ tagged: vids.map(v) });

/** Gear without trees, so that a loop's cables all count, carrying nothing but what is said of its ports. */
const plain = (
  cables: readonly string[],
  ports: NonNullable<CabledGear["ports"]>,
  letters = LETTERS,
): CabledGear => ({
  gear: Object.fromEntries(letters.map((letter) => [letter, { tree: { kind: "none" as const } }])),
  cables,
  ports,
  tagged: [],
});

/** Breaks as "20: A > C lacks A1 B1", in letters and ends. */
function told(plan: Plan, ends: readonly string[]): string[] {
  const letter = (id: string) =>
    must(
      ALL_LETTERS.find((known) => letterId(known) === id),
      id,
    );
  const end = (id: string) =>
    must(
      ends.find((known) => endId(known) === id),
      id,
    );
  const text = ({ vid, stranded, wanted, lacking }: Break) =>
    [`${vid}: ${letter(stranded)} > ${letter(wanted)}`, ...lacking.map(({ id }) => end(id))].join(" ");
  return PlanIndex.of(plan).derived(CARRY).breaks.map(text);
}
const breaksOf = (gear: CabledGear) =>
  told(cabledGear(gear), [
    ...gear.cables.flatMap((cable) => cable.split("-")),
    ...Object.keys(gear.ports ?? {}),
  ]);

/** The gear in one domain with legs in VLAN 20; the first one's is the gateway. */
function withLegs(gear: CabledGear, legs: readonly string[]): Plan {
  const domain = aDomain();
  const [vlan, zone] = [aVlan({ vid: v(20) }), aZone()];
  const id = (letter: string) => testId("interface", letter);
  const segment = aSegment({ name: "Staff", vlan: vlan.id, gatewayInterface: id(must(legs[0], "a leg")) });
  return cabledGear({
    ...gear,
    gear: Object.fromEntries(
      Object.entries(gear.gear).map(([letter, fields]) => [letter, { ...fields, domain: domain.id }]),
    ),
    ...{ domain: [domain], vlan: [vlan], zone: [zone], segment: [segment] },
    interface: legs.map((letter) =>
      anInterface({ id: id(letter), device: letterId(letter), name: "leg", segment: segment.id }),
    ),
  });
}

describe("what is told of a VLAN that does not get through", () => {
  test("the smaller part is cut off from the larger; the ports that lack it are named along the way", () => {
    const chain = ["A1-B1", "B2-C1"];
    const users = { A9: used(20), B9: used(20), C9: used(20) };
    expect(breaksOf(plain(chain, { ...users, A1: carrying(20), B1: carrying(20) }))).toEqual([
      "20: C > B C1 B2",
    ]);
    expect(breaksOf(plain(chain, { ...users, B2: carrying(20), C1: carrying(20) }))).toEqual([
      "20: A > B A1 B1",
    ]);
    // One end has it already.
    expect(
      breaksOf(plain(chain, { ...users, A1: carrying(20), B1: carrying(20), C1: carrying(20) })),
    ).toEqual(["20: C > B B2"]);
    expect(breaksOf(plain(chain, { A9: used(20), C9: used(20) }))).toEqual(["20: C > A C1 B2 B1 A1"]);
  });

  test("each part that is cut off is told, each number by itself, in the order of the numbers", () => {
    const star = ["A1-B1", "A2-C1", "A3-D1", "A4-E1"];
    const users = {
      A9: used(20),
      B9: used(20),
      C9: used(20),
      A8: used(10),
      D9: used(10),
      E9: used(20),
      E8: used(10),
    };
    const [ten, ...twenty] = breaksOf(plain(star, { ...users, A4: carrying(10, 20), E1: carrying(10, 20) }));
    expect(ten).toBe("10: D > A D1 A3");
    expect(twenty.sort()).toEqual(["20: B > A B1 A1", "20: C > A C1 A2"]);
  });

  test("with a way around, the one on which the fewest cables lack it", () => {
    // D-B-A lacks it on two cables, D-E-C on one.
    const cables = ["A1-B1", "B2-D1", "A2-C1", "C2-E1", "E2-D2"];
    const users = { A9: used(20), D9: used(20) };
    const onC = { C9: used(20), A2: carrying(20), C1: carrying(20), C2: carrying(20), E1: carrying(20) };
    expect(breaksOf(plain(cables, { ...users, ...onC }))).toEqual(["20: D > C D2 E2"]);
    // With B on the near side it is the other way about.
    const onB = { B9: used(20), A1: carrying(20), B1: carrying(20) };
    expect(breaksOf(plain(cables, { ...users, ...onB }))).toEqual(["20: D > B D1 B2"]);
  });

  test("the fewest cables that lack it count, not the fewest cables, whichever way is looked at first", () => {
    // B lies between A and D, and two cables lack it; C, E and F are the longer way, and one cable does.
    const both = [
      ["A1-B1", "B2-D1", "A2-C1", "C2-E1", "E2-F1", "F2-D2"],
      ["A2-B1", "B2-D2", "A1-C1", "C2-E1", "E2-F1", "F2-D1"],
    ];
    const on = (ends: readonly string[]) => Object.fromEntries(ends.map((end) => [end, carrying(20)]));
    for (const [i, cables] of both.entries()) {
      const [ofA, ofD] = i === 0 ? ["A2", "D2"] : ["A1", "D1"];
      const inside = ["C2", "E1", "E2", "F1"];
      const lacked = (ends: readonly string[]) =>
        told(withLegs(plain(cables, { D9: used(20), ...on(ends) }, ALL_LETTERS), ["A"]), [
          ofA,
          "C1",
          ofD,
          "F2",
        ]);
      // The cable that lacks it is the first on the way, then the last.
      expect(lacked([...inside, ofA, "C1"])).toEqual([`20: D > A ${ofD} F2`]);
      expect(lacked([...inside, ofD, "F2"])).toEqual([`20: D > A C1 ${ofA}`]);
    }
  });

  test("a cable that stands by is no way", () => {
    // C's cable to B stands by: A is the root, and B's identifier is the lower.
    const gear = { A: { tree: { priority: 0 } }, B: { tree: { priority: 4096 } }, C: {} };
    const ports = {
      ...{ B9: used(20), C9: used(20), A1: carrying(20), B1: carrying(20) },
      ...{ B2: carrying(20), C1: carrying(20) },
    };
    expect(breaksOf({ gear, cables: ["A1-B1", "B2-C1", "A2-C2"], ports, tagged: [] })).toEqual([
      "20: C > B C2 A2",
    ]);
  });

  test("where both ends have it and do not agree how, both are named", () => {
    // From B it leaves untagged, and A has no VLAN for what comes so; from A it leaves tagged, and B drops it.
    const ports = {
      ...{ A9: used(20), B9: used(20), C9: used(20), A1: carrying(20), A2: carrying(20), C1: carrying(20) },
      B1: { pvid: v(20), untagged: [v(20)], tagged: [], admit: "untagged" as const },
    };
    expect(breaksOf(plain(["A1-B1", "A2-C1"], ports))).toEqual(["20: B > A B1 A1"]);
  });

  test("an end that takes it and does not send it lacks it", () => {
    const users = { A9: used(20), B9: used(20), C9: used(20), A2: carrying(20), C1: carrying(20) };
    const silent: Partial<Port> = { pvid: v(20), untagged: [], tagged: [] };
    const both: Partial<Port> = { pvid: v(20), untagged: [v(20)], tagged: [] };
    expect(breaksOf(plain(["A1-B1", "A2-C1"], { ...users, A1: both, B1: silent }))).toEqual(["20: B > A B1"]);
  });

  test("a cable on the way that passes it one way only is named with those that lack it", () => {
    // B drops what A sends tagged, and what it sends tagged is taken in: the ends differ, and a part is joined.
    const deaf: Partial<Port> = { ...carrying(20), pvid: v(30), admit: "untagged" };
    const chain = plain(["A1-B1", "B2-C1"], { C9: used(20), A1: carrying(20), B1: deaf });
    expect(told(withLegs(chain, ["A"]), ["A1", "B1", "B2", "C1"])).toEqual(["20: C > A C1 B2 B1 A1"]);
  });

  test("without a cable between the parts nothing lacks it, and they are told all the same", () => {
    const users = { A9: used(20), B9: used(20), C9: used(20) };
    expect(breaksOf(plain(["A1-B1"], { ...users, A1: carrying(20), B1: carrying(20) }))).toEqual([
      expect.stringMatching(/^20: C > [AB]$/),
    ]);
  });

  test("the gateway's side is the one to be reached, however small", () => {
    const users = { A9: used(20), B9: used(20), A1: carrying(20), B1: carrying(20) };
    const plan = withLegs(plain(["A1-B1", "B2-C1"], users), ["C"]);
    expect(told(plan, ["A1", "B1", "B2", "C1"])).toEqual([expect.stringMatching(/^20: [AB] > C B2 C1$/)]);
  });

  test.each(["A", "C", "E"])(
    "the gateway itself is the one to be reached, also with others: %s",
    (gateway) => {
      // All hang on D, which is joined with the gateway and nearer to each of them.
      const others = LETTERS.filter((letter) => letter !== gateway && letter !== "D");
      const cables = [`D1-${gateway}1`, ...others.map((letter, i) => `D${i + 2}-${letter}1`)];
      const [joined, apart] = [["D1", `${gateway}1`], others.map((letter) => `${letter}1`)];
      const users = {
        ...Object.fromEntries([...others, "D"].map((letter) => [`${letter}9`, used(20)])),
        ...Object.fromEntries(joined.map((end) => [end, carrying(20)])),
      };
      const plan = withLegs(plain(cables, users), [gateway]);
      expect(told(plan, [...joined, ...apart, "D2", "D3", "D4"]).sort()).toEqual(
        others.map((letter, i) => `20: ${letter} > ${gateway} ${letter}1 D${i + 2}`).sort(),
      );
    },
  );

  test("legs in a VLAN that no port carries do not meet", () => {
    const plan = withLegs(plain(["A1-B1"], {}), ["A", "B"]);
    expect(told(plan, ["A1", "B1"])).toEqual(["20: B > A B1 A1"]);
  });

  test("one number in two domains is two VLANs", () => {
    const domains = ["hall", "yard"].map((name) => aDomain({ id: testId("domain", name), name }));
    const [hall, yard] = domains.map(({ id }) => id);
    const none = { kind: "none" as const };
    const gear = (ofB: string | undefined): CabledGear => ({
      gear: { A: { tree: none, domain: hall ?? null }, B: { tree: none, domain: ofB ?? null } },
      ...{ cables: ["A1-B1"], ports: { A9: used(20), B9: used(20) }, tagged: [], domain: domains },
    });
    expect(breaksOf(gear(yard))).toEqual([]);
    expect(breaksOf(gear(hall))).toEqual([expect.stringMatching(/^20: (A > B A1 B1|B > A B1 A1)$/)]);
  });
});

/** A switch's end at a cable, or its access port, put on a VLAN or taken off it. */
const anyEdit = fc.record({ port: fc.nat(99), vid: fc.constantFrom(10, 20), unplugs: fc.nat(9) });

describe("after an edit of nothing but a", () => {
  const edited = (plan: Plan, edit: (edits: PlanEdits) => void): Plan => {
    const index = PlanIndex.of(plan);
    expect(index.derived(CARRY).breaks).toEqual([]);
    const edits = new PlanEdits(plan);
    edit(edits);
    const next = must(afterEdits(index, edits), "an edit");
    expect(next.derived(CARRY).breaks).toEqual(PlanIndex.of(next.plan).derived(CARRY).breaks);
    return next.plan;
  };

  test("leg, another user that is not reached is told", () => {
    const plan = withLegs(plain(["A1-B1"], { A9: used(20) }), ["A"]);
    const [leg] = [...plan.interface.values()];
    const after = edited(plan, (edits) =>
      edits.put("interface", { ...must(leg, "A's"), id: testId("interface", "B"), device: letterId("B") }),
    );
    expect(told(after, ["A1", "B1"])).toEqual(["20: B > A B1 A1"]);
  });

  test("domain, two that were two VLANs are one that is parted", () => {
    const domains = ["hall", "yard"].map((name) => aDomain({ id: testId("domain", name), name }));
    const none = { kind: "none" as const };
    const plan = cabledGear({
      gear: {
        A: { tree: none, domain: testId("domain", "hall") },
        B: { tree: none, domain: testId("domain", "yard") },
      },
      ...{ cables: ["A1-B1"], ports: { A9: used(20), B9: used(20) }, tagged: [], domain: domains },
    });
    const after = edited(plan, (edits) =>
      edits.patch("device", letterId("B"), { domain: testId("domain", "hall") }),
    );
    // Neither side is larger: which one is cut off goes by the order of ids.
    expect(told(after, ["A1", "B1"])).toEqual([expect.stringMatching(/^20: (A > B A1 B1|B > A B1 A1)$/)]);
  });
});

test("after edits of memberships and cables the breaks are those that are found anew", () => {
  const cables = ["A1-B1", "B2-C1", "C2-D1", "D2-A2", "D3-E1"];
  const users = { A9: used(10), B9: used(20), C9: used(10), D9: used(20), E9: used(20) };
  let seen = 0;
  fc.assert(
    fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 8 }), (edits) => {
      let index = PlanIndex.of(cabledGear({ ...plain(cables, users), tagged: [10, 20] }));
      index.derived(CARRY);
      for (const { port: at, vid, unplugs } of edits) {
        const draft = new PlanEdits(index.plan);
        const [ports, links] = [[...index.plan.port.values()], [...index.plan.link.values()]];
        const port = must(ports[at % ports.length], "a port");
        const link = unplugs === 0 ? links[at % Math.max(1, links.length)] : undefined;
        if (link !== undefined) draft.remove("link", link.id);
        else if (port.pvid !== null) draft.patch("port", port.id, { pvid: v(vid), untagged: [v(vid)] });
        else {
          const rest = port.tagged.filter((tag) => tag !== vid);
          const isOff = rest.length < port.tagged.length;
          draft.patch("port", port.id, { tagged: isOff ? rest : [...port.tagged, v(vid)] });
        }
        const applied = applyChanges(index.plan, draft.changes());
        index = index.derive(must(applied.ok ? applied.value : null, "applies"), draft.changes());
        const [kept, anew] = [index, PlanIndex.of(index.plan)].map((of) => of.derived(CARRY).breaks);
        expect(kept).toEqual(anew);
        seen += anew?.length ?? 0;
      }
    }),
    { seed: 8024, numRuns: 100 },
  );
  expect(seen).toBeGreaterThan(100);
});
