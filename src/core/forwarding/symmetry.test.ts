import fc from "fast-check";
import { must } from "../kernel";
import { BLANK_TREE, PlanIndex, type Plan } from "../plan";
import { aDevice, aDomain, aHost, aLink, aPort, planWith, testId } from "../testing/build-plan";
import { v } from "../testing/written";
import { DOMAINS } from "./domains";
import { flood } from "./flood";

const VIDS = [10, 20, 30];

/**
 * Switches cabled any way, rings among them, all with a rapid tree; both ends of a cable carry the same; a
 * station at each switch.
 */
const siteWith = (lacks: fc.Arbitrary<readonly number[]>) =>
  fc.integer({ min: 2, max: 8 }).chain((size) =>
    fc.record({
      access: fc.array(fc.constantFrom(...VIDS), { minLength: size, maxLength: size }),
      priorities: fc.array(fc.constantFrom(4096, 8192, 32_768), { minLength: size, maxLength: size }),
      cables: fc.array(
        fc.record({
          a: fc.nat(size - 1),
          b: fc.nat(size - 1),
          tagged: fc.subarray(VIDS),
          native: fc.option(fc.constantFrom(...VIDS), { nil: null }),
          /** What the second end leaves out, where the two differ. */
          lacks,
        }),
        { minLength: 1, maxLength: 14 },
      ),
    }),
  );

const anySite = siteWith(fc.constant([]));

function planOf({
  access,
  priorities,
  cables,
}: typeof anySite extends fc.Arbitrary<infer T> ? T : never): Plan {
  const domain = aDomain();
  const device = (i: number) => testId("device", `S${i}`);
  const edge = access.map((n, i) => aPort({ device: device(i), label: "1", pvid: v(n), untagged: [v(n)] }));
  const used = cables.filter(({ a, b }) => a !== b);
  const ends = used.map(({ a, b, tagged, native, lacks }, n) =>
    [a, b].map((at, side) =>
      aPort({
        device: device(at),
        label: `c${n}${side}`,
        position: 10 + n * 2 + side,
        pvid: native === null ? null : v(native),
        untagged: native === null ? [] : [v(native)],
        ingressFilter: side === 0 || lacks.length === 0,
        tagged: tagged
          .filter((carried) => carried !== native && (side === 0 || !lacks.includes(carried)))
          .map(v),
      }),
    ),
  );
  return planWith({
    domain: [domain],
    device: access.map((_, i) =>
      aDevice({
        name: `S${i}`,
        domain: domain.id,
        tree: { ...BLANK_TREE, kind: "rapid", priority: must(priorities[i], "a priority") },
      }),
    ),
    port: [...edge, ...ends.flat()],
    link: ends.map(([a, b]) => aLink({ a: must(a, "a").id, b: must(b, "b").id })),
    host: access.map((_, i) =>
      aHost({ name: `H${i}`, attachment: { at: "port", port: must(edge[i], "a port").id } }),
    ),
  });
}

test("where both ends carry the same, who hears whom is mutual, and each frame comes once", () => {
  let heardAtAll = 0;
  fc.assert(
    fc.property(anySite, (site) => {
      const index = PlanIndex.of(planOf(site));
      const hearers = site.access.map((_, i) => {
        const heard = flood(index, {
          at: "port",
          port: testId("port", `${testId("device", `S${i}`)} 1`),
          tag: null,
          host: testId("host", `H${i}`),
        }).heard.map(({ host }) => host.name);
        expect([i, heard.length]).toEqual([i, new Set(heard).size]);
        return new Set(heard);
      });
      for (const [i, heard] of hearers.entries())
        for (const name of heard) {
          heardAtAll += 1;
          expect([i, name, hearers[Number(name.slice(1))]?.has(`H${i}`)]).toEqual([i, name, true]);
        }
    }),
    { seed: 8802, numRuns: 400 },
  );
  expect(heardAtAll).toBeGreaterThan(200);
});

test("who is in one even broadcast domain is heard by the same, also where cables differ", () => {
  let even = 0;
  let uneven = 0;
  fc.assert(
    fc.property(siteWith(fc.subarray(VIDS)), (site) => {
      const index = PlanIndex.of(planOf(site));
      const hearers = new Map<string, string>();
      for (const vidOf of VIDS)
        for (const [i] of site.access.entries()) {
          const device = testId("device", `S${i}`);
          const domain = index.derived(DOMAINS).at(device, vidOf);
          if (domain === null) {
            uneven += 1;
            continue;
          }
          const heard = flood(index, { at: "device", device, vid: vidOf })
            .heard.map(({ host }) => host.name)
            .sort()
            .join();
          const key = `${vidOf} ${domain}`;
          even += hearers.has(key) ? 1 : 0;
          expect([key, heard]).toEqual([key, hearers.get(key) ?? heard]);
          hearers.set(key, heard);
        }
    }),
    { seed: 8803, numRuns: 400 },
  );
  expect(even).toBeGreaterThan(200);
  expect(uneven).toBeGreaterThan(50);
});
