import fc from "fast-check";
import { must } from "../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Band, type Radio } from "../plan";
import { aDevice, aSite, planWith, testId } from "../testing/build-plan";
import { assignChannels } from "./assign";
import { channelBlock, channelOptions, channelsOverlap, channelsSummary } from "./channels";
import { HEARING } from "./hearing";
import { RADIO_SETS } from "./radio-sets";

const WIDTHS = [20, 40, 80, 160, 320] as const;

test("bonded channels are those of IEEE 802.11 annex E", () => {
  expect(channelBlock("5", 44, 80)).toEqual([36, 40, 44, 48]);
  expect(channelBlock("5", 40, 40)).toEqual([36, 40]);
  expect(channelBlock("5", 112, 160)).toEqual([100, 104, 108, 112, 116, 120, 124, 128]);
  expect(channelBlock("5", 157, 80)).toEqual([149, 153, 157, 161]);
  expect(channelBlock("5", 165, 20)).toEqual([165]);
  expect(channelBlock("5", 37, 20)).toBeNull();
  expect(channelBlock("6", 37, 160)).toEqual([33, 37, 41, 45, 49, 53, 57, 61]);
  expect(channelBlock("6", 5, 320)?.length).toBe(16);
  expect(channelBlock("2.4", 1, 40)).toEqual([1, 5]);
  expect(channelBlock("2.4", 13, 40)).toEqual([9, 13]);
  expect(channelBlock("2.4", 6, 80)).toBeNull();
});

test("every member of a block names it, and blocks of one width overlap only with themselves", () => {
  for (const band of ["5", "6"] as const) {
    for (const width of WIDTHS) {
      const options = channelOptions(RADIO_SETS.americas, band, width, "with radar channels");
      for (const { block } of options)
        for (const channel of block) expect(channelBlock(band, channel, width)).toEqual(block);
      for (const [i, a] of options.entries())
        for (const [k, b] of options.entries()) expect(channelsOverlap(band, a.block, b.block)).toBe(i === k);
    }
  }
});

test("in 2.4 GHz 1, 6 and 11 keep apart and nothing between does", () => {
  expect([
    channelsOverlap("2.4", [1], [6]),
    channelsOverlap("2.4", [6], [11]),
    channelsOverlap("2.4", [1], [5]),
    channelsOverlap("2.4", [3], [6]),
  ]).toEqual([false, false, true, true]);
  expect(channelOptions(RADIO_SETS.europe, "2.4", 20, "with radar channels").map((o) => o.channel)).toEqual([
    1, 6, 11,
  ]);
});

test("a band's list is said in a line", () => {
  expect(channelsSummary(RADIO_SETS.europe, "5")).toBe("19 channels, 15 with radar, 8 indoors only");
  expect(channelsSummary(RADIO_SETS.europe, "2.4")).toBe("13 channels");
  expect(channelsSummary({ region: "", channels: [] }, "6")).toBe("none listed: any number is taken");
});

test("without radar channels Europe has two of 40 MHz at 5 GHz; with them there are nine", () => {
  expect(channelOptions(RADIO_SETS.europe, "5", 40, "without radar channels").map((o) => o.channel)).toEqual([
    36, 44,
  ]);
  expect(channelOptions(RADIO_SETS.europe, "5", 40, "with radar channels").length).toBe(9);
  expect(channelOptions({ region: "", channels: [] }, "5", 40, "with radar channels")).toEqual([]);
});

const point = (i: number, hears: readonly number[]) =>
  aDevice({
    name: `AP ${i}`,
    kind: "accessPoint",
    place: `Room ${i}`,
    hears: hears.map((n) => testId("device", `AP ${n}`)),
  });
const radio = (i: number, band: Band): Radio => ({
  id: testId("radio", `${i} ${band}`),
  device: testId("device", `AP ${i}`),
  band,
  enabled: true,
  channel: null,
  widthMhz: 20,
  power: "",
});
const network = (size: number, pairs: readonly (readonly [number, number])[]) =>
  PlanIndex.of(
    planWith({
      site: aSite({ radio: RADIO_SETS.europe }),
      device: Array.from({ length: size }, (_, i) =>
        point(
          i,
          pairs.filter(([a]) => a === i).map(([, b]) => b),
        ),
      ),
      radio: Array.from({ length: size }, (_, i) => radio(i, "2.4")),
    }),
  );

