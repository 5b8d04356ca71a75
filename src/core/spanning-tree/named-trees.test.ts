import { must } from "../kernel";
import { BLANK_TREE, PlanIndex, type Device } from "../plan";
import { cabledGear, endId, letterId, type CabledGear } from "../testing/cabled-gear";
import { v } from "../testing/written";
import { TREE } from "./plan-tree";

type Gear = CabledGear["gear"][string];
const RING = ["A1-B1", "B2-C1", "C2-A2"];
const LETTERS = ["A", "B", "C", "D"];

/** The trees beside the common one: what each is called, its root with its priority, and its ports' roles. */
function named(gear: CabledGear) {
  const ends = [...new Set(gear.cables.flatMap((cable) => cable.split("-")))].sort();
  const letterOf = (id: string) =>
    must(
      LETTERS.find((letter) => letterId(letter) === id),
      id,
    );
  const [common, ...others] = PlanIndex.of(cabledGear(gear)).derived(TREE).named;
  expect([common?.key, common?.title]).toEqual(["common", "Common tree"]);
  return others.map(({ key, title, tree }) => ({
    key,
    title,
    roots: [...new Set([...tree.rootOf.values()].map(({ id, priority }) => `${letterOf(id)} ${priority}`))],
    bridges: [...tree.rootOf.keys()].map(letterOf).sort().join(""),
    roles: ends.flatMap((end) => {
      const state = tree.ports.get(endId(end));
      return state === undefined ? [] : [`${end} ${state.role}`];
    }),
  }));
}

describe("one tree for each VLAN", () => {
  const own = (priority: number, ofTwenty?: number): Gear => ({
    tree: {
      ...{ kind: "perVlan", priority },
      perVlan: ofTwenty === undefined ? [] : [{ vid: v(20), priority: ofTwenty }],
    },
  });

  test("in the order of their numbers, with the priority of each and its number added", () => {
    const gear = { A: own(0), B: own(4096, 0), C: own(8192, 61_440) };
    const [ten, twenty, ...more] = named({
      gear: { ...gear, A: own(0, 8192) },
      cables: RING,
      tagged: [20, 10],
    });
    expect(more).toEqual([]);
    expect(ten).toEqual({
      ...{ key: "VLAN 10", title: "VLAN 10", roots: ["A 10"], bridges: "ABC" },
      roles: ["A1 designated", "A2 designated", "B1 root", "B2 designated", "C1 alternate", "C2 root"],
    });
    expect(twenty).toEqual({
      ...{ key: "VLAN 20", title: "VLAN 20", roots: ["B 20"], bridges: "ABC" },
      roles: ["A1 root", "A2 designated", "B1 designated", "B2 designated", "C1 root", "C2 alternate"],
    });
  });

  test("along the cables that carry it at both ends and alike", () => {
    const gear = { A: own(0), B: own(4096), C: own(8192) };
    // B does not carry 10 towards C; A sends 10 untagged towards C, which takes it tagged.
    const ports = { B2: { tagged: [v(20)] }, A2: { untagged: [v(10)], pvid: v(10), tagged: [] } };
    const [ten] = named({ gear, cables: RING, tagged: [10, 20], ports });
    expect(ten?.roles).toEqual(["A1 designated", "B1 root"]);
    const bothUntagged = { ...ports, C2: { untagged: [v(10)], pvid: v(10), tagged: [] } };
    expect(named({ gear, cables: RING, tagged: [10, 20], ports: bothUntagged })[0]?.roles).toEqual([
      ...["A1 designated", "A2 designated", "B1 root", "C2 root"],
    ]);
  });

  test("a port that has it in both lists is in it once, and is alone where the other end is not in it", () => {
    const both = { untagged: [v(10)], pvid: v(10), tagged: [v(20), v(10)] };
    const [ten] = named({
      gear: { A: own(0), B: own(4096) },
      cables: ["A1-B1"],
      tagged: [20],
      ports: { A1: both },
    });
    expect(ten).toMatchObject({ key: "VLAN 10", bridges: "A", roles: [] });
  });
});

