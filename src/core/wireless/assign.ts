import { byNaturalText } from "../kernel";
import type { Band, PlanIndex, Radio } from "../plan";
import { channelOptions, channelsOverlap, type Option } from "./channels";
import { HEARING } from "./hearing";

/** A radio with a channel that suits its neighbours; `clashes` are those it still overlaps with. */
export interface Assigned {
  readonly radio: Radio;
  readonly option: Option | null;
  readonly clashes: readonly Radio[];
}

/**
 * How many steps the search for a colouring without a clash may take before the best one found by turns is
 * taken.
 */
const MOST_STEPS = 50_000;

interface Node {
  readonly radio: Radio;
  readonly options: readonly Option[];
  readonly neighbours: readonly number[];
}

const meets = (band: Band, a: Option | null, b: Option | null): boolean =>
  a !== null && b !== null && channelsOverlap(band, a.block, b.block);

/**
 * Channels for all working radios of a band: a colouring of the graph of access points that hear one another,
 * in which neighbours do not overlap whenever there is one and the search finds it, and as few radios as
 * possible get another channel than they have: each change is a visit, and a moment without a network. Where
 * the search for the fewest takes too long, any colouring (Brélaz 1979: most constrained first) with what
 * need not change put back; where there is none, one with few clashes. Channels without radar come first, and
 * what is used least among them.
 */
export function assignChannels(
  index: PlanIndex,
  band: Band,
  useDfs: "with radar channels" | "without radar channels",
): Assigned[] {
  const hearing = index.derived(HEARING);
  const radios = [...index.plan.radio.values()]
    .filter((radio) => radio.band === band && radio.enabled)
    .sort(
      (a, b) =>
        byNaturalText(
          index.plan.device.get(a.device)?.name ?? "",
          index.plan.device.get(b.device)?.name ?? "",
        ) || (a.id < b.id ? -1 : 1),
    );
  const nodes = radios.map((radio): Node => ({
    radio,
    options: channelOptions(index.plan.site.radio, band, radio.widthMhz, useDfs),
    neighbours: radios.flatMap((other, i) =>
      other !== radio &&
      (other.device === radio.device || hearing.get(radio.device)?.has(other.device) === true)
        ? [i]
        : [],
    ),
  }));
  const now = nodes.map(
    ({ radio, options }) => options.find(({ channel }) => channel === radio.channel) ?? null,
  );
  const chosen =
    fewestChanges(band, nodes, now) ??
    putBack(band, nodes, now, colour(band, nodes) ?? takeTurns(band, nodes, now));
  return nodes.map(({ radio, neighbours }, i) => ({
    radio,
    option: chosen[i] ?? null,
    clashes: neighbours.flatMap((other) =>
      meets(band, chosen[i] ?? null, chosen[other] ?? null) ? (nodes[other]?.radio ?? []) : [],
    ),
  }));
}

const byUse = (band: Band, chosen: readonly (Option | null)[]) => {
  const usedBy = (option: Option) => chosen.filter((before) => meets(band, before, option)).length;
  return (a: Option, b: Option): number =>
    Number(a.dfs) - Number(b.dfs) || usedBy(a) - usedBy(b) || a.channel - b.channel;
};

/**
 * Radios that need another channel: those without an allowed one, and one of each two that clash, no radio
 * counted twice. No colouring changes fewer.
 */
function leastNeeded(
  band: Band,
  nodes: readonly Node[],
  chosen: readonly (Option | null)[],
  fixed: ReadonlySet<number>,
): number {
  const counted = new Set<number>();
  let count = 0;
  for (const [i, { neighbours, options }] of nodes.entries()) {
    if (options.length === 0 || counted.has(i) || fixed.has(i)) continue;
    if (chosen[i] === null) {
      count += 1;
      counted.add(i);
      continue;
    }
    const other = neighbours.find(
      (neighbour) => !counted.has(neighbour) && meets(band, chosen[i] ?? null, chosen[neighbour] ?? null),
    );
    if (other === undefined) continue;
    count += 1;
    counted.add(i).add(other);
  }
  return count;
}

/**
 * The colouring without a clash that changes the fewest radios: one change allowed, then two, and so on. Null
 * where there is none, or it takes too long.
 */
