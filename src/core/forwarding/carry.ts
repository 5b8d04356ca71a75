import { must, grouped } from "../kernel";
import type { PlanTree } from "../spanning-tree";
import type { Derived, PlanIndex, Port } from "../plan";
import { type Fabric, classify, egressTag } from "../fabric";
import { JOINS, type Crossing, type Nodes } from "./joins";
import { USES, type Uses, type User } from "./uses";

/** One VLAN that doesn't get from some of its users to the rest: the ports on the way that lack it. */
export interface Break {
  readonly vid: number;
  readonly domain: string | null;
  /** The device whose users are cut off. */
  readonly stranded: string;
  /** The device they should reach: the gateway's side, or the larger part. */
  readonly wanted: string;
  /** Ports that have to carry the VLAN so that they meet; empty when no cable joins the two parts. */
  readonly lacking: readonly Port[];
}

export interface Carry {
  readonly crossings: readonly Crossing[];
  readonly breaks: readonly Break[];
}

/** Devices one wire away, with the two ports; gear that knows no VLANs is part of the wire. */
function neighboursOf(fabric: Fabric, device: number): { device: number; near: number; far: number }[] {
  const hops: { device: number; near: number; far: number }[] = [];
  for (const near of fabric.bridgePortsOf[device] ?? []) {
    for (const far of fabric.wires[fabric.wireOf[near] ?? -1]?.bridgePorts ?? [])
      if (far !== near) hops.push({ device: must(fabric.deviceOf[far], "a port's device"), near, far });
  }
  return hops;
}

/** What a hop lacks so that `vid` passes it both ways. */
function lackingAt(fabric: Fabric, near: number, far: number, vid: number): Port[] {
  const a = must(fabric.ports[near], "a compiled port");
  const b = must(fabric.ports[far], "a compiled port");
  const passes = (from: Port, to: Port) => {
    const tag = egressTag(from, vid);
    return tag !== undefined && classify(to, tag) === vid;
  };
  if (passes(a, b) && passes(b, a)) return [];
  const without = [a, b].filter((port) => egressTag(port, vid) === undefined);
  return without.length > 0 ? without : [a, b];
}

/** The way from `start` to one of `goals` on which the fewest ports lack `vid`: 0-1 breadth-first search. */
function leastLacking(
  fabric: Fabric,
  tree: PlanTree,
  {
    start,
    goals,
    vid,
  }: { readonly start: number; readonly goals: ReadonlySet<number>; readonly vid: number },
): { goal: number; lacking: Port[] } | null {
  const cost = new Map<number, number>([[start, 0]]);
  const cameBy = new Map<number, { from: number; near: number; far: number }>();
  const settled = new Set<number>();
  const queue = [start];
  for (let at = queue.shift(); at !== undefined; at = queue.shift()) {
    if (settled.has(at)) continue;
    settled.add(at);
    if (goals.has(at)) {
      const lacking: Port[] = [];
      for (let hop = cameBy.get(at); hop !== undefined; hop = cameBy.get(hop.from))
        lacking.unshift(...lackingAt(fabric, hop.near, hop.far, vid));
      return { goal: at, lacking };
    }
    for (const hop of neighboursOf(fabric, at)) {
      // A way that stands by is no way as long as the others work.
      if (tree.discards(hop.near, vid) || tree.discards(hop.far, vid)) continue;
      const price = (cost.get(at) ?? 0) + (lackingAt(fabric, hop.near, hop.far, vid).length > 0 ? 1 : 0);
      if (price >= (cost.get(hop.device) ?? Infinity)) continue;
      cost.set(hop.device, price);
      cameBy.set(hop.device, { from: at, near: hop.near, far: hop.far });
      if (price === cost.get(at)) queue.unshift(hop.device);
      else queue.push(hop.device);
    }
  }
  return null;
}

/** Where one VLAN doesn't get through, domain by domain: one number in two domains is two VLANs. */
function breaksOf(
  fabric: Fabric,
  tree: PlanTree,
  { nodes, vid, users }: { readonly nodes: Nodes; readonly vid: number; readonly users: readonly User[] },
): Break[] {
  const byDomain = grouped(users, (user) => fabric.devices[user.device]?.domain ?? null);
  return [...byDomain].flatMap(([domain, members]) =>
    breaksOfVlan(fabric, tree, { nodes, vid, domain, users: members }),
  );
}

function breaksOfVlan(
  fabric: Fabric,
  tree: PlanTree,
  {
    nodes,
    vid,
    domain,
    users,
  }: {
    readonly nodes: Nodes;
    readonly vid: number;
    readonly domain: string | null;
    readonly users: readonly User[];
  },
): Break[] {
  const vlan = nodes.number.get(vid);
  const partOf = (device: number) =>
    vlan === undefined ? -1 - device : nodes.sets.rootOf(device * nodes.vids.length + vlan);
  const [main = [], ...rest] = [...grouped(users, (user) => partOf(user.device)).values()].sort(
    (a, b) => Number(b.some((u) => u.gateway)) - Number(a.some((u) => u.gateway)) || b.length - a.length,
  );
  const goals = new Set(main.map((user) => user.device));
  const id = (device: number | undefined) => must(fabric.devices[device ?? -1], "a compiled device").id;
  return rest.map((part) => {
    const start = must(part[0], "a part has users").device;
    const way = leastLacking(fabric, tree, { start, goals, vid });
    const wanted = main.find((user) => user.gateway)?.device ?? way?.goal ?? main[0]?.device;
    return { vid, domain, stranded: id(start), wanted: id(wanted), lacking: way?.lacking ?? [] };
  });
}

/**
 * For all VLANs at once; those whose users and joins are as they were and that got through then get through
 * now.
 */
function carryOf(index: PlanIndex, previous: Carried | null): Carried {
  const { fabric, tree, nodes, crossings } = index.derived(JOINS);
  const uses = index.derived(USES);
  // Where the trees are other ones, so are the nodes.
  const comparable =
    previous !== null && previous.nodes.number === nodes.number && previous.fabric.devices === fabric.devices;
  const breaks: Break[] = [];
  const whole = new Set<number>();
  for (const [vid, users] of uses) {
    const unchanged =
      comparable &&
      previous.whole.has(vid) &&
      previous.uses.get(vid) === users &&
      previous.nodes.rejoined.get(vid) === nodes.rejoined.get(vid);
    const own = unchanged ? [] : breaksOf(fabric, tree, { nodes, vid, users });
    if (own.length === 0) whole.add(vid);
    breaks.push(...own);
  }
  breaks.sort((a, b) => a.vid - b.vid);
  return { crossings, breaks, fabric, nodes, uses, whole };
}

/** What the answer for an edited plan is worked out from. */
interface Carried extends Carry {
  readonly fabric: Fabric;
  readonly nodes: Nodes;
  readonly uses: Uses;
  readonly whole: ReadonlySet<number>;
}

/** Where VLANs leak into one another and where they don't get through. */
export const CARRY: Derived<Carried> = {
  reads: USES.reads,
  make: (index) => carryOf(index, null),
  follow: (previous, index) => carryOf(index, previous),
};
