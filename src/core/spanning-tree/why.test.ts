import { must } from "../kernel";
import { NO_GUARDS, PlanIndex, type Device } from "../plan";
import { cabledGear, letterId, pieceOf, type CabledGear } from "../testing/cabled-gear";
import { mac, v } from "../testing/written";
import { priorityIn, treePlace, treesOf } from "./why";

type Gear = CabledGear["gear"][string];
const addressOf = (last: number) => mac(`02:00:00:00:00:0${last}`);
/** A bridge whose identifier is settled: its priority, and its address by one number. */
const bridge = (priority: number, address: number, tree: Partial<Device["tree"]> = {}): Gear => ({
  bridgeMac: addressOf(address),
  tree: { priority, ...tree },
});

/** What each port of a bridge is in its tree and why, as "1 root: …"; what it is says whether it forwards. */
function told(gear: CabledGear, letter: string, key: string | null = null): string[] {
  const index = PlanIndex.of(cabledGear(gear));
  const { rows } = must(treePlace(index, pieceOf(index, letter), key), letter);
  const blocking = rows.filter(({ forwards }) => !forwards).map(({ role }) => role);
  expect(blocking).toEqual(rows.map(({ role }) => role).filter((role) => /^(alternate|backup)$/.test(role)));
  return rows.map(({ port, role, why }) => `${port.label} ${role}: ${why}`);
}

const [ROOT, MIDDLE, LAST] = [bridge(0, 1), bridge(4096, 2), bridge(32_768, 3)];
const TRIANGLE = ["A1-B1", "A2-C1", "B2-C2"];

test("the only way, and what is served", () => {
  const two = { gear: { A: ROOT, B: MIDDLE }, cables: ["A1-B1"] };
  expect(told(two, "B")).toEqual(["1 root: its only way to A"]);
  expect(told(two, "A")).toEqual(["1 designated: serves this cable, not B port 1"]);
  // Another port that hears gear, but of no way: C hangs on B.
  const chain = { gear: { A: ROOT, B: MIDDLE, C: LAST }, cables: ["A1-B1", "B2-C1"] };
  expect(told(chain, "B")).toEqual([
    "1 root: its way to A; no other port hears of one",
    "2 designated: serves this cable, not C port 1",
  ]);
});

test("a cheaper way, and a cable that another serves since its way is cheaper or its identifier lower", () => {
  const gear = { A: ROOT, B: MIDDLE, C: LAST };
  expect(told({ gear, cables: TRIANGLE }, "C")).toEqual([
    "1 root: its way to A, before port 2: the way is cheaper",
    "2 alternate: blocking: B port 2 serves this cable: " +
      "its way costs the same, and its bridge identifier is lower",
  ]);
  expect(told({ gear, cables: TRIANGLE }, "B")[1]).toBe("2 designated: serves this cable, not C port 2");
  const slow = { A2: { speedMbps: 100 } };
  expect(told({ gear, cables: TRIANGLE, ports: slow }, "C")).toEqual([
    "1 alternate: blocking: A port 2 serves this cable: its way is cheaper",
    "2 root: its way to A, before port 1: the way is cheaper",
  ]);
});

test("of two neighbours as near the lower identifier; of two cables the lower port, the far one first", () => {
  const gear = { A: ROOT, B: MIDDLE, C: bridge(8192, 4), D: LAST };
  expect(told({ gear, cables: ["A1-B1", "A2-C1", "B2-D1", "C2-D2"] }, "D")).toEqual([
    "1 root: its way to A, before port 2: the way costs the " +
      "same, and the neighbour's bridge identifier is lower",
    "2 alternate: blocking: C port 2 serves this cable: its way is cheaper",
  ]);
  expect(told({ gear, cables: ["A1-D2", "A2-D1"] }, "D")[1]).toBe(
    "2 root: its way to A, before port 1: " +
      "the way costs the same to the same neighbour, whose port identifier is lower",
  );
  // Gear without a tree between them joins the cables: both hear the same port.
  const shared = { A: ROOT, D: LAST, X: { tree: { kind: "none" } } } as const;
  expect(told({ gear: shared, cables: ["A1-X1", "X2-D1", "X3-D2"] }, "D")).toEqual([
    "1 root: its way to A, before port 2: all else is the same, and its own port identifier is lower",
    "2 alternate: blocking: A port 1 serves this cable: its way is cheaper",
  ]);
  expect(told({ gear: shared, cables: ["D1-X1", "X2-A1", "X3-A2"] }, "A")).toEqual([
    "1 designated: serves this cable, not A port 2",
    "2 backup: blocking: A port 1 serves the same cable",
  ]);
});

