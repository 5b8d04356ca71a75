import { containsAddress, familyOf, type Address, type Family, type Prefix } from "../address";
import type { Plan } from "./plan";
import type { Segment } from "./schema/separation";

/** The subnets of a segment in one family. */
export const prefixesOf = (segment: Segment, family: Family): readonly Prefix[] =>
  family === 4 ? segment.prefixes4 : segment.prefixes6;

/** The subnet of a segment that an address lies in; undefined when it lies in none. */
export const subnetHolding = (segment: Segment, address: Address): Prefix | undefined =>
  prefixesOf(segment, familyOf(address)).find((prefix) => containsAddress(prefix, address));

/** Whether an address lies in a subnet of the segment. */
export const holdsAddress = (segment: Segment, address: Address): boolean =>
  subnetHolding(segment, address) !== undefined;

/** The first segment that an address lies in; null when it is in none of the plan's. */
export function segmentHolding(plan: Plan, address: Address): Segment | null {
  for (const segment of plan.segment.values()) if (holdsAddress(segment, address)) return segment;
  return null;
}
