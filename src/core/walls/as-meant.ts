import type { PlanIndex } from "../plan";
import { STANDING_PROOFS, type ProvenPair } from "./proof";
import { pairAsMeant } from "./standing-list";

const endOf = ({ plan }: PlanIndex, segment: string): string => plan.segment.get(segment)?.zone ?? segment;
const nameOf = (end: ProvenPair["to"]): string => (typeof end === "string" ? end : end.id);

/**
 * Whether the list that stands on a device does between two exactly what the walls and exceptions mean. Where
 * single hosts may more than others the proof of the whole zones decides.
 */
export function standsAsMeant(
  index: PlanIndex,
  device: string,
  from: string,
  to: string | "internet" | "gateway",
): boolean {
  const asMeant = pairAsMeant(index, device, from, to);
  if (asMeant !== "mixed") return asMeant;
  const pairs = index.derived(STANDING_PROOFS).get(device)?.pairs ?? [];
  const pair = pairs.find(
    (provenPair) =>
      nameOf(provenPair.from) === endOf(index, from) && nameOf(provenPair.to) === endOf(index, to),
  );
  return pair !== undefined && pair.difference === null;
}
