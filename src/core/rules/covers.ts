import { ascending } from "../kernel";
import type { Block } from "./blocks";
import { FirstTakers } from "./fates";
import { eachCell, type ListSpace } from "./space";

/** Why a rule never decides. */
export interface Cover {
  /**
   * The earlier rules that together take all it takes; none of them can be left out, the latest possible
   * ones.
   */
  readonly coveredBy: readonly number[];
  /** The earlier rules that really decide what it would have matched. */
  readonly deciders: readonly number[];
  /** Whether what decides does as the rule would, otherwise, or in part each. */
  readonly kind: "redundant-before" | "shadowed" | "mixed";
}

/** What the rule and one earlier rule, the first to take it, have in common in a cell. */
interface Share {
  readonly block: Block;
  /** The earlier rules of the cell by their places in the block. */
  readonly earlier: Int32Array;
  readonly decider: number;
  readonly bits: Int32Array;
}

const taken = ({ words, bits }: Block, place: number) => bits.subarray(place * words, (place + 1) * words);

const overlap = (a: Int32Array, b: Int32Array): Int32Array => a.map((word, at) => word & (b[at] ?? 0));

const isEmpty = (bits: Int32Array): boolean => bits.every((word) => word === 0);

/** What the rule takes in, by the earlier rule that decides it; null where it decides some itself. */
function sharesOf({ blocks }: ListSpace, rule: number): Share[] | null {
  const shares: Share[] = [];
  let decides = false;
  for (const block of blocks) {
    const mine = block.rules.indexOf(rule);
    if (mine < 0) continue;
    const takers = new FirstTakers(block);
    eachCell(block, (cell) => {
      const own = cell.places.subarray(0, cell.count).indexOf(mine);
      if (own < 0) return;
      takers.settle(cell);
      decides ||= takers.takes(own);
      const earlier = cell.places.slice(0, own);
      for (let at = 0; at < own; at += 1) {
        const first = takers.first.subarray(at * block.words, (at + 1) * block.words);
        const bits = overlap(first, taken(block, mine));
        if (!isEmpty(bits))
          shares.push({
            block,
            earlier,
            decider: block.rules[cell.places[at] ?? 0] ?? 0,
            bits,
          });
      }
    });
  }
  return decides ? null : shares;
}

/**
 * Of all sets of earlier rules that together take all the rule takes, the one whose highest rule is as low as
 * possible, then the next. What is left of the highest decider's share can only be had by that decider itself.
 */
function coverOf(shares: readonly Share[]): number[] {
  const cover: number[] = [];
  let rest = shares.map((share) => ({ ...share, bits: share.bits.slice() }));
  while (rest.length > 0) {
    const highest = Math.max(...rest.map(({ decider }) => decider));
    cover.push(highest);
    rest = rest.flatMap((share) => {
      if (share.decider === highest) return [];
      const place = share.block.rules.indexOf(highest);
      if (place < 0 || !takesPart(share, place)) return [share];
      const bits = share.bits.map((word, at) => word & ~(taken(share.block, place)[at] ?? 0));
      return isEmpty(bits) ? [] : [{ ...share, bits }];
    });
  }
  return cover.sort(ascending);
}

const takesPart = ({ earlier }: Share, place: number): boolean => earlier.includes(place);

/** Why a rule that never decides does not; null for one that does, or that no packet meets at all. */
export function coverOfRule(space: ListSpace, rule: number): Cover | null {
  const shares = sharesOf(space, rule);
  if (shares === null || shares.length === 0) return null;
  const deciders = [...new Set(shares.map(({ decider }) => decider))].sort(ascending);
  const { rules } = space.list;
  const alike = deciders.filter((decider) => rules[decider]?.action === rules[rule]?.action).length;
  const differing = alike === 0 ? "shadowed" : "mixed";
  return {
    coveredBy: coverOf(shares),
    deciders,
    kind: alike === deciders.length ? "redundant-before" : differing,
  };
}
