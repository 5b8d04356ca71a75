import { runsWords, putInto } from "../../kernel";
import { nameOf, type Device, type PlanIndex, type Port } from "../../plan";
import { chooseRoot, setTreeKind } from "../../planners";
import { LOOPS, regionDifference, TREE, treePlace } from "../../spanning-tree";
import { FABRIC, sharedWires, type Fabric } from "../../fabric";
import { breakLoop } from "./break-loop";
import { check, type Found } from "../check";
import { type Repair, counted, listed } from "../../repairs";

const READS = FABRIC.reads;
const vlans = (vids: readonly number[]): string =>
  `${vids.length === 1 ? "VLAN" : "VLANs"} ${runsWords(vids, String)}`;

interface Circle {
  readonly ports: readonly string[];
  readonly vids: readonly number[];
  readonly devices: readonly string[];
}

export const loopWithoutTree = check<Circle>({
  code: "loop-without-tree",
  severity: "stop",
  family: "guards",
  title: "Cables form a loop and no port blocks",
  why:
    "A broadcast goes round for ever, and within seconds nothing works any " +
    "more. A spanning tree on all gear of the loop blocks one port.",
  reads: READS,
  find: (index): Found<Circle>[] =>
    index.derived(LOOPS).map(({ ports, vids, devices }) => ({
      subjects: ports.map((id) => ({ kind: "port", id })),
      data: { ports, vids, devices },
    })),
  describe: ({ ports, vids }, index) =>
    `The cable between ${listed(ports.map((id) => nameOf(index, "port", id)))} ` +
    `closes a loop in ${vlans(vids)}, and nothing on it blocks.`,
  repairs: ({ ports, devices }, index) => breakLoop(index, devices, index.linkAt(ports[0] ?? "")?.id),
});

/** The parts that the common tree has, by their root: those with at least two bridges. */
function partsOf(index: PlanIndex): { root: Device; members: Device[] }[] {
  const tree = index.derived(TREE);
  const parts = new Map<string, Device[]>();
  for (const [id, root] of tree.rootOf) {
    const device = index.plan.device.get(id);
    if (device !== undefined) putInto(parts, root.id, device);
  }
  return [...parts].flatMap(([id, members]) => {
    const root = index.plan.device.get(id);
    return root === undefined || members.length < 2 ? [] : [{ root, members }];
  });
}

/** How many cables to other gear of the tree a device has. */
const degree = (index: PlanIndex, device: Device): number =>
  index.portsOf(device.id).filter((port) => index.derived(TREE).ports.has(port.id)).length;
/** Who should be the root: the device the gateway hangs on, else the one with the most cables to other gear. */
function middleOf(index: PlanIndex, members: readonly Device[]): Device[] {
  const byGateway = (device: Device) =>
    index
      .portsOf(device.id)
      .some((port) => index.plan.device.get(index.peerOf(port.id)?.device ?? "")?.kind === "gateway");
  return [...members]
    .filter((device) => device.kind !== "accessPoint")
    .sort(
      (a, b) =>
        Number(byGateway(b)) - Number(byGateway(a)) ||
        degree(index, b) - degree(index, a) ||
        (a.name < b.name ? -1 : 1),
    );
}
function rootRepair(index: PlanIndex, members: readonly Device[]): Repair[] {
  const [first, second] = middleOf(index, members);
  return first === undefined
    ? []
    : [
        {
          label:
            `Make ${first.name} the ` +
            `root${second === undefined ? "" : ` and ${second.name} the one that takes over`}`,
          planner: "choose-root",
          args: { root: first.id, second: second?.id ?? null },
          edit: (draft) => chooseRoot({ draft }, first.id, second?.id ?? null),
        },
      ];
}

interface Root {
  readonly root: string;
  readonly members: readonly string[];
}
const devicesOf = (index: PlanIndex, ids: readonly string[]): Device[] =>
  ids.flatMap((id) => index.plan.device.get(id) ?? []);

export const rootByAccident = check<Root>({
  code: "root-by-accident",
  severity: "warn",
  family: "guards",
  title: "Nobody chose the root of the spanning tree",
  why:
    "With the same priority everywhere the lowest MAC address wins: often " +
    "the oldest switch in a cupboard, and all traffic goes through it.",
  reads: READS,
  find: (index): Found<Root>[] =>
    partsOf(index)
      .filter(({ root, members }) =>
        members.some((other) => other.id !== root.id && other.tree.priority === root.tree.priority),
      )
      .map(({ root, members }) => ({
        subjects: [{ kind: "device", id: root.id }],
        data: { root: root.id, members: members.map((one) => one.id) },
      })),
  describe: ({ root, members }, index) => {
    const own = index.plan.device.get(root);
    const same = devicesOf(index, members).filter(
      (other) => other.id !== root && other.tree.priority === own?.tree.priority,
    );
    return (
      `${nameOf(index, "device", root)} is the root of ` +
      `${counted(members.length, "bridge", "bridges")} only because of its MAC address: ` +
      `${listed(same.slice(0, 3).map((one) => one.name))}` +
      `${same.length > 3 ? ` and ${same.length - 3} more` : ""} ` +
      `${same.length === 1 ? "has" : "have"} priority ${own?.tree.priority ?? 0}, too.`
    );
  },
  repairs: ({ members }, index) => rootRepair(index, devicesOf(index, members)),
});

