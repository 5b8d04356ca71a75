import fc from "fast-check";
import { containsAddress, formatAddress, ipv4, ipv6, prefixOf, type Address } from "../address";
import { must } from "../kernel";
import { judge, type FilterAction, type FilterRule, type Packet, type Side } from "../policy";
import { allowedBetween } from "./allowed";
import { ruleStates } from "./anomalies";
import { closedList, compileWishes } from "./compile";
import { coverOfRule } from "./covers";
import { compareLists } from "./equivalence";
import { mergeable } from "./merges";
import { conflictingPairs } from "./pairs";
import { spansOf } from "./service-space";
import { listSpace } from "./space";
import { merged } from "./spans";
import { packetsIn, ruleListOf, type Universe } from "./universe";

// A site so small that every packet can be asked one by one: a twin by the book, without sets of anything.

const four = (n: number): Address => must(ipv4(0x0a000000 + n), "an address");
const six = (n: number): Address => must(ipv6((0xfdn << 120n) + BigInt(n)), "an address");
const NETWORKS = { red: [0, 5], green: [8, 12], blue: [16, 18], internet: [64, 67] } as const;
const PORTS = [0, 1, 2, 3];
const services = merged([...spansOf("tcp", [[0, 3]]), ...spansOf("udp", [[0, 3]]), ...spansOf("icmp", null)]);
const universe: Universe = {
  stations: new Map(
    Object.entries(NETWORKS).map(([name, [first, last]]) => [
      name,
      [
        { first: four(first), last: four(last) },
        ...(name === "blue" ? [] : [{ first: six(first), last: six(last) }]),
      ],
    ]),
  ),
  router: [four(6), four(13), six(6)],
  legs: new Map([
    ["red", "one"],
    ["green", "two"],
    ["blue", "two"],
    ["internet", "out"],
  ]),
  services: { 4: services, 6: services },
};

interface Asked {
  readonly from: string;
  readonly to: string;
  readonly packet: Packet;
}

function addressesIn(network: string): Address[] {
  if (network === "router") return [...universe.router];
  const [first, last] = NETWORKS[network as keyof typeof NETWORKS];
  const numbers = Array.from({ length: last - first + 1 }, (_, i) => first + i);
  return [...numbers.map(four), ...(network === "blue" ? [] : numbers.map(six))];
}
const legOf = (network: string) => universe.legs?.get(network) ?? network;

/** Every packet there is, in no order. */
const PACKETS: readonly Asked[] = Object.keys(NETWORKS).flatMap((from) =>
  [...Object.keys(NETWORKS), "router"].flatMap((to) =>
    legOf(from) === legOf(to)
      ? []
      : addressesIn(from).flatMap((src) =>
          addressesIn(to).flatMap((dst) =>
            typeof src !== typeof dst
              ? []
              : (["tcp", "udp", "icmp"] as const).flatMap((protocol) =>
                  (protocol === "icmp" ? [null] : PORTS).map((dport): Asked => ({
                    from,
                    to,
                    packet: {
                      family: typeof src === "number" ? 4 : 6,
                      protocol,
                      src,
                      dst,
                      sport: null,
                      dport,
                    },
                  })),
                ),
          ),
        ),
  ),
);

const side = (to: boolean): fc.Arbitrary<Side> =>
  fc.record({
    network: fc.constantFrom("any", ...Object.keys(NETWORKS), ...(to ? ["router"] : [])),
    prefixes: fc.option(
      fc.array(
        fc
          .tuple(fc.boolean(), fc.integer({ min: 0, max: 20 }), fc.integer({ min: 0, max: 4 }))
          .map(([isFour, n, wide]) =>
            must(prefixOf(isFour ? four(n) : six(n), (isFour ? 32 : 128) - wide), "a prefix"),
          ),
        { minLength: 1, maxLength: 2 },
      ),
      { freq: 2 },
    ),
  });
const range = fc
  .tuple(fc.constantFrom(...PORTS), fc.constantFrom(...PORTS))
  .map(([a, b]): [number, number] => [Math.min(a, b), Math.max(a, b)]);
