import {
  addressCount,
  formatPrefix,
  prefixesOverlap,
  rangeCount,
  usableRange,
  type Prefix,
} from "../address";
import { offeredCount, offeredRanges } from "../dhcp";
import type { PlanIndex, Scope, Segment } from "../plan";
import { formatLease, type SegmentColumn } from "../planners";
import { shortIn } from "./short-address";
import { byText } from "../kernel";

/** The scope that a segment's row shows: its first for IPv4. */
export const rowScope = (index: PlanIndex, segment: Segment): Scope | undefined =>
  index.scopesOf(segment.id).find((scope) => scope.family === 4);

/** The text of a cell, as it is shown and as it can be typed in again. */
export function segmentCellText(index: PlanIndex, segment: Segment, column: SegmentColumn): string {
  const scope = rowScope(index, segment);
  switch (column) {
    case "mark":
      return segment.mark;
    case "vid":
      return index.vidOf(segment)?.toString() ?? "";
    case "name":
      return segment.name;
    case "zone":
      return index.plan.zone.get(segment.zone)?.name ?? "";
    case "prefix":
      return segment.prefixes4[0] === undefined ? "" : formatPrefix(segment.prefixes4[0]);
    case "gateway": {
      const address = index.gatewayOf(segment)?.addresses4[0];
      return address === undefined ? "" : shortIn(segment, address);
    }
    case "pool":
      return scope === undefined
        ? ""
        : scope.pools
            .map((pool) => `${shortIn(segment, pool.first)}–${shortIn(segment, pool.last)}`)
            .join(", ");
    case "lease":
      return scope === undefined ? "" : formatLease(scope.leaseSeconds);
    case "dns":
      return segment.dns.map((address) => shortIn(segment, address)).join(", ");
    case "planned":
      return String(segment.planned);
  }
}

/** What a segment has and needs. Counts are of IPv4 addresses. */
export interface SegmentFigures {
  readonly usable: number;
  /** Addresses in the pools, exclusions taken out; null without a scope. */
  readonly offered: number | null;
  /** Devices in the register and the gear's own addresses, the gateway's aside. */
  readonly now: number;
  /** The planned number with growth, at least what is there now. */
  readonly planned: number;
  /** Usable addresses less the gateway, less the plan; negative when they don't fit. */
  readonly room: number;
  readonly gateways: number;
}

export function segmentFigures(index: PlanIndex, segment: Segment): SegmentFigures {
  const usable = segment.prefixes4.reduce((sum, prefix) => sum + Number(rangeCount(usableRange(prefix))), 0);
  const scopes = index.scopesOf(segment.id).filter((scope) => scope.family === 4);
  const offered =
    scopes.length === 0 ? null : scopes.reduce((sum, scope) => sum + Number(offeredCount(scope)), 0);
  const now =
    index.hostsIn(segment.id).length +
    index.interfacesIn(segment.id).filter((leg) => leg.id !== segment.gatewayInterface).length;
  const planned = Math.max(Math.ceil((segment.planned * (100 + segment.growth)) / 100), now);
  const gateways = (index.gatewayOf(segment)?.addresses4.length ?? 0) > 0 ? 1 : 0;
  return { usable, offered, now, planned, room: usable - gateways - planned, gateways };
}

/** The sums below the table. */
export interface SegmentTotals {
  readonly segments: number;
  readonly zones: number;
  readonly usable: number;
  readonly scopes: number;
  readonly offered: number;
  readonly now: number;
  readonly planned: number;
  readonly room: number;
}

export function segmentTotals(index: PlanIndex): SegmentTotals {
  const segments = [...index.plan.segment.values()];
  const figures = segments.map((segment) => segmentFigures(index, segment));
  const sum = (of: (segmentFigures: SegmentFigures) => number) =>
    figures.reduce((total, segmentFigures) => total + of(segmentFigures), 0);
  return {
    segments: segments.length,
    zones: new Set(segments.map((s) => s.zone)).size,
    usable: sum((f) => f.usable),
    scopes: figures.filter((f) => f.offered !== null).length,
    offered: sum((f) => f.offered ?? 0),
    now: sum((f) => f.now),
    planned: sum((f) => f.planned),
    room: sum((f) => f.room),
  };
}

/** Segments in the order of their VLAN IDs, those without one last, then by name. */
export function segmentsInOrder(index: PlanIndex): Segment[] {
  const key = (segment: Segment) => index.vidOf(segment) ?? 5000;
  return [...index.plan.segment.values()].sort(
    (a, b) => key(a) - key(b) || byText(a.name, b.name) || byText(a.id, b.id),
  );
}

/** Where a subnet lies in a block, as shares of its length: for drawing the block to scale. */
export interface BlockPart {
  readonly segment: Segment;
  readonly start: number;
  readonly share: number;
}

export function partsOfBlock(index: PlanIndex, block: Segment["prefixes4"][number]): BlockPart[] {
  const size = Number(addressCount(block));
  return segmentsInOrder(index).flatMap((segment) =>
    segment.prefixes4.flatMap((prefix) => {
      const start = (prefix.network - block.network) / size;
      const share = Number(addressCount(prefix)) / size;
      return start < 0 || start >= 1 || prefix.length < block.length ? [] : [{ segment, start, share }];
    }),
  );
}

/** Pools of a segment with their counts, for a sentence. */
export const poolsWithCounts = (
  index: PlanIndex,
  segment: Segment,
): { readonly text: string; readonly count: number }[] =>
  index
    .scopesOf(segment.id)
    .filter((s) => s.family === 4)
    .flatMap(offeredRanges)
    .map((range) => ({
      text: `${shortIn(segment, range.first)} to ${shortIn(segment, range.last)}`,
      count: Number(rangeCount(range)),
    }));

/** A range the site keeps clear of, and the segment that meets it; null when none does. */
export interface KeptClear {
  readonly prefix: Prefix;
  readonly reason: string;
  readonly metBy: Segment | null;
}

export const keptClear = (index: PlanIndex): KeptClear[] =>
  index.plan.site.keepClear.map(({ prefix, reason }) => ({
    prefix,
    reason,
    metBy:
      segmentsInOrder(index).find((s) =>
        [...s.prefixes4, ...s.prefixes6].some((p) => prefixesOverlap(p, prefix)),
      ) ?? null,
  }));
