import { grouped } from "../kernel";
import type { PlanIndex } from "../plan";
import { networkOfSegment } from "../policy";
import type { Span, Universe } from "../rules";

/** A universe in which segments that no rule tells apart are one network. */
export interface CoarseUniverse extends Universe {
  /** The segments that each network stands for; the internet stands for itself. */
  readonly members: ReadonlyMap<string, readonly string[]>;
}

/**
 * Of each zone's segments the first stays by itself and the others become one network: rules that name zones
 * only treat all of them alike, so that what holds from the first to the others and back holds between any
 * two. Those in `apart`, and those that share a leg with another, stay by themselves.
 */
export function coarsened(index: PlanIndex, universe: Universe, apart: ReadonlySet<string>): CoarseUniverse {
  const legOf = (network: string) => universe.legs?.get(network) ?? network;
  const onLeg = grouped(universe.stations.keys(), legOf);
  const alone = (network: string) => apart.has(network) || (onLeg.get(legOf(network))?.length ?? 0) > 1;
  const stations = new Map<string, readonly Span[]>();
  const members = new Map<string, string[]>();
  const legs = new Map<string, string>();
  const put = (names: readonly string[]) => {
    const [name] = names;
    if (name === undefined) return;
    stations.set(
      name,
      names.flatMap((network) => universe.stations.get(network) ?? []),
    );
    members.set(name, [...names]);
    legs.set(name, legOf(name));
  };
  const zoneOf = (network: string): string | null => {
    const segment = index.plan.segment.get(network);
    return segment === undefined || alone(network) ? null : networkOfSegment(segment);
  };
  for (const [zone, networks] of grouped(universe.stations.keys(), zoneOf))
    if (zone === null) networks.forEach((network) => put([network]));
    else {
      put(networks.slice(0, 1));
      put(networks.slice(1));
    }
  return { ...universe, stations, legs, members };
}
