import type { Derived, PlanIndex, WallEnd, Zone } from "../plan";
import { INTERNET, networkOfSegment, zonesInOrder } from "../policy";
import { closedList, compareLists, type Difference, type RuleList } from "../rules";
import { LIST_READS, STANDING_LISTS } from "./standing-list";
import type { IntentAt } from "./wishes";

/** An ordered pair of a zone or the internet, and a zone, the internet or the device itself. */
export interface ProvenPair {
  readonly from: Zone | "internet";
  readonly to: Zone | "internet" | "gateway";
  /** Null where every packet of the pair gets what is intended; else the smallest that does not. */
  readonly difference: Difference | null;
}

/** Whether a list does for every packet what the walls intend. */
export interface Proof {
  /** All pairs between which there are packets, in the order of the walls' grid. */
  readonly pairs: readonly ProvenPair[];
  /** How many packets there are: both families, all IP protocols, all ports. */
  readonly packets: bigint;
}

type End = Zone | "internet" | "gateway";

/** An end of a pair as walls name it. */
export const endOfPair = (end: End): WallEnd =>
  typeof end === "string" ? { at: end } : { at: "zone", zone: end.id };

/** Lays a list beside what the walls intend at that device, over every packet that can meet it. */
export function proveList(index: PlanIndex, intent: IntentAt, list: RuleList): Proof {
  const { universe, wishes } = intent;
  const intended = closedList(wishes.map((wish) => ({ ...wish, action: "accept" as const })));
  const zoneOf = (network: string): string => {
    const segment = index.plan.segment.get(network);
    return segment === undefined ? network : networkOfSegment(segment);
  };
  const { byPair } = compareLists(universe, intended, list, zoneOf);
  const present = presentPairs(intent, zoneOf);
  const key = (end: End): string => {
    if (typeof end !== "string") return end.id;
    return end === "gateway" ? "router" : INTERNET;
  };
  const zones = zonesInOrder(index);
  const pairs = (["internet", ...zones] as const).flatMap((from) =>
    (["internet", ...zones, "gateway"] as const).flatMap((to): ProvenPair[] => {
      const pair = `${key(from)}>${key(to)}`;
      return present.has(pair) ? [{ from, to, difference: byPair.get(pair) ?? null }] : [];
    }),
  );
  return { pairs, packets: intent.packets };
}

/** The pairs of zones between which packets can meet the device: those that don't lie at one leg both. */
function presentPairs({ universe }: IntentAt, zoneOf: (network: string) => string): Set<string> {
  const legsOf = new Map<string, Set<string>>();
  for (const [network, spans] of universe.stations) {
    if (spans.length === 0) continue;
    const legs = legsOf.get(zoneOf(network)) ?? new Set();
    legsOf.set(zoneOf(network), legs.add(universe.legs?.get(network) ?? network));
  }
  const zones = [...legsOf];
  const isOneLeg = (a: ReadonlySet<string>, b: ReadonlySet<string>) =>
    a.size === 1 && b.size === 1 && [...a].every((leg) => b.has(leg));
  return new Set(
    zones.flatMap(([from, legs]) => [
      ...(universe.router.length > 0 ? [`${from}>router`] : []),
      ...zones.flatMap(([to, others]) => (isOneLeg(legs, others) ? [] : [`${from}>${to}`])),
    ]),
  );
}

/** The proof of every list that stands on a device, by the device's id. */
export const STANDING_PROOFS: Derived<ReadonlyMap<string, Proof>> = {
  reads: LIST_READS,
  make: (index) =>
    new Map(
      [...index.derived(STANDING_LISTS)].map(([id, standing]) => [
        id,
        proveList(index, standing, standing.list),
      ]),
    ),
};
