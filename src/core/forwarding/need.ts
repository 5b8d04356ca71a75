import { must, putInto } from "../kernel";
import type { Derived, PlanIndex, Port } from "../plan";
import { FABRIC, type Fabric } from "../fabric";
import { USES, type Uses } from "./uses";

const NOTHING: ReadonlySet<number> = new Set();

/**
 * Devices and the wires between them as one graph: nodes are devices, then wires; an edge is a bridge port. A
 * wire that gear of two domains shares stands once for each, since one number in two domains is two VLANs.
 */
interface Graph {
  readonly nodes: number;
  /** By node, its edges as (other node, port number). */
  readonly edges: readonly (readonly (readonly [node: number, port: number])[])[];
}

function graphOf(fabric: Fabric): Graph {
  const edges: [number, number][][] = fabric.devices.map(() => []);
  for (const wire of fabric.wires) {
    if (wire.bridgePorts.length < 2) continue;
    const byDomain = new Map<string | null, number[]>();
    for (const port of wire.bridgePorts) {
      const domain = fabric.devices[fabric.deviceOf[port] ?? 0]?.domain ?? null;
      putInto(byDomain, domain, port);
    }
    for (const ports of byDomain.values()) {
      if (ports.length < 2) continue;
      const node = edges.length;
      edges.push([]);
      for (const port of ports) {
        const device = fabric.deviceOf[port] ?? 0;
        edges[node]?.push([device, port]);
        edges[device]?.push([node, port]);
      }
    }
  }
  return { nodes: edges.length, edges };
}

/**
 * A biconnected part of the graph: its ports (edges), the node it hangs from, and the nodes that hang from
 * it.
 */
interface Block {
  readonly ports: readonly number[];
  readonly top: number;
  readonly below: readonly number[];
}

/** A node on the way down: the edge it was come to by, the next of its edges, and its low point. */
interface Frame {
  readonly node: number;
  readonly by: number;
  readonly depth: number;
  next: number;
  low: number;
}

/** An edge that no part has yet; `node` is what it newly leads to, -1 where it leads back up. */
interface OpenEdge {
  readonly port: number;
  readonly node: number;
}

/**
 * The biconnected parts, each before those that hang from it are left: in an order in which everything below
 * a part comes earlier. Depth-first search with low points (Hopcroft and Tarjan 1973), without recursion, as
 * a chain may be long.
 */
function blocksOf(graph: Graph): { blocks: Block[]; part: Int32Array } {
  const depth = new Int32Array(graph.nodes).fill(-1);
  const part = new Int32Array(graph.nodes).fill(-1);
  const blocks: Block[] = [];
  for (let root = 0; root < graph.nodes; root += 1)
    if (depth[root] === -1) searchFrom(root, graph, { depth, part, blocks });
  return { blocks, part };
}

interface Search {
  readonly depth: Int32Array;
  readonly part: Int32Array;
  readonly blocks: Block[];
}

function searchFrom(root: number, { edges }: Graph, { depth, part, blocks }: Search): void {
  const open: OpenEdge[] = [];
  const frames: Frame[] = [];
  const enter = (node: number, by: number) => {
    depth[node] = frames.length;
    part[node] = root;
    frames.push({ node, by, depth: frames.length, next: 0, low: frames.length });
  };
  enter(root, -1);
  for (let frame = frames.at(-1); frame !== undefined; frame = frames.at(-1)) {
    const edge = edges[frame.node]?.[frame.next];
    if (edge === undefined) {
      frames.pop();
      const up = frames.at(-1);
      if (up !== undefined) close(frame, up, open, blocks);
      continue;
    }
    frame.next += 1;
    const [to, port] = edge;
    if (port === frame.by) continue;
    const at = depth[to] ?? 0;
    if (at === -1) {
      open.push({ port, node: to });
      enter(to, port);
    } else if (at < frame.depth) {
      open.push({ port, node: -1 });
      frame.low = Math.min(frame.low, at);
    }
  }
}

/** Leaves a node: where nothing below it reaches above `up`, what was opened since is one part. */
function close(left: Frame, up: Frame, open: OpenEdge[], blocks: Block[]): void {
  up.low = Math.min(up.low, left.low);
  if (left.low < up.depth) return;
  const own = open.splice(open.findLastIndex((openEdge) => openEdge.node === left.node));
  blocks.push({
    ports: own.map((openEdge) => openEdge.port),
    top: up.node,
    below: own.flatMap((openEdge) => (openEdge.node >= 0 ? [openEdge.node] : [])),
  });
}

/**
 * Which VLANs each bridge port between gear has to carry; by port number, nothing for ports that lead to no
 * other gear.
 */
export type Need = readonly ReadonlySet<number>[];

/** Users at each node, and in the whole of its part; both by the column of their VLAN. */
function usersBelow(uses: Uses, part: ArrayLike<number>, nodes: number) {
  const width = uses.size;
  const below = new Uint16Array(nodes * width);
  const totals = new Map<number, Uint16Array>();
  for (const [column, places] of [...uses.values()].entries()) {
    for (const { device } of places) {
      below[device * width + column] = 1;
      const root = part[device] ?? device;
      const total = totals.get(root) ?? new Uint16Array(width);
      total[column] = (total[column] ?? 0) + 1;
      totals.set(root, total);
    }
  }
  return { below, totals };
}

