import type { FilterAction } from "../policy";
import type { Block } from "./blocks";
import { ACTIONS, FateBoard, FirstTakers } from "./fates";
import { defaultIn, eachCell, type ListSpace } from "./space";

/** What becomes of one rule in its list. */
export interface RuleState {
  /** No packet there is meets it at all. */
  readonly emptyMatch: boolean;
  /** Earlier rules decide every packet that meets it. */
  readonly neverMatches: boolean;
  /** The list without it gives every packet the same fate. */
  readonly removable: boolean;
}

interface Marks {
  readonly met: Uint8Array;
  readonly decides: Uint8Array;
  readonly needed: Uint8Array;
}

function markBlock(
  block: Block,
  actions: readonly FilterAction[],
  byDefault: FilterAction,
  marks: Marks,
): void {
  const board = new FateBoard(block);
  const takers = new FirstTakers(block);
  for (const rule of block.rules) marks.met[rule] = 1;
  eachCell(block, (cell) => {
    takers.settle(cell);
    board.reset(byDefault);
    for (let at = cell.count - 1; at >= 0; at -= 1) {
      const place = cell.places[at] ?? 0;
      const rule = block.rules[place] ?? 0;
      const action = actions[rule] ?? "drop";
      if (takers.takes(at)) {
        marks.decides[rule] = 1;
        // What the rules behind it would do with the same packets.
        if (!takers.staysIn(at, board.fates[ACTIONS.indexOf(action) as 0 | 1 | 2])) marks.needed[rule] = 1;
      }
      board.put(place, action);
    }
  });
}

/** For each rule of the list, in its order, whether it ever decides and whether it can go. */
export function ruleStates({ list, blocks }: ListSpace): RuleState[] {
  const count = list.rules.length;
  const actions = list.rules.map(({ action }) => action);
  const marks = {
    met: new Uint8Array(count),
    decides: new Uint8Array(count),
    needed: new Uint8Array(count),
  };
  for (const block of blocks)
    if (block.rules.length > 0) markBlock(block, actions, defaultIn(list, block), marks);
  return actions.map((_, rule) => ({
    emptyMatch: marks.met[rule] === 0,
    neverMatches: marks.decides[rule] === 0,
    removable: marks.needed[rule] === 0,
  }));
}
