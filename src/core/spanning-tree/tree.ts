import { Heap, grouped, must } from "../kernel";

/**
 * A bridge that takes part: its identifier is the priority and then its MAC address as a number (IEEE 802.1Q
 * section 13.26.2).
 */
export interface TreeBridge {
  readonly id: string;
  readonly priority: number;
  readonly address: number;
  /**
   * The region of multiple trees it is in, by what makes regions the same (section 13.8); null for a bridge
   * that is on its own.
   */
  readonly region: string | null;
}
/**
 * A port of it at a LAN; several ports at one LAN share a wire or gear that knows no spanning tree. Its
 * identifier is the priority and then its number.
 */
export interface TreePort {
  readonly id: string;
  readonly bridge: string;
  readonly lan: string;
  readonly priority: number;
  readonly number: number;
  readonly cost: number;
  /** Never becomes the root port (section 13.27.64). */
  readonly restrictedRole: boolean;
}

export type TreeRole = "root" | "designated" | "alternate" | "backup" | "master";

/** What settled a choice, in the order in which priority vectors are compared (IEEE 802.1Q section 13.9). */
export type DecidedBy =
  | "only way"
  | "restricted"
  | "root"
  | "path cost"
  | "region's root"
  | "cost inside the region"
  | "neighbour's identifier"
  | "neighbour's port"
  | "own port";

export interface TreePortState {
  readonly role: TreeRole;
  /** The port that is designated on its LAN; the port itself when that is this one. */
  readonly designated: TreePort;
  /**
   * For a root port: why it won against the port that came next. For the others what made the designated one
   * win on the LAN: against this one, or for the designated itself against the next.
   */
  readonly decidedBy: DecidedBy;
  /** The port it was decided against; null for the only way. */
  readonly against: TreePort | null;
  /** The two bridges whose identifiers settled it; null where something else did. */
  readonly between: readonly [TreeBridge, TreeBridge] | null;
}

export interface Tree {
  /** By bridge: the root of its part of the network. */
  readonly rootOf: ReadonlyMap<string, TreeBridge>;
  /**
   * By bridge: what it costs to the root (between regions, where there are some), and over how many bridges;
   * 0 for the root itself.
   */
  readonly costOf: ReadonlyMap<string, number>;
  readonly hopsOf: ReadonlyMap<string, number>;
  /** By bridge of a region: where the region's way to the root begins. */
  readonly regionalRootOf: ReadonlyMap<string, TreeBridge>;
  readonly ports: ReadonlyMap<string, TreePortState>;
}

/**
 * A priority vector (section 13.9): what a port says, or what a bridge makes of what it hears. Less is
 * better, compared from the first.
 */
interface Vector {
  readonly root: TreeBridge;
  readonly outside: number;
  readonly regional: TreeBridge;
  readonly inside: number;
  readonly bridge: TreeBridge;
  readonly port: TreePort;
}

const byText = (a: string, b: string): number => {
  if (a < b) return -1;
  if (a > b) return 1;
  return 0;
};
const byBridge = (a: TreeBridge, b: TreeBridge): number =>
  a.priority - b.priority || a.address - b.address || byText(a.id, b.id);
const byPort = (a: TreePort, b: TreePort): number =>
  a.priority - b.priority || a.number - b.number || byText(a.id, b.id);
const better = (a: Vector, b: Vector): number =>
  byBridge(a.root, b.root) ||
  a.outside - b.outside ||
  byBridge(a.regional, b.regional) ||
  a.inside - b.inside ||
  byBridge(a.bridge, b.bridge) ||
  byPort(a.port, b.port);

function decided(a: Vector, b: Vector): DecidedBy {
  if (byBridge(a.root, b.root) !== 0) return "root";
  if (a.outside !== b.outside) return "path cost";
  // A bridge on its own is its region's root: that it differs says that the neighbours do.
  if (byBridge(a.regional, b.regional) !== 0 && (a.regional.region !== null || b.regional.region !== null))
    return "region's root";
  if (a.inside !== b.inside) return "cost inside the region";
  if (byBridge(a.bridge, b.bridge) !== 0) return "neighbour's identifier";
  if (byPort(a.port, b.port) !== 0) return "neighbour's port";
  return "own port";
}

type Decision = Pick<TreePortState, "decidedBy" | "against" | "between">;

const UNDECIDED: Decision = { decidedBy: "only way", against: null, between: null };

/** What made the first of two vectors the better one, against the port of the other. */
function decision(a: Vector, b: Vector, against: TreePort | null): Decision {
  const decidedBy = decided(a, b);
  switch (decidedBy) {
    case "root":
      return { decidedBy, against, between: [a.root, b.root] };
    case "region's root":
      return { decidedBy, against, between: [a.regional, b.regional] };
    case "neighbour's identifier":
      return { decidedBy, against, between: [a.bridge, b.bridge] };
    default:
      return { decidedBy, against, between: null };
  }
}

const isOneRegion = (a: TreeBridge, b: TreeBridge): boolean => a.region !== null && a.region === b.region;

/**
 * What a port makes of a message (section 13.10): the cost of the port that receives is added, inside a
 * region to the cost within it.
 */
const received = (said: Vector, port: TreePort, by: TreeBridge): Vector =>
  isOneRegion(said.bridge, by)
    ? { ...said, inside: said.inside + port.cost }
    : { ...said, outside: said.outside + port.cost, regional: by, inside: 0 };

