/** A bridge that takes part: its identifier is the priority and then its MAC address as a number (IEEE 802.1Q section 13.26.2). */
export interface TreeBridge { readonly id: string; readonly priority: number; readonly address: number }
/** A port of it at a LAN; several ports at one LAN share a wire or gear that knows no spanning tree. Its identifier is the priority and then its number. */
export interface TreePort { readonly id: string; readonly bridge: string; readonly lan: string; readonly priority: number; readonly number: number; readonly cost: number }

export type TreeRole = "root" | "designated" | "alternate" | "backup";

/** What settled a choice, in the order in which priority vectors are compared (IEEE 802.1Q section 13.9). */
export type DecidedBy = "only way" | "path cost" | "neighbour's identifier" | "neighbour's port" | "own port";

export interface TreePortState {
  readonly role: TreeRole;
  /** The port that is designated on its LAN; the port itself when that is this one. */
  readonly designated: TreePort;
  /** For a root port: why it won against the port that came next. For an alternate: why it lost against the root port. For the others what made the designated one win on the LAN. */
  readonly decidedBy: DecidedBy;
  /** The port it was decided against; null for the only way. */
  readonly against: TreePort | null;
}

export interface Tree {
  /** By bridge: the root of its part of the network. */
  readonly rootOf: ReadonlyMap<string, TreeBridge>;
  /** By bridge: what it costs to the root, and over how many bridges; 0 for the root itself. */
  readonly costOf: ReadonlyMap<string, number>;
  readonly hopsOf: ReadonlyMap<string, number>;
  readonly ports: ReadonlyMap<string, TreePortState>;
}

/** What a port says or hears: the rest of a priority vector once the root is the same for all. */
interface Vector { readonly cost: number; readonly bridge: TreeBridge; readonly port: TreePort }

const byBridge = (a: TreeBridge, b: TreeBridge): number => a.priority - b.priority || a.address - b.address || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);
const byPort = (a: TreePort, b: TreePort): number => a.priority - b.priority || a.number - b.number || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);
/** Lower is better (IEEE 802.1Q section 13.9). */
const better = (a: Vector, b: Vector): number => a.cost - b.cost || byBridge(a.bridge, b.bridge) || byPort(a.port, b.port);

function decided(a: Vector, b: Vector): DecidedBy {
  if (a.cost !== b.cost) return "path cost";
  return byBridge(a.bridge, b.bridge) !== 0 ? "neighbour's identifier" : byPort(a.port, b.port) !== 0 ? "neighbour's port" : "own port";
}

function grouped<T>(items: readonly T[], key: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const item of items) {
    const group = groups.get(key(item));
    if (group === undefined) groups.set(key(item), [item]);
    else group.push(item);
  }
  return groups;
}

/** The bridges that hang together, by one of them, and the root of each part: the one with the lowest identifier. */
function rootsOf(bridges: readonly TreeBridge[], ports: readonly TreePort[], lans: ReadonlyMap<string, readonly TreePort[]>): Map<string, TreeBridge> {
  const own = grouped(ports, (port) => port.bridge);
  const byId = new Map(bridges.map((bridge) => [bridge.id, bridge]));
  const rootOf = new Map<string, TreeBridge>();
  // In the order of the identifiers the first one met is the root of everything it reaches.
  for (const root of [...bridges].sort(byBridge)) {
    if (rootOf.has(root.id)) continue;
    const open = [root.id];
    rootOf.set(root.id, root);
    for (let i = 0; i < open.length; i += 1) {
      for (const port of own.get(open[i] ?? "") ?? []) for (const { bridge } of lans.get(port.lan) ?? []) {
        if (rootOf.has(bridge) || !byId.has(bridge)) continue;
        rootOf.set(bridge, root);
        open.push(bridge);
      }
    }
  }
  return rootOf;
}

