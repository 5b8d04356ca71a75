import type { Host, PlanIndex } from "../plan";
import { Lately, must } from "../kernel";
import { TREE, type PlanTree } from "../spanning-tree";
import {
  classify,
  FABRIC,
  gearAmong,
  hearersOn,
  membersAt,
  type Fabric,
  type Hearers,
  type Member,
  type Tag,
} from "../fabric";

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
 * emission, all by their numbers.
 */
export interface Flood {
  /** The frame on a wire by its number; undefined where there is none of that number. */
  readonly emission: (number: number) => Emission | undefined;
  /** The number of the first frame with a tag on a wire; -1 for none. */
  readonly firstOn: (wire: number, tag: Tag) => number;
  /** All frames on wires; made when asked for. */
  readonly emissions: readonly Emission[];
  readonly arrivals: readonly Arrival[];
  readonly drops: readonly Drop[];
  readonly heard: readonly Heard[];
  /** Routed ports that the frame came in at. */
  readonly routed: readonly { readonly port: number; readonly tag: Tag; readonly emission: number }[];
  /** Frames, by number, on the wires of gear without VLANs that has legs there. */
  readonly atLegs: readonly number[];
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

/** Stands for a frame without a tag among numbers. */
const UNTAGGED = -1;
const numberOf = (tag: Tag): number => tag ?? UNTAGGED;

/** One frame at one port: a port sends no frame of one tag twice. */
const keyOf = (port: number, tag: Tag): number => port * 4096 + (tag ?? 0);

/**
 * A flood as it spreads, by the frames that somebody takes further. A site's switches send it out at thousands
 * of ports besides where nobody but end devices hears it: those get their number when somebody asks for them.
 */
class Spreading implements Flood {
  arrivals: Arrival[] = [];
  drops: Drop[] = [];
  routed: { port: number; tag: Tag; emission: number }[] = [];
  /** Frames that somebody could take in and send on, by number. */
  readonly onward: number[] = [];
  atLegs: number[] = [];
  readonly fabric: Fabric;
  readonly #hearers: Hearers;
  readonly tree: PlanTree;
  readonly #hosts: ReadonlyMap<string, Host>;
  readonly #sender: string | null;
  /** By frame: the port, the tag, the arrival before it. */
  #ports: number[] = [];
  #tags: number[] = [];
  #after: number[] = [];
  /** The numbers of frames that gear takes further, by their keys. */
  #numbers = new Map<number, number>();
  /** The numbers that frames got because somebody asked. */
  readonly #asked = new Map<number, number>();
  /** The wire of the frame that no bridge port sent. */
  #firstWire = -1;
  #emissions: readonly Emission[] | null = null;
  #heard: readonly Heard[] | null = null;

  constructor(index: PlanIndex, sender: string | null) {
    this.fabric = index.derived(FABRIC);
    this.#hearers = hearersOn(this.fabric);
    this.tree = index.derived(TREE);
    this.#hosts = index.plan.host;
    this.#sender = sender;
  }

