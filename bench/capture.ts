import { fennelStreet } from "../demo/fennel-street";
import { listenAt, pcapng } from "../src/core/capture";
import { encodePlan } from "../src/core/formats";
import { Listener } from "../src/core/heard";
import { dice } from "../src/core/testing/plants";

type SeenFrame = ReturnType<typeof listenAt>[number];
type Median = (runs: number, measured: () => unknown) => number;
type Add = (name: string, ms: number, parse: number) => void;

const OCTETS = 200 * 1_048_576;
const STATIONS = 300;
/** Every so many frames another kind: most of an afternoon's are long, one in ten asks for an address. */
const OF_TEN = { long: 7, short: 9 } as const;
const [LONG, SHORT] = [1400, 32];
/** As many frames come in one piece. */
const IN_PIECE = 400;
/** Each piece is a section of its own, as when files are joined. */
const START_MS = Date.UTC(2026, 10, 30);

const mac = (station: number): number[] => [2, 0, 0, 0, Math.floor(station / 256), station % 256];
const tag = (vid: number): number[] => [0x81, 0, 0, vid];

function frame(roll: (below: number) => number): number[] {
  const [from, to, kind] = [roll(STATIONS), roll(STATIONS), roll(10)];
  const vid = tag(10 * (1 + roll(3)));
  if (kind >= OF_TEN.short)
    return [
      ...mac(0xffff).fill(0xff),
      ...mac(from),
      ...vid,
      ...[8, 6, 0, 1, 8, 0, 6, 4, 0, 1],
      ...mac(from),
      ...[10, 0, Math.floor(from / 256), from % 256, 0, 0, 0, 0, 0, 0, 10, 0, 0, to % 256],
    ];
  const [length, protocol] = kind < OF_TEN.long ? [LONG, 6] : [SHORT, 17];
  const head = [
    0x45,
    0,
    Math.floor((length + 20) / 256),
    (length + 20) % 256,
    0,
    0,
    0,
    0,
    64,
    protocol,
    0,
    0,
  ];
  const ends = [10, 0, 0, from % 256, 10, 0, 0, to % 256];
  return [
    ...mac(to),
    ...mac(from),
    ...vid,
    8,
    0,
    ...head,
    ...ends,
    ...Array.from({ length }, () => roll(256)),
  ];
}

/** How long a capture of 200 MB is listened to, piece by piece, and how much memory that takes at most. */
export function measureCapture(median: Median, add: Add): void {
  const roll = dice(200);
  const listener = new Listener();
  let [octets, ms, peak, at] = [0, 0, 0, 0];
  // A few pieces over and over: making them is not what is measured. Their times go on in each.
  const pieces = Array.from({ length: 20 }, (): Uint8Array => {
    const frames = Array.from({ length: IN_PIECE }, (): SeenFrame => {
      at += 1;
      return { ms: at, what: "", tag: null, bytes: frame(roll) };
    });
    return pcapng(frames, "bench", START_MS);
  });
  for (let i = 0; octets < OCTETS; i += 1) {
    const piece = pieces[i % pieces.length] ?? new Uint8Array();
    const begin = performance.now();
    listener.push(piece);
    ms += performance.now() - begin;
    octets += piece.length;
    peak = Math.max(peak, process.memoryUsage().rss);
  }
  const { frames } = listener.end();
  const [read, most] = [octets, peak].map((size) => Math.round(size / 1_048_576));
  const words = `${read} MB, ${frames} frames; at most ${most} MB of memory`;
  const text = JSON.stringify(encodePlan(fennelStreet()));
  const parse = median(5, () => JSON.parse(text));
  add(`a capture of ${words}`, ms, parse);
}
