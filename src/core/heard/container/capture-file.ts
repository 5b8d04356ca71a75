import type { Records, Sink, Step } from "./frame";
import { isPcap, PcapRecords } from "./pcap";
import { isPcapng, PcapngRecords } from "./pcapng";

const MAGIC = 4;
const NO_CAPTURE = "This is no capture: a file in the pcap or the pcapng format is needed.";

/**
 * A capture file, read piece by piece as it comes: what is kept is less than one record and one piece. What
 * cannot be read ends it with a sentence; the frames before it were handed out.
 */
export class CaptureFile {
  readonly #sink: Sink;
  #records: Records | null = null;
  #rest = new Uint8Array(0);
  /** As many octets at the front are passed over. */
  #skip = 0;
  /** More than so many are needed before there is anything to read. */
  #needs = MAGIC;
  #stopped: string | null = null;
  #length = 0;

  constructor(sink: Sink) {
    this.#sink = sink;
  }

  /** Why it was not read to its end; null while there is no reason. */
  get stopped(): string | null {
    return this.#stopped;
  }

  /** The next piece of the file. */
  push(piece: Uint8Array): void {
    this.#length += piece.length;
    if (this.#stopped !== null) return;
    const passed = Math.min(this.#skip, piece.length);
    this.#skip -= passed;
    const fresh = passed === 0 ? piece : piece.subarray(passed);
    const octets = this.#rest.length === 0 ? fresh : joined(this.#rest, fresh);
    const read = octets.length < this.#needs ? 0 : this.#read(octets);
    // A copy, so that the whole piece is not held for a few octets.
    this.#rest = this.#stopped === null ? octets.slice(read) : new Uint8Array(0);
  }

  /** Nothing more comes. */
  end(): void {
    if (this.#stopped !== null) return;
    if (this.#records === null)
      this.#stopped =
        this.#length === 0 ? "The file is empty." : `${NO_CAPTURE} It has ${this.#length} octets.`;
    else if (this.#rest.length > 0 || this.#skip > 0)
      this.#stopped = "The file ends in the middle of a record: it was cut short.";
  }

  /** Reads what is whole; how far that is. */
  #read(octets: Uint8Array): number {
    const records = this.#records ?? this.#begin(octets);
    let at = 0;
    while (records !== null && this.#stopped === null && at < octets.length) {
      const step = records.step(octets, at);
      if (step.is === "needs") {
        this.#needs = step.count;
        return at;
      }
      at += this.#take(step, octets.length - at);
    }
    this.#needs = 1;
    return at;
  }

  /** By its first octets a file says in which format it is. */
  #begin(octets: Uint8Array): Records | null {
    const magic = new DataView(octets.buffer, octets.byteOffset, octets.byteLength).getUint32(0);
    if (isPcap(magic)) this.#records = new PcapRecords(magic, this.#sink);
    else if (isPcapng(magic)) this.#records = new PcapngRecords(this.#sink);
    else this.#stopped = NO_CAPTURE;
    return this.#records;
  }

  #take(step: Exclude<Step, { readonly is: "needs" }>, left: number): number {
    if (step.is === "damaged") {
      this.#stopped = step.says;
      return 0;
    }
    const count = Math.min(step.count, left);
    this.#skip = step.count - count;
    return count;
  }
}

function joined(a: Uint8Array, b: Uint8Array): Uint8Array<ArrayBuffer> {
  const both = new Uint8Array(a.length + b.length);
  both.set(a);
  both.set(b, a.length);
  return both;
}
