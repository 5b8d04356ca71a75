import fc from "fast-check";
import type { Address } from "../address";
import { BLANK_EXCEPTION, PlanIndex, type Exception, type RuleSide, type Service } from "../plan";
import { aDomain, aHost, aSegment, aZone, planWith, testId } from "../testing/build-plan";
import { ip, ip6, net, net6 } from "../testing/written";
import {
  exceptionLets,
  exceptionRules,
  inHours,
  limitedExceptions,
  moments,
  momentWords,
} from "./exceptions";

// When an exception holds, what it lets pass, and at which minutes of a week others hold.

const office = aZone({ id: testId("zone", "office"), name: "Office" });
const machines = aZone({ id: testId("zone", "machines"), name: "Machines" });
const desks = aSegment({
  name: "Desks",
  zone: office.id,
  prefixes4: [net("10.60.1.0/24")],
  prefixes6: [net6("fd00:60:1::/64")],
});
const press = aSegment({ name: "Press", zone: machines.id, prefixes4: [net("10.60.9.0/24")] });
const panel = aHost({ name: "Panel", segment: press.id, manner: "typed", ipv4: ip("10.60.9.7") });
const bare = aHost({ name: "Bare", segment: press.id });
const DESKS: RuleSide = { at: "segment", segment: desks.id };
const PANEL: RuleSide = { at: "host", host: panel.id };
const web: Service = { name: "web", protocol: "tcp", ports: [[80, 81]] };

const exception = (name: string, fields: Partial<Exception> = {}): Exception => ({
  ...BLANK_EXCEPTION,
  id: testId("exception", name),
  name,
  from: DESKS,
  to: PANEL,
  services: [web],
  ...fields,
});
const indexOf = (exceptions: readonly Exception[], today: string | null = null): PlanIndex =>
  PlanIndex.of(
    planWith({
      domain: [aDomain()],
      zone: [office, machines],
      segment: [desks, press],
      host: [panel, bare],
      exception: exceptions,
    }),
    today,
  );

const at = (day: number, hour: number, minute = 0) => (day - 1) * 1440 + hour * 60 + minute;

describe("hours of a week", () => {
  const days = { days: [1, 5], from: 480, to: 1020 };
  const nights = { days: [1, 7], from: 1320, to: 360 };
  test.each([
    ["the first minute of a day's hours", days, at(1, 8), true],
    ["the one before", days, at(1, 7, 59), false],
    ["the last one", days, at(5, 16, 59), true],
    ["the one at which they end", days, at(5, 17), false],
    ["the same hours of another day", days, at(2, 12), false],
    ["a night in its own day", nights, at(1, 22), true],
    ["before it begins", nights, at(1, 21, 59), false],
    ["the morning after it", nights, at(2, 5, 59), true],
    ["the morning at which it ends", nights, at(2, 6), false],
    ["Monday's morning, after Sunday's night", nights, at(1, 3), true],
    ["Sunday's morning, after a Saturday that is none of its days", nights, at(7, 3), false],
    ["all day, to midnight", { days: [3], from: 0, to: 1440 }, at(3, 23, 59), true],
    ["the day after", { days: [3], from: 0, to: 1440 }, at(4, 0), false],
    ["hours that end where they begin, in their day", { days: [3], from: 600, to: 600 }, at(3, 10), true],
    ["and a day later", { days: [3], from: 600, to: 600 }, at(4, 9, 59), true],
  ])("%s", (_, hours, minute, holds) => {
    expect(inHours(hours, minute)).toBe(holds);
  });
});

describe("an exception holds", () => {
  const names = (index: PlanIndex) => exceptionRules(index).map(({ exception: { name } }) => name);
  const spring = exception("spring", { firstDay: "2026-03-01", lastDay: "2026-05-31" });
  const since = exception("since", { firstDay: "2026-03-01" });
  const till = exception("till", { lastDay: "2026-05-31" });

  test.each([
    ["2026-02-28", ["till"]],
    ["2026-03-01", ["since", "spring", "till"]],
    ["2026-05-31", ["since", "spring", "till"]],
    ["2026-06-01", ["since"]],
    [null, ["since", "spring", "till"]],
  ])("from its first day to its last: %s", (today, expected) => {
    expect(names(indexOf([spring, since, till], today)).sort()).toEqual(expected);
  });

  test("in its hours alone; outside all hours one with hours does not", () => {
    const index = indexOf([
      exception("weekly", { hours: { days: [2], from: 480, to: 540 } }),
      exception("any"),
    ]);
    expect(names(index)).toEqual(["any"]);
    expect(names(index.atMinute(at(2, 8))).sort()).toEqual(["any", "weekly"]);
    expect(names(index.atMinute(at(2, 9)))).toEqual(["any"]);
    expect(limitedExceptions(index).map(({ exception: { name }, hours }) => [name, hours.days])).toEqual([
      ["weekly", [2]],
    ]);
  });

  test("of one whose days are over the hours don't count", () => {
    const over = exception("over", { lastDay: "2026-05-31", hours: { days: [2], from: 480, to: 540 } });
    expect(limitedExceptions(indexOf([over], "2026-06-01"))).toEqual([]);
    expect(moments(indexOf([over], "2026-06-01"))).toEqual([]);
  });

  test("as a rule: a host by its address in its own zone, any service where none is named", () => {
    const [made] = exceptionRules(indexOf([exception("open", { services: [] })]));
    expect(made?.rule).toEqual({
      from: [{ network: office.id, prefixes: [net("10.60.1.0/24"), net6("fd00:60:1::/64")] }],
      to: [{ network: machines.id, prefixes: [net("10.60.9.7/32")] }],
      services: [{ protocol: "any", ports: null }],
    });
  });

  test("and a service without ports is all of its protocol", () => {
    const echo: Service = { name: "ping", protocol: "icmp", ports: [] };
    const [made] = exceptionRules(indexOf([exception("echo", { services: [echo, web] })]));
    expect(made?.rule.services).toEqual([
      { protocol: "icmp", ports: null },
      { protocol: "tcp", ports: [[80, 81]] },
    ]);
  });

  test("never for a host without an address, in either place", () => {
    const none: RuleSide = { at: "host", host: bare.id };
    expect(
      exceptionRules(indexOf([exception("to", { to: none }), exception("from", { from: none })])),
    ).toEqual([]);
  });
});