export const rootAtTheEdge = check<Root>({
  code: "root-at-the-edge",
  severity: "warn",
  family: "guards",
  title: "The root of the spanning tree hangs at the edge",
  why: "Every way of the tree leads over the root: at the edge it takes detours over one cable.",
  reads: READS,
  find: (index): Found<Root>[] =>
    partsOf(index)
      .filter(
        ({ root, members }) =>
          members.length > 2 &&
          (root.kind === "accessPoint" ||
            (degree(index, root) === 1 && middleOf(index, members)[0]?.id !== root.id)),
      )
      .map(({ root, members }) => ({
        subjects: [{ kind: "device", id: root.id }],
        data: { root: root.id, members: members.map((one) => one.id) },
      })),
  describe: ({ root }, index) =>
    `${nameOf(index, "device", root)} is the root and hangs on one cable at the edge of the tree.`,
  repairs: ({ members }, index) => rootRepair(index, devicesOf(index, members)),
});

export const secondRootMissing = check<Root>({
  code: "second-root-missing",
  severity: "note",
  family: "guards",
  title: "Nobody is named to take over from the root",
  why:
    "When the root fails, the lowest MAC address among the rest " +
    "decides, and the tree re-forms in a way that nobody planned.",
  reads: READS,
  find: (index): Found<Root>[] =>
    partsOf(index).flatMap(({ root, members }): Found<Root>[] => {
      const others = members.filter((one) => one.id !== root.id && one.kind !== "accessPoint");
      const least = Math.min(...others.map((one) => one.tree.priority));
      const next = others.filter((one) => one.tree.priority === least);
      return others.length < 2 ||
        next.length < 2 ||
        next.some((one) => one.tree.priority <= root.tree.priority)
        ? []
        : [
            {
              subjects: [{ kind: "device", id: root.id }],
              data: { root: root.id, members: members.map((one) => one.id) },
            },
          ];
    }),
  describe: ({ root, members }, index) => {
    const others = devicesOf(index, members).filter((one) => one.id !== root);
    return (
      `${nameOf(index, "device", root)} is the root, and after it ` +
      `${counted(others.length, "bridge has", "bridges have")} the ` +
      "same priority: which takes over is left to MAC addresses."
    );
  },
  repairs: ({ root, members }, index): Repair[] => {
    const second = middleOf(
      index,
      devicesOf(index, members).filter((one) => one.id !== root),
    )[0];
    const own = index.plan.device.get(root);
    if (second === undefined || own === undefined) return [];
    return [
      {
        label: `Let ${second.name} take over`,
        planner: "choose-root",
        args: { root, second: second.id },
        edit: (draft) => chooseRoot({ draft }, root, second.id),
      },
    ];
  },
});

interface OnPort {
  readonly port: string;
  readonly far: string;
}

/**
 * By their numbers, ports that share a wire with another bridge; the wires stay the same object as long as no
 * cable moves.
 */
const PAIRS = new WeakMap<Fabric["wires"], readonly (readonly [port: number, far: number])[]>();
function pairsOf(fabric: Fabric): readonly (readonly [port: number, far: number])[] {
  const { wires, deviceOf } = fabric;
  const known = PAIRS.get(wires);
  if (known !== undefined) return known;
  const found = sharedWires(fabric).flatMap((wire) => {
    const ports = wires[wire]?.bridgePorts ?? [];
    return ports.flatMap((port): [number, number][] => {
      const far = ports.find((one) => deviceOf[one] !== deviceOf[port]);
      return far === undefined ? [] : [[port, far]];
    });
  });
  PAIRS.set(wires, found);
  return found;
}

/** Ports between bridges, with the far port. */
const betweenBridges = (index: PlanIndex): { port: Port; far: Port }[] => {
  const fabric = index.derived(FABRIC);
  return pairsOf(fabric).flatMap(([port, far]) => {
    const ends = [fabric.ports[port], fabric.ports[far]];
    return ends[0] === undefined || ends[1] === undefined ? [] : [{ port: ends[0], far: ends[1] }];
  });
};
const runsTree = (index: PlanIndex, port: Port): boolean =>
  index.plan.device.get(port.device)?.tree.kind !== "none";
