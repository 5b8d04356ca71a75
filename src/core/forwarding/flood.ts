import type { Host, PlanIndex } from "../plan";
import { TREE, type PlanTree } from "../spanning-tree";
import { FABRIC, membersAt, type Fabric, classify, type Tag } from "../fabric";

/**
 * A frame on a wire. `port` is the bridge port that sent it, or -1 when an end device or a wireless bridge
 * did.
 */
export interface Emission {
  readonly port: number;
  readonly wire: number;
  readonly tag: Tag;
  /** The arrival that led to it, or -1 at the sender. */
  readonly after: number;
}
/**
 * A frame that came in at a bridge port and joined a VLAN there; `port` is -1 for one that began inside the
 * device.
 */
export interface Arrival {
  readonly device: number;
  readonly port: number;
  readonly vid: number;
  readonly emission: number;
}
export interface Drop {
  readonly port: number;
  readonly tag: Tag;
  readonly emission: number;
  /** Kept out by the spanning tree: the port stands by. */ readonly standsBy: boolean;
}
export interface Heard {
  readonly host: Host;
  readonly tag: Tag;
  readonly emission: number;
}

/**
 * Everywhere a broadcast frame comes, with the way it took: each emission names its arrival, each arrival its
 * emission.
 */
export interface Flood {
  readonly emissions: readonly Emission[];
  readonly arrivals: readonly Arrival[];
  readonly drops: readonly Drop[];
  readonly heard: readonly Heard[];
  /** Routed ports that the frame came in at. */
  readonly routed: readonly { readonly port: number; readonly tag: Tag; readonly emission: number }[];
}

/**
 * Where a frame starts: on a port's wire as an end device sends it, or inside a device in a VLAN (wireless,
 * its own).
 */
export type Source =
  | { readonly at: "port"; readonly port: string; readonly tag: Tag; readonly host: string | null }
  | {
      readonly at: "device";
      readonly device: string;
      readonly vid: number;
      /** The port it came in at and does not go out at again. */ readonly port?: string | null;
    };

/** A flood as it spreads. */
class Spreading implements Flood {
  readonly emissions: Emission[] = [];
  readonly arrivals: Arrival[] = [];
  readonly drops: Drop[] = [];
  readonly routed: { port: number; tag: Tag; emission: number }[] = [];
  readonly sent = new Set<number>();
  readonly fabric: Fabric;
  readonly tree: PlanTree;
  readonly #hosts: ReadonlyMap<string, Host>;
  readonly #sender: string | null;
  #heard: readonly Heard[] | null = null;

  constructor(index: PlanIndex, sender: string | null) {
    this.fabric = index.derived(FABRIC);
    this.tree = index.derived(TREE);
    this.#hosts = index.plan.host;
    this.#sender = sender;
  }

  /** Looked for when somebody asks: most want to know of one only. */
  get heard(): readonly Heard[] {
    this.#heard ??= this.emissions.flatMap(({ wire, tag }, emission) =>
      (this.fabric.wires[wire]?.hosts ?? []).flatMap((id): Heard[] => {
        const host = id === this.#sender ? undefined : this.#hosts.get(id);
        return host === undefined ? [] : [{ host, tag, emission }];
      }),
    );
    return this.#heard;
  }
}

/**
 * Sends a broadcast and follows it until nothing new is reached. Ports that the spanning tree has stand by
 * neither send nor take it; a loop without a tree is gone round once.
 */
export function flood(index: PlanIndex, source: Source): Flood {
  const work = new Spreading(index, source.at === "port" ? source.host : null);
  const { fabric } = work;
  if (source.at === "device") {
    const device = fabric.deviceNumber.get(source.device);
    if (device !== undefined)
      arrive(work, {
        device,
        port: fabric.portNumber.get(source.port ?? "") ?? -1,
        vid: source.vid,
        emission: -1,
      });
  } else {
    const port = fabric.portNumber.get(source.port);
    const wire = port === undefined ? -1 : (fabric.wireOf[port] ?? -1);
    if (wire >= 0) work.emissions.push({ port: -1, wire, tag: source.tag, after: -1 });
  }
  for (let i = 0; i < work.emissions.length; i += 1) deliver(work, i);
  return work;
}

/** What the ends of the wire make of one emission. */
function deliver(work: Spreading, emission: number): void {
  const { fabric } = work;
  const frame = work.emissions[emission];
  const wire = frame === undefined ? undefined : fabric.wires[frame.wire];
  if (frame === undefined || wire === undefined) return;
  for (const port of wire.routedPorts) work.routed.push({ port, tag: frame.tag, emission });
  for (const port of wire.bridgePorts) {
    const entity = fabric.ports[port];
    if (port === frame.port || entity === undefined) continue;
    const vid = classify(entity, frame.tag);
    if (vid === null) work.drops.push({ port, tag: frame.tag, emission, standsBy: false });
    else if (work.tree.discards(port, vid))
      work.drops.push({ port, tag: frame.tag, emission, standsBy: true });
    else arrive(work, { device: fabric.deviceOf[port] ?? 0, port, vid, emission });
  }
}

/** A bridge sends the frame on through every other member port. */
function arrive(work: Spreading, arrival: Arrival): void {
  const { fabric } = work;
  const number = work.arrivals.length;
  work.arrivals.push(arrival);
  const isIsolated = fabric.ports[arrival.port]?.guards.isolated === true;
  for (const { port, tag } of membersAt(fabric, arrival.device, arrival.vid)) {
    if (port === arrival.port || (isIsolated && fabric.ports[port]?.guards.isolated === true)) continue;
    const key = port * 4096 + (tag ?? 0);
    if (work.sent.has(key) || work.tree.discards(port, arrival.vid)) continue;
    work.sent.add(key);
    work.emissions.push({ port, wire: fabric.wireOf[port] ?? -1, tag, after: number });
  }
}

/** The arrivals that lead to `arrival`, the first one first, itself last. */
export function wayTo(result: Flood, arrival: number): Arrival[] {
  const way: Arrival[] = [];
  for (let at = result.arrivals[arrival]; at !== undefined;) {
    way.unshift(at);
    const emission = result.emissions[at.emission];
    at = emission === undefined || emission.after < 0 ? undefined : result.arrivals[emission.after];
  }
  return way;
}

/**
 * Legs of gear without VLANs that a frame comes to, untagged as they take it, with the emission that brought
 * it; each once.
 */
export function legsHearing(
  fabric: Fabric,
  { emissions }: Flood,
): { readonly leg: string; readonly emission: number }[] {
  const seen = new Set<number>();
  const found: { readonly leg: string; readonly emission: number }[] = [];
  for (const [emission, { wire, tag }] of emissions.entries()) {
    const legs = fabric.wires[wire]?.legs ?? [];
    if (legs.length === 0 || tag !== null || seen.has(wire)) continue;
    seen.add(wire);
    for (const leg of legs) found.push({ leg, emission });
  }
  return found;
}
