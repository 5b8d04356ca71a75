import { byNaturalText } from "../kernel";
import type { Band, PlanIndex, Radio } from "../plan";
import { channelOptions, channelsOverlap, type Option } from "./channels";
import { HEARING } from "./hearing";

/** A radio with a channel that suits its neighbours; `clashes` are those it still overlaps with. */
export interface Assigned { readonly radio: Radio; readonly option: Option | null; readonly clashes: readonly Radio[] }

/** How many steps the search for a colouring without a clash may take before the best one found by turns is taken. */
const MOST_STEPS = 50_000;

interface Node { readonly radio: Radio; readonly options: readonly Option[]; readonly neighbours: readonly number[] }

const meets = (band: Band, a: Option | null, b: Option | null): boolean => a !== null && b !== null && channelsOverlap(band, a.block, b.block);

/**
 * Channels for all working radios of a band: a colouring of the graph of access points that hear one another, in which neighbours
 * do not overlap whenever there is one and the search finds it (Brélaz 1979: most constrained first); else one with few clashes.
 * Channels without radar come first, and what is used least among them.
 */
export function assignChannels(index: PlanIndex, band: Band, useDfs: "with radar channels" | "without radar channels"): Assigned[] {
  const hearing = index.derived(HEARING);
  const radios = [...index.plan.radio.values()].filter((radio) => radio.band === band && radio.enabled)
    .sort((a, b) => byNaturalText(index.plan.device.get(a.device)?.name ?? "", index.plan.device.get(b.device)?.name ?? "") || (a.id < b.id ? -1 : 1));
  const nodes = radios.map((radio): Node => ({
    radio, options: channelOptions(index.plan.site.radio, band, radio.widthMhz, useDfs),
    neighbours: radios.flatMap((other, i) => (other !== radio && (other.device === radio.device || hearing.get(radio.device)?.has(other.device) === true) ? [i] : [])),
  }));
  const chosen = colour(band, nodes) ?? takeTurns(band, nodes);
  return nodes.map(({ radio, neighbours }, i) => ({
    radio, option: chosen[i] ?? null,
    clashes: neighbours.flatMap((other) => (meets(band, chosen[i] ?? null, chosen[other] ?? null) ? (nodes[other]?.radio ?? []) : [])),
  }));
}

/** A colouring without a clash by search, or null when there is none or it takes too long. */
function colour(band: Band, nodes: readonly Node[]): (Option | null)[] | null {
  const chosen: (Option | null)[] = nodes.map(() => null);
  const done = new Set<number>();
  let steps = 0;
  const free = (i: number): Option[] => (nodes[i]?.options ?? []).filter((option) => !(nodes[i]?.neighbours ?? []).some((other) => meets(band, option, chosen[other] ?? null)));
  const usedBy = (option: Option) => chosen.filter((one) => meets(band, one, option)).length;
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
    for (const option of free(at).sort((a, b) => Number(a.dfs) - Number(b.dfs) || usedBy(a) - usedBy(b) || a.channel - b.channel)) {
      chosen[at] = option;
      if (search()) return true;
    }
    chosen[at] = null;
    done.delete(at);
    return false;
  };
  return search() ? chosen : null;
}

/** Each radio in turn takes the channel that fewest of its neighbours overlap, until nobody gains by another. */
function takeTurns(band: Band, nodes: readonly Node[]): (Option | null)[] {
  const chosen: (Option | null)[] = nodes.map((node) => node.options[0] ?? null);
  const clashes = (i: number, option: Option) => (nodes[i]?.neighbours ?? []).filter((other) => meets(band, option, chosen[other] ?? null)).length;
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