const setGuards =
  (port: string, guards: Partial<Port["guards"]>): Repair["edit"] =>
  (draft) =>
    draft.patch("port", port, { guards: { ...draft.need("port", port).guards, ...guards } });

export const edgeOnUplink = check<OnPort>({
  code: "edge-on-uplink",
  severity: "warn",
  family: "guards",
  title: "A port that leads to other gear is set as an edge port",
  why:
    "An edge port forwards at once: until it hears the other " +
    "end, a loop is open. With a BPDU guard it is shut instead.",
  reads: READS,
  find: (index): Found<OnPort>[] =>
    betweenBridges(index)
      .filter(
        ({ port, far }) =>
          port.guards.edge && !port.guards.bpduGuard && runsTree(index, port) && runsTree(index, far),
      )
      .map(({ port, far }) => ({
        subjects: [{ kind: "port", id: port.id }],
        data: { port: port.id, far: far.id },
      })),
  describe: ({ port, far }, index) =>
    `${nameOf(index, "port", port)} is an edge port and leads to ${nameOf(index, "port", far)}.`,
  repairs: ({ port }, index) => [
    {
      label: `Take the edge setting off ${nameOf(index, "port", port)}`,
      planner: "set-guard",
      args: { port, guard: "edge" },
      edit: setGuards(port, { edge: false }),
    },
  ],
});

export const guardShutsCable = check<OnPort>({
  code: "guard-shuts-cable",
  severity: "stop",
  family: "guards",
  title: "A BPDU guard shuts a cable between gear",
  why:
    "The guard switches a port off as soon as it hears a spanning " +
    "tree: right towards end devices, wrong towards switches.",
  reads: READS,
  find: (index): Found<OnPort>[] => {
    const { shut } = index.derived(TREE);
    return shut.size === 0
      ? []
      : betweenBridges(index)
          .filter(({ port }) => shut.has(port.id))
          .map(({ port, far }) => ({
            subjects: [{ kind: "port", id: port.id }],
            data: { port: port.id, far: far.id },
          }));
  },
  describe: ({ port, far }, index) =>
    `${nameOf(index, "port", port)} has a BPDU guard and hears ` +
    `the tree of ${nameOf(index, "port", far)}: it is shut.`,
  repairs: ({ port }, index) => [
    {
      label: `Take the BPDU guard off ${nameOf(index, "port", port)}`,
      planner: "set-guard",
      args: { port, guard: "bpduGuard" },
      edit: setGuards(port, { bpduGuard: false, edge: false }),
    },
  ],
});

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
      edit: (draft) => {
        const [source, target] = [draft.need("device", from ?? "").tree, draft.need("device", to ?? "").tree];
        const kept = new Map(target.instances.map((one) => [one.number, one.priority]));
        draft.patch("device", to ?? "", {
          tree: {
            ...target,
            region: source.region,
            revision: source.revision,
            instances: source.instances.map((one) => ({ ...one, priority: kept.get(one.number) ?? 32_768 })),
          },
        });
      },
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
              edit: (draft) => setTreeKind({ draft }, device.id, "rapid"),
            },
          ];
    }),
});

/** Bridges between the root and the furthest one that max age allows (IEEE 802.1Q table 13-5). */
const MOST_HOPS = 20;
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
    "A message of the tree is dropped after 20 bridges (its max " +
    "age), so those further away take somebody else for the root.",
  reads: READS,
  find: (index): Found<Deep>[] => {
    const { hopsOf } = index.derived(TREE);
    const deep = [...hopsOf].filter(([, hops]) => hops > MOST_HOPS).sort((a, b) => b[1] - a[1]);
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
    `${MOST_HOPS} is the most.`,
  repairs: ({ device }, index): Repair[] => {
    // Half the depth, when the root is chosen in the middle of the longest way.
    const tree = index.derived(TREE);
    const middle = [...tree.hopsOf].filter(
      ([id, hops]) =>
        hops === Math.floor((tree.hopsOf.get(device) ?? 0) / 2) &&
        tree.rootOf.get(id)?.id === tree.rootOf.get(device)?.id,
    )[0]?.[0];
    return middle === undefined || (tree.hopsOf.get(device) ?? 0) > 2 * MOST_HOPS
      ? []
      : [
          {
            label: `Make ${nameOf(index, "device", middle)} the root`,
            planner: "choose-root",
            args: { root: middle, second: null },
            edit: (draft) => chooseRoot({ draft }, middle, null),
          },
        ];
  },
});
