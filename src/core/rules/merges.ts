import { byText } from "../kernel";
import { formatPrefix } from "../address";
import type { Side } from "../policy";
import type { ConflictingPairs } from "./pairs";
import type { ListRule, RuleList } from "./universe";

/** Two rules that can be one: they do the same and differ in one thing only. */
export interface Merge {
  /** The earlier rule, which takes the later one in. */
  readonly into: number;
  readonly gone: number;
  /** What the two differ in. */
  readonly by: "from" | "to" | "services";
}

const sidesKey = (sides: readonly Side[]): string =>
  sides
    .map(({ network, prefixes }) => `${network} ${prefixes?.map(formatPrefix).sort(byText).join() ?? "*"}`)
    .sort(byText)
    .join("|");

/** A rule without one of its things, as a key: rules of one key differ in that thing at most. */
function keysOf({ from, to, services, action }: ListRule): Readonly<Record<Merge["by"], string>> {
  const parts = {
    from: sidesKey(from),
    to: sidesKey(to),
    services: services.map(({ first, last }) => `${first}-${last}`).join(),
  };
  return {
    from: `${action} to ${parts.to} by ${parts.services}`,
    to: `${action} from ${parts.from} by ${parts.services}`,
    services: `${action} from ${parts.from} to ${parts.to}`,
  };
}

/**
 * Rules that an earlier one of the same action can take in without any packet getting another fate: nothing
 * between the two does otherwise with what the later one takes. Each is named with the nearest such earlier
 * rule.
 */
export function mergeable({ rules }: RuleList, pairs: ConflictingPairs): Merge[] {
  const against = new Map<number, Set<number>>();
  for (const [earlier, later] of [...pairs.shadows, ...pairs.generalises, ...pairs.correlates])
    against.set(later, (against.get(later) ?? new Set()).add(earlier));
  const latest: Readonly<Record<Merge["by"], Map<string, number>>> = {
    from: new Map(),
    to: new Map(),
    services: new Map(),
  };
  return rules.flatMap((rule, gone): Merge[] => {
    const keys = keysOf(rule);
    const found = (["services", "to", "from"] as const)
      .flatMap((by): Merge[] => {
        const into = latest[by].get(keys[by]);
        return into === undefined ? [] : [{ into, gone, by }];
      })
      .filter(({ into }) => ![...(against.get(gone) ?? [])].some((between) => between > into))
      .sort((a, b) => b.into - a.into);
    for (const by of ["from", "to", "services"] as const) latest[by].set(keys[by], gone);
    return found.slice(0, 1);
  });
}
