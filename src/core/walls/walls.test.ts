import fc from "fast-check";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { keepsState, PlanIndex, type Plan, type Service, type WallEnd } from "../plan";
import { adoptPlanned, openDoor, setWall } from "../planners";
import { decide, SERVICES, type WallSide } from "../policy";
import { allowedBetween, closedList, listSpace, merged, ruleStates, spansOf, without } from "../rules";
import { afterEdit, donePlan } from "../testing/after-edit";
import {
  coverOf,
  filteringDevices,
  pairInList,
  PLANNED_LISTS,
  proveList,
  serviceWords,
  STANDING_LISTS,
  STANDING_PROOFS,
  standingDoor,
  type PlannedList,
} from ".";

const SITES = [
  ["the home", lockkeepersHouse()],
  ["the practice", fennelStreet()],
  ["the works", bramblewick()],
] as const;
const indexOf = (plan: Plan) => PlanIndex.of(plan, "2027-03-01");
const spans = ({ protocol, ports }: Service) => spansOf(protocol, ports.length === 0 ? null : ports);

/** The network of a segment at a device; undefined where it has no way to it. */
const networkOf = ({ universe }: PlannedList, segment: string) =>
  [...universe.members].find(([, members]) => members.includes(segment))?.[0];

/** Whether the planned list lets exactly those services pass that the walls say. */
function holdToWalls(index: PlanIndex, planned: PlannedList, services: readonly Service[]): number {
  // Without memory answers need rules, and those let in more than answers: `without-memory.test.ts`.
  if (!keepsState(planned.device)) return 0;
  const space = listSpace(planned.universe, closedList(planned.rules));
  const segments = [...index.plan.segment.values()].filter(
    (segment) => networkOf(planned, segment.id) !== undefined,
  );
  let asked = 0;
  for (const from of segments)
    for (const to of [...segments, "internet"] as readonly Exclude<WallSide, "gateway">[]) {
      const source = must(networkOf(planned, from.id), "its network");
      const target = typeof to === "string" ? "internet" : must(networkOf(planned, to.id), "its network");
      const allowed =
        source === target
          ? null
          : allowedBetween(space, { name: "", networks: [source] }, { name: "", networks: [target] });
      if (allowed === null) continue;
      for (const service of services) {
        const passes = without(spans(service), allowed.always).length === 0;
        expect([from.name, typeof to === "string" ? to : to.name, service.name, passes]).toEqual([
          from.name,
          typeof to === "string" ? to : to.name,
          service.name,
          decide(index, from, to, service).passes,
        ]);
        asked += 1;
      }
    }
  return asked;
}

test.each(SITES)(
  "%s: the list that the walls need does what they say, proven, with no rule too many",
  (_, plan) => {
    const index = indexOf(plan);
    const [planned] = [...index.derived(PLANNED_LISTS).values()];
    const list = must(planned, "the gateway's list");
    expect(holdToWalls(index, list, SERVICES)).toBeGreaterThan(300);
    const proof = proveList(index, list, closedList(list.rules));
    expect(proof.pairs.filter(({ difference }) => difference !== null)).toEqual([]);
    expect(proof.pairs.length).toBeGreaterThan(40);
    const states = ruleStates(listSpace(list.universe, closedList(list.rules)));
    expect(states.filter(({ removable }) => removable)).toEqual([]);
    // Without any one of them the proof fails, and names a packet of the pair.
    list.rules.forEach((rule, at) => {
      const less = closedList(list.rules.filter((__, other) => other !== at));
      const wrong = proveList(index, list, less).pairs.filter(({ difference }) => difference !== null);
      expect(wrong.length).toBeGreaterThan(0);
      expect(wrong.every(({ difference }) => difference?.witness?.a === "accept")).toBe(true);
      expect(rule.serves.length).toBeGreaterThan(0);
    });
  },
);

test("whatever the walls, their list does as they say, and noted as entered it is proven, too", () => {
  const office = fennelStreet();
  const ends = [...office.zone.keys()].map((zone): WallEnd => ({ at: "zone", zone }));
  const end = fc.constantFrom<WallEnd>(...ends, { at: "internet" });
  let passing = 0;
  fc.assert(
    fc.property(
      fc.array(fc.tuple(end, end, fc.constantFrom(...SERVICES), fc.integer({ min: 0, max: 2 })), {
        maxLength: 14,
      }),
      fc.array(fc.constantFrom(...office.zone.keys()), { maxLength: 3 }),
      (doors, inside) => {
        const plan = donePlan(
          afterEdit(office, ({ edits, ids }) => {
            for (const { id } of edits.all("wall")) edits.remove("wall", id);
            for (const zone of office.zone.keys())
              edits.patch("zone", zone, { insideOpen: inside.includes(zone) });
            for (const [from, to, service, kind] of doors) {
              if (JSON.stringify(from) === JSON.stringify(to)) continue;
              if (kind === 0) setWall(edits, ids, { from, to, door: "open", services: [], reason: "" });
              else openDoor(edits, ids, { from, to, service });
            }
          }),
        );
        const index = indexOf(plan);
        const planned = must([...index.derived(PLANNED_LISTS).values()][0], "the list");
        passing += planned.rules.length;
        holdToWalls(index, planned, SERVICES.slice(0, 6));
        const device = must(filteringDevices(index)[0], "the gateway").id;
        const entered = indexOf(donePlan(afterEdit(plan, (context) => adoptPlanned(context, device))));
        const proof = must(entered.derived(STANDING_PROOFS).get(device), "its proof");
        expect(proof.pairs.filter(({ difference }) => difference !== null)).toEqual([]);
        const standing = must(entered.derived(STANDING_LISTS).get(device), "its list");
        expect(standing.states.some(({ removable }) => removable)).toBe(false);
      },
    ),
    { seed: 21, numRuns: 25 },
  );
  expect(passing).toBeGreaterThan(100);
});