/** What a bridge believes before it hears anything: it is the root itself (section 13.10); its port is none. */
const alone = (bridge: TreeBridge): Vector => ({
  root: bridge,
  outside: 0,
  regional: bridge,
  inside: 0,
  bridge,
  port: {
    id: "",
    bridge: bridge.id,
    lan: "",
    priority: 0,
    number: 0,
    cost: 0,
    restrictedRole: false,
  },
});

interface Settled {
  readonly at: TreeBridge;
  readonly vector: Vector;
  readonly hops: number;
}

/** Ports by the bridge they are at and by the LAN. */
interface Cabling {
  readonly own: ReadonlyMap<string, readonly TreePort[]>;
  readonly lans: ReadonlyMap<string, readonly TreePort[]>;
}

/** Every bridge's best vector: Dijkstra's algorithm over vectors, which only grow on their way. */
function settle(bridges: ReadonlyMap<string, TreeBridge>, { own, lans }: Cabling): Map<string, Settled> {
  const settled = new Map<string, Settled>();
  const waiting = new Heap<Settled>((a, b) => better(a.vector, b.vector));
  const known = new Map<string, Vector>();
  const offer = (to: Settled) => {
    const before = known.get(to.at.id);
    if (before !== undefined && better(before, to.vector) < 0) return;
    known.set(to.at.id, to.vector);
    waiting.push(to);
  };
  for (const bridge of bridges.values()) offer({ at: bridge, vector: alone(bridge), hops: 0 });
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    const { at, vector, hops } = next;
    if (settled.has(at.id)) continue;
    settled.set(at.id, next);
    for (const port of own.get(at.id) ?? []) {
      const said: Vector = { ...vector, bridge: at, port };
      for (const far of lans.get(port.lan) ?? []) {
        if (far.bridge === at.id || far.restrictedRole) continue;
        const there = must(bridges.get(far.bridge), "a port of a bridge that takes part");
        offer({ at: there, vector: received(said, far, there), hops: hops + 1 });
      }
    }
  }
  return settled;
}

/**
 * The tree that the rapid spanning tree protocol settles on, and with regions the common tree of all of them
 * (IEEE 802.1Q clause 13): the root of each connected part, every bridge's cost to it, every port's role and
 * what decided it. Ports without a working cable to other gear take no part: leave them out, and those of
 * bridges that are not among these.
 */
export function spanningTree(bridges: readonly TreeBridge[], ports: readonly TreePort[]): Tree {
  const lans = grouped(ports, (port) => port.lan);
  const own = grouped(ports, (port) => port.bridge);
  const settled = settle(new Map(bridges.map((bridge) => [bridge.id, bridge])), { own, lans });
  const said = new Map<string, Vector>();
  for (const { at, vector } of settled.values())
    for (const port of own.get(at.id) ?? []) said.set(port.id, { ...vector, bridge: at, port });
  // On each LAN the bridge nearest to the root speaks; among its own ports the one with the lower identifier.
  const speakers = new Map(
    [...lans].map(([lan, list]) => [
      lan,
      list.map((port) => must(said.get(port.id), "a port of a bridge that takes part")).sort(better),
    ]),
  );
  const speakersAt = (port: TreePort) => must(speakers.get(port.lan), "the LAN of a port");
  const states = new Map<string, TreePortState>();
  for (const { at } of settled.values()) {
    const list = own.get(at.id) ?? [];
    // Ways towards the root: what is heard from others, best first; the receiving port's own identifier
    // decides last. The root hears nobody, since it speaks on every LAN that it is at.
    const [best, second] = list
      .flatMap((port): Way[] => {
        const [first] = speakersAt(port);
        return port.restrictedRole || first === undefined || first.bridge === at
          ? []
          : [{ port, vector: received(first, port, at) }];
      })
      .sort((a, b) => better(a.vector, b.vector) || byPort(a.port, b.port));
    for (const port of list) states.set(port.id, stateOf(port, best, second, speakersAt(port)));
  }
  const each = <T>(of: (settled: Settled) => T) =>
    new Map([...settled].map(([id, settled]) => [id, of(settled)]));
  return {
    rootOf: each(({ vector }) => vector.root),
    costOf: each(({ vector }) => vector.outside),
    hopsOf: each(({ hops }) => hops),
    regionalRootOf: each(({ vector }) => vector.regional),
    ports: states,
  };
}

interface Way {
  readonly port: TreePort;
  readonly vector: Vector;
}

function stateOf(
  port: TreePort,
  best: Way | undefined,
  second: Way | undefined,
  speakers: readonly Vector[],
): TreePortState {
  const [first, next] = speakers;
  const speaker = must(first, "a port at the LAN, this one at least");
  const designated = speaker.port;
  if (port === best?.port) {
    const own = second === undefined ? UNDECIDED : decision(best.vector, second.vector, second.port);
    return { role: "root", designated, ...own };
  }
  if (designated === port) {
    const own = next === undefined ? UNDECIDED : decision(speaker, next, next.port);
    return { role: "designated", designated, ...own };
  }
  const against = designated;
  if (designated.bridge === port.bridge)
    return { role: "backup", designated, decidedBy: "neighbour's port", against, between: null };
  if (port.restrictedRole)
    return { role: "alternate", designated, decidedBy: "restricted", against, between: null };
  const said = speakers.find((vector) => vector.port === port);
  return { role: "alternate", designated, ...decision(speaker, must(said, "what this port says"), against) };
}
