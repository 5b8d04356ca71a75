// A JPEG as ITU-T T.81 annex B has it: a marker after another, each with its length, and coded data behind
// those that begin a scan.

/** As wide and as high is a photo at most, in pixels: one of few bytes could be huge once it is opened. */
export const MOST_PHOTO_SIDE = 2_048;

const [FILL, SOI, EOI, SOS, RST0, RST7] = [0xff, 0xd8, 0xd9, 0xda, 0xd0, 0xd7];
/** Tables that a decoder needs: of Huffman, of quantisation, and the interval of restarts (table B.1). */
const TABLES: ReadonlySet<number> = new Set([0xc4, 0xdb, 0xdd]);
/** What stands among the frame headers and is none. */
const NO_FRAMES: ReadonlySet<number> = new Set([0xc4, 0xc8, 0xcc]);
const isFrame = ({ marker }: Part): boolean => marker >= 0xc0 && marker <= 0xcf && !NO_FRAMES.has(marker);
const isScan = ({ marker }: Part): boolean => marker === SOS;
/** What an application or a person added: where it was taken among it. */
const isExtra = ({ marker }: Part): boolean => (marker >= 0xe0 && marker <= 0xef) || marker === 0xfe;

/** A marker with all that belongs to it, by the places of its bytes. */
interface Part {
  readonly marker: number;
  readonly from: number;
  readonly to: number;
}

const twoAt = (bytes: Uint8Array, at: number): number => (bytes[at] ?? 0) * 256 + (bytes[at + 1] ?? 0);

/** Where the coded data that begins there ends: at the next marker that is no restart. */
function endOfScan(bytes: Uint8Array, from: number): number {
  let at = from;
  while (at + 1 < bytes.length) {
    const next = bytes[at + 1] ?? 0;
    if (bytes[at] === FILL && next !== 0 && next !== FILL && (next < RST0 || next > RST7)) return at;
    at += 1;
  }
  return bytes.length;
}

function partAt(bytes: Uint8Array, from: number): Part | null {
  const marker = bytes[from + 1];
  if (bytes[from] !== FILL || marker === undefined) return null;
  if (marker === EOI) return { marker, from, to: from + 2 };
  const length = twoAt(bytes, from + 2);
  const to = from + 2 + length;
  if (length < 2 || to > bytes.length) return null;
  return { marker, from, to: marker === SOS ? endOfScan(bytes, to) : to };
}

/** All parts up to the end of the picture; null where it is not whole. */
function partsOf(bytes: Uint8Array): Part[] | null {
  const parts: Part[] = [];
  for (let at = 2; ;) {
    const part = partAt(bytes, at);
    if (part === null) return null;
    parts.push(part);
    if (part.marker === EOI) return parts;
    at = part.to;
  }
}

/** One frame that is not too large, scans, and nothing that is not known. */
function isPicture(bytes: Uint8Array, parts: readonly Part[]): boolean {
  const frames = parts.filter(isFrame);
  const isSmall = ({ from }: Part) =>
    [twoAt(bytes, from + 5), twoAt(bytes, from + 7)].every((side) => side > 0 && side <= MOST_PHOTO_SIDE);
  const isKnown = (part: Part) =>
    part.marker === EOI || TABLES.has(part.marker) || [isFrame, isScan, isExtra].some((is) => is(part));
  return frames.length === 1 && frames.every(isSmall) && parts.some(isScan) && parts.every(isKnown);
}

/**
 * A JPEG with nothing but its picture: segments of applications, comments and what stands behind its end are
 * left out. Null for what is no whole JPEG of at most `MOST_PHOTO_SIDE` pixels a side (ITU-T T.81 annex B).
 */
export function plainJpeg(bytes: Uint8Array): Uint8Array<ArrayBuffer> | null {
  const parts = bytes[0] === FILL && bytes[1] === SOI ? partsOf(bytes) : null;
  if (parts === null || !isPicture(bytes, parts)) return null;
  const kept = parts.filter((part) => !isExtra(part));
  const whole = new Uint8Array(kept.reduce((size, { from, to }) => size + to - from, 2));
  whole.set([FILL, SOI]);
  let at = 2;
  for (const { from, to } of kept) {
    whole.set(bytes.subarray(from, to), at);
    at += to - from;
  }
  return whole;
}