test("a restricted port never takes a way that is offered", () => {
  const ports = { C1: { guards: { ...NO_GUARDS, restrictedRole: true } } };
  expect(told({ gear: { A: ROOT, B: MIDDLE, C: LAST }, cables: TRIANGLE, ports }, "C")[0]).toBe(
    "1 alternate: blocking: A port 2 offers a way to the root, and this port may never take one",
  );
});

const region = (priority: number, address: number): Gear =>
  bridge(priority, address, {
    kind: "multiple",
    region: "hall",
    instances: [{ number: 2, vids: [v(10)], priority: 4096 }],
  });

test("a region: its way out is the master port, inside it the trees have their own priorities", () => {
  const gear = { A: ROOT, B: region(4096, 2), C: region(32_768, 3) };
  const cables = ["A1-B1", "B2-C1"];
  const index = PlanIndex.of(cabledGear({ gear, cables }));
  const keys = treesOf(index, pieceOf(index, "B")).map(({ key }) => key);
  expect(keys).toEqual(["common", expect.stringMatching(/^region .* 2$/)]);
  expect(treesOf(index, pieceOf(index, "A")).map(({ key }) => key)).toEqual(["common"]);
  const inner = keys[1] ?? "";
  expect(told({ gear, cables }, "B", inner)).toEqual([
    "1 master: the region's way to the common root",
    "2 designated: serves this cable, not C port 1",
  ]);
  expect(treePlace(index, pieceOf(index, "B"), inner)).toMatchObject({
    ...{ key: inner, title: "Region hall, tree 2", isRoot: true, cost: 0, hops: 0, byAccident: [] },
  });
  expect(treePlace(index, pieceOf(index, "C"), inner)).toMatchObject({
    ...{ isRoot: false, cost: 20_000, hops: 1, root: { name: "B" } },
  });
});

test("inside a region the cost within it decides; of entries as dear the lower identifier", () => {
  const gear = { A: ROOT, B: region(4096, 2), C: region(32_768, 3) };
  const cables = ["A1-B1", "B2-C1", "B3-C2"];
  expect(told({ gear, cables, ports: { C1: { treeCost: 50_000 } } }, "C")).toEqual([
    "1 alternate: blocking: B port 2 serves this cable: its way " +
      "costs the same between regions and is cheaper inside this one",
    "2 root: its way to A, before port 1: the way costs the same " +
      "between regions and is cheaper inside this one",
  ]);
  // D is nearer to the root by itself, but a region has one entry: B's identifier is the lower.
  const ring = { gear: { ...gear, D: region(8192, 4) }, cables: ["A1-B1", "A2-D1", "B2-C1", "C2-D2"] };
  expect(told(ring, "D")).toEqual([
    "1 alternate: blocking: A port 2 serves this cable: its way is cheaper",
    "2 root: its way to A, before port 1: the way costs the " +
      "same, and it enters the region at a bridge with a lower identifier",
  ]);
});

test("at a region's edge what the entry is named decides before who stands at the cable", () => {
  const edge = (b: Gear) => {
    const gear = { A: ROOT, B: b, C: region(32_768, 3), D: bridge(8192, 4) };
    return told({ gear, cables: ["A1-B1", "B2-C1", "A2-D1", "C2-D2"] }, "D")[1];
  };
  expect(edge(region(4096, 2))).toBe(
    "2 alternate: blocking: C port 2 serves this cable: its way " +
      "costs the same, and it enters the region at a bridge with a lower identifier",
  );
  // The same priority, and nobody knows the address of B, which the plan then takes to be the highest.
  expect(edge({ ...region(8192, 2), bridgeMac: null })).toBe(
    "2 designated: serves this cable, not C port 2; that hangs " +
      "on MAC addresses, and the plan does not know both",
  );
});

const equal = (address: number | null): Gear => ({
  bridgeMac: address === null ? null : addressOf(address),
  tree: { priority: 32_768 },
});

