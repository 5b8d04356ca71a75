import { prefixesOverlap } from "../address";
import { putInto } from "../kernel";
import { prefixesOf, type PlanIndex } from "../plan";
import { INTERNET, networkOfSegment, type Network, type Side } from "../policy";
import type { CoarseUniverse } from "./coarse";

/** Turns ends of rules that name zones into ends that name the networks of a universe. */
export function ontoNetworks({ plan }: PlanIndex, { stations }: CoarseUniverse) {
  const networks = new Map<Network, string[]>([[INTERNET, stations.has(INTERNET) ? [INTERNET] : []]]);
  for (const network of stations.keys()) {
    const segment = plan.segment.get(network);
    if (segment !== undefined) putInto(networks, networkOfSegment(segment), network);
  }
  const of = ({ network, prefixes }: Side): Side[] =>
    network === "router" || network === "any"
      ? [{ network, prefixes }]
      : (networks.get(network) ?? []).map((name) => ({ network: name, prefixes }));
  // Most ends are one zone as a whole: all that name it share one list, which is then read once.
  const whole = new Map<Network, readonly Side[]>();
  return (sides: readonly Side[]): readonly Side[] => {
    const [side] = sides;
    if (sides.length !== 1 || side === undefined || side.prefixes !== null) return sides.flatMap(of);
    const known = whole.get(side.network) ?? of(side);
    whole.set(side.network, known);
    return known;
  };
}

/**
 * The segments whose addresses the rules do not all treat alike: a prefix in one of them begins or ends
 * there.
 */
export function segmentsToldApart(
  { plan }: PlanIndex,
  rules: readonly { readonly from: readonly Side[]; readonly to: readonly Side[] }[],
): Set<string> {
  const prefixes = rules.flatMap(({ from, to }) => [...from, ...to].flatMap((side) => side.prefixes ?? []));
  return new Set(
    [...plan.segment.values()]
      .filter((segment) =>
        ([4, 6] as const).some((family) =>
          prefixesOf(segment, family).some((own) => prefixes.some((prefix) => prefixesOverlap(own, prefix))),
        ),
      )
      .map(({ id }) => id),
  );
}
