import { rangeCount, usableRange } from "../address";
import { offeredRanges } from "../dhcp";
import type { PlanIndex, Segment } from "../plan";
import { segmentsInOrder } from "./segment-sheet";

/** How a segment's IPv4 addresses are used; the parts add up to the usable ones. */
export interface SubnetUse {
  readonly segment: Segment;
  readonly usable: number;
  readonly fixed: number;
  readonly pooled: number;
  readonly free: number;
}

/**
 * By segment in the order of their VLAN IDs: gateway and fixed addresses, what is left of the pools, what is
 * free.
 */
export const useOfSubnets = (index: PlanIndex): SubnetUse[] =>
  segmentsInOrder(index)
    .filter((segment) => segment.prefixes4.length > 0)
    .map((segment) => {
      const usable = segment.prefixes4.reduce(
        (sum, prefix) => sum + Number(rangeCount(usableRange(prefix))),
        0,
      );
      const held = new Set<number>([
        ...index.hostsIn(segment.id).flatMap((host) => (host.ipv4 === null ? [] : [host.ipv4])),
        ...index.interfacesIn(segment.id).flatMap((leg) => leg.addresses4),
      ]);
      const ranges = index
        .scopesOf(segment.id)
        .filter((scope) => scope.family === 4)
        .flatMap(offeredRanges);
      const inPool = [...held].filter((address) =>
        ranges.some((range) => address >= range.first && address <= range.last),
      ).length;
      const pooled = Math.max(0, Number(ranges.reduce((sum, range) => sum + rangeCount(range), 0n)) - inPool);
      const fixed = Math.min(held.size, usable);
      return {
        segment,
        usable,
        fixed,
        pooled: Math.min(pooled, usable - fixed),
        free: Math.max(0, usable - fixed - pooled),
      };
    });
