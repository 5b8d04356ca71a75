import { freeRanges, nextFreeAddress, usableRange, type Ipv4 } from "../../address";
import { offeredRanges } from "../../dhcp";
import type { PlanIndex, Segment } from "../../plan";
import { gatewayIn, staticBlockIn } from "./static-block";

/** Every IPv4 address that somebody in the segment holds, gear included. */
const takenIn = (index: PlanIndex, segment: Segment): Ipv4[] => [
  ...index.hostsIn(segment.id).flatMap((h) => (h.ipv4 === null ? [] : [h.ipv4])),
  ...index.interfacesIn(segment.id).flatMap((leg) => leg.addresses4),
];

/**
 * The next address to type into a device, or to reserve for one: static ones come from outside every pool,
 * reserved ones from inside where there is a pool. `given` are addresses handed out in the same batch. Null
 * when there is none left.
 */
export function nextFreeFor(
  index: PlanIndex,
  segment: Segment,
  manner: "typed" | "reserved",
  given: ReadonlySet<Ipv4> = new Set(),
): Ipv4 | null {
  const prefix = segment.prefixes4[0];
  if (prefix === undefined) return null;
  const scopes = index.scopesOf(segment.id).filter((s) => s.family === 4);
  const inside = scopes.flatMap(offeredRanges);
  const outside = freeRanges(
    usableRange(prefix),
    scopes.flatMap((s) => s.pools),
  );
  const kept = staticBlockIn(index.plan.site.conventions, prefix);
  // The block kept for them comes first, wherever it lies; what a pool has of it is not on offer.
  const typedFirst =
    kept === null
      ? outside
      : [
          ...freeRanges(
            kept,
            scopes.flatMap((s) => s.pools),
          ),
          ...outside,
        ];
  const blocks = manner === "reserved" && inside.length > 0 ? inside : typedFirst;
  const taken = [...takenIn(index, segment), ...given];
  for (const block of blocks) {
    const free = nextFreeAddress(block, taken);
    if (typeof free === "number") return free;
  }
  return null;
}

/**
 * The address that a router's leg in a segment gets: the gateway's by convention where it is free, else the
 * next free.
 */
export function legAddressIn(index: PlanIndex, segment: Segment): Ipv4 | null {
  const prefix = segment.prefixes4[0];
  if (prefix === undefined) return null;
  const usual = gatewayIn(index.plan.site.conventions, prefix);
  const isTaken = index.groups("interfacesByAddress").has(usual) || index.groups("hostsByAddress").has(usual);
  return isTaken ? nextFreeFor(index, segment, "typed") : usual;
}
