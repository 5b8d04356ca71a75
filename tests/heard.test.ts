import { readFileSync } from "node:fs";
import { join } from "node:path";
import { Listener, type HeardFile } from "../src/core/heard";
import { CaptureFile } from "../src/core/heard/container";
import { must } from "../src/core/kernel";
import { dice } from "../src/core/testing/plants";

// Captures of real servers, bridges, neighbours and clients, and what an analyser makes of them.

const FOLDER = join(__dirname, "oracle/capture");

interface Case {
  readonly name: string;
  readonly file: string;
  readonly frames: number;
  readonly linkType: number | number[];
  readonly seconds: number | null;
  readonly cutFrames: number;
  readonly tap: { readonly mac: string; readonly position: string };
  readonly facts: Readonly<Record<string, unknown>>;
  readonly factsAreMinimum?: true;
  readonly timesUnreliable?: true;
}

const read = (file: string): unknown => JSON.parse(readFileSync(join(FOLDER, file), "utf8"));
const cases = read("cases.json") as Case[];
const broken = read("broken/cases.json") as { readonly name: string; readonly file: string }[];

function heard(bytes: Uint8Array, piece = bytes.length): HeardFile {
  const listener = new Listener();
  for (let at = 0; at < bytes.length; at += piece) listener.push(bytes.subarray(at, at + piece));
  return listener.end();
}
const heardIn = (file: string, piece?: number) =>
  heard(new Uint8Array(readFileSync(join(FOLDER, file))), piece);

/** The same facts whatever the order of rows, and of keys in them. */
function sorted(value: unknown): unknown {
  // A list of plain values is in its order.
  if (Array.isArray(value) && value.every((item) => typeof item !== "object")) return value;
  if (Array.isArray(value))
    return value
      .map(sorted)
      .map((item) => JSON.stringify(item))
      .sort();
  if (value === null || typeof value !== "object") return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, inner]) => [key, sorted(inner)]),
  );
}

const whole = cases.filter(({ factsAreMinimum }) => factsAreMinimum !== true);

describe.each(whole)(
  "$name",
  ({ file, frames, facts, tap, seconds, timesUnreliable, linkType, cutFrames }) => {
    const found = heardIn(file);
    const { unusual: others, ...protocols } = facts;
    const unusual = others as Readonly<Record<string, unknown>>;
    const { traffic, ...read } = found.facts;
    const ours: Readonly<Record<string, unknown>> = read;

    test("frames, kinds, time", () => {
      expect([found.frames, found.stopped, found.cutFrames, found.leftOut]).toEqual([
        frames,
        null,
        cutFrames,
        false,
      ]);
      expect(found.linkTypes).toEqual([linkType].flat());
      if (timesUnreliable !== true) expect(found.seconds).toBeCloseTo(seconds ?? 0, 2);
    });

    test.each(Object.keys(protocols))("%s", (protocol) => {
      expect(sorted(ours[protocol])).toEqual(sorted(protocols[protocol]));
    });

    test("nothing that the analyser does not find", () => {
      expect(Object.keys(ours).filter((key) => !(key in facts))).toEqual([]);
    });

    test("who talks to whom, what goes round", () => {
      const unicast = traffic.unicast.filter(({ src, dst }) => src !== tap.mac && dst !== tap.mac);
      expect(sorted(unicast)).toEqual(sorted(unusual.unicastToOthers));
      if (timesUnreliable === true) return;
      expect(traffic.sameFrameAgainCount).toBe(unusual.sameFrameAgainCount);
      expect(traffic.peakFramesPerSecond).toBe(unusual.peakFramesPerSecond);
      expect(traffic.peakBroadcastMulticastPerSecond).toBe(unusual.peakBroadcastMulticastPerSecond);
      const again = traffic.sameFrameAgain.map(({ overSeconds, ...rest }) => ({
        ...rest,
        overSeconds: Number(overSeconds.toFixed(4)),
      }));
      expect(sorted(again)).toEqual(sorted(unusual.sameFrameAgain));
    });
  },
);

/** Rows of something that an analyser finds in frames that were cut. */
const rowsOf = (facts: unknown): Set<unknown> =>
  new Set(Array.isArray(facts) ? (sorted(facts) as unknown[]) : []);

