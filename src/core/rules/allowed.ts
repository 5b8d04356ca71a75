import type { Family } from "../address";
import type { Block } from "./blocks";
import type { ValueClass } from "./classes";
import { FateBoard } from "./fates";
import { defaultIn, eachCell, type ListSpace } from "./space";
import { common, merged, sameSpans, without, type Span } from "./spans";
import type { ServiceSpan } from "./service-space";
import type { RuleList } from "./universe";
import { candidateOf, packetOf, smaller, type Candidate, type WitnessPacket } from "./witness";

/**
 * What a list lets through between two groups of networks: nothing, everything, the same services for all
 * pairs of addresses, or some pairs more than others.
 */
export interface Allowed {
  readonly state: "closed" | "open" | "services" | "mixed";
  /** Services that every pair of addresses may use. */
  readonly always: readonly ServiceSpan[];
  /** Services that at least one pair may use. */
  readonly sometimes: readonly ServiceSpan[];
  /**
   * Only when mixed: the smallest service that some may use and others not, with the smallest packet of
   * either.
   */
  readonly witness: { readonly accepted: WitnessPacket; readonly denied: WitnessPacket } | null;
}

/** Networks that are asked about as one; the router is the network "router". */
export interface NetworkGroup {
  readonly name: string;
  readonly networks: readonly string[];
}

const numbers = (block: Block, bits: Int32Array): ServiceSpan[] =>
  merged(
    block.services.flatMap(({ spans }, at) =>
      ((bits[at >> 5] ?? 0) >>> (at & 31)) & 1 ? (spans as readonly ServiceSpan[]) : [],
    ),
  );

/** Visits each cell of the blocks with the services that it may use. */
function eachAccepted(
  list: RuleList,
  blocks: readonly Block[],
  visit: (block: Block, cell: Parameters<Parameters<typeof eachCell>[1]>[0], accepted: Int32Array) => void,
): void {
  for (const block of blocks) {
    const board = new FateBoard(block);
    const actionOf = (place: number) => list.rules[block.rules[place] ?? 0]?.action ?? "drop";
    eachCell(block, (cell) => {
      board.settle(cell, actionOf, defaultIn(list, block));
      visit(block, cell, board.fates[0]);
    });
  }
}

/** The smallest packets of the service that the list lets through and refuses. */
function bothWays(
  { universe, list }: ListSpace,
  blocks: readonly Block[],
  service: number,
): Allowed["witness"] {
  let accepted: Candidate | null = null;
  let denied: Candidate | null = null;
  eachAccepted(list, blocks, (block, cell, bits) => {
    const at = block.services.findIndex(({ spans }) =>
      spans.some(({ first, last }) => first <= service && service <= last),
    );
    if (at < 0) return;
    const candidate = candidateOf(block, cell, service);
    if (((bits[at >> 5] ?? 0) >>> (at & 31)) & 1) accepted = smaller(candidate, accepted);
    else denied = smaller(candidate, denied);
  });
  return accepted === null || denied === null
    ? null
    : { accepted: packetOf(universe, accepted), denied: packetOf(universe, denied) };
}

/** What one block allows: the services that all its cells may use, and those that any may. */
function ofBlock(list: RuleList, block: Block): { all: Int32Array; any: Int32Array } {
  const all = new Int32Array(block.words).fill(-1);
  const any = new Int32Array(block.words);
  eachAccepted(list, [block], (_, __, accepted) => {
    accepted.forEach((word, at) => {
      all[at] = (all[at] ?? 0) & word;
      any[at] = (any[at] ?? 0) | word;
    });
  });
  return { all, any };
}

/** A side of a block without the networks that are not asked about. */
function narrowed(
  { stations }: ListSpace["universe"],
  networks: readonly string[],
  classes: readonly ValueClass[],
  asked: ReadonlySet<string>,
): readonly [networks: readonly string[], classes: readonly ValueClass[]] {
  const left = networks.filter((network) => asked.has(network));
  if (left.length === networks.length) return [networks, classes];
  const isOurs = ({ first }: Span) => typeof first === typeof classes[0]?.spans[0]?.first;
  const spans = merged(left.flatMap((network) => stations.get(network) ?? []).filter(isOurs));
  // Networks are together only where every rule takes all or nothing of them: then there is one class.
  return [left, classes.map((valueClass) => ({ ...valueClass, spans: common(valueClass.spans, spans) }))];
}

/** The blocks of what goes from some networks to some others, and nothing else of them. */
function blocksBetween(
  { universe, byFrom }: ListSpace,
  from: ReadonlySet<string>,
  to: ReadonlySet<string>,
): Block[] {
  const blocks = new Set([...from].flatMap((network) => byFrom.get(network) ?? []));
  return [...blocks].flatMap((block) => {
    const [targets, targetClasses] = narrowed(universe, block.to, block.targets, to);
    if (targets.length === 0) return [];
    const [sources, sourceClasses] = narrowed(universe, block.from, block.sources, from);
    return [{ ...block, from: sources, to: targets, sources: sourceClasses, targets: targetClasses }];
  });
}

/**
 * What the list lets through from one group to another, in one family or in both; null where there is no such
 * packet.
 */
export function allowedBetween(
  space: ListSpace,
  from: NetworkGroup,
  to: NetworkGroup,
  family?: Family,
): Allowed | null {
  const here = blocksBetween(space, new Set(from.networks), new Set(to.networks)).filter(
    (block) => family === undefined || block.family === family,
  );
  if (here.length === 0) return null;
  const universe = merged(here.flatMap((block) => [...space.universe.services[block.family]]));
  let always: ServiceSpan[] = universe;
  let sometimes: ServiceSpan[] = [];
  for (const block of here) {
    const { all, any } = ofBlock(space.list, block);
    // A service that the block's family does not have is no reason to refuse it in the other.
    const missing = without(universe, space.universe.services[block.family]);
    always = common(always, merged([...numbers(block, all), ...missing]));
    sometimes = merged([...sometimes, ...numbers(block, any)]);
  }
  const state = stateOf(universe, always, sometimes);
  const first = without(sometimes, always)[0]?.first;
  return {
    state,
    always,
    sometimes,
    witness: first === undefined ? null : bothWays(space, here, first),
  };
}

function stateOf(
  universe: readonly ServiceSpan[],
  always: readonly ServiceSpan[],
  sometimes: readonly ServiceSpan[],
): Allowed["state"] {
  if (sometimes.length === 0) return "closed";
  if (sameSpans(always, universe)) return "open";
  return sameSpans(always, sometimes) ? "services" : "mixed";
}
