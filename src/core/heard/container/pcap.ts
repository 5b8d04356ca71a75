import { Octets } from "../octets";
import { MOST_FRAME, orderOf, SinceFirst, type Records, type Sink, type Step } from "./frame";

const HEADER = 24;
const RECORD = 16;
/** The first four octets as they are: byte order, and how finely times are counted. */
const MAGICS: ReadonlyMap<number, { readonly isLittle: boolean; readonly perSecond: number }> = new Map([
  [0xa1b2c3d4, { isLittle: false, perSecond: 1e6 }],
  [0xd4c3b2a1, { isLittle: true, perSecond: 1e6 }],
  [0xa1b23c4d, { isLittle: false, perSecond: 1e9 }],
  [0x4d3cb2a1, { isLittle: true, perSecond: 1e9 }],
]);

/** Whether a file begins as a pcap file does, by its first four octets as one number. */
export const isPcap = (magic: number): boolean => MAGICS.has(magic);

/** The upper half of the link type says how long the check sequence at the end of frames is. */
const LINK_TYPES = 65_536;

/** Files in the pcap format (draft-ietf-opsawg-pcap): a header, then frames one after the other. */
export class PcapRecords implements Records {
  readonly #sink: Sink;
  readonly #isLittle: boolean;
  readonly #perSecond: number;
  readonly #since = new SinceFirst();
  #linkType: number | null = null;

  constructor(magic: number, sink: Sink) {
    const form = MAGICS.get(magic);
    this.#isLittle = form?.isLittle ?? false;
    this.#perSecond = form?.perSecond ?? 1;
    this.#sink = sink;
  }

  step(octets: Uint8Array, at: number): Step {
    return this.#linkType === null ? this.#header(octets, at) : this.#record(octets, at, this.#linkType);
  }

  #header(octets: Uint8Array, at: number): Step {
    if (octets.length < at + HEADER) return { is: "needs", count: HEADER };
    const order = orderOf(octets, this.#isLittle);
    const [major, minor] = [order.u16(at + 4), order.u16(at + 6)];
    if (major !== 2)
      return { is: "damaged", says: `It says version ${major}.${minor} of its format; 2.4 can be read.` };
    this.#linkType = order.u32(at + 20) % LINK_TYPES;
    this.#sink.hears(this.#linkType);
    return { is: "took", count: HEADER };
  }

  #record(octets: Uint8Array, at: number, linkType: number): Step {
    if (octets.length < at + RECORD) return { is: "needs", count: RECORD };
    const order = orderOf(octets, this.#isLittle);
    const held = order.u32(at + 8);
    if (held > MOST_FRAME)
      return { is: "damaged", says: `A frame claims ${held} octets; none is longer than ${MOST_FRAME}.` };
    const count = RECORD + held;
    if (octets.length < at + count) return { is: "needs", count };
    this.#sink.frame({
      octets: new Octets(octets, at + RECORD, at + count),
      wireLength: order.u32(at + 12),
      linkType,
      at: this.#since.of({ seconds: order.u32(at), part: order.u32(at + 4) / this.#perSecond }),
    });
    return { is: "took", count };
  }
}
