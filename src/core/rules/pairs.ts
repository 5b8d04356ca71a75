import { ascending } from "../kernel";
import type { Block } from "./blocks";
import { meet, type ValueClass } from "./classes";
import type { ListSpace } from "./space";

/** An earlier and a later rule, by their places in the list. */
export type RulePair = readonly [earlier: number, later: number];

/**
 * Pairs of rules with something in common and different actions. The earlier one *shadows* the later one when
 * it takes all of it in, the later one *generalises* the earlier one when it takes in all of that and more,
 * and otherwise the two *correlate*: which comes first matters, and neither is an exception to the other.
 */
export interface ConflictingPairs {
  readonly shadows: readonly RulePair[];
  readonly generalises: readonly RulePair[];
  readonly correlates: readonly RulePair[];
}

/** For each rule of a block the classes of one axis that it takes in, a bit each. */
function byRule(classes: readonly ValueClass[], count: number): Int32Array[] {
  const out = Array.from({ length: count }, () => new Int32Array(Math.ceil(classes.length / 32)));
  classes.forEach(({ rules }, at) => {
    for (let rule = 0; rule < count; rule += 1)
      if (((rules[rule >> 5] ?? 0) >>> (rule & 31)) & 1) {
        const bits = out[rule] as Int32Array;
        bits[at >> 5] = (bits[at >> 5] ?? 0) | (1 << (at & 31));
      }
  });
  return out;
}

const holds = (outer: Int32Array, inner: Int32Array): boolean => {
  for (let word = 0; word < outer.length; word += 1)
    if (((inner[word] ?? 0) & ~(outer[word] ?? 0)) !== 0) return false;
  return true;
};

/** How far two rules have met so far: in how many blocks, and in how many of those one takes the other in. */
interface Meeting {
  earlierTakesLater: number;
  laterTakesEarlier: number;
}

class Meetings {
  readonly byPair = new Map<number, Meeting>();
  private readonly space: ListSpace;

  constructor(space: ListSpace) {
    this.space = space;
  }

  meetIn(block: Block): void {
    const { rules } = this.space.list;
    const count = block.rules.length;
    const axes = [block.sources, block.targets, block.services].map((classes) => byRule(classes, count));
    const everywhere = (test: (a: Int32Array, b: Int32Array) => boolean, x: number, y: number) =>
      axes.every((axis) => test(axis[x] as Int32Array, axis[y] as Int32Array));
    for (let later = 1; later < count; later += 1) {
      const j = block.rules[later] ?? 0;
      for (let earlier = 0; earlier < later; earlier += 1) {
        const i = block.rules[earlier] ?? 0;
        if (rules[i]?.action === rules[j]?.action || !everywhere(meet, earlier, later)) continue;
        const meeting = this.of(i, j);
        if (everywhere(holds, earlier, later)) meeting.earlierTakesLater += 1;
        if (everywhere(holds, later, earlier)) meeting.laterTakesEarlier += 1;
      }
    }
  }

  private of(i: number, j: number): Meeting {
    const key = i * this.space.list.rules.length + j;
    const known = this.byPair.get(key);
    if (known !== undefined) return known;
    const made = { earlierTakesLater: 0, laterTakesEarlier: 0 };
    this.byPair.set(key, made);
    return made;
  }
}

/** All pairs of rules that contradict each other somewhere. */
export function conflictingPairs(space: ListSpace): ConflictingPairs {
  const meetings = new Meetings(space);
  const count = space.list.rules.length;
  const blocksOfRule = new Int32Array(count);
  for (const block of space.blocks) {
    for (const rule of block.rules) blocksOfRule[rule] = (blocksOfRule[rule] ?? 0) + 1;
    if (block.rules.length > 1) meetings.meetIn(block);
  }
  const pairs = { shadows: [] as RulePair[], generalises: [] as RulePair[], correlates: [] as RulePair[] };
  for (const [key, { earlierTakesLater, laterTakesEarlier }] of [...meetings.byPair].sort(([a], [b]) =>
    ascending(a, b),
  )) {
    const [i, j] = [Math.floor(key / count), key % count];
    if (earlierTakesLater === blocksOfRule[j]) pairs.shadows.push([i, j]);
    else if (laterTakesEarlier === blocksOfRule[i]) pairs.generalises.push([i, j]);
    else pairs.correlates.push([i, j]);
  }
  return pairs;
}
