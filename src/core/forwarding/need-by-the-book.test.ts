import fc from "fast-check";
import { must } from "../kernel";
import { applyChanges, NO_GUARDS, PlanEdits, PlanIndex, type EntityOf, type Port } from "../plan";
import { aDevice, aDomain, aLink, aPort, aVlan, planWith, testId } from "../testing/build-plan";
import { v } from "../testing/written";
import { portCarries } from "./need";

const DOMAINS = ["hall", "yard"].map((name) => aDomain({ id: testId("domain", name), name }));
const VIDS = [10, 20, 30];
const EDGE = {
  ...NO_GUARDS,
  edge: true,
  bpduGuard: true,
  macLimit: 1,
};

interface Network {
  readonly size: number;
  readonly cables: readonly (readonly [number, number])[];
  readonly uses: readonly (readonly number[])[];
  /** The place of each switch's VLAN domain; -1 for none. */
  readonly domains: readonly number[];
  /** What each cable's near end is a tagged member of; its far end of nothing. */
  readonly tagged: readonly (readonly number[])[];
}

/**
 * Up to six switches of two VLAN domains or none, any cables between them (two between the same pair included),
 * each using any of three VLANs.
 */
const anyNetwork: fc.Arbitrary<Network> = fc.integer({ min: 2, max: 6 }).chain((size) =>
  fc.record({
    size: fc.constant(size),
    cables: fc.array(
      fc.tuple(fc.nat(size - 1), fc.nat(size - 1)).filter(([a, b]) => a !== b),
      { maxLength: 9 },
    ),
    uses: fc.array(fc.subarray(VIDS), { minLength: size, maxLength: size }),
    domains: fc.array(fc.constantFrom(0, 0, 0, 0, 1, -1), { minLength: size, maxLength: size }),
    tagged: fc.array(fc.shuffledSubarray([...VIDS, 40]), { minLength: 9, maxLength: 9 }),
  }),
);

function planOf({ cables, uses, domains, tagged }: Network) {
  const device = (i: number) => testId("device", `S${i}`);
  const ports: Port[] = uses.flatMap((vids, i) =>
    vids.map((vid) =>
      aPort({ device: device(i), label: `a${vid}`, pvid: v(vid), untagged: [v(vid)], guards: EDGE }),
    ),
  );
  const ends = cables.map(
    ([a, b], n) =>
      [
        aPort({ device: device(a), label: `c${n}`, tagged: (tagged[n] ?? []).map(v) }),
        aPort({ device: device(b), label: `d${n}` }),
      ] as const,
  );
  const links: EntityOf<"link">[] = ends.map(([a, b]) => aLink({ a: a.id, b: b.id }));
  return {
    ends,
    plan: planWith({
      domain: DOMAINS,
      vlan: DOMAINS.flatMap(({ id, name }) =>
        VIDS.map((n) => aVlan({ id: testId("vlan", `${name} ${n}`), vid: v(n), domain: id })),
      ),
      device: domains.map((place, i) => aDevice({ name: `S${i}`, domain: DOMAINS[place]?.id ?? null })),
      port: [...ports, ...ends.flat()],
      link: links,
    }),
  };
}

/** By the book: every way without a detour between two users of one domain, tried one by one. */
function neededByTheBook({ size, cables, uses, domains }: Network, vid: number): Set<number> {
  const needed = new Set<number>();
  const walk = (at: number, goal: number, visited: readonly number[], used: readonly number[]) => {
    if (at === goal) return used.forEach((cable) => needed.add(cable));
    for (const [n, [a, b]] of cables.entries()) {
      const back = b === at ? a : -1;
      const to = a === at ? b : back;
      if (to >= 0 && domains[to] === domains[at] && !visited.includes(to))
        walk(to, goal, [...visited, to], [...used, n]);
    }
  };
  for (let from = 0; from < size; from += 1)
    for (let to = from + 1; to < size; to += 1)
      if (uses[from]?.includes(vid) === true && uses[to]?.includes(vid) === true) walk(from, to, [from], []);
  return needed;
}

test("a cable has to carry a VLAN exactly when a way between two of its users passes it", () => {
  let carried = 0;
  fc.assert(
    fc.property(anyNetwork, (network) => {
      const { plan, ends } = planOf(network);
      const carries = portCarries(PlanIndex.of(plan));
      const needed = VIDS.map((vid) => neededByTheBook(network, vid));
      carried += needed.reduce((sum, cables) => sum + cables.size, 0);
      expect(ends.map((pair) => pair.map(({ id }) => [...must(carries.get(id), id).need].sort()))).toEqual(
        ends.map((pair, n) => pair.map(() => VIDS.filter((_, at) => needed[at]?.has(n) === true))),
      );
    }),
    { seed: 8021, numRuns: 400 },
  );
  expect(carried).toBeGreaterThan(400);
});