const action = fc.constantFrom<FilterAction>("accept", "drop", "reject");
const rule: fc.Arbitrary<FilterRule> = fc.record({
  from: fc.array(side(false), { minLength: 1, maxLength: 2 }),
  to: fc.array(side(true), { minLength: 1, maxLength: 2 }),
  services: fc.array(
    fc
      .record({
        protocol: fc.constantFrom("tcp" as const, "udp" as const, "icmp" as const, "any" as const),
        range,
      })
      .map(({ protocol, range: ports }) => ({
        protocol,
        ports: protocol === "icmp" || protocol === "any" ? null : [ports],
      })),
    { minLength: 1, maxLength: 2 },
  ),
  action,
});
const lists = fc
  .record({ rules: fc.array(rule, { maxLength: 7 }), forwardDefault: action, inputDefault: action })
  .map((list) => ({ ...list, established: false }));
type List = typeof lists extends fc.Arbitrary<infer L> ? L : never;

const decided = (list: List, { from, to, packet }: Asked) =>
  judge(list, { from, to: to as "router", packet });
const without = (list: List, index: number): List => ({
  ...list,
  rules: list.rules.filter((_, at) => at !== index),
});
const matches = (list: List, index: number) =>
  PACKETS.filter(
    (asked) => typeof decided({ ...list, rules: list.rules.slice(index, index + 1) }, asked).by === "number",
  );

test("a list's rules are judged as every packet asked one by one judges them", () => {
  let never = 0;
  fc.assert(
    fc.property(lists, (list) => {
      const space = listSpace(universe, ruleListOf(list));
      const fates = PACKETS.map((asked) => decided(list, asked));
      ruleStates(space).forEach((state, index) => {
        const own = new Set(matches(list, index));
        const decides = fates.some(({ by }) => by === index);
        const less = without(list, index);
        expect(state).toEqual({
          emptyMatch: own.size === 0,
          neverMatches: !decides,
          removable: PACKETS.every((asked, at) => decided(less, asked).action === fates[at]?.action),
        });
        const deciders = new Set(PACKETS.flatMap((asked, at) => (own.has(asked) ? [fates[at]?.by] : [])));
        const cover = coverOfRule(space, index);
        expect(cover?.deciders ?? null).toEqual(
          decides || own.size === 0 ? null : [...deciders].sort((a, b) => Number(a) - Number(b)),
        );
        if (cover === null) return;
        never += 1;
        const covered = (rules: readonly number[]) => {
          const all = new Set(rules.flatMap((earlier) => matches(list, earlier)));
          return [...own].every((asked) => all.has(asked));
        };
        expect(covered(cover.coveredBy)).toBe(true);
        for (const left of cover.coveredBy)
          expect(covered(cover.coveredBy.filter((other) => other !== left))).toBe(false);
      });
    }),
    { seed: 12, numRuns: 200 },
  );
  expect(never).toBeGreaterThan(10);
});

test("pairs of rules that contradict each other, and how two lists differ, are what the packets say", () => {
  let differing = 0;
  fc.assert(
    fc.property(lists, lists, (a, b) => {
      const own = a.rules.map((_, index) => new Set(matches(a, index)));
      const pairs = {
        shadows: [] as number[][],
        generalises: [] as number[][],
        correlates: [] as number[][],
      };
      own.forEach((later, j) =>
        own.slice(0, j).forEach((earlier, i) => {
          const shared = [...later].filter((asked) => earlier.has(asked)).length;
          if (shared === 0 || a.rules[i]?.action === a.rules[j]?.action) return;
          const partly = shared === earlier.size ? pairs.generalises : pairs.correlates;
          (shared === later.size ? pairs.shadows : partly).push([i, j]);
        }),
      );
      const byPair = (all: readonly (readonly number[])[]) => [...all].map(String).sort();
      const found = conflictingPairs(listSpace(universe, ruleListOf(a)));
      for (const key of ["shadows", "generalises", "correlates"] as const)
        expect(byPair(found[key])).toEqual(byPair(pairs[key]));

      const { fate, permit, universeSize } = compareLists(universe, ruleListOf(a), ruleListOf(b));
      const fates = PACKETS.map((asked) => [decided(a, asked).action, decided(b, asked).action] as const);
      const count = (test: (x: FilterAction, y: FilterAction) => boolean) =>
        BigInt(fates.filter(([x, y]) => test(x, y)).length);
      expect([universeSize, packetsIn(universe)]).toEqual([BigInt(PACKETS.length), BigInt(PACKETS.length)]);
      expect([fate.packets, permit.packets]).toEqual([
        count((x, y) => x !== y),
        count((x, y) => (x === "accept") !== (y === "accept")),
      ]);
      differing += Number(fate.packets > 0n);
      const { witness } = fate;
      if (witness === null) return;
      const asked = PACKETS.findIndex(
        ({ from, to, packet }) =>
          from === witness.from &&
          to === witness.to &&
          packet.src === witness.source &&
          packet.dst === witness.target &&
          packet.protocol === witness.service.protocol &&
          packet.dport === witness.service.port,
      );
      expect(fates[asked]).toEqual([witness.a, witness.b]);
    }),
    { seed: 13, numRuns: 60 },
  );
  expect(differing).toBeGreaterThan(30);
});

