import { ascending, Heap, putInto } from "../kernel";

/** Something that proves some facts. */
export interface Proving {
  readonly id: string;
  readonly proves: readonly string[];
}

/** Few of some tests that prove all that they can prove together, and how few there could be at best. */
export interface Cover<T extends Proving> {
  readonly chosen: readonly T[];
  /** No choice that proves as much has fewer. */
  readonly atLeast: number;
}

/**
 * Tests that prove everything which any of them proves: first those that alone prove something, then each time
 * the one that proves most of the rest, and in the end without those that have become superfluous. Of equals
 * the one that comes first. The bound is the one of linear programming's dual: every fact is worth as much as
 * the test that proves it with the most others gives each, so no test can be worth more than one.
 */
export function cover<T extends Proving>(tests: readonly T[]): Cover<T> {
  const by = new Map<string, T[]>();
  for (const test of tests) for (const fact of new Set(test.proves)) putInto(by, fact, test);
  const alone = new Set([...by.values()].flatMap((own) => (own.length === 1 ? own : [])));
  const proven = new Set([...alone].flatMap(({ proves }) => proves));
  const left = new Set([...by.keys()].filter((fact) => !proven.has(fact)));
  const bound = alone.size + Math.ceil(worthOf(left, by) - 1e-9);
  const taken = greedy(
    tests.filter((test) => !alone.has(test)),
    left,
  );
  const chosen = new Set(withoutSpare([...alone, ...taken], alone));
  return { chosen: tests.filter((test) => chosen.has(test)), atLeast: Math.min(bound, chosen.size) };
}

/** What facts are worth together, each shared by the largest test that proves it. */
function worthOf<T extends Proving>(
  left: ReadonlySet<string>,
  by: ReadonlyMap<string, readonly T[]>,
): number {
  const sizes = new Map<T, number>();
  for (const fact of left) for (const test of by.get(fact) ?? []) sizes.set(test, (sizes.get(test) ?? 0) + 1);
  let worth = 0;
  for (const fact of left) worth += 1 / Math.max(...(by.get(fact) ?? []).map((test) => sizes.get(test) ?? 1));
  return worth;
}

/** Each time the test that proves most of what is left. */
function greedy<T extends Proving>(tests: readonly T[], facts: ReadonlySet<string>): T[] {
  const left = new Set(facts);
  const taken: T[] = [];
  const queue = new Heap<{ readonly test: T; readonly at: number; readonly adds: number }>(
    (a, b) => ascending(b.adds, a.adds) || ascending(a.at, b.at),
  );
  for (const [at, test] of tests.entries()) queue.push({ test, at, adds: test.proves.length });
  for (let next = queue.pop(); next !== undefined && left.size > 0; next = queue.pop()) {
    const { test, at } = next;
    // What a test adds never grows: one that adds as much as it last did is the best of all.
    const adds = new Set(test.proves.filter((fact) => left.has(fact))).size;
    if (adds === 0) continue;
    if (adds < next.adds) {
      queue.push({ test, at, adds });
      continue;
    }
    taken.push(test);
    for (const fact of test.proves) left.delete(fact);
  }
  return taken;
}

/** Without tests all of whose facts others prove as well, the smallest looked at first. */
function withoutSpare<T extends Proving>(chosen: readonly T[], kept: ReadonlySet<T>): T[] {
  const count = new Map<string, number>();
  for (const { proves } of chosen)
    for (const fact of new Set(proves)) count.set(fact, (count.get(fact) ?? 0) + 1);
  const spare = new Set<T>();
  for (const test of [...chosen].sort((a, b) => ascending(a.proves.length, b.proves.length))) {
    const own = [...new Set(test.proves)];
    if (kept.has(test) || own.some((fact) => (count.get(fact) ?? 0) < 2)) continue;
    spare.add(test);
    for (const fact of own) count.set(fact, (count.get(fact) ?? 0) - 1);
  }
  return chosen.filter((test) => !spare.has(test));
}
