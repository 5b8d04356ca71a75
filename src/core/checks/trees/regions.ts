import { BLANK_TREE, nameOf, type Device, type PlanIndex } from "../../plan";
import { chooseRoot, copyRegion, setTreeKind } from "../../planners";
import { regionDifference, TREE, treePlace } from "../../spanning-tree";
import { check, type Found } from "../check";
import { type Repair } from "../../repairs";
import { READS, betweenBridges } from "./parts";

interface Pair {
  readonly a: string;
  readonly b: string;
}

export const regionsDiffer = check<Pair>({
  code: "regions-differ",
  severity: "warn",
  family: "guards",
  title: "Neighbours with multiple trees are not one region",
  why:
    "Name, revision and the map of VLANs have to be the same to the letter; " +
    "else each is a region of its own, and only the common tree joins them.",
  reads: READS,
  find: (index): Found<Pair>[] => {
    const seen = new Set<string>();
    return betweenBridges(index).flatMap(({ port, far }): Found<Pair>[] => {
      const [a, b] = [index.plan.device.get(port.device), index.plan.device.get(far.device)];
      if (
        a?.tree.kind !== "multiple" ||
        b?.tree.kind !== "multiple" ||
        a.id > b.id ||
        seen.has(`${a.id} ${b.id}`) ||
        regionDifference(a, b) === ""
      )
        return [];
      seen.add(`${a.id} ${b.id}`);
      return [
        {
          subjects: [
            { kind: "device", id: a.id },
            { kind: "device", id: b.id },
          ],
          data: { a: a.id, b: b.id },
        },
      ];
    });
  },
  describe: ({ a, b }, index) => {
    const [one, other] = [index.plan.device.get(a), index.plan.device.get(b)];
    return (
      `${nameOf(index, "device", a)} and ${nameOf(index, "device", b)} are not one region; what ` +
      `differs is ${one === undefined || other === undefined ? "" : regionDifference(one, other)}.`
    );
  },
  repairs: ({ a, b }, index) =>
    [
      [a, b],
      [b, a],
    ].map(([to, from]): Repair => ({
      label: `Give ${nameOf(index, "device", to ?? "")} the region of ${nameOf(index, "device", from ?? "")}`,
      planner: "copy-region",
      args: { from, to },
      edit: (edits) => copyRegion(edits, from ?? "", [to ?? ""]),
    })),
});

export const treeKindsMixed = check<Pair>({
  code: "tree-kinds-mixed",
  severity: "warn",
  family: "guards",
  title: "One tree for each VLAN meets another kind of tree",
  why:
    "Trees for each VLAN are no part of the standard; how they get on with " +
    "the others differs from maker to maker, and it is not simulated here.",
  reads: READS,
  find: (index): Found<Pair>[] =>
    index.derived(TREE).mixed.map(([a, b]) => ({
      subjects: [
        { kind: "port", id: a.id },
        { kind: "port", id: b.id },
      ],
      data: { a: a.id, b: b.id },
    })),
  describe: ({ a, b }, index) =>
    `${nameOf(index, "port", a)} and ${nameOf(index, "port", b)} run kinds of ` +
    "tree that do not know one another. Not simulated: both are taken to forward.",
  repairs: ({ a, b }, index) =>
    [a, b].flatMap((id): Repair[] => {
      const device = index.plan.device.get(index.plan.port.get(id)?.device ?? "");
      return device?.tree.kind !== "perVlan" || !device.abilities.trees.includes("rapid")
        ? []
        : [
            {
              label: `Run the rapid tree on ${device.name}`,
              planner: "set-tree",
              args: { device: device.id, kind: "rapid" },
              edit: (edits) => setTreeKind({ edits }, device.id, "rapid"),
            },
          ];
    }),
});

/**
 * Bridges between the root and the furthest one that the root's timers allow: in a region its hops, else its
 * maximum age, which each bridge adds a second to (IEEE 802.1Q sections 13.26.4 and 13.29.26).
 */
function mostHops(index: PlanIndex, device: string): number {
  const root = index.derived(TREE).rootOf.get(device)?.id;
  const { kind, hops, maxAge } = index.plan.device.get(root ?? "")?.tree ?? BLANK_TREE;
  return kind === "multiple" ? hops : maxAge;
}

interface Deep {
  readonly device: string;
  readonly hops: number;
}

export const treeTooDeep = check<Deep>({
  code: "tree-too-deep",
  severity: "warn",
  family: "guards",
  title: "The spanning tree is deeper than its messages live",
  why:
    "A message of the tree is dropped after as many bridges as its maximum age has seconds, and in a region " +
    "after its hops; those further away take somebody else for the root.",
  reads: READS,
  find: (index): Found<Deep>[] => {
    const { hopsOf } = index.derived(TREE);
    const deep = [...hopsOf].filter(([id, hops]) => hops > mostHops(index, id)).sort((a, b) => b[1] - a[1]);
    const [furthest] = deep;
    return furthest === undefined
      ? []
      : [
          {
            subjects: [{ kind: "device", id: furthest[0] }],
            data: { device: furthest[0], hops: furthest[1] },
          },
        ];
  },
  describe: ({ device, hops }, index) =>
    `${nameOf(index, "device", device)} is ${hops} cables from the root ` +
    `${treePlace(index, index.plan.device.get(device) as Device)?.root.name ?? ""}; ` +
    `${mostHops(index, device)} is the most.`,
  repairs: ({ device }, index): Repair[] => {
    // Half the depth, when the root is chosen in the middle of the longest way.
    const tree = index.derived(TREE);
    const middle = [...tree.hopsOf].filter(
      ([id, hops]) =>
        hops === Math.floor((tree.hopsOf.get(device) ?? 0) / 2) &&
        tree.rootOf.get(id)?.id === tree.rootOf.get(device)?.id,
    )[0]?.[0];
    return middle === undefined || (tree.hopsOf.get(device) ?? 0) > 2 * mostHops(index, device)
      ? []
      : [
          {
            label: `Make ${nameOf(index, "device", middle)} the root`,
            planner: "choose-root",
            args: { root: middle, second: null },
            edit: (edits) => chooseRoot({ edits }, middle, null),
          },
        ];
  },
});
