import { must } from "../kernel";
import { BLANK_TREE, vid, type Device } from "../plan";
import { aDevice } from "../testing/build-plan";
import { regionDifference, regionKey, treeByVid } from "./region";

type Tree = Device["tree"];
const instance = (number: number, vids: readonly number[], priority = 32_768): Tree["instances"][number] => ({
  number,
  vids: vids.map((number) => must(vid(number), `${number}`)),
  priority,
});
const inRegion = (fields: Partial<Tree>): Device =>
  aDevice({ name: "A", tree: { ...BLANK_TREE, kind: "multiple", region: "hall", revision: 3, ...fields } });
const mapped = (...instances: Tree["instances"]): Device => inRegion({ instances });

test("two bridges are one region by name, revision and map, in whatever order the map is written", () => {
  const map = mapped(instance(2, [20, 100]), instance(10, [30]));
  for (const same of [
    mapped(instance(10, [30]), instance(2, [100, 20])),
    mapped(instance(2, [20, 100], 4096), instance(10, [30], 0)),
    mapped(instance(1, []), instance(2, [20, 100]), instance(10, [30])),
    inRegion({ ...map.tree, priority: 0, hops: 40, perVlan: [{ vid: must(vid(20), "20"), priority: 0 }] }),
  ]) {
    expect(regionKey(same)).toBe(regionKey(map));
    expect(regionDifference(map, same)).toBe("");
  }
  const others = [
    inRegion({ ...map.tree, region: "yard" }),
    inRegion({ ...map.tree, revision: 4 }),
    mapped(instance(2, [20]), instance(10, [30])),
    mapped(instance(3, [20, 100]), instance(10, [30])),
  ];
  expect(new Set([map, ...others].map(regionKey)).size).toBe(5);
});

test.each<[string, Device, Device]>([
  ['the region\'s name: "hall" and "yard"', inRegion({ revision: 1 }), inRegion({ region: "yard" })],
  ["the revision: 3 and 4", mapped(instance(1, [10])), inRegion({ revision: 4 })],
  [
    "the map of VLANs: 30 is in tree 0 and in tree 2",
    mapped(instance(2, [20])),
    mapped(instance(2, [20, 30])),
  ],
  ["the map of VLANs: 30 is in tree 2 and in tree 0", mapped(instance(2, [30])), mapped()],
  [
    "the map of VLANs: 9 is in tree 1 and in tree 2, and 2 more",
    mapped(instance(1, [100, 9, 20])),
    mapped(instance(2, [20, 9, 100])),
  ],
  // The last one that names it decides where a VLAN is put twice.
  ["the map of VLANs", mapped(instance(1, [10]), instance(2, [10])), mapped(instance(2, [10]))],
])("%s", (words, a, b) => {
  expect(regionDifference(a, b)).toBe(words);
});

test("each listed VLAN has its tree; the others are not told of", () => {
  expect([...treeByVid(mapped(instance(2, [20, 21]), instance(1, [5])))]).toEqual([
    [20, 2],
    [21, 2],
    [5, 1],
  ]);
});