/** Costs to the root by the shortest paths, the cost of the port that receives counted (IEEE 802.1Q section 13.10), and how many bridges the way passes. */
function costsOf(rootOf: ReadonlyMap<string, TreeBridge>, ports: readonly TreePort[], lans: ReadonlyMap<string, readonly TreePort[]>): { costOf: Map<string, number>; hopsOf: Map<string, number> } {
  const own = grouped(ports, (port) => port.bridge);
  const costOf = new Map<string, number>();
  const hopsOf = new Map<string, number>();
  const waiting = new Map<string, { cost: number; hops: number }>();
  for (const [id, root] of rootOf) if (root.id === id) waiting.set(id, { cost: 0, hops: 0 });
  while (waiting.size > 0) {
    let next = "";
    let least = { cost: Infinity, hops: Infinity };
    for (const [id, way] of waiting) if (way.cost < least.cost || (way.cost === least.cost && way.hops < least.hops)) [next, least] = [id, way];
    waiting.delete(next);
    costOf.set(next, least.cost);
    hopsOf.set(next, least.hops);
    for (const from of own.get(next) ?? []) for (const to of lans.get(from.lan) ?? []) {
      if (costOf.has(to.bridge) || !rootOf.has(to.bridge)) continue;
      const way = { cost: least.cost + to.cost, hops: least.hops + 1 };
      const known = waiting.get(to.bridge);
      if (known === undefined || way.cost < known.cost || (way.cost === known.cost && way.hops < known.hops)) waiting.set(to.bridge, way);
    }
  }
  return { costOf, hopsOf };
}

/**
 * The tree that the rapid spanning tree protocol settles on (IEEE 802.1Q clause 13): the root of each connected part, every bridge's
 * cost to it, every port's role and what decided it. Ports without a working cable to other gear take no part: leave them out.
 */
export function spanningTree(bridges: readonly TreeBridge[], ports: readonly TreePort[]): Tree {
  const byId = new Map(bridges.map((bridge) => [bridge.id, bridge]));
  const taking = ports.filter((port) => byId.has(port.bridge));
  const lans = grouped(taking, (port) => port.lan);
  const rootOf = rootsOf(bridges, taking, lans);
  const { costOf, hopsOf } = costsOf(rootOf, taking, lans);
  const said = (port: TreePort): Vector => ({ cost: costOf.get(port.bridge) ?? 0, bridge: byId.get(port.bridge) ?? { id: port.bridge, priority: 0, address: 0 }, port });
  // On each LAN the bridge nearest to the root speaks; among its own ports the one with the lower identifier.
  const order = new Map([...lans].map(([lan, own]) => [lan, own.map(said).sort(better)]));
  const heard = (port: TreePort): Vector => {
    const [first] = order.get(port.lan) ?? [];
    const from = first ?? said(port);
    return { ...from, cost: from.cost + port.cost };
  };
  const states = new Map<string, TreePortState>();
  for (const [bridge, own] of grouped(taking, (port) => port.bridge)) {
    const isRoot = rootOf.get(bridge)?.id === bridge;
    // Ways towards the root: what is heard from others, best first; the receiving port's own identifier decides last.
    const ways = isRoot ? [] : own.filter((port) => heard(port).bridge.id !== bridge).sort((a, b) => better(heard(a), heard(b)) || byPort(a, b));
    const [best, second] = ways;
    for (const port of own) {
      const speakers = order.get(port.lan) ?? [];
      const [speaker, next] = speakers;
      const designated = speaker?.port ?? port;
      const onLan = speaker === undefined || next === undefined ? { decidedBy: "only way" as const, against: null } : { decidedBy: decided(speaker, next), against: next.port };
      if (port === best) states.set(port.id, { role: "root", designated, ...(second === undefined ? { decidedBy: "only way" as const, against: null } : { decidedBy: decided(heard(port), heard(second)), against: second }) });
      else if (designated === port) states.set(port.id, { role: "designated", designated, ...onLan });
      else if (designated.bridge === bridge) states.set(port.id, { role: "backup", designated, decidedBy: "neighbour's port", against: designated });
      else states.set(port.id, { role: "alternate", designated, ...(best === undefined ? onLan : { decidedBy: decided(heard(best), heard(port)), against: best }) });
    }
  }
  return { rootOf, costOf, hopsOf, ports: states };
}