describe.each(cases.filter(({ factsAreMinimum }) => factsAreMinimum === true))(
  "$name, of which less than all was kept",
  ({ file, frames, facts, cutFrames }) => {
    const found = heardIn(file);

    test("all frames are there, and it is known how many were cut", () => {
      expect([found.frames, found.cutFrames, found.stopped]).toEqual([frames, cutFrames, null]);
    });

    test("what the analyser finds is found", () => {
      expect(sorted(found.facts.tags)).toEqual(sorted(facts.tags));
      const protocols = Object.keys(facts).filter((key) => !["tags", "unusual", "dhcp"].includes(key));
      for (const key of protocols) {
        const [ours, theirs] = [(found.facts as unknown as Record<string, unknown>)[key], facts[key]];
        const lists = Array.isArray(theirs)
          ? [[ours, theirs]]
          : Object.entries(theirs as object).map(
              ([list, rows]) => [(ours as Record<string, unknown>)[list], rows] as const,
            );
        for (const [own, rows] of lists)
          expect([...rowsOf(own)]).toEqual(expect.arrayContaining([...rowsOf(rows)]));
      }
    });

    test("servers and clients of messages whose end is missing are known by what is there", () => {
      const theirs = facts.dhcp as { servers: { mac: string }[] } | undefined;
      const macs = new Set(found.facts.dhcp?.servers.map(({ mac }) => mac as string));
      expect((theirs?.servers ?? []).filter(({ mac }) => !macs.has(mac))).toEqual([]);
    });
  },
);

test("in whichever pieces a file comes, the same is heard", () => {
  for (const { file } of cases)
    for (const piece of [1, 7, 64, 4096]) expect(heardIn(file, piece)).toEqual(heardIn(file));
});

describe("files that are damaged", () => {
  test.each(broken)("$name: a sentence, or what could be read", ({ file }) => {
    const found = heardIn(join("broken", file));
    expect(heardIn(join("broken", file), 13)).toEqual(found);
    if (found.stopped !== null) expect(found.stopped).toMatch(/^[A-Z].{10,}\.$/);
    expect(found.stopped !== null || found.frames > 0 || found.linkTypes.length > 0).toBe(true);
  });

  test("five hundred more", () => {
    const roll = dice(20261130);
    for (let i = 0; i < 500; i += 1) {
      const { file } = must(cases[roll(cases.length)], "a case");
      const bytes = new Uint8Array(readFileSync(join(FOLDER, file)));
      const found = heard(mutated(bytes, roll), 1 + roll(5000));
      expect(JSON.stringify(found).length).toBeLessThan(5_000_000);
      if (found.stopped !== null) expect(found.stopped).toMatch(/^[A-Z].{10,}\.$/);
    }
  });
});

/** Octets changed, taken out, doubled, or the end cut off. */
function mutated(bytes: Uint8Array, roll: (count: number) => number): Uint8Array {
  const [way, at] = [roll(4), roll(bytes.length)];
  if (way === 0) return bytes.subarray(0, at);
  const length = roll(64);
  if (way === 1) return Uint8Array.from([...bytes.subarray(0, at), ...bytes.subarray(at + length)]);
  if (way === 2) return Uint8Array.from([...bytes.subarray(0, at + length), ...bytes.subarray(at)]);
  const changed = Uint8Array.from(bytes);
  for (let i = 0; i <= length; i += 1) changed[roll(bytes.length)] = roll(256);
  return changed;
}

/** The frames of a capture, each made into another, as a classic file of another kind of frames. */
function rewritten(
  file: string,
  linkType: number,
  change: (frame: Uint8Array) => readonly number[],
): Uint8Array {
  const little = (value: number): number[] => [0, 8, 16, 24].map((by) => Math.floor(value / 2 ** by) % 256);
  const out: number[] = [
    ...little(0xa1b2c3d4),
    2,
    0,
    4,
    0,
    ...little(0),
    ...little(0),
    ...little(65_535),
    ...little(linkType),
  ];
  const source = new CaptureFile({
    hears: () => undefined,
    frame: ({ octets, at }) => {
      const bytes = change(octets.bytes.slice(octets.start, octets.end));
      const time = 1_700_000_000 + (at ?? 0);
      out.push(...little(Math.floor(time)), ...little(Math.floor((time % 1) * 1e6)));
      out.push(...little(bytes.length), ...little(bytes.length), ...bytes);
    },
  });
  source.push(new Uint8Array(readFileSync(join(FOLDER, file))));
  source.end();
  return Uint8Array.from(out);
}

