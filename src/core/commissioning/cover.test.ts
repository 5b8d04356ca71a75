import { dice } from "../testing/plants";
import { cover, type Proving } from "./cover";

/** The fewest tests that prove as much as all do, by trying every choice. */
function fewest(tests: readonly Proving[]): number {
  const all = new Set(tests.flatMap(({ proves }) => proves)).size;
  let best = tests.length;
  for (let mask = 0; mask < 2 ** tests.length; mask += 1) {
    const chosen = tests.filter((_, at) => (mask >> at) % 2 === 1);
    if (chosen.length < best && new Set(chosen.flatMap(({ proves }) => proves)).size === all)
      best = chosen.length;
  }
  return best;
}

test("on random small sheets all is proven, at most one reading above the fewest; the bound holds", () => {
  const roll = dice(15);
  let [chosenInAll, fewestInAll] = [0, 0];
  for (let round = 0; round < 400; round += 1) {
    const facts = 2 + roll(11);
    const tests: Proving[] = Array.from({ length: 1 + roll(9) }, (_, at) => ({
      id: `${at}`,
      proves: Array.from({ length: 1 + roll(4) }, () => `fact ${roll(facts)}`),
    }));
    const { chosen, atLeast } = cover(tests);
    const proven = new Set(chosen.flatMap(({ proves }) => proves));
    expect([...new Set(tests.flatMap(({ proves }) => proves))].filter((fact) => !proven.has(fact))).toEqual(
      [],
    );
    const exact = fewest(tests);
    expect([round, atLeast <= exact, chosen.length <= exact + 1]).toEqual([round, true, true]);
    chosenInAll += chosen.length;
    fewestInAll += exact;
  }
  expect(chosenInAll / fewestInAll).toBeLessThanOrEqual(1.2);
});

test("what alone proves something is kept, what others prove as well is not", () => {
  const tests: Proving[] = [
    { id: "a", proves: ["1", "2"] },
    { id: "b", proves: ["2", "3", "4", "5"] },
    { id: "c", proves: ["4"] },
    { id: "d", proves: ["5", "6"] },
  ];
  const { chosen, atLeast } = cover(tests);
  expect([chosen.map(({ id }) => id), atLeast]).toEqual([["a", "b", "d"], 3]);
  expect(cover([]).chosen).toEqual([]);
});
