import type { FilterAction, Network } from "../policy";
import { blocksOf, type Block } from "./blocks";
import { ACTIONS, FateBoard } from "./fates";
import type { ValueClass } from "./classes";
import { type Cell, eachCell, defaultIn, isToRouter } from "./space";
import { sizeOf } from "./spans";
import { packetsIn, type RuleList, type Universe } from "./universe";
import { candidateOf, packetOf, smaller, type Candidate, type WitnessPacket } from "./witness";

/** How two lists differ. */
export interface Difference {
  /** How many packets; 0n where the two are alike. */
  readonly packets: bigint;
  /** The smallest of them, with what either list does to it; null where there is none. */
  readonly witness: (WitnessPacket & { readonly a: FilterAction; readonly b: FilterAction }) | null;
}

export interface Comparison {
  readonly universeSize: bigint;
  /** Accepted, dropped and rejected are three fates. */
  readonly fate: Difference;
  /** Only whether it is accepted. */
  readonly permit: Difference;
  /** The same for each pair ("from>to") between which a packet is accepted by one list only. */
  readonly byPair: ReadonlyMap<string, Difference>;
}

const has = (bits: Int32Array, at: number): boolean => (((bits[at >> 5] ?? 0) >>> (at & 31)) & 1) === 1;

const actionAt = (board: FateBoard, at: number): FilterAction =>
  ACTIONS.find((_, action) => has(board.fates[action as 0 | 1 | 2], at)) ?? "drop";

/** One way to differ: counts, and keeps the smallest packet. */
class Tally {
  packets = 0n;
  smallest: Candidate | null = null;
  private fates: readonly [FilterAction, FilterAction] = ["drop", "drop"];
  private readonly universe: Universe;

  constructor(universe: Universe) {
    this.universe = universe;
  }

  add(pairs: bigint, block: Block, cell: Cell, { count, first, fates }: DifferingServices): void {
    this.packets += pairs * count;
    const next = smaller(candidateOf(block, cell, first), this.smallest);
    if (next === this.smallest) return;
    this.smallest = next;
    this.fates = fates;
  }

  get difference(): Difference {
    const [a, b] = this.fates;
    return {
      packets: this.packets,
      witness: this.smallest === null ? null : { ...packetOf(this.universe, this.smallest), a, b },
    };
  }
}

/** How two lists differ in the services of a cell: how many, the smallest, and what either does with that. */
interface DifferingServices {
  readonly count: bigint;
  readonly first: number;
  readonly fates: readonly [FilterAction, FilterAction];
}
/** Of all services that differ, and of those that one list only accepts; null for none. */
type Differing = { readonly fate: DifferingServices; readonly permit: DifferingServices | null } | null;

/**
 * Lays two lists side by side, over every packet of the universe. `nameOf` says by what names the pairs of
 * networks are told.
 */
export function compareLists(
  universe: Universe,
  a: RuleList,
  b: RuleList,
  nameOf: (network: Network) => string = (network) => network,
): Comparison {
  const [fate, permit] = [new Tally(universe), new Tally(universe)];
  const byPair = new Map<string, Tally>();
  const differingIn = differences(a, b);
  const sizes = new ClassSizes();
  const tallyOf = ({ from: [from = ""], to: [to = ""] }: Block): Tally => {
    const pair = `${nameOf(from)}>${nameOf(to)}`;
    const tally = byPair.get(pair) ?? new Tally(universe);
    byPair.set(pair, tally);
    return tally;
  };
  for (const block of blocksOf(universe, [...a.rules, ...b.rules], nameOf)) {
    const differing = differingIn(block);
    let own: Tally | null = null;
    eachCell(block, (cell) => {
      const found = differing(cell);
      if (found === null) return;
      const pairs = sizes.of(cell.source) * sizes.of(cell.target);
      fate.add(pairs, block, cell, found.fate);
      if (found.permit === null) return;
      permit.add(pairs, block, cell, found.permit);
      own ??= tallyOf(block);
      own.add(pairs, block, cell, found.permit);
    });
  }
  return {
    universeSize: packetsIn(universe),
    fate: fate.difference,
    permit: permit.difference,
    byPair: new Map([...byPair].map(([pair, tally]) => [pair, tally.difference])),
  };
}

/** How many values there are in a class, counted once: networks that rules take in whole share theirs. */
class ClassSizes {
  readonly #known = new Map<ValueClass, bigint>();

  of(values: ValueClass): bigint {
    const known = this.#known.get(values);
    if (known !== undefined) return known;
    const size = sizeOf(values.spans);
    this.#known.set(values, size);
    return size;
  }
}

/**
 * Where the two lists differ in a cell of a block that was cut by the rules of both. Blocks that the same rules
 * meet share their service classes, and a cell that all of them meet comes to the same in each of them.
 */
function differences(a: RuleList, b: RuleList) {
  const known = new Map<Int32Array, { readonly boards: Boards; readonly whole: Map<string, Differing> }>();
  return (block: Block): ((cell: Cell) => Differing) => {
    const shared = known.get(block.bits) ?? { boards: boardsOf(block, a, b), whole: new Map() };
    known.set(block.bits, shared);
    const towards = isToRouter(block) ? "router" : "";
    return (cell) => {
      const isWhole = cell.count === block.rules.length;
      const before = isWhole ? shared.whole.get(towards) : undefined;
      if (before !== undefined) return before;
      const found = differingOf(block, shared.boards(block, cell));
      if (isWhole) shared.whole.set(towards, found);
      return found;
    };
  };
}

function differingOf(block: Block, [left, right]: readonly [FateBoard, FateBoard]): Differing {
  if (left.equals(right)) return null;
  const all = block.services.flatMap(({ spans }, at): DifferingServices[] => {
    const fates = [actionAt(left, at), actionAt(right, at)] as const;
    return fates[0] === fates[1]
      ? []
      : [{ count: sizeOf(spans), first: Number(spans[0]?.first ?? 0), fates }];
  });
  const fate = together(all);
  const permit = together(all.filter(({ fates }) => fates.includes("accept")));
  return fate === null ? null : { fate, permit };
}

/** Several services as one: how many, and the smallest of them. */
function together(all: readonly DifferingServices[]): DifferingServices | null {
  const [first, ...others] = all;
  if (first === undefined) return null;
  const smallest = others.reduce(
    (least, services) => (services.first < least.first ? services : least),
    first,
  );
  return { ...smallest, count: all.reduce((sum, { count }) => sum + count, 0n) };
}

type Boards = (block: Block, cell: Cell) => readonly [FateBoard, FateBoard];

/** What each of the two lists does in a cell of a block that was cut by the rules of both. */
function boardsOf(like: Block, a: RuleList, b: RuleList): Boards {
  const boards = [new FateBoard(like), new FateBoard(like)] as const;
  const border = a.rules.length;
  return (block, { places, count }) => {
    boards[0].reset(defaultIn(a, block));
    boards[1].reset(defaultIn(b, block));
    for (let at = count - 1; at >= 0; at -= 1) {
      const place = places[at] ?? 0;
      const rule = block.rules[place] ?? 0;
      if (rule < border) boards[0].put(place, a.rules[rule]?.action ?? "drop");
      else boards[1].put(place, b.rules[rule - border]?.action ?? "drop");
    }
    return boards;
  };
}