describe("the list that somebody left on the practice's gateway", () => {
  const index = indexOf(fennelStreet());
  const device = must(filteringDevices(index)[0], "the gateway").id;
  const standing = must(index.derived(STANDING_LISTS).get(device), "its list");
  const zone = (name: string): WallEnd => ({
    at: "zone",
    zone: must([...index.plan.zone.values()].find((zone) => zone.name === name)?.id, name),
  });
  const segment = (name: string) =>
    must([...index.plan.segment.values()].find((segment) => segment.name === name)?.id, name);
  const numbers = (test: (state: (typeof standing.states)[number]) => boolean) =>
    standing.states.flatMap((state, at) => (test(state) ? [at + 1] : []));

  test("two rules are never reached, each for its reason, and one could go", () => {
    expect(numbers(({ neverMatches }) => neverMatches)).toEqual([9, 13]);
    expect(numbers(({ removable }) => removable)).toEqual([9, 13, 21]);
    const why = (number: number) => {
      const cover = coverOf(standing, must(standing.rules[number - 1], "the rule").id);
      return cover && [cover.kind, cover.coveredBy.map((at) => at + 1)];
    };
    expect([why(9), why(13), why(7)]).toEqual([["shadowed", [7]], ["redundant-before", [12]], null]);
    expect(coverOf(standing, "no rule")).toBeNull();
  });

  test("one pair gets more than its wall means and one less; the proof names both, and what they get", () => {
    const proof = must(index.derived(STANDING_PROOFS).get(device), "its proof");
    const name = (end: (typeof proof.pairs)[number]["to"]) => (typeof end === "string" ? end : end.name);
    expect(
      proof.pairs
        .filter(({ difference }) => difference !== null)
        .map(({ from, to }) => [name(from), name(to)]),
    ).toEqual([
      ["Practice", "Building"],
      ["Servers", "internet"],
    ]);
    const pair = (from: WallEnd, to: WallEnd) =>
      must(pairInList(index, standing, standing.list, { from, to }), "");
    const more = pair(zone("Practice"), zone("Building"));
    expect([more.allowed.state, serviceWords(index, more.tooMuch), more.missing]).toEqual([
      "open",
      "everything but video",
      [],
    ]);
    const less = pair(zone("Servers"), { at: "internet" });
    expect([less.allowed.state, serviceWords(index, less.missing), less.tooMuch]).toEqual([
      "closed",
      "https, ntp",
      [],
    ]);
    expect(
      pairInList(index, standing, standing.list, { from: { at: "internet" }, to: { at: "internet" } }),
    ).toBeNull();
  });

  test("how far it opens is asked pair by pair, within a zone and to the gateway's pages, too", () => {
    const door = (from: string, to: string) =>
      standingDoor(index, device, segment(from), to === "internet" || to === "gateway" ? to : segment(to));
    expect(door("Staff", "Phones")).toBe("open");
    expect(door("Staff", "internet")).toBe("open");
    expect(door("Servers", "internet")).toBe("closed");
    expect(door("Imaging", "Servers")).toBe("services");
    expect(door("Kit", "gateway")).toBe("open");
    expect(door("Staff", "gateway")).toBe("services");
    expect(standingDoor(index, "no device", segment("Staff"), "internet")).toBe("closed");
  });
});

test("services are named where a name fits, numbered where none does", () => {
  const index = indexOf(lockkeepersHouse());
  const words = (...parts: Parameters<typeof spansOf>[]) =>
    serviceWords(
      index,
      parts.flatMap(([protocol, ports]) => spansOf(protocol, ports)),
    );
  expect(words(["any", null])).toBe("open");
  expect(words(["tcp", [[443, 443]]])).toBe("https");
  expect(words(["udp", [[53, 53]]])).toBe("UDP 53");
  expect(words(["tcp", [[53, 53]]], ["udp", [[53, 53]]])).toBe("dns");
  const ports: [number, number][] = [7, 9].map((port) => [port, port]);
  expect(words(["tcp", [...ports, [30, 40]]])).toBe("TCP 7, 9 and 30 to 40");
  expect(words(["icmp", null])).toBe("ping");
});

test("a wide range is said by its numbers, not by the services that happen to lie in it", () => {
  const index = PlanIndex.of(fennelStreet());
  expect(serviceWords(index, spansOf("tcp", [[1024, 65_535]]))).toBe("TCP 1024 to 65535");
  const phones = merged([
    ...spansOf("udp", [
      [5060, 5060],
      [16_384, 32_767],
    ]),
    ...spansOf("tcp", [[5060, 5061]]),
  ]);
  expect(serviceWords(index, phones)).toBe("sip, sips, voice media");
});
