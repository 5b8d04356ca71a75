import type { Octets } from "../octets";

/** A frame as a file holds it. */
export interface CapturedFrame {
  /** What is there of it. */
  readonly octets: Octets;
  /** So long it was on the wire. */
  readonly wireLength: number;
  /** What kind of frame (LINKTYPE number of the format's registry): 1 is Ethernet. */
  readonly linkType: number;
  /** Seconds since the file's first frame; null where the file holds no time for it. */
  readonly at: number | null;
}

/** Where what was read goes. */
export interface Sink {
  readonly frame: (frame: CapturedFrame) => void;
  /** The kind of frames that an interface hears, once for each. */
  readonly hears: (linkType: number) => void;
}

/** An instant: whole seconds since 1970, and the part of one that follows. */
export interface Instant {
  readonly seconds: number;
  readonly part: number;
}

/** Counts seconds from the first instant that it is asked for. */
export class SinceFirst {
  #first: Instant | null = null;

  of(instant: Instant): number {
    this.#first ??= instant;
    return instant.seconds - this.#first.seconds + (instant.part - this.#first.part);
  }
}

/** No network hands a frame of more octets to a capture; what claims to be longer is damage. */
export const MOST_FRAME = 262_144;

/** What is at the front of what was read so far: how many octets it takes, or that it is too little yet. */
export type Step =
  | { readonly is: "took"; readonly count: number }
  | { readonly is: "needs"; readonly count: number }
  /** So many octets hold nothing of interest, and need not be kept. */
  | { readonly is: "skips"; readonly count: number }
  | { readonly is: "damaged"; readonly says: string };

/** Reads a file's records, one at a time, from the front of what is there. */
export interface Records {
  readonly step: (octets: Uint8Array, at: number) => Step;
}

/** Whole numbers in the byte order of a file. */
export interface Order {
  readonly u8: (at: number) => number;
  readonly u16: (at: number) => number;
  readonly u32: (at: number) => number;
}
export function orderOf(octets: Uint8Array, isLittle: boolean): Order {
  const view = new DataView(octets.buffer, octets.byteOffset, octets.byteLength);
  return {
    u8: (at) => view.getUint8(at),
    u16: (at) => view.getUint16(at, isLittle),
    u32: (at) => view.getUint32(at, isLittle),
  };
}