/** By the book: every way to give three channels to up to six access points. */
function isColourable(size: number, pairs: readonly (readonly [number, number])[]): boolean {
  for (let code = 0; code < 3 ** size; code += 1) {
    const of = (i: number) => Math.floor(code / 3 ** i) % 3;
    if (pairs.every(([a, b]) => a === b || of(a) !== of(b))) return true;
  }
  return false;
}

test("channels are given without a clash whenever three are enough; else clashes are named", () => {
  let clashed = 0;
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 6 }).chain((size) =>
        fc.tuple(
          fc.constant(size),
          fc.array(
            fc.tuple(fc.nat(size - 1), fc.nat(size - 1)).filter(([a, b]) => a !== b),
            { maxLength: 14 },
          ),
        ),
      ),
      ([size, pairs]) => {
        const index = network(size, pairs);
        const assigned = assignChannels(index, "2.4", "without radar channels");
        const channel = new Map(
          assigned.map(({ radio: own, option }) => [own.device, must(option, "a channel").channel]),
        );
        const clashes = pairs.filter(
          ([a, b]) => channel.get(testId("device", `AP ${a}`)) === channel.get(testId("device", `AP ${b}`)),
        );
        expect(clashes.length === 0).toBe(isColourable(size, pairs));
        expect(assigned.some(({ clashes: own }) => own.length > 0)).toBe(clashes.length > 0);
        if (clashes.length > 0) clashed += 1;
      },
    ),
    { seed: 80211, numRuns: 300 },
  );
  expect(clashed).toBeGreaterThan(5);
});

test("no fewer access points could change: by the book, over every way to give three channels", () => {
  const NUMBERS = [1, 6, 11];
  let changed = 0;
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 6 }).chain((size) =>
        fc.tuple(
          fc.constant(size),
          fc.array(
            fc.tuple(fc.nat(size - 1), fc.nat(size - 1)).filter(([a, b]) => a !== b),
            { maxLength: 9 },
          ),
          fc.array(fc.constantFrom(1, 6, 11, null, 4), { minLength: size, maxLength: size }),
        ),
      ),
      ([size, pairs, present]) => {
        fc.pre(isColourable(size, pairs));
        const plan = network(size, pairs).plan;
        const edits = new PlanEdits(plan);
        for (const [i, channel] of present.entries()) {
          const radio = must(
            edits.all("radio").find(({ device }) => device === testId("device", `AP ${i}`)),
            "its radio",
          );
          edits.patch("radio", radio.id, { channel });
        }
        const applied = applyChanges(plan, edits.changes());
        const assigned = assignChannels(
          PlanIndex.of(must(applied.ok ? applied.value : null, "applies")),
          "2.4",
          "without radar channels",
        );
        const changes = assigned.filter(({ radio: own, option }) => option?.channel !== own.channel).length;
        const fewest = Math.min(
          ...Array.from({ length: 3 ** size }, (_, code) =>
            Array.from({ length: size }, (_, i) => must(NUMBERS[Math.floor(code / 3 ** i) % 3], "a channel")),
          )
            .filter((of) => pairs.every(([a, b]) => of[a] !== of[b]))
            .map((of) => of.filter((channel, i) => channel !== present[i]).length),
        );
        expect(changes).toBe(fewest);
        changed += changes;
      },
    ),
    { seed: 80211, numRuns: 300 },
  );
  expect(changed).toBeGreaterThan(100);
});

test("who hears whom: entered at either end, in one room, or in adjacent rooms", () => {
  const room = (name: string, beside: string[] = []) => ({
    id: testId("room", name),
    name,
    kind: "room" as const,
    position: 0,
    cabinet: null,
    cableCm: null,
    heightUnits: null,
    building: "",
    beside: beside.map((room) => testId("room", room)),
    group: "",
    needs: "",
  });
  const at = (name: string, place: string, hears: string[] = []) =>
    aDevice({ name, kind: "accessPoint", place, hears: hears.map((point) => testId("device", point)) });
  const index = PlanIndex.of(
    planWith({
      room: [room("Hall", ["Office"]), room("Office"), room("Barn")],
      device: [at("A", "Hall"), at("B", "hall"), at("C", "Office"), at("D", "Barn", ["A"])],
    }),
  );
  const heard = (name: string) =>
    [...(index.derived(HEARING).get(testId("device", name)) ?? [])]
      .map((id) => index.plan.device.get(id)?.name)
      .sort();
  expect([heard("A"), heard("B"), heard("C"), heard("D")]).toEqual([
    ["B", "C", "D"],
    ["A", "C"],
    ["A", "B"],
    ["A"],
  ]);
});