const plain = whole.filter(({ linkType, facts }) => linkType === 1 && JSON.stringify(facts).includes("arp"));
/** What was heard beside who said it to whom, which other kinds of frames do not hold. */
function beside({ facts }: HeardFile): unknown {
  const { traffic: _, lldp = [], eapol = [], ...rest } = facts;
  return sorted({
    ...rest,
    lldp: lldp.map((fact) => ({ ...fact, dst: null })),
    eapol: eapol.map(({ events, ...rest }) => ({ ...rest, events: events.length })),
  });
}

test("frames that a machine heard at all its interfaces say the same", () => {
  expect(plain.length).toBeGreaterThan(20);
  const toAll = (frame: Uint8Array) => (frame[0] === 255 ? 1 : 2 * ((frame[0] ?? 0) % 2));
  /** Where the logical link header stands in place of a type. */
  const type = (frame: Uint8Array) => ((frame[12] ?? 0) < 6 ? [0, 4] : [...frame.slice(12, 14)]);
  const cooked = (frame: Uint8Array) => [
    0,
    toAll(frame),
    0,
    1,
    0,
    6,
    ...frame.slice(6, 12),
    0,
    0,
    ...type(frame),
    ...frame.slice(14),
  ];
  const cooked2 = (frame: Uint8Array) => [
    ...type(frame),
    0,
    0,
    0,
    0,
    0,
    1,
    0,
    1,
    toAll(frame),
    6,
    ...frame.slice(6, 12),
    0,
    0,
    ...frame.slice(14),
  ];
  for (const { file } of plain) {
    const own = beside(heardIn(file));
    expect(beside(heard(rewritten(file, 113, cooked)))).toEqual(own);
    expect(beside(heard(rewritten(file, 276, cooked2)))).toEqual(own);
  }
});

test("a check sequence behind frames, and what the kind of frames says of it, changes nothing", () => {
  for (const { file } of plain)
    expect(
      beside(heard(rewritten(file, 1 + 2 ** 26 + 4 * 2 ** 28, (frame) => [...frame, 1, 2, 3, 4]))),
    ).toEqual(beside(heardIn(file)));
});

test("a tag around all frames is the outer one, and those that were there stand inside", () => {
  for (const { file } of plain) {
    const wrapped = (frame: Uint8Array) => [
      ...frame.slice(0, 12),
      0x88,
      0xa8,
      0x01,
      0xf4,
      ...frame.slice(12),
    ];
    const { tags, arp } = heard(rewritten(file, 1, wrapped)).facts;
    expect(tags.every(({ vid, tpid }) => vid === 500 && tpid === "88a8")).toBe(true);
    const own = heardIn(file).facts;
    expect(tags.map(({ inner = [] }) => inner[0] ?? null)).toEqual(own.tags.map(({ vid }) => vid));
    expect(arp?.claims.length).toBe(own.arp?.claims.length);
  }
});

test("a file that is made to fill memory fills a little of it, and it is said that there was more", () => {
  const roll = dice(7);
  const mac = () => [2, 0, ...[0, 0, 0, 0].map(() => roll(256))];
  const frames = Array.from({ length: 60_000 }, () => {
    const [from, address] = [mac(), [10, roll(256), roll(256), roll(256)]];
    const tag = [0x81, 0, roll(16), roll(256)];
    const arp = [0, 1, 8, 0, 6, 4, 0, 1, ...from, ...address, ...mac(), 10, 0, 0, 1];
    return [...mac(), ...from, ...tag, 8, 6, ...arp];
  });
  const listener = new Listener();
  const header = [0xa1, 0xb2, 0xc3, 0xd4, 0, 2, 0, 4, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 255, 255, 0, 0, 0, 1];
  listener.push(Uint8Array.from(header));
  for (const frame of frames)
    listener.push(
      Uint8Array.from([0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 0, frame.length, 0, 0, 0, frame.length, ...frame]),
    );
  const found = listener.end();
  expect([found.frames, found.leftOut]).toEqual([60_000, true]);
  const { tags, arp, traffic } = found.facts;
  const kept = tags.reduce((sum, { senders }) => sum + 1 + Object.keys(senders).length, 0);
  expect(kept + (arp?.claims.length ?? 0) + traffic.unicast.length).toBeLessThanOrEqual(60_000);
});
