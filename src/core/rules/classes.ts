import { ascending } from "../kernel";
import { after, type Span } from "./spans";

/** Values that none of a block's rules tells apart. */
export interface ValueClass {
  readonly spans: readonly Span[];
  /** The rules that take them in, a bit each, by their place in the block. */
  readonly rules: Int32Array;
}

/** Values that a rule takes in; null for all that there are. */
export type Taken = readonly Span[] | null;

const wordsFor = (bits: number): number => Math.ceil(bits / 32);

interface Edge {
  readonly at: number | bigint;
  /** The rule that begins or ends to take values in; -1: there begin or end to be any. */
  readonly rule: number;
}

function addEdges(edges: Edge[], spans: readonly Span[], rule: number): void {
  for (const { first, last } of spans) edges.push({ at: first, rule }, { at: after(last), rule });
}

/**
 * The classes of the values in `base`, in the order of their first value. Both `base` and what each rule
 * takes are ascending and neither overlap nor touch.
 */
export function classesOf(base: readonly Span[], taken: readonly Taken[]): ValueClass[] {
  const current = new Int32Array(wordsFor(taken.length));
  taken.forEach((spans, rule) => {
    if (spans === null) current[rule >> 5] = (current[rule >> 5] ?? 0) | (1 << (rule & 31));
  });
  const edges: Edge[] = [];
  taken.forEach((spans, rule) => {
    if (spans !== null) addEdges(edges, spans, rule);
  });
  if (edges.length === 0) return [{ spans: base, rules: current }];
  addEdges(edges, base, -1);
  edges.sort((a, b) => ascending(a.at, b.at));
  const classes = new Map<string, { spans: Span[]; rules: Int32Array }>();
  let inside = false;
  edges.forEach(({ at, rule }, place) => {
    if (rule < 0) inside = !inside;
    else current[rule >> 5] = (current[rule >> 5] ?? 0) ^ (1 << (rule & 31));
    const next = edges[place + 1]?.at;
    if (!inside || next === undefined || next === at) return;
    const span = { first: at, last: typeof next === "bigint" ? next - 1n : next - 1 };
    const key = current.join();
    const known = classes.get(key);
    if (known === undefined) classes.set(key, { spans: [span], rules: current.slice() });
    else known.spans.push(span);
  });
  return [...classes.values()];
}

/**
 * For each of `count` rules the classes it takes in, a bit each: `words` words a rule, one rule behind the
 * other.
 */
export function classesByRule(
  classes: readonly ValueClass[],
  count: number,
): { words: number; bits: Int32Array } {
  const words = wordsFor(classes.length);
  const bits = new Int32Array(count * words);
  classes.forEach(({ rules }, at) => {
    for (let rule = 0; rule < count; rule += 1)
      if (((rules[rule >> 5] ?? 0) >>> (rule & 31)) & 1)
        bits[rule * words + (at >> 5)] = (bits[rule * words + (at >> 5)] ?? 0) | (1 << (at & 31));
  });
  return { words, bits };
}

/** All of `count` classes, a bit each. */
export function allClasses(count: number): Int32Array {
  const bits = new Int32Array(wordsFor(count)).fill(-1);
  if (count % 32 !== 0) bits[bits.length - 1] = (1 << (count % 32)) - 1;
  return bits;
}

/** Writes the places of the bits that both have into `places`, ascending, and answers how many they are. */
export function commonBits(a: Int32Array, b: Int32Array, places: Int32Array): number {
  let count = 0;
  for (let word = 0; word < a.length; word += 1) {
    let rest = (a[word] ?? 0) & (b[word] ?? 0);
    while (rest !== 0) {
      const low = rest & -rest;
      places[count] = word * 32 + 31 - Math.clz32(low);
      count += 1;
      rest ^= low;
    }
  }
  return count;
}

/** Whether the two have a bit in common. */
export function meet(a: Int32Array, b: Int32Array): boolean {
  for (let word = 0; word < a.length; word += 1) if (((a[word] ?? 0) & (b[word] ?? 0)) !== 0) return true;
  return false;
}
