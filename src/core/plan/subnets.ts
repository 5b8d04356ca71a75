import { containsAddress, familyOf, PrefixTable, type Address, type Family, type Prefix } from "../address";
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

/** A segment, and which one of its plan it is. */
interface Placed {
  readonly segment: Segment;
  readonly at: number;
}
const TABLES = new WeakMap<Plan["segment"], PrefixTable<Placed>>();

function tableOf(segments: Plan["segment"]): PrefixTable<Placed> {
  const known = TABLES.get(segments);
  if (known !== undefined) return known;
  const table = new PrefixTable<Placed>();
  let at = 0;
  for (const segment of segments.values()) {
    for (const prefix of [...segment.prefixes4, ...segment.prefixes6]) table.add(prefix, { segment, at });
    at += 1;
  }
  TABLES.set(segments, table);
  return table;
}

/** The first segment that an address lies in; null when it is in none of the plan's. */
export function segmentHolding(plan: Plan, address: Address): Segment | null {
  let first: Placed | null = null;
  for (const placed of tableOf(plan.segment).holding(address))
    if (first === null || placed.at < first.at) first = placed;
  return first?.segment ?? null;
}
