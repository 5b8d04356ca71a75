import fc from "fast-check";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import {
  BLANK_EXCEPTION,
  applyChanges,
  PlanEdits,
  PlanIndex,
  type Exception,
  type Plan,
  type RuleSide,
  type Service,
} from "../plan";
import { hoursText } from "../planners";
import { readHours } from "../planners/rules/hours-text";
import { inHours, limitedExceptions, moments, momentWords } from "../policy";
import { asClient, probe } from "../probe";
import { listFindings, runChecks } from "../checks";
import { differenceAt, reachAt, reachMatrix } from "../reach";
import { testId } from "../testing/build-plan";
import { joinedProof, PLANNED_LISTS, provePlanned } from ".";

const HTTPS: Service = { name: "https", protocol: "tcp", ports: [[443, 443]] };
const SSH: Service = { name: "ssh", protocol: "tcp", ports: [[22, 22]] };
const WORKING = { days: [1, 2, 3, 4, 5], from: 480, to: 1020 };

const withExceptions = (plan: Plan, exceptions: readonly Partial<Exception>[]): PlanIndex => {
  const edits = new PlanEdits(plan);
  for (const [at, fields] of exceptions.entries())
    edits.put("exception", {
      id: testId("exception", String(at)),
      name: `Exception ${at}`,
      from: { at: "internet" },
      to: { at: "internet" },
      ...BLANK_EXCEPTION,
      services: [HTTPS],
      ...fields,
    });
  const applied = applyChanges(plan, edits.changes());
  return PlanIndex.of(must(applied.ok ? applied.value : null, "it applies"), "2026-11-28");
};
const segment = ({ segment: all }: Plan, name: string): RuleSide => ({
  at: "segment",
  segment: must(
    [...all.values()].find((segment) => segment.name === name),
    name,
  ).id,
});
const host = ({ host: all }: Plan, name: string) =>
  must(
    [...all.values()].find((host) => host.name === name),
    name,
  );

const HOME = lockkeepersHouse();
const KILN = host(HOME, "kiln-controller");
const forLodger = (fields: Partial<Exception> = {}): PlanIndex =>
  withExceptions(HOME, [
    { from: segment(HOME, "Lodger"), to: { at: "host", host: KILN.id }, hours: WORKING, ...fields },
  ]);
const asks = (index: PlanIndex, service: Service): string =>
  probe(
    index,
    asClient({ at: "host", host: host(HOME, "lodgers-desk").id }, { to: "host", host: KILN.id, service }),
    () => testId("rule", "x"),
  ).cause?.sentence ?? "passes";

test("an exception opens one service to one device, in its hours and not outside them", () => {
  const index = forLodger();
  const inside = index.atMinute(9 * 60);
  expect(asks(index, HTTPS)).toMatch(/^The wall Lodger to Studio is closed/);
  expect(asks(inside, HTTPS)).toBe("passes");
  expect(asks(inside, SSH)).toMatch(/^The wall Lodger to Studio is closed/);
  expect(asks(index.atMinute(6 * 1440 + 9 * 60), HTTPS)).toMatch(/closed/);
  // The neighbour of the kiln in the same segment stays behind the wall.
  const laptop = { at: "host", host: host(HOME, "studio-laptop").id } as const;
  const other = withExceptions(HOME, [{ from: segment(HOME, "Lodger"), to: laptop }]);
  expect(asks(other, HTTPS)).toMatch(/closed/);
});

test.each<[string, Partial<Exception>, string]>([
  ["without hours it holds always", { hours: null }, "passes"],
  ["before its first day it does not hold", { hours: null, firstDay: "2026-11-29" }, "closed"],
  ["on its last day it still does", { hours: null, lastDay: "2026-11-28" }, "passes"],
  ["after its last day it does not", { hours: null, lastDay: "2026-11-27" }, "closed"],
])("%s", (_, fields, says) => {
  expect(asks(forLodger(fields), HTTPS)).toMatch(says);
});

test("the rule with hours is proven inside and outside them; without it the inside is not", () => {
  const index = forLodger();
  const [planned] = [...index.derived(PLANNED_LISTS).values()];
  const list = must(planned, "the list");
  expect(list.inHours.map(({ hours, rules }) => [hoursText(hours), rules.length])).toEqual([
    ["Mon-Fri 08:00-17:00", 1],
  ]);
  const proofs = provePlanned(index, list);
  expect(proofs).toHaveLength(2);
  expect(joinedProof(proofs)?.pairs.filter(({ difference }) => difference !== null)).toEqual([]);
  const without = provePlanned(index, { ...list, inHours: [] });
  expect(without.map(({ pairs }) => pairs.filter(({ difference }) => difference !== null).length)).toEqual([
    0, 1,
  ]);
  expect(joinedProof(without)?.pairs.filter(({ difference }) => difference !== null)).toHaveLength(1);
});

test("what the walls leave open anyway needs no rule of its own in any hour", () => {
  const index = withExceptions(HOME, [
    { from: segment(HOME, "Household"), to: { at: "host", host: KILN.id }, hours: WORKING },
  ]);
  const list = must([...index.derived(PLANNED_LISTS).values()][0], "the list");
  expect(list.inHours).toEqual([]);
});

