import type { FilterAction } from "../policy";
import { blocksOf, type Block } from "./blocks";
import { ACTIONS, FateBoard } from "./fates";
import type { ValueClass } from "./classes";
import { eachCell, defaultIn } from "./space";
import { sizeOf } from "./spans";
import type { RuleList, Universe } from "./universe";
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
  /** The same for each pair of networks ("from>to") between which a packet is accepted by one list only. */
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

  add(size: bigint, candidate: Candidate, fates: readonly [FilterAction, FilterAction]): void {
    this.packets += size;
    const next = smaller(candidate, this.smallest);
    if (next === this.smallest) return;
    this.smallest = next;
    this.fates = fates;
  }

  get difference(): Difference {
    const [a, b] = this.fates;
    return {
      packets: this.packets,
      witness: this.smallest === null ? null : { ...packetOf(this.smallest), a, b },
    };
  }
}

/** Lays two lists side by side, over every packet of the universe. */
export function compareLists(universe: Universe, a: RuleList, b: RuleList): Comparison {
  const both = [...a.rules, ...b.rules];
  const [fate, permit] = [new Tally(), new Tally()];
  const byPair = new Map<string, Tally>();
  let universeSize = 0n;
  for (const block of blocksOf(universe, both)) {
    const sizes = block.services.map(({ spans }) => sizeOf(spans));
    const all = sizes.reduce((sum, size) => sum + size, 0n);
    const boards = boardsOf(block, a, b);
    const addresses = (classes: readonly ValueClass[]) => sizeOf(classes.flatMap(({ spans }) => spans));
    universeSize += addresses(block.sources) * addresses(block.targets) * all;
    eachCell(block, (cell) => {
      const [left, right] = boards(cell);
      if (left.equals(right)) return;
      const pairs = sizeOf(cell.source.spans) * sizeOf(cell.target.spans);
      sizes.forEach((size, at) => {
        const fates = [actionAt(left, at), actionAt(right, at)] as const;
        if (fates[0] === fates[1]) return;
        const candidate = candidateOf(block, cell, Number(block.services[at]?.spans[0]?.first ?? 0));
        fate.add(pairs * size, candidate, fates);
        if (!fates.includes("accept")) return;
        permit.add(pairs * size, candidate, fates);
        const pair = `${block.from}>${block.to}`;
        const tally = byPair.get(pair) ?? new Tally();
        byPair.set(pair, tally);
        tally.add(pairs * size, candidate, fates);
      });
    });
  }
  return {
    universeSize,
    fate: fate.difference,
    permit: permit.difference,
    byPair: new Map([...byPair].map(([pair, tally]) => [pair, tally.difference])),
  };
}

type Boards = (cell: Parameters<Parameters<typeof eachCell>[1]>[0]) => readonly [FateBoard, FateBoard];

/** What each of the two lists does in a cell of a block that was cut by the rules of both. */
function boardsOf(block: Block, a: RuleList, b: RuleList): Boards {
  const boards = [new FateBoard(block), new FateBoard(block)] as const;
  const border = a.rules.length;
  return ({ places, count }) => {
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