  /** An end device's own frame, the first of all. */
  begin(wire: number, tag: Tag): void {
    this.#firstWire = wire;
    this.onward.push(0);
    if (this.#hearers.legs[wire] === 1) this.atLegs.push(0);
    this.#push(-1, tag, -1);
  }

  /**
   * Goes the way of another one whose frame came in at the same device in the same VLAN: what differs is the
   * first frame, and where it came in.
   */
  goLike(other: Spreading, first: Arrival): void {
    const frames = other.#numbers.size + 1;
    const rest = (numbers: readonly number[]) => numbers.slice(1, frames);
    this.#ports.push(...rest(other.#ports));
    this.#tags.push(...rest(other.#tags));
    this.#after.push(...rest(other.#after));
    this.#numbers = other.#numbers;
    this.arrivals = [first, ...other.arrivals.slice(1)];
    this.drops = other.drops;
    this.routed = other.routed;
    this.atLegs = other.atLegs;
  }

  /** What a bridge sends on of an arrival to others than end devices. */
  sendOn(after: number, arrival: Arrival): void {
    for (const member of gearAmong(this.fabric, membersAt(this.fabric, arrival.device, arrival.vid))) {
      if (!this.#sends(member, arrival) || this.#numbers.has(keyOf(member.port, member.tag))) continue;
      const number = this.#push(member.port, member.tag, after);
      this.#numbers.set(keyOf(member.port, member.tag), number);
      const wire = this.fabric.wireOf[member.port] ?? -1;
      if (this.#hearers.onward[wire] === 1) this.onward.push(number);
      if (this.#hearers.legs[wire] === 1) this.atLegs.push(number);
    }
  }

  /** Whether a member port sends an arrival on. */
  #sends({ port }: Member, arrival: Arrival): boolean {
    const { ports } = this.fabric;
    const isKeptApart =
      ports[port]?.guards.isolated === true && ports[arrival.port]?.guards.isolated === true;
    return port !== arrival.port && !isKeptApart && !this.tree.discards(port, arrival.vid);
  }

  /** The number of a frame, given to it when it has none yet. */
  #numbered({ port, tag }: Member, after: number): number {
    const key = keyOf(port, tag);
    const known = this.#numbers.get(key) ?? this.#asked.get(key);
    if (known !== undefined) return known;
    const number = this.#push(port, tag, after);
    this.#asked.set(key, number);
    return number;
  }

  #push(port: number, tag: Tag, after: number): number {
    this.#tags.push(numberOf(tag));
    this.#after.push(after);
    return this.#ports.push(port) - 1;
  }

  emission(number: number): Emission | undefined {
    const [port, after] = [this.#ports[number], this.#after[number]];
    if (port === undefined || after === undefined) return undefined;
    return { port, wire: this.#wireAt(number), tag: this.#tagAt(number), after };
  }

  /** The tag of a frame that there is. */
  #tagAt(number: number): Tag {
    const tag = this.#tags[number] ?? UNTAGGED;
    return tag === UNTAGGED ? null : tag;
  }

  /** The wire that a frame is on; -1 for none. */
  #wireAt(number: number): number {
    const port = this.#ports[number] ?? -1;
    return port < 0 ? this.#firstWire : (this.fabric.wireOf[port] ?? -1);
  }

  firstOn(wire: number, tag: Tag): number {
    const isGears = this.#hearers.onward[wire] === 1 || this.#hearers.legs[wire] === 1;
    if (!isGears && wire !== this.#firstWire) return this.#firstAtEnd(wire, tag);
    const wanted = numberOf(tag);
    const { wireOf } = this.fabric;
    const found = this.#ports.findIndex(
      (port, number) => (port < 0 ? this.#firstWire : wireOf[port]) === wire && this.#tags[number] === wanted,
    );
    return found < 0 && !isGears ? this.#firstAtEnd(wire, tag) : found;
  }

  /** The first frame on a wire where one bridge port at most sends, and only end devices hear it. */
  #firstAtEnd(wire: number, tag: Tag): number {
    const port = this.fabric.wires[wire]?.bridgePorts[0];
    if (port === undefined) return -1;
    const device = this.fabric.deviceOf[port];
    for (const [after, arrival] of this.arrivals.entries()) {
      if (arrival.device !== device) continue;
      const member = membersAt(this.fabric, arrival.device, arrival.vid).find(
        (member) => member.port === port && member.tag === tag,
      );
      if (member !== undefined && this.#sends(member, arrival)) return this.#numbered(member, after);
    }
    return -1;
  }

  /** The numbers of all frames in the order in which they are sent. */
  #all(): number[] {
    const numbers = new Set(this.#firstWire < 0 ? [] : [0]);
    for (const [after, arrival] of this.arrivals.entries())
      for (const member of membersAt(this.fabric, arrival.device, arrival.vid))
        if (this.#sends(member, arrival)) numbers.add(this.#numbered(member, after));
    return [...numbers];
  }

  get emissions(): readonly Emission[] {
    this.#emissions ??= this.#all().flatMap((number) => this.emission(number) ?? []);
    return this.#emissions;
  }

  /** Looked for when somebody asks: most want to know of one only. */
  get heard(): readonly Heard[] {
    this.#heard ??= this.#all().flatMap((emission) =>
      (this.fabric.wires[this.#wireAt(emission)]?.hosts ?? []).flatMap((id): Heard[] => {
        const host = id === this.#sender ? undefined : this.#hosts.get(id);
        return host === undefined ? [] : [{ host, tag: this.#tagAt(emission), emission }];
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
  if (source.at === "port") return floodFromPort(index, source);
  const work = new Spreading(index, null);
  const { fabric } = work;
  const device = fabric.deviceNumber.get(source.device);
  if (device === undefined) return work;
  const port = fabric.portNumber.get(source.port ?? "") ?? -1;
  arrive(work, { device, port, vid: source.vid, emission: -1 });
  return spread(work);
}

/** Follows what is on its way until nothing new is reached. */
function spread(work: Spreading): Spreading {
  for (const emission of work.onward) deliver(work, emission);
  return work;
}

function floodFromPort(index: PlanIndex, { port, tag, host }: Extract<Source, { at: "port" }>): Flood {
  const work = new Spreading(index, host);
  const { fabric } = work;
  const wire = fabric.wireOf[fabric.portNumber.get(port) ?? -1] ?? -1;
  if (wire < 0) return work;
  work.begin(wire, tag);
  const first = onlyArrival(work, wire, tag);
  if (first === null) return spread(work);
  const isIsolated = fabric.ports[first.port]?.guards.isolated === true;
  const known = begunOn(work).get(`${first.device} ${first.vid} ${isIsolated}`, () => spread(work));
  if (known !== work) work.goLike(known, first);
  return work;
}

/** Where a frame comes in that is heard by one bridge port and end devices alone; null for any other. */
function onlyArrival({ fabric, tree }: Spreading, wire: number, tag: Tag): Arrival | null {
  const { onward, legs } = hearersOn(fabric);
  const [port] = onward[wire] === 1 || legs[wire] === 1 ? [] : (fabric.wires[wire]?.bridgePorts ?? []);
  const entity = port === undefined ? undefined : fabric.ports[port];
  const vid = entity === undefined ? null : classify(entity, tag);
  return port === undefined || vid === null || tree.discards(port, vid)
    ? null
    : { device: fabric.deviceOf[port] ?? 0, port, vid, emission: 0 };
}

/** Floods by where their frame came in, on the same wires with the same tree. */
interface Begun {
  readonly tree: PlanTree;
  readonly floods: Lately<string, Spreading>;
}
const BEGUN = new WeakMap<Fabric, Begun>();
const MOST_BEGUN = 4096;

/** A switch sends on what comes in at any of its ports for end devices in the same way: it is spread once. */
function begunOn({ fabric, tree }: Spreading): Begun["floods"] {
  const known = BEGUN.get(fabric);
  if (known?.tree === tree) return known.floods;
  const floods = new Lately<string, Spreading>(MOST_BEGUN);
  BEGUN.set(fabric, { tree, floods });
  return floods;
}

/** What the ends of the wire make of one frame. */
function deliver(work: Spreading, emission: number): void {
  const { fabric } = work;
  const frame = must(work.emission(emission), "a frame on its way");
  const wire = must(fabric.wires[frame.wire], "the wire that it is on");
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
const arrive = (work: Spreading, arrival: Arrival): void =>
  work.sendOn(work.arrivals.push(arrival) - 1, arrival);

/** The arrivals that lead to `arrival`, the first one first, itself last. */
export function wayTo(result: Flood, arrival: number): Arrival[] {
  const way: Arrival[] = [];
  for (let at = result.arrivals[arrival]; at !== undefined;) {
    way.unshift(at);
    const emission = result.emission(at.emission);
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
  flood: Flood,
): { readonly leg: string; readonly emission: number }[] {
  const seen = new Set<number>();
  const found: { readonly leg: string; readonly emission: number }[] = [];
  for (const emission of flood.atLegs) {
    const frame = flood.emission(emission);
    if (frame === undefined || frame.tag !== null || seen.has(frame.wire)) continue;
    seen.add(frame.wire);
    for (const leg of fabric.wires[frame.wire]?.legs ?? []) found.push({ leg, emission });
  }
  return found;
}