function fewestChanges(
  band: Band,
  nodes: readonly Node[],
  now: readonly (Option | null)[],
): (Option | null)[] | null {
  let steps = 0;
  /**
   * Somebody who has to change: without a channel, or on one side of a clash; the sides that may still be
   * changed. Null when all is well.
   */
  const next = (chosen: readonly (Option | null)[], fixed: ReadonlySet<number>): readonly number[] | null => {
    const bare = nodes.findIndex(({ options }, i) => options.length > 0 && chosen[i] === null);
    if (bare >= 0) return [bare];
    for (const [i, { neighbours }] of nodes.entries()) {
      const other = neighbours.find((neighbour) => meets(band, chosen[i] ?? null, chosen[neighbour] ?? null));
      if (other !== undefined) return [i, other].filter((number) => !fixed.has(number));
    }
    return null;
  };
  const search = (
    chosen: readonly (Option | null)[],
    fixed: ReadonlySet<number>,
    left: number,
  ): readonly (Option | null)[] | null => {
    steps += 1;
    const sides = next(chosen, fixed);
    if (sides === null) return chosen;
    if (left === 0 || steps > MOST_STEPS || leastNeeded(band, nodes, chosen, fixed) > left) return null;
    for (const i of sides) {
      const { options = [], neighbours = [] } = nodes[i] ?? {};
      const free = options.filter(
        (option) =>
          option !== chosen[i] &&
          !neighbours.some(
            (neighbour) => fixed.has(neighbour) && meets(band, option, chosen[neighbour] ?? null),
          ),
      );
      for (const option of free.sort(byUse(band, chosen))) {
        const found = search(
          chosen.map((was, at) => (at === i ? option : was)),
          new Set([...fixed, i]),
          left - 1,
        );
        if (found !== null) return found;
      }
    }
    return null;
  };
  for (
    let changes = leastNeeded(band, nodes, now, new Set());
    changes <= nodes.length && steps <= MOST_STEPS;
    changes += 1
  ) {
    const found = search(now, new Set(), changes);
    if (found !== null) return [...found];
  }
  return null;
}

/** A colouring with everything put back that clashes with nobody on the channel it has now. */
function putBack(
  band: Band,
  nodes: readonly Node[],
  now: readonly (Option | null)[],
  chosen: readonly (Option | null)[],
): (Option | null)[] {
  const kept = [...chosen];
  for (const [i, { neighbours }] of nodes.entries()) {
    const before = now[i] ?? null;
    if (before !== null && !neighbours.some((neighbour) => meets(band, before, kept[neighbour] ?? null)))
      kept[i] = before;
  }
  return kept;
}

/** A colouring without a clash by search, or null when there is none or it takes too long. */
function colour(band: Band, nodes: readonly Node[]): (Option | null)[] | null {
  const chosen: (Option | null)[] = nodes.map(() => null);
  const done = new Set<number>();
  let steps = 0;
  const free = (i: number): Option[] =>
    (nodes[i]?.options ?? []).filter(
      (option) => !(nodes[i]?.neighbours ?? []).some((other) => meets(band, option, chosen[other] ?? null)),
    );
  const next = (): number => {
    let best = -1;
    let least = Infinity;
    for (const [i, node] of nodes.entries()) {
      if (done.has(i) || node.options.length === 0) continue;
      const rank = free(i).length * 1000 - node.neighbours.length;
      if (rank < least) [best, least] = [i, rank];
    }
    return best;
  };
  const search = (): boolean => {
    steps += 1;
    if (steps > MOST_STEPS) return false;
    const at = next();
    if (at < 0) return true;
    done.add(at);
    for (const option of free(at).sort(byUse(band, chosen))) {
      chosen[at] = option;
      if (search()) return true;
    }
    chosen[at] = null;
    done.delete(at);
    return false;
  };
  return search() ? chosen : null;
}

/**
 * From the channels there are now each radio in turn takes the channel that fewest of its neighbours overlap,
 * until nobody gains by another.
 */
function takeTurns(band: Band, nodes: readonly Node[], now: readonly (Option | null)[]): (Option | null)[] {
  const chosen: (Option | null)[] = nodes.map((node, i) => now[i] ?? node.options[0] ?? null);
  const clashes = (i: number, option: Option) =>
    (nodes[i]?.neighbours ?? []).filter((other) => meets(band, option, chosen[other] ?? null)).length;
  for (let round = 0; round < nodes.length + 2; round += 1) {
    let moved = false;
    for (const [i, node] of nodes.entries()) {
      const now = chosen[i] ?? null;
      if (now === null) continue;
      const best = [...node.options].sort((a, b) => clashes(i, a) - clashes(i, b))[0] ?? now;
      if (clashes(i, best) >= clashes(i, now)) continue;
      chosen[i] = best;
      moved = true;
    }
    if (!moved) break;
  }
  return chosen;
}
