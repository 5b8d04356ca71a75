import fc from "fast-check";
import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import { PlanIndex, type Host, type Plan, type Window } from "../plan";
import { aHost } from "../testing/build-plan";
import { afterEdit, donePlan } from "../testing/after-edit";
import { testId } from "../testing/build-plan";
import { minutesText } from "./minutes";
import { signatureOf, withPermits } from "./permits";
import { provenRunbook } from "./runbook";
import type { Step } from "./step";
import { slotsOf, timeText } from "./windows";

const bare: Step = {
  kind: "do",
  title: "",
  device: null,
  values: [],
  why: "",
  card: null,
  needsConsole: false,
  isBlind: false,
  cuts: [],
  mends: [],
  stops: [],
  minutes: 10,
  reaches: new Set(),
  back: "",
  caution: "",
  operation: null,
};
const hosts: readonly Host[] = ["a", "b", "c"].map((name) => aHost({ id: testId("host", name), name }));
const [a, b, c] = [must(hosts[0], "a"), must(hosts[1], "b"), must(hosts[2], "c")];
const step = (title: string, fields: Partial<Step> = {}): Step => ({ ...bare, title, ...fields });
const window = (name: string, fields: Partial<Window> = {}): Window => ({
  id: testId("window", name),
  name,
  starts: "2028-06-03T18:00",
  minutes: 60,
  segments: [],
  permit: "",
  consent: "",
  notes: "",
  ...fields,
});
const practice = fennelStreet();
const withWindows = (windows: readonly Window[]): PlanIndex =>
  PlanIndex.of({ ...practice, window: new Map(windows.map((window) => [window.id, window])) });
const short = (index: PlanIndex, steps: readonly Step[], now: string | null = null) =>
  slotsOf(index, steps, now).map(({ from, to, window: own, after, lastBack, refused }) => [
    `${from}-${to}`,
    own?.name ?? "",
    after,
    lastBack,
    refused,
  ]);

const CUT = [
  step("before"),
  step("cuts a", { cuts: [a] }),
  step("between"),
  step("cuts b, mends a", { cuts: [b], mends: [a] }),
  step("mends b", { mends: [b] }),
  step("after"),
];
const CUT_TWICE = [...CUT, step("stops c", { stops: [c] })];
const UNSIGNED = { signed: [], now: null };

test("what one step cuts and a later one mends is one piece; what stops nobody is free in time", () => {
  expect(short(withWindows([window("Saturday")]), CUT)).toEqual([
    ["0-0", "", 0, 0, ""],
    ["1-4", "Saturday", 0, 3, ""],
    ["5-5", "", 0, 5, ""],
  ]);
});

test("the point of no return is where taking back would not end within the window", () => {
  const at = (minutes: number) =>
    slotsOf(withWindows([window("Saturday", { minutes })]), CUT, null)[1]?.lastBack;
  // Four steps of ten minutes; each takes as long to be taken back.
  expect([at(40), at(59), at(60), at(79), at(80)]).toEqual([2, 2, 3, 3, 4]);
});

test("a piece that no window takes says why", () => {
  const why = (...windows: Window[]) => slotsOf(withWindows(windows), CUT, null)[1]?.refused;
  const kit = must(
    [...practice.segment.values()].find(({ name }) => name === "Kit"),
    "Kit",
  ).id;
  expect([
    why(),
    why(window("Short", { minutes: 30 })),
    why(window("Kit only", { segments: [kit] })),
  ]).toEqual([
    "There is no window to come.",
    "It takes 40 min in one go, and the longest window that may stop them has 30 min left.",
    "No window may stop all of them.",
  ]);
});

test("of a window that has begun only what is left is dealt out, and nothing of one that is over", () => {
  const at = (now: string, ...windows: Window[]) => short(withWindows(windows), CUT, now)[1];
  const [first, next] = [window("First"), window("Next", { starts: "2028-06-03T21:00" })];
  expect([
    at("2028-06-03T17:59", first, next),
    at("2028-06-03T18:20", first, next),
    at("2028-06-03T18:21", first, next),
    at("2028-06-03T18:21", first),
    at("2028-06-03T19:00", first),
  ]).toEqual([
    ["1-4", "First", 0, 3, ""],
    ["1-4", "First", 20, 2, ""],
    ["1-4", "Next", 0, 3, ""],
    [
      "1-4",
      "",
      0,
      null,
      "It takes 40 min in one go, and the longest window that may stop them has 39 min left.",
    ],
    ["1-4", "", 0, null, "There is no window to come."],
  ]);
});

