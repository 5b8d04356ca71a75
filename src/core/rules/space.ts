import { putInto } from "../kernel";
import type { FilterAction } from "../policy";
import { blocksOf, type Block } from "./blocks";
import { commonBits, type ValueClass } from "./classes";
import type { RuleList, Universe } from "./universe";

/** A list over all packets of a universe, cut into blocks once and asked as often as one likes. */
export interface ListSpace {
  readonly universe: Universe;
  readonly list: RuleList;
  readonly blocks: readonly Block[];
  /** The same by the networks that they come from. */
  readonly byFrom: ReadonlyMap<string, readonly Block[]>;
}

export function listSpace(universe: Universe, list: RuleList): ListSpace {
  const blocks = blocksOf(universe, list.rules);
  const byFrom = new Map<string, Block[]>();
  for (const block of blocks) for (const network of block.from) putInto(byFrom, network, block);
  return { universe, list, blocks, byFrom };
}

/** Whether a block is of what goes to the router itself. */
export const isToRouter = ({ to }: Block): boolean => to[0] === "router";

/** What decides where no rule does. */
export const defaultIn = (list: RuleList, block: Block): FilterAction =>
  isToRouter(block) ? list.inputDefault : list.forwardDefault;

/** The packets of one source class and one destination class of a block. */
export interface Cell {
  readonly source: ValueClass;
  readonly target: ValueClass;
  /** The places in the block of the rules that take them in, ascending; only the first `count` hold. */
  readonly places: Int32Array;
  readonly count: number;
}

/** Every cell of the block; the cell and its list are the same object each time. */
export function eachCell(block: Block, visit: (cell: Cell) => void): void {
  const cell = {
    source: block.sources[0] as ValueClass,
    target: block.targets[0] as ValueClass,
    places: new Int32Array(block.rules.length),
    count: 0,
  };
  for (const source of block.sources)
    for (const target of block.targets) {
      cell.source = source;
      cell.target = target;
      cell.count = commonBits(source.rules, target.rules, cell.places);
      visit(cell);
    }
}
