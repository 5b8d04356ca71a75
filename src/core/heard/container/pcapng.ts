import { Octets } from "../octets";
import {
  MOST_FRAME,
  orderOf,
  SinceFirst,
  type Instant,
  type Order,
  type Records,
  type Sink,
  type Step,
} from "./frame";

/** Types of blocks (draft-ietf-opsawg-pcapng section 4). */
const BLOCK = { section: 0x0a0d0d0a, interface: 1, oldPacket: 2, simplePacket: 3, packet: 6 } as const;
const ORDER_MAGIC = 0x1a2b3c4d;
/** The smallest block of each type that is read. */
const LEAST: ReadonlyMap<number, number> = new Map([
  [BLOCK.section, 28],
  [BLOCK.interface, 20],
  [BLOCK.oldPacket, 32],
  [BLOCK.simplePacket, 16],
  [BLOCK.packet, 32],
]);
const PACKETS: ReadonlySet<number> = new Set([BLOCK.oldPacket, BLOCK.simplePacket, BLOCK.packet]);
/** Type, and the length before and after. */
const FRAME_OF_BLOCK = 12;
/** A frame with its options, which are a few words. */
const MOST_BLOCK = MOST_FRAME + 65_536 * 4;
/** As many interfaces are kept: a machine has a few. */
const MOST_INTERFACES = 100_000;

const OPTION = { end: 0, resolution: 9, offset: 14 } as const;
/** Where the options of an interface begin. */
const OPTIONS_AT = 16;

/** The start of a file in this format as one number: it reads the same in both byte orders. */
export const isPcapng = (magic: number): boolean => magic === BLOCK.section;

interface Heard {
  readonly linkType: number;
  /** No more than so much of each frame was kept; 0 for all. */
  readonly snap: number;
  /** So many units make a second. */
  readonly perSecond: bigint;
  /** Seconds to add. */
  readonly offset: bigint;
}

const damaged = (says: string): Step => ({ is: "damaged", says });

/** Negative powers of 10, or of 2 where the highest bit is set. */
const unitsOf = (value: number): bigint => (value < 128 ? 10n ** BigInt(value) : 2n ** BigInt(value - 128));

/** Files in the pcapng format: sections of blocks, each with interfaces and byte order of its own. */
export class PcapngRecords implements Records {
  readonly #sink: Sink;
  readonly #since = new SinceFirst();
  #isLittle = true;
  #interfaces: Heard[] = [];

  constructor(sink: Sink) {
    this.#sink = sink;
  }

  step(octets: Uint8Array, at: number): Step {
    if (octets.length < at + FRAME_OF_BLOCK) return { is: "needs", count: FRAME_OF_BLOCK };
    const isSection = orderOf(octets, true).u32(at) === BLOCK.section;
    if (isSection && !this.#turn(octets, at)) return damaged("A section says no byte order that there is.");
    const order = orderOf(octets, this.#isLittle);
    const [type, length] = [order.u32(at), order.u32(at + 4)];
    const least = LEAST.get(type) ?? FRAME_OF_BLOCK;
    if (length < least || length % 4 !== 0)
      return damaged(`A block claims ${length} octets, which no block of its kind has.`);
    if (!LEAST.has(type)) return { is: "skips", count: length };
    if (length > MOST_BLOCK) return damaged(`A block claims ${length} octets; none is as long.`);
    if (octets.length < at + length) return { is: "needs", count: length };
    if (order.u32(at + length - 4) !== length)
      return damaged(`A block of ${length} octets says ${order.u32(at + length - 4)} at its end.`);
    return this.#block({ octets, at, order, type, length });
  }

  /** Reads the byte order of a section; false where it is none. */
  #turn(octets: Uint8Array, at: number): boolean {
    const isLittle = [true, false].find((isLittle) => orderOf(octets, isLittle).u32(at + 8) === ORDER_MAGIC);
    this.#isLittle = isLittle ?? this.#isLittle;
    return isLittle !== undefined;
  }

  #block(block: Block): Step {
    const { order, at, type, length } = block;
    if (type === BLOCK.section) {
      const major = order.u16(at + 12);
      if (major !== 1) return damaged(`A section says version ${major} of its format; 1 can be read.`);
      this.#interfaces = [];
    } else if (type === BLOCK.interface) {
      const fault = this.#interface(block);
      if (fault !== null) return damaged(fault);
    } else if (PACKETS.has(type)) {
      const fault = this.#packet(block);
      if (fault !== null) return damaged(fault);
    }
    return { is: "took", count: length };
  }

  #interface({ order, at, length }: Block): string | null {
    if (this.#interfaces.length >= MOST_INTERFACES)
      return `It names more than ${MOST_INTERFACES} interfaces.`;
    let [perSecond, offset] = [10n ** 6n, 0n];
    const end = at + length - 4;
    for (let next = at + OPTIONS_AT; next + 4 <= end;) {
      const [code, size] = [order.u16(next), order.u16(next + 2)];
      if (code === OPTION.end) break;
      if (next + 4 + size > end) return `An option claims ${size} octets inside a block of ${length}.`;
      if (code === OPTION.resolution && size >= 1) perSecond = unitsOf(order.u8(next + 4));
      if (code === OPTION.offset && size >= 8)
        offset = BigInt.asIntN(64, longOf(order, next + 4, this.#isLittle));
      next += 4 + Math.ceil(size / 4) * 4;
    }
    const linkType = order.u16(at + 8);
    this.#interfaces.push({ linkType, snap: order.u32(at + 12), perSecond, offset });
    this.#sink.hears(linkType);
    return null;
  }

  #packet(block: Block): string | null {
    const { type, order, at } = block;
    const number = numberOf(block);
    const heard = this.#interfaces[number];
    if (heard === undefined)
      return `A frame is of interface ${number}, and ${this.#interfaces.length} are described.`;
    const isSimple = type === BLOCK.simplePacket;
    const head = isSimple ? 12 : 28;
    const room = block.length - head - 4;
    const wireLength = order.u32(isSimple ? at + 8 : at + 24);
    const held = isSimple ? Math.min(wireLength, heard.snap || wireLength, room) : order.u32(at + 20);
    if (held > room || held > MOST_FRAME)
      return `A frame claims ${held} octets in a block of ${block.length}.`;
    this.#sink.frame({
      octets: new Octets(block.octets, at + head, at + head + held),
      wireLength,
      linkType: heard.linkType,
      at: isSimple ? null : this.#since.of(instantOf(order, at, heard)),
    });
    return null;
  }
}

interface Block {
  readonly octets: Uint8Array;
  readonly at: number;
  readonly order: Order;
  readonly type: number;
  readonly length: number;
}

/** Which interface a frame is of. */
function numberOf({ type, order, at }: Block): number {
  if (type === BLOCK.simplePacket) return 0;
  return type === BLOCK.oldPacket ? order.u16(at + 8) : order.u32(at + 8);
}

/** 64 bits in the order of the file. */
function longOf(order: Order, at: number, isLittle: boolean): bigint {
  const [high, low] = isLittle ? [at + 4, at] : [at, at + 4];
  return BigInt(order.u32(high)) * 2n ** 32n + BigInt(order.u32(low));
}

/** The two halves of a frame's time stand the higher first, in either order. */
function instantOf(order: Order, at: number, { perSecond, offset }: Heard): Instant {
  const units = longOf(order, at + 12, false);
  return {
    seconds: Number(units / perSecond + offset),
    part: Number(units % perSecond) / Number(perSecond),
  };
}