test("a host that is never joined again is down for its own step only", () => {
  expect(short(withWindows([window("Saturday")]), [step("cuts", { cuts: [a] }), step("after")])).toEqual([
    ["0-0", "Saturday", 0, 0, ""],
    ["1-1", "", 0, 1, ""],
  ]);
});

test("two pieces share a window with the steps between them, or the second goes into the next", () => {
  const two = [step("1", { stops: [a] }), step("between"), step("2", { stops: [a] })];
  const next = window("Sunday", { starts: "2028-06-04T08:00" });
  expect([
    short(withWindows([window("Saturday", { minutes: 30 }), next]), two).map(([, name, after]) => [
      name,
      after,
    ]),
    short(withWindows([window("Saturday", { minutes: 29 }), next]), two).map(([, name, after]) => [
      name,
      after,
    ]),
  ]).toEqual([
    [
      ["Saturday", 0],
      ["", 0],
      ["Saturday", 20],
    ],
    [
      ["Saturday", 0],
      ["", 0],
      ["Sunday", 0],
    ],
  ]);
});

const someHosts = fc.subarray([...hosts]);
const someSteps = fc.array(
  fc.record({
    cuts: someHosts,
    mends: someHosts,
    stops: someHosts,
    minutes: fc.integer({ min: 0, max: 30 }),
  }),
  { maxLength: 20 },
);
const someWindows = fc.array(
  fc.record({ day: fc.integer({ min: 1, max: 28 }), minutes: fc.integer({ min: 5, max: 200 }) }),
  { maxLength: 4 },
);

test("every step is in one slot, in order; slots in their window, windows in their order", () => {
  fc.assert(
    fc.property(someSteps, someWindows, fc.integer({ min: 0, max: 200 }), (all, times, gone) => {
      const steps = all.map((fields, at) => step(`${at}`, fields));
      const index = withWindows(
        times.map(({ day, minutes }, at) =>
          window(`${at}`, { starts: `2028-06-${String(day).padStart(2, "0")}T18:00`, minutes }),
        ),
      );
      const now = new Date(Date.parse("2028-06-14T17:00Z") + gone * 60_000).toISOString().slice(0, 16);
      const slots = slotsOf(index, steps, now);
      expect(slots.flatMap(({ from, to }) => steps.slice(from, to + 1))).toEqual(steps);
      let last = { starts: "", id: "", ends: 0 };
      for (const { window: own, after, minutes, stops, from, to, lastBack } of slots) {
        const inside = steps.slice(from, to + 1);
        expect(inside.some(({ cuts, stops: down }) => cuts.length + down.length > 0)).toBe(stops.length > 0);
        if (own === null) continue;
        expect(own.starts >= last.starts).toBe(true);
        if (own.id === last.id) expect(after).toBeGreaterThanOrEqual(last.ends);
        expect(after + minutes).toBeLessThanOrEqual(own.minutes);
        expect(Date.parse(`${own.starts}Z`) + after * 60_000).toBeGreaterThanOrEqual(Date.parse(`${now}Z`));
        if (lastBack !== null) expect(lastBack >= from && lastBack <= to).toBe(true);
        last = { starts: own.starts, id: own.id, ends: after + minutes };
      }
    }),
  );
});

test("before a window's first step its permit is signed, once; another day is signed anew", () => {
  const saturday = window("Saturday", { permit: "14/26", consent: "the practice manager" });
  const [, permit, ...rest] = withPermits(withWindows([saturday]), CUT, UNSIGNED);
  expect([permit?.kind, permit?.values, rest.length]).toEqual([
    "permit",
    [
      ["Window", "Sat 3 Jun 2028, 18:00, 1 h"],
      ["Permit", "14/26"],
      ["Agrees", "the practice manager"],
    ],
    5,
  ]);
  const signed = [signatureOf(must(permit, "the permit"))];
  expect(withPermits(withWindows([saturday]), CUT, { signed, now: null })).toEqual(CUT);
  const later = { ...saturday, starts: "2028-06-10T18:00" };
  expect(withPermits(withWindows([later]), CUT, { signed, now: null })).toHaveLength(CUT.length + 1);
});

