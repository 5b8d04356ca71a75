import type { FilterAction } from "../policy";
import { allClasses } from "./classes";
import type { Block } from "./blocks";
import type { Cell } from "./space";

export const ACTIONS: readonly FilterAction[] = ["accept", "drop", "reject"];

/** For each action the service classes that get it, a bit each. */
export type Fates = readonly [accept: Int32Array, drop: Int32Array, reject: Int32Array];

/** What happens to each service class of a cell; made for a block and used for its cells one after another. */
export class FateBoard {
  readonly fates: Fates;
  private readonly all: Int32Array;
  private readonly words: number;
  private readonly bits: Int32Array;

  constructor({ services, words, bits }: Block) {
    this.all = allClasses(services.length);
    this.words = words;
    this.bits = bits;
    this.fates = [new Int32Array(words), new Int32Array(words), new Int32Array(words)];
  }

  /** As if there were no rules. */
  reset(byDefault: FilterAction): void {
    ACTIONS.forEach((action, at) => {
      if (action === byDefault) this.fates[at as 0 | 1 | 2].set(this.all);
      else this.fates[at as 0 | 1 | 2].fill(0);
    });
  }

  /** Puts a rule, by its place in the block, before all those put so far. */
  put(place: number, action: FilterAction): void {
    const { words, bits } = this;
    const mine = this.fates[ACTIONS.indexOf(action) as 0 | 1 | 2];
    for (const fate of this.fates)
      for (let word = 0; word < words; word += 1) {
        const taken = bits[place * words + word] ?? 0;
        fate[word] = fate === mine ? (fate[word] ?? 0) | taken : (fate[word] ?? 0) & ~taken;
      }
  }

  equals(other: FateBoard): boolean {
    return this.fates.every((fate, action) =>
      fate.every((word, at) => word === other.fates[action as 0 | 1 | 2][at]),
    );
  }

  /** The whole list in a cell: what happens to each of its services. */
  settle(cell: Cell, actionOf: (place: number) => FilterAction, byDefault: FilterAction): void {
    this.reset(byDefault);
    for (let at = cell.count - 1; at >= 0; at -= 1) {
      const place = cell.places[at] ?? 0;
      this.put(place, actionOf(place));
    }
  }
}

/**
 * The service classes that each rule of a cell is the first to take, one rule behind the other as in the cell;
 * made for a block and used for its cells one after another.
 */
export class FirstTakers {
  readonly first: Int32Array;
  private readonly rest: Int32Array;
  private readonly all: Int32Array;
  private readonly words: number;
  private readonly bits: Int32Array;

  constructor({ services, words, bits, rules }: Block) {
    this.all = allClasses(services.length);
    this.words = words;
    this.bits = bits;
    this.rest = new Int32Array(words);
    this.first = new Int32Array(rules.length * words);
  }

  settle({ places, count }: Cell): void {
    const { words, bits, rest, first } = this;
    rest.set(this.all);
    for (let at = 0; at < count; at += 1)
      for (let word = 0; word < words; word += 1) {
        const taken = bits[(places[at] ?? 0) * words + word] ?? 0;
        first[at * words + word] = (rest[word] ?? 0) & taken;
        rest[word] = (rest[word] ?? 0) & ~taken;
      }
  }

  /** Whether the rule at that place of the cell is the first for any service. */
  takes(at: number): boolean {
    for (let word = 0; word < this.words; word += 1)
      if ((this.first[at * this.words + word] ?? 0) !== 0) return true;
    return false;
  }

  /** Whether all that the rule is first for is in `fate`. */
  staysIn(at: number, fate: Int32Array): boolean {
    for (let word = 0; word < this.words; word += 1)
      if (((this.first[at * this.words + word] ?? 0) & ~(fate[word] ?? 0)) !== 0) return false;
    return true;
  }
}