/** By column, of what hangs on one block: its users, and on how many of its sides there are any. */
interface Hanging {
  readonly users: Uint16Array;
  readonly sides: Uint16Array;
}

/** Counts anew what hangs on a block; node by node, as they lie in memory: a large site has 1000 columns. */
function countHanging({ users, sides }: Hanging, nodes: readonly number[], below: Uint16Array): void {
  const width = users.length;
  users.fill(0);
  sides.fill(0);
  for (const node of nodes)
    for (let column = 0, at = node * width; column < width; column += 1, at += 1) {
      const count = below[at] ?? 0;
      if (count === 0) continue;
      users[column] = (users[column] ?? 0) + count;
      sides[column] = (sides[column] ?? 0) + 1;
    }
}

/**
 * A port has to carry a VLAN exactly when some way without a detour between two of its users passes it: in a
 * part of the graph in which there are two ways between any two nodes, every cable lies on such a way, so the
 * spare ways of a ring are included.
 */
function needOf(fabric: Fabric, uses: Uses): Need {
  const graph = graphOf(fabric);
  const { blocks, part } = blocksOf(graph);
  const vids = [...uses.keys()];
  const width = vids.length;
  const { below, totals } = usersBelow(uses, part, graph.nodes);
  const need: ReadonlySet<number>[] = fabric.ports.map(() => NOTHING);
  const hanging: Hanging = { users: new Uint16Array(width), sides: new Uint16Array(width) };
  for (const block of blocks) {
    const total = totals.get(part[block.top] ?? block.top);
    if (total === undefined) continue;
    countHanging(hanging, block.below, below);
    const wanted = new Set<number>();
    for (let column = 0; column < width; column += 1) {
      const users = hanging.users[column] ?? 0;
      const beyond = (total[column] ?? 0) > users ? 1 : 0;
      if ((hanging.sides[column] ?? 0) + beyond > 1) wanted.add(vids[column] ?? 0);
      const at = block.top * width + column;
      if (users > 0) below[at] = (below[at] ?? 0) + users;
    }
    for (const port of block.ports) need[port] = wanted;
  }
  return need;
}

interface Needed {
  readonly fabric: Fabric;
  readonly uses: Uses;
  readonly need: Need;
}

const sameUses = (a: Uses, b: Uses): boolean =>
  a.size === b.size && [...a].every(([vid, users]) => b.get(vid) === users);

/**
 * The need of all ports; it stays as long as the same gear is cabled in the same way and used by the same
 * devices.
 */
const NEEDED: Derived<Needed> = {
  reads: USES.reads,
  make: (index) => neededIn(index),
  follow: (previous, index) => {
    const fabric = index.derived(FABRIC);
    const uses = index.derived(USES);
    return fabric.wires === previous.fabric.wires &&
      fabric.devices === previous.fabric.devices &&
      sameUses(uses, previous.uses)
      ? { ...previous, fabric, uses }
      : null;
  },
};

function neededIn(index: PlanIndex): Needed {
  const fabric = index.derived(FABRIC);
  const uses = index.derived(USES);
  return { fabric, uses, need: needOf(fabric, uses) };
}

/** What a port between gear should carry against what it does. */
export interface PortCarry {
  readonly port: Port;
  readonly need: ReadonlySet<number>;
  readonly missing: readonly number[];
  readonly needless: readonly number[];
}

const ascendingOf = (set: Iterable<number>): number[] => [...set].sort((a, b) => a - b);

function compared(port: Port, need: ReadonlySet<number>): PortCarry {
  const has = new Set<number>([...port.untagged, ...port.tagged]);
  return {
    port,
    need,
    missing: ascendingOf([...need].filter((vid) => !has.has(vid))),
    needless: ascendingOf([...has].filter((vid) => !need.has(vid))),
  };
}

interface Compared {
  readonly needed: Needed;
  readonly ports: ReadonlyMap<string, PortCarry>;
}

/**
 * Only ports that stand between gear that knows VLANs are compared: what faces end devices is a matter of
 * those.
 */
function compareAll(index: PlanIndex, previous: ReadonlyMap<string, PortCarry>): Compared {
  const needed = index.derived(NEEDED);
  const { fabric, need } = needed;
  const ports = new Map<string, PortCarry>();
  for (const wire of fabric.wires) {
    if (wire.bridgePorts.length < 2) continue;
    for (const number of wire.bridgePorts) {
      const port = must(fabric.ports[number], "a compiled port");
      const known = previous.get(port.id);
      const own = need[number] ?? NOTHING;
      ports.set(port.id, known?.port === port && known.need === own ? known : compared(port, own));
    }
  }
  return { needed, ports };
}

/** By port id, for every port that stands between gear that knows VLANs. */
const COMPARED: Derived<Compared> = {
  reads: NEEDED.reads,
  make: (index) => compareAll(index, new Map()),
  follow: (previous, index) => compareAll(index, previous.ports),
};

/**
 * For every port between gear that knows VLANs: which VLANs it has to carry, which of them it lacks, which it
 * carries for nobody.
 */
export const portCarries = (index: PlanIndex): ReadonlyMap<string, PortCarry> =>
  index.derived(COMPARED).ports;
export const CARRY_READS = NEEDED.reads;