test("what lacks at an end and what is more than it has to carry, each in ascending order", () => {
  fc.assert(
    fc.property(anyNetwork, (network) => {
      const { plan, ends } = planOf(network);
      const carries = portCarries(PlanIndex.of(plan));
      const needed = new Map(VIDS.map((vid) => [vid, neededByTheBook(network, vid)]));
      for (const [n, [near, far]] of ends.entries()) {
        const wanted = VIDS.filter((vid) => needed.get(vid)?.has(n) === true);
        const tagged = network.tagged[n] ?? [];
        const [atNear, atFar] = [near, far].map((port) => must(carries.get(port.id), port.label));
        expect([atNear?.missing, atNear?.needless]).toEqual([
          wanted.filter((vid) => !tagged.includes(vid)),
          [...VIDS, 40].filter((vid) => tagged.includes(vid) && !wanted.includes(vid)),
        ]);
        expect([atFar?.missing, atFar?.needless]).toEqual([wanted, []]);
      }
      expect(carries.size).toBe(2 * ends.length);
    }),
    { seed: 8022, numRuns: 300 },
  );
});

const anyEdit = fc.record({
  what: fc.constantFrom("tag", "access", "cable"),
  at: fc.nat(99),
  vid: fc.nat(2),
});

/** The index after a port is a tagged member of a VLAN or no more, an access port of another, or uncabled. */
function edited(index: PlanIndex, { what, at, vid }: { what: string; at: number; vid: number }): PlanIndex {
  const edits = new PlanEdits(index.plan);
  const pick = <T>(list: readonly T[]): T | undefined => list[at % Math.max(1, list.length)];
  const ports = [...index.plan.port.values()];
  const wanted = v(VIDS[vid] ?? 10);
  const trunk = pick(ports.filter(({ pvid }) => pvid === null));
  const access = pick(ports.filter(({ pvid }) => pvid !== null));
  const link = pick([...index.plan.link.values()]);
  if (what === "tag" && trunk !== undefined) {
    const rest = trunk.tagged.filter((tag) => tag !== wanted);
    edits.patch("port", trunk.id, {
      tagged: rest.length < trunk.tagged.length ? rest : [...trunk.tagged, wanted],
    });
  }
  if (what === "access" && access !== undefined)
    edits.patch("port", access.id, { pvid: wanted, untagged: [wanted] });
  if (what === "cable" && link !== undefined) edits.remove("link", link.id);
  const applied = applyChanges(index.plan, edits.changes());
  return index.derive(must(applied.ok ? applied.value : null, "applies"), edits.changes());
}

test("after any edits every port has to carry what it would if asked anew", () => {
  fc.assert(
    fc.property(anyNetwork, fc.array(anyEdit, { minLength: 1, maxLength: 5 }), (network, edits) => {
      let index = PlanIndex.of(planOf(network).plan);
      portCarries(index);
      for (const [n, edit] of edits.entries()) {
        index = edited(index, edit);
        // Some edits follow one another before anybody asks.
        if (n % 2 === 0) portCarries(index);
      }
      expect([...portCarries(index)]).toEqual([...portCarries(PlanIndex.of(index.plan))]);
    }),
    { seed: 8023, numRuns: 300 },
  );
});

test("an edit of one end leaves what is known of the others as it is", () => {
  const { plan, ends } = planOf({
    size: 3,
    cables: [
      [0, 1],
      [1, 2],
    ],
    uses: [[10], [], [10]],
    domains: [0, 0, 0],
    tagged: [[10], [10]],
  });
  const index = PlanIndex.of(plan);
  const before = portCarries(index);
  const edits = new PlanEdits(plan);
  const [changed, ...others] = ends.flat();
  edits.patch("port", must(changed, "an end").id, { tagged: [v(20)] });
  const applied = applyChanges(plan, edits.changes());
  const after = portCarries(
    index.derive(must(applied.ok ? applied.value : null, "applies"), edits.changes()),
  );
  expect(after.get(must(changed, "an end").id)).toMatchObject({ missing: [10], needless: [20] });
  for (const { id } of others) expect(after.get(id)).toBe(before.get(id));
});
