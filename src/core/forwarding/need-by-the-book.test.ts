import fc from "fast-check";
import { NO_GUARDS, PlanIndex, type EntityOf, type Port } from "../plan";
import { aDevice, aDomain, aLink, aPort, aVlan, planWith, testId } from "../testing/build-plan";
import { v } from "../testing/written";
import { portCarries } from "./need";

const domain = aDomain();
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
}

/**
 * Up to six switches, any cables between them (two between the same pair included), each using any of three
 * VLANs.
 */
const anyNetwork: fc.Arbitrary<Network> = fc.integer({ min: 2, max: 6 }).chain((size) =>
  fc.record({
    size: fc.constant(size),
    cables: fc.array(
      fc.tuple(fc.nat(size - 1), fc.nat(size - 1)).filter(([a, b]) => a !== b),
      { maxLength: 9 },
    ),
    uses: fc.array(fc.subarray([10, 20, 30]), { minLength: size, maxLength: size }),
  }),
);

function planOf({ size, cables, uses }: Network) {
  const device = (i: number) => testId("device", `S${i}`);
  const ports: Port[] = uses.flatMap((vids, i) =>
    vids.map((vid) =>
      aPort({ device: device(i), label: `a${vid}`, pvid: v(vid), untagged: [v(vid)], guards: EDGE }),
    ),
  );
  const ends = cables.map(
    ([a, b], n) =>
      [aPort({ device: device(a), label: `c${n}` }), aPort({ device: device(b), label: `d${n}` })] as const,
  );
  const links: EntityOf<"link">[] = ends.map(([a, b]) => aLink({ a: a.id, b: b.id }));
  return {
    ends,
    plan: planWith({
      domain: [domain],
      vlan: [10, 20, 30].map((n) => aVlan({ vid: v(n), domain: domain.id })),
      device: Array.from({ length: size }, (_, i) => aDevice({ name: `S${i}`, domain: domain.id })),
      port: [...ports, ...ends.flat()],
      link: links,
    }),
  };
}

/** By the book: every way without a detour between two users, tried one by one. */
function neededByTheBook({ size, cables, uses }: Network, vid: number): Set<number> {
  const needed = new Set<number>();
  const walk = (at: number, goal: number, visited: readonly number[], used: readonly number[]) => {
    if (at === goal) return used.forEach((cable) => needed.add(cable));
    for (const [n, [a, b]] of cables.entries()) {
      const back = b === at ? a : -1;
      const to = a === at ? b : back;
      if (to >= 0 && !visited.includes(to)) walk(to, goal, [...visited, to], [...used, n]);
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
      for (const vid of [10, 20, 30]) {
        const needed = neededByTheBook(network, vid);
        carried += needed.size;
        for (const [n, [a, b]] of ends.entries())
          for (const port of [a, b])
            expect([n, vid, carries.get(port.id)?.need.has(vid)]).toEqual([n, vid, needed.has(n)]);
      }
    }),
    { seed: 8021, numRuns: 600 },
  );
  expect(carried).toBeGreaterThan(600);
});