test("a tie that hangs on MAC addresses is a guess where one of the two is not known", () => {
  const guess = /; that hangs on MAC addresses, and the plan does not know both$/;
  const rowsOf = (b: Gear, c: Gear) => told({ gear: { A: ROOT, B: b, C: c }, cables: TRIANGLE }, "C");
  expect(rowsOf(equal(5), equal(6)).filter((row) => guess.test(row))).toEqual([]);
  expect(rowsOf(equal(5), equal(null)).filter((row) => guess.test(row))).toEqual([
    expect.stringMatching(/^2 /),
  ]);
  // An address that nobody knows is taken to be the highest: C serves the cable, B would know it for a guess.
  const served = { gear: { A: ROOT, B: equal(null), C: equal(6) }, cables: TRIANGLE };
  expect(told(served, "C").filter((row) => guess.test(row))).toEqual([
    expect.stringMatching(/^2 designated/),
  ]);
  expect(told(served, "B").filter((row) => guess.test(row))).toEqual([expect.stringMatching(/^2 alternate/)]);
  // Their priorities differ: no address is asked.
  expect(rowsOf(bridge(4096, 5), equal(null)).filter((row) => guess.test(row))).toEqual([]);
  // The two neighbours of a bridge that is nearest to neither.
  const square = ["A1-B1", "A2-C1", "B2-D1", "C2-D2"];
  const last = (b: number | null, c: number | null) =>
    told({ gear: { A: ROOT, B: equal(b), C: equal(c), D: LAST }, cables: square }, "D")[0] ?? "";
  expect(guess.test(last(5, 6))).toBe(false);
  expect(guess.test(last(5, null))).toBe(true);
});

test("a root by accident: others of its priority, as far as an address of the two is not known", () => {
  const accident = (a: Gear, b: Gear, c: Gear) => {
    const index = PlanIndex.of(cabledGear({ gear: { A: a, B: b, C: c }, cables: TRIANGLE }));
    const { root, byAccident } = must(treePlace(index, pieceOf(index, "C")), "C");
    return `${root.name} before ${byAccident.map(({ name }) => name).join("")}`;
  };
  expect(accident(equal(1), equal(2), equal(3))).toBe("A before ");
  expect(accident(equal(1), equal(2), equal(null))).toBe("A before C");
  expect(accident(equal(null), equal(null), equal(null))).toMatch(/^[ABC] before [ABC]{2}$/);
  expect(accident(equal(1), bridge(4096, 9), equal(null))).toBe("B before ");
  // Another part of the network has a root of its own.
  const gear = { A: equal(1), B: equal(2), C: equal(null), D: equal(null) };
  const index = PlanIndex.of(cabledGear({ gear, cables: ["A1-B1", "C1-D1"] }));
  expect(treePlace(index, pieceOf(index, "A"))?.byAccident).toEqual([]);
});

test("who takes no part has no place; a tree that is not its own falls back to its first", () => {
  const gear = { A: ROOT, B: { tree: { kind: "none" } } } as const;
  const index = PlanIndex.of(cabledGear({ gear, cables: ["A1-B1"] }));
  expect([treePlace(index, pieceOf(index, "B")), treesOf(index, pieceOf(index, "B"))]).toEqual([null, []]);
  expect(treePlace(index, pieceOf(index, "A"), "VLAN 10")).toMatchObject({
    key: "common",
    isRoot: true,
    rows: [],
  });
});

test("cost and hops count from the root", () => {
  const gear = { A: ROOT, B: MIDDLE, C: LAST };
  const index = PlanIndex.of(cabledGear({ gear, cables: ["A1-B1", "B2-C1"] }));
  const at = (letter: string) => treePlace(index, pieceOf(index, letter));
  expect(["A", "B", "C"].map((letter) => [at(letter)?.cost, at(letter)?.hops])).toEqual([
    [0, 0],
    [20_000, 1],
    [40_000, 2],
  ]);
  expect(at("C")).toMatchObject({ root: { id: letterId("A") }, isRoot: false, title: "Common tree" });
});

test("a priority is the bridge's own, its VLAN's or its instance's, with their number added", () => {
  const device = pieceOf(
    PlanIndex.of(
      cabledGear({
        gear: {
          A: {
            tree: {
              priority: 8192,
              perVlan: [{ vid: v(20), priority: 4096 }],
              instances: [{ number: 2, vids: [v(10)], priority: 0 }],
            },
          },
        },
        cables: [],
      }),
    ),
    "A",
  );
  const keys = ["common", "VLAN 20", "VLAN 30", 'region ["hall",0,["2:10"]] 2', "region x 3"];
  expect(keys.map((key) => priorityIn(device, { key }))).toEqual([8192, 4116, 8222, 2, 32_771]);
});