test("in a plant nothing that stops somebody begins unsigned, unnamed or without a window", () => {
  const plant = (...windows: Window[]) => {
    const index = withWindows(windows);
    return PlanIndex.of({ ...index.plan, site: { ...index.plan.site, kind: "industrial" } });
  };
  const permits = (index: PlanIndex, signed: readonly string[] = []) =>
    withPermits(index, CUT_TWICE, { signed, now: null }).filter(({ kind }) => kind === "permit");
  expect(permits(withWindows([]))).toEqual([]);
  const [only, ...others] = permits(plant());
  expect([only?.title, only?.values, others]).toEqual([
    "Before the first step that stops somebody: have it signed",
    [
      ["Window", "none takes it"],
      ["Permit and consent", "nobody is named in the plan"],
    ],
    [],
  ]);
  expect(only?.why).toMatch(/^The work behind it stops a, b and c\. No step of it is begun before\./);
  expect(permits(plant(), [signatureOf(must(only, "the permit"))])).toEqual([]);
  // One window takes the first piece, none the second: each is signed for.
  const short = permits(plant(window("Saturday", { minutes: 45 })));
  expect(short.map(({ title }) => title)).toEqual([
    "Before Saturday: have it signed",
    "Before the first step that stops somebody: have it signed",
  ]);
  expect(short[0]?.values.at(-1)).toEqual(["Permit and consent", "nobody is named in the plan"]);
  // Steps that stop nobody are not signed for.
  expect(withPermits(plant(), [step("free")], UNSIGNED)).toHaveLength(1);
});

test("a window's time goes over midnight on the clock at the site", () => {
  expect(timeText(window("Night", { starts: "2028-02-28T23:30" }), 45)).toBe("Tue 29 Feb 2028, 00:15");
});

/** The practice as it works, with one more thing wanted of it. */
const wanting = (edit: Parameters<typeof afterEdit>[1]): Plan => donePlan(afterEdit(practice, edit));

test("new software on a switch in use comes first, says whom it stops, and can't be taken back", () => {
  const before = wanting(({ edits }) => {
    for (const { id, name } of edits.all("device"))
      if (name === "Upper switch") edits.patch("device", id, { softwareFound: "", softwareWanted: "" });
    return null;
  });
  const index = PlanIndex.of({
    ...practice,
    window: new Map([["w", { ...window("Saturday", { permit: "14/26" }), id: "w" }]]),
  });
  const { runbook } = must(provenRunbook(index, before), "an order");
  const software = must(
    runbook.steps.find(({ operation }) => operation?.page === "software"),
    "the step",
  );
  expect([software.title, software.stops.length > 20, software.cuts, software.minutes]).toEqual([
    "Bring its software to 2.3.1",
    true,
    [],
    17,
  ]);
  expect(software.back).toMatch(/^Not by entering what was/);
  expect(runbook.steps.map(({ kind }) => kind)).toEqual([
    "begin",
    "move",
    "copy",
    "permit",
    "do",
    "save",
    "end",
  ]);
  const slot = runbook.slots.find(({ window: own }) => own !== null);
  expect([slot?.window?.name, slot?.lastBack]).toEqual(["Saturday", null]);
  expect(runbook.endsAsPlanned).toBe(true);
});

test("software that is found as it is wanted, and any software where none is wanted, are no step", () => {
  const steps = (found: string, wanted: string) => {
    const plan = wanting(({ edits }) => {
      for (const { id, name } of edits.all("device"))
        if (name === "Upper switch")
          edits.patch("device", id, { softwareFound: found, softwareWanted: wanted });
      return null;
    });
    const runbook = must(provenRunbook(PlanIndex.of(plan), null), "an order").runbook;
    expect(runbook.endsAsPlanned).toBe(true);
    return runbook.steps.filter(({ operation }) => operation?.page === "software").length;
  };
  expect([steps("2.3.1", "2.3.1"), steps("2.1.0", ""), steps("", "2.3.1")]).toEqual([0, 0, 1]);
});

test.each([
  [0, "0 min"],
  [45, "45 min"],
  [60, "1 h"],
  [368, "6 h 8 min"],
])("%p minutes are said as %s", (minutes, text) => {
  expect(minutesText(minutes)).toBe(text);
});