test("between whole segments the reach matrix says it, as meant and as it is", () => {
  const index = withExceptions(HOME, [
    { from: segment(HOME, "Lodger"), to: segment(HOME, "Studio"), services: [] },
  ]);
  const matrix = reachMatrix(index);
  const row = matrix.rows.findIndex(({ name }) => name === "Lodger");
  const column = matrix.rows.findIndex(({ name }) => name === "Studio");
  expect([reachAt(matrix, row, column), differenceAt(matrix, row, column)]).toEqual(["open", null]);
  expect(reachAt(matrix, column, row)).toBe("closed");
});

const hoursArb = fc.record({
  days: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1, maxLength: 7 }),
  from: fc.integer({ min: 0, max: 1439 }),
  to: fc.integer({ min: 1, max: 1440 }),
});

test("hours are read as they are written", () => {
  fc.assert(
    fc.property(
      hoursArb.filter(({ from, to }) => from !== to),
      (hours) => {
        const days = [...hours.days].sort((a, b) => a - b);
        expect(readHours(hoursText(hours))).toEqual({ ...hours, days });
      },
    ),
  );
  expect([readHours("always"), readHours(""), readHours("Mon-Fri 8-17")]).toEqual([null, null, WORKING]);
  expect(readHours("Sat-Mon 22-6")).toEqual({ days: [1, 6, 7], from: 1320, to: 360 });
  for (const wrong of ["Mon-Fri", "Moonday 8-17", "Mon 25-26", "Mon 8:61-9", "Mon 9-9"])
    expect(readHours(wrong)).toMatch(/ is no time of the week: /);
});

test("the moments are all sets of exceptions that ever hold together, each once", () => {
  fc.assert(
    fc.property(fc.array(hoursArb, { maxLength: 4 }), fc.integer({ min: 0, max: 10_079 }), (all, minute) => {
      const index = withExceptions(
        HOME,
        all.map((hours) => ({ hours: { ...hours, to: hours.to === hours.from ? hours.to + 1 : hours.to } })),
      );
      const at = (minute: number) =>
        limitedExceptions(index)
          .filter(({ hours }) => inHours(hours, minute))
          .map(({ exception }) => exception.name)
          .join();
      const known = moments(index).map(at);
      expect(new Set(known).size).toBe(known.length);
      if (at(minute) !== "") expect(known).toContain(at(minute));
    }),
    { numRuns: 60 },
  );
});

test("any exceptions with any hours are proven at every moment by lists without a needless rule", () => {
  const plan = fennelStreet();
  const ends = [
    ...[...plan.segment.values()].map((segment): RuleSide => ({ at: "segment", segment: segment.id })),
    ...[...plan.host.values()]
      .filter(({ ipv4 }) => ipv4 !== null)
      .slice(0, 6)
      .map((host): RuleSide => ({ at: "host", host: host.id })),
  ];
  const end = fc.constantFrom(...ends);
  const exceptionArb = fc.record({
    from: end,
    to: end,
    services: fc.constantFrom<Service[]>([], [HTTPS], [SSH, HTTPS]),
    hours: fc.option(fc.constantFrom(WORKING, { days: [6], from: 0, to: 720 }), { nil: null }),
  });
  fc.assert(
    fc.property(fc.array(exceptionArb, { minLength: 1, maxLength: 4 }), (exceptions) => {
      const index = withExceptions(plan, exceptions);
      for (const planned of index.derived(PLANNED_LISTS).values())
        for (const { pairs } of provePlanned(index, planned))
          expect(pairs.filter(({ difference }) => difference !== null)).toEqual([]);
    }),
    { numRuns: 25 },
  );
});

test("a moment in words", () => {
  expect(momentWords(forLodger(), 480)).toBe("Mon 08:00: Exception 0");
});

test("a name server behind a wall is no finding where all may ask it at all hours; else it is", () => {
  const edits = new PlanEdits(HOME);
  const visitors = must(
    [...HOME.segment.values()].find(({ name }) => name === "Visitors"),
    "the visitors",
  );
  const server = must(KILN.ipv4, "an address");
  edits.patch("segment", visitors.id, { dns: [server] });
  const applied = applyChanges(HOME, edits.changes());
  const told = must(applied.ok ? applied.value : null, "it applies");
  const DNS: Service = { name: "dns", protocol: "udp", ports: [[53, 53]] };
  const to: RuleSide = { at: "host", host: KILN.id };
  const all = segment(HOME, "Visitors");
  const isFound = (exceptions: readonly Partial<Exception>[]): boolean =>
    listFindings(runChecks(withExceptions(told, exceptions))).some(
      ({ code }) => code === "names-behind-wall",
    );
  expect(isFound([])).toBe(true);
  expect(isFound([{ from: all, to, services: [DNS] }])).toBe(false);
  expect(isFound([{ from: { at: "zone", zone: visitors.zone }, to, services: [] }])).toBe(false);
  expect(isFound([{ from: all, to, services: [HTTPS] }])).toBe(true);
  expect(isFound([{ from: all, to: { at: "internet" }, services: [DNS] }])).toBe(true);
  expect(isFound([{ from: { at: "host", host: host(HOME, "tablet").id }, to, services: [DNS] }])).toBe(true);
  expect(isFound([{ from: all, to, services: [DNS], hours: WORKING }])).toBe(true);
});
