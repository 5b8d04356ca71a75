import { must } from "../kernel";
import { PlanIndex, vid } from "../plan";
import { cabledGear, endId, letterId, type CabledGear } from "../testing/cabled-gear";
import { TREE } from "./plan-tree";
import { treePicture, type TreePicture } from "./picture";

/** The picture of a tree; each level as its letters in their places, the cables by their ends. */
function drawn(gear: CabledGear, key = "common") {
  const index = PlanIndex.of(cabledGear(gear));
  const named = must(
    index.derived(TREE).named.find((tree) => tree.key === key),
    key,
  );
  const picture = treePicture(index, named);
  const letters = new Map(Object.keys(gear.gear).map((letter) => [letterId(letter), letter]));
  const ends = new Map(gear.cables.flatMap((cable) => cable.split("-")).map((end) => [endId(end), end]));
  const cable = ({ from, to, standsBy }: TreePicture["branches"][number]) =>
    `${ends.get(from.id)}-${ends.get(to.id)}${standsBy ? " stands by" : ""}`;
  return {
    picture,
    levels: Array.from({ length: picture.levels }, (_, level) =>
      picture.bridges
        .filter((bridge) => bridge.level === level)
        .sort((a, b) => a.place - b.place)
        .map(({ device }) => letters.get(device.id))
        .join(""),
    ),
    cables: picture.branches.map(cable).sort(),
  };
}

const root = { tree: { priority: 0 } };

test("the root is on top, each level below what it hangs on; a cable goes from the end that serves it", () => {
  const { picture, levels, cables } = drawn({
    gear: { A: {}, B: root, C: { tree: { priority: 4096 } }, D: {} },
    cables: ["A1-B1", "C1-B2", "A2-D1", "D2-C2"],
  });
  expect(levels).toEqual(["B", "AC", "D"]);
  expect([picture.levels, picture.widest]).toEqual([3, 2]);
  // D has two ways that cost the same; C's identifier is the lower.
  expect(cables).toEqual(["A2-D1 stands by", "B1-A1", "B2-C1", "C2-D2"]);
  expect(picture.bridges.map(({ isRoot }) => isRoot)).toEqual([true, false, false, false]);
  expect(picture.bridges.map(({ priority }) => priority)).toEqual([0, 32_768, 4096, 32_768]);
});

test("a level stands in the order of what it hangs on, then of the names, so that few lines cross", () => {
  const { levels, picture } = drawn({
    gear: { Z: root, C: {}, B: {}, F: {}, E: {}, D: {}, A: {} },
    // A and E hang on C, the second of its level; D and F on B, the first.
    cables: ["Z1-C1", "Z2-B1", "C2-A1", "C3-E1", "B2-F1", "B3-D1"],
  });
  expect(levels).toEqual(["Z", "BC", "DFAE"]);
  expect(picture.widest).toBe(4);
});

test("a standing cable says nothing of where a bridge hangs", () => {
  const { levels, cables } = drawn({
    gear: { Z: root, B: { tree: { priority: 4096 } }, C: {}, D: {}, E: {} },
    cables: ["Z1-B1", "Z2-C1", "B2-E1", "E2-C2", "C3-D1"],
  });
  // E hangs on B, though its other cable leads to C, where D hangs.
  expect(cables).toContain("C2-E2 stands by");
  expect(levels).toEqual(["Z", "BC", "ED"]);

  const mirrored = drawn({
    gear: { Z: root, B: {}, C: { tree: { priority: 4096 } }, D: {}, E: {} },
    cables: ["Z1-B1", "Z2-C1", "C2-D1", "D2-B2", "B3-E1"],
  });
  expect(mirrored.cables).toContain("B2-D2 stands by");
  expect(mirrored.levels).toEqual(["Z", "BC", "ED"]);
});

test("levels go by bridges on the way, not by what the way costs", () => {
  const slow = { speedMbps: 10 };
  const { levels, picture } = drawn({
    gear: { Z: root, A: {}, B: {}, C: {} },
    cables: ["Z1-A1", "Z2-B1", "B2-C1"],
    ports: { A1: slow, Z1: slow },
  });
  // A is told last what it costs to the root, and is next to it all the same.
  expect(levels).toEqual(["Z", "AB", "C"]);
  expect(picture.bridges.map(({ level }) => level)).toEqual([0, 1, 1, 2]);
});

test("parts that do not hang together have a root each, on one level; alone a bridge is its own", () => {
  const { levels, cables, picture } = drawn({
    gear: { A: {}, B: root, C: root, D: {}, E: {} },
    cables: ["A1-B1", "C1-D1"],
  });
  expect(levels).toEqual(["BCE", "AD"]);
  expect(cables).toEqual(["B1-A1", "C1-D1"]);
  const roots = picture.bridges.filter(({ isRoot }) => isRoot).map(({ device }) => device.name);
  expect(roots).toEqual(["B", "C", "E"]);
});

test("two ports of one bridge at one LAN: one serves it, the other stands by", () => {
  // C runs no tree and passes everything on.
  const { cables } = drawn({
    gear: { A: root, C: { tree: { kind: "none" } } },
    cables: ["A1-C1", "A2-C2"],
  });
  expect(cables).toEqual(["A1-A2 stands by"]);
});

test("without gear that runs a tree there is nothing to draw", () => {
  const { picture } = drawn({ gear: { A: { tree: { kind: "none" } } }, cables: [] });
  expect(picture).toEqual({ bridges: [], branches: [], levels: 0, widest: 0 });
});

test("a VLAN's own tree is drawn with the priorities that its bridges stand with there", () => {
  const v20 = must(vid(20), "20");
  const gear: CabledGear["gear"] = {
    A: { tree: { kind: "perVlan", perVlan: [{ vid: v20, priority: 4096 }] } },
    B: { tree: { kind: "perVlan", priority: 8192 } },
  };
  const { picture, levels } = drawn({ gear, cables: ["A1-B1"], tagged: [20] }, "VLAN 20");
  expect(levels).toEqual(["A", "B"]);
  expect(picture.bridges.map(({ priority }) => priority)).toEqual([4116, 8212]);
});