describe("everybody of a segment is let through to an address", () => {
  const ask = (fields: Partial<Exception>, to: Address = ip("10.60.9.7"), port = 80) =>
    exceptionLets(indexOf([exception("it", fields)]), desks, to, { protocol: "tcp", port });
  const part: RuleSide = { at: "prefix", prefix: net("10.60.1.0/25") };
  const whole: RuleSide = { at: "prefix", prefix: net("10.60.0.0/16") };

  test.each<[string, boolean, Partial<Exception>]>([
    ["from the segment", true, {}],
    ["from its zone", true, { from: { at: "zone", zone: office.id } }],
    ["not from another zone", false, { from: { at: "zone", zone: machines.id } }],
    ["not from a part of it", false, { from: part }],
    ["not where only its IPv4 lies inside", false, { from: whole }],
    ["to the zone of the address", true, { to: { at: "zone", zone: machines.id } }],
    ["not to another zone", false, { to: { at: "zone", zone: office.id } }],
    ["to a prefix that holds it", true, { to: { at: "prefix", prefix: net("10.60.9.0/29") } }],
    ["not to one beside it", false, { to: { at: "prefix", prefix: net("10.60.9.8/29") } }],
    ["not to the internet: the address is the site's", false, { to: { at: "internet" } }],
    ["by any service", true, { services: [] }],
    ["not by another protocol", false, { services: [{ ...web, protocol: "udp" }] }],
    ["not in hours that are not asked for", false, { hours: { days: [1], from: 0, to: 60 } }],
  ])("%s: %s", (_, expected, fields) => {
    expect(ask(fields)).toBe(expected);
  });

  test.each([
    [79, false],
    [80, true],
    [81, true],
    [82, false],
  ])("at port %i of 80 to 81: %s", (port, expected) => {
    expect(ask({}, ip("10.60.9.7"), port)).toBe(expected);
  });

  test("an address that no segment has is the internet's", () => {
    for (const away of [ip("198.51.100.9"), ip6("2001:db8::9")]) {
      expect(ask({ to: { at: "internet" } }, away)).toBe(true);
      expect(ask({ to: { at: "zone", zone: machines.id } }, away)).toBe(false);
    }
  });
});

describe("minutes of a week", () => {
  const hours = fc.record({
    days: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1, maxLength: 3 }),
    from: fc.integer({ min: 0, max: 23 }).map((hour) => hour * 60),
    to: fc.integer({ min: 1, max: 24 }).map((hour) => hour * 60),
  });

  test("there is one for every set of exceptions that hold together at some time, and no other", () => {
    fc.assert(
      fc.property(fc.array(hours, { maxLength: 4 }), (all) => {
        const index = indexOf(all.map((own, i) => exception(`number ${i}`, { hours: own })));
        const holding = (minute: number) => all.flatMap((own, i) => (inHours(own, minute) ? [i] : [])).join();
        const sets = new Set(Array.from({ length: 7 * 24 }, (_, hour) => holding(hour * 60)));
        sets.delete("");
        const found = moments(index);
        expect(found.map(holding).sort()).toEqual([...sets].sort());
        // Each is where some begin or end: the hour before another set holds.
        for (const minute of found)
          expect(holding((minute + 7 * 1440 - 60) % (7 * 1440))).not.toBe(holding(minute));
      }),
      { numRuns: 60 },
    );
  });

  const found = (...all: NonNullable<Exception["hours"]>[]) =>
    moments(indexOf(all.map((own, i) => exception(`number ${i}`, { hours: own }))));

  test("an exception that goes on over midnight of Sunday begins when it does, not on Monday", () => {
    expect(found({ days: [1, 7], from: 240, to: 240 })).toEqual([6 * 1440 + 240]);
  });

  test("one that holds all week has a minute, too, though it never begins", () => {
    const week = { days: [1, 2, 3, 4, 5, 6, 7], from: 0, to: 1440 };
    expect(found(week)).toEqual([0]);
    // Beside one that comes and goes, the week's own begins where that one ends.
    expect(found(week, { days: [2], from: 60, to: 120 })).toEqual([1440 + 60, 1440 + 120]);
  });

  test("are told by the day, the clock, and who is let in then", () => {
    const index = indexOf([
      exception("Vendor", { hours: { days: [1], from: 480, to: 600 } }),
      exception("Night", { hours: { days: [7], from: 1385, to: 545 } }),
    ]);
    expect(moments(index).map((minute) => momentWords(index, minute))).toEqual([
      "Mon 08:00: Vendor, Night",
      "Mon 09:05: Vendor",
      "Sun 23:05: Night",
    ]);
  });
});
