import fc from "fast-check";
import { must } from "../kernel";
import { applyChanges, NO_GUARDS, PlanEdits, PlanIndex, type Plan, type Port } from "../plan";
import { aDomain, anInterface, aSegment, aVlan, aZone, testId } from "../testing/build-plan";
import { cabledGear, endId, letterId, type CabledGear } from "../testing/cabled-gear";
import { v } from "../testing/written";
import { CARRY, type Break } from "./carry";

const LETTERS = ["A", "B", "C", "D", "E"];
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
      LETTERS.find((known) => letterId(known) === id),
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

  test("without a cable between the parts nothing lacks it, and they are told all the same", () => {
    const users = { A9: used(20), B9: used(20), C9: used(20) };
    expect(breaksOf(plain(["A1-B1"], { ...users, A1: carrying(20), B1: carrying(20) }))).toEqual([
      expect.stringMatching(/^20: C > [AB]$/),
    ]);
  });

  test("the gateway's side is the one to be reached, however small", () => {
    const domain = aDomain();
    const [vlan, zone] = [aVlan({ vid: v(20) }), aZone()];
    const leg = testId("interface", "leg");
    const segment = aSegment({ name: "Staff", vlan: vlan.id, gatewayInterface: leg });
    const gear = plain(["A1-B1", "B2-C1"], {
      ...{ A9: used(20), B9: used(20), A1: carrying(20), B1: carrying(20) },
    });
    const plan = cabledGear({
      ...gear,
      gear: Object.fromEntries(
        Object.entries(gear.gear).map(([letter, fields]) => [letter, { ...fields, domain: domain.id }]),
      ),
      ...{ domain: [domain], vlan: [vlan], zone: [zone], segment: [segment] },
      interface: [anInterface({ id: leg, device: letterId("C"), name: "leg", segment: segment.id })],
    });
    expect(told(plan, ["A1", "B1", "B2", "C1"])).toEqual([expect.stringMatching(/^20: [AB] > C B2 C1$/)]);
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

test("after any edits the breaks are those that are found anew", () => {
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