test("what a list allows between two networks its packets say; compiled again it is the same", () => {
  fc.assert(
    fc.property(lists, (list) => {
      const space = listSpace(universe, ruleListOf(list));
      const names = [...Object.keys(NETWORKS)];
      const wishes = names.flatMap((from) =>
        [...names, "router"].flatMap((to) => {
          const here = PACKETS.filter((asked) => asked.from === from && asked.to === to);
          const allowed = allowedBetween(
            space,
            { name: from, networks: [from] },
            { name: to, networks: [to] },
          );
          expect(allowed === null).toBe(here.length === 0);
          if (allowed === null) return [];
          const passing = here.filter((asked) => decided(list, asked).action === "accept").length;
          if (passing === 0 || passing === here.length)
            expect(allowed.state).toBe(passing === 0 ? "closed" : "open");
          else expect(["services", "mixed"]).toContain(allowed.state);
          return [
            {
              from: [{ network: from, prefixes: null }],
              to: [{ network: to, prefixes: null }],
              services: allowed.always,
              serves: [`${from}>${to}`],
            },
          ];
        }),
      );
      const rules = compileWishes(universe, wishes);
      const compiled = listSpace(universe, closedList(rules));
      expect(ruleStates(compiled).some(({ removable }) => removable)).toBe(false);
      for (const { from, to, services: wanted } of wishes) {
        const ask = (zone: string) => ({ name: zone, networks: [zone] });
        const is = allowedBetween(compiled, ask(from[0]?.network ?? ""), ask(to[0]?.network ?? ""));
        expect([is?.always, is?.sometimes]).toEqual([wanted, wanted]);
      }
    }),
    { seed: 14, numRuns: 60 },
  );
});

test("rules that can be one: joined at the earlier one's place, no packet gets another fate", () => {
  let joined = 0;
  const few = fc.array(rule, { minLength: 4, maxLength: 9 });
  fc.assert(
    fc.property(
      few,
      fc.array(fc.tuple(fc.nat(20), fc.nat(20), fc.nat(2)), { maxLength: 4 }),
      (base, copies) => {
        // Rules that share two of three things with another one are rare by chance: some are made.
        const rules = copies.reduce<FilterRule[]>(
          (all, [at, other, what]) => {
            const [one, two] = [all[at % all.length], all[other % all.length]];
            if (one === undefined || two === undefined) return all;
            const key = (["from", "to", "services"] as const)[what] ?? "from";
            return [...all, { ...one, [key]: two[key] }];
          },
          [...base],
        );
        const list = ruleListOf({ rules, forwardDefault: "drop", inputDefault: "reject" });
        const space = listSpace(universe, list);
        for (const { into, gone, by } of mergeable(list, conflictingPairs(space))) {
          const [first, second] = [
            must(list.rules[into], "the earlier"),
            must(list.rules[gone], "the later"),
          ];
          const both =
            by === "services"
              ? { ...first, services: merged([...first.services, ...second.services]) }
              : { ...first, [by]: [...first[by], ...second[by]] };
          const less = list.rules.map((own, at) => (at === into ? both : own)).filter((_, at) => at !== gone);
          expect(compareLists(universe, list, { ...list, rules: less }).fate.packets).toBe(0n);
          joined += 1;
        }
      },
    ),
    { seed: 15, numRuns: 120 },
  );
  expect(joined).toBeGreaterThan(60);
});

test("the twin itself: a packet of each kind is there, and no packet goes out where it came in", () => {
  expect(PACKETS.length).toBeGreaterThan(2000);
  expect(PACKETS.some(({ from, to }) => from === "green" && to === "blue")).toBe(false);
  const prefix = must(prefixOf(four(8), 30), "a prefix");
  expect(
    addressesIn("green")
      .filter((address) => containsAddress(prefix, address))
      .map(formatAddress),
  ).toEqual(["10.0.0.8", "10.0.0.9", "10.0.0.10", "10.0.0.11"]);
});