describe("the trees of a region", () => {
  const instance = (number: number, vids: readonly number[], priority: number) => ({
    ...{ number, vids: vids.map(v), priority },
  });
  const inRegion = (priority: number, instances: Device["tree"]["instances"], region = "hall"): Gear => ({
    tree: { kind: "multiple", region, priority, instances },
  });

  test("are those of its map, each with its own root; the number is added to the priority", () => {
    const gear = {
      A: inRegion(0, [instance(1, [10], 4096), instance(2, [20], 8192)]),
      B: inRegion(4096, [instance(1, [10], 8192), instance(2, [20], 4096)]),
      C: inRegion(8192, [instance(1, [10], 61_440), instance(2, [20], 61_440)]),
    };
    const trees = named({ gear, cables: RING });
    expect(trees).toMatchObject([
      {
        ...{ title: "Region hall, tree 1", roots: ["A 4097"], bridges: "ABC" },
        roles: ["A1 designated", "A2 designated", "B1 root", "B2 designated", "C1 alternate", "C2 root"],
      },
      {
        ...{ title: "Region hall, tree 2", roots: ["B 4098"], bridges: "ABC" },
        roles: ["A1 root", "A2 designated", "B1 designated", "B2 designated", "C1 root", "C2 alternate"],
      },
    ]);
    expect(trees.map(({ key }) => key)).toEqual([
      expect.stringMatching(/^region .* 1$/),
      expect.stringMatching(/^region .* 2$/),
    ]);
  });

  test("without a name it is just a region; a bridge that lacks an empty tree has the usual priority", () => {
    const gear = {
      A: inRegion(0, [instance(1, [], 61_440), instance(2, [20], 0)], ""),
      B: inRegion(4096, [instance(1, [], 61_440), instance(2, [20], 4096)], ""),
      C: inRegion(8192, [instance(1, [], 61_440), instance(2, [20], 8192)], ""),
    };
    expect(named({ gear, cables: RING }).map(({ title, roots }) => [title, ...roots])).toEqual([
      ["Region, tree 1", expect.stringMatching(/^[ABC] 61441$/)],
      ["Region, tree 2", "A 2"],
    ]);
    const roots = (["A", "B", "C"] as const).map((letter) => {
      const { instances } = must(gear[letter].tree, "its tree");
      const lacking = { ...gear, [letter]: inRegion(0, must(instances, "its trees").slice(1), "") };
      const [first] = named({ gear: lacking, cables: RING });
      return first?.title === "Region, tree 1" ? first.roots.join() : letter;
    });
    // The trees of a region are those that its first device lists, by the order of ids.
    const order = ["A", "B", "C"].sort((a, b) => (letterId(a) < letterId(b) ? -1 : 1));
    expect(roots).toEqual(
      ["A", "B", "C"].map((letter) => (letter === order[0] ? letter : `${letter} 32769`)),
    );
  });

  test("end where gear outside begins, whatever that has set: there they do as the common tree does", () => {
    const tree1 = (priority: number) => [instance(1, [10], priority)];
    const gear = {
      A: inRegion(4096, tree1(4096)),
      B: inRegion(8192, tree1(8192)),
      // Outside, the root of all, with a tree 1 left from before that would win, too.
      D: { tree: { kind: "rapid", priority: 0, instances: tree1(0) } } as Gear,
    };
    const beside = named({ gear, cables: ["A1-B1", "A2-D1", "B2-D2"] });
    expect(beside).toMatchObject([
      {
        ...{ title: "Region hall, tree 1", roots: ["A 4097"], bridges: "AB" },
        roles: ["A1 designated", "A2 master", "B1 root", "B2 alternate"],
      },
    ]);
  });

  test("do not run over a LAN that gear outside is at, too, however short the way", () => {
    const tree1 = (priority: number) => [instance(1, [10], priority)];
    const slow = { speedMbps: 10 };
    const shared = named({
      gear: {
        A: inRegion(4096, tree1(4096)),
        B: inRegion(8192, tree1(8192)),
        C: { bridging: "plain", tree: { kind: "none" } },
        D: { tree: { priority: 0 } },
      },
      cables: ["A1-B1", "A2-C1", "B2-C2", "D1-C3"],
      ports: { A1: slow, B1: slow },
    });
    expect(shared).toMatchObject([{ roles: ["A1 designated", "A2 master", "B1 root", "B2 alternate"] }]);
  });
});

test("gear that runs no trees of its own has none but the common one", () => {
  expect(
    named({ gear: { A: {}, B: { tree: { ...BLANK_TREE, kind: "rapid" } } }, cables: ["A1-B1"] }),
  ).toEqual([]);
});
