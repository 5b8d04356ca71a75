import {
  addressCount,
  containsAddress,
  offsetIn,
  rangeCount,
  usableRange,
  type Address,
  type Ipv4,
  type Prefix4,
} from "../address";
import { offeredRanges } from "../dhcp";
import type { PlanIndex, Segment } from "../plan";
import { freeRuns, staticBlockIn } from "../planners";
import { rowScope } from "./segment-sheet";

/** Offsets from the subnet's first address, both ends counted. */
export interface Stretch {
  readonly first: number;
  readonly last: number;
  readonly count: number;
}
export interface Pin {
  readonly offset: number;
  readonly manner: "typed" | "reserved" | "gear";
  readonly id: string;
  readonly name: string;
}

/** A subnet laid out along its addresses: what a ruler draws. */
export interface Ruler {
  readonly prefix: Prefix4;
  readonly size: number;
  readonly usable: Stretch;
  readonly gateways: readonly number[];
  readonly staticBlock: Stretch | null;
  readonly pools: readonly Stretch[];
  readonly pins: readonly Pin[];
  readonly free: readonly Stretch[];
  /** The crowded end: from 0 to a little behind the last thing that is planned. */
  readonly crowded: Stretch;
  /** The shorter crowded end: from 0 to a little behind the last fixed address before the pool. */
  readonly fixedEnd: Stretch;
}

const stretch = (first: number, last: number): Stretch => ({ first, last, count: last - first + 1 });

function pinsOf(index: PlanIndex, segment: Segment, prefix: Prefix4): Pin[] {
  const at = (address: Ipv4 | null | undefined): number | null =>
    address !== null && address !== undefined && containsAddress(prefix, address)
      ? offsetIn(prefix, address)
      : null;
  const hosts = index.hostsIn(segment.id).flatMap((host): Pin[] => {
    const offset = at(host.ipv4);
    return offset === null || host.manner === "dynamic"
      ? []
      : [{ offset, manner: host.manner, id: host.id, name: host.name }];
  });
  const gear = index.interfacesIn(segment.id).flatMap((leg): Pin[] => {
    const offset = leg.id === segment.gatewayInterface ? null : at(leg.addresses4[0]);
    return offset === null
      ? []
      : [{ offset, manner: "gear", id: leg.id, name: index.plan.device.get(leg.device)?.name ?? "" }];
  });
  return [...hosts, ...gear].sort((a, b) => a.offset - b.offset);
}

/** The ruler of a segment's first IPv4 subnet; null when it has none. */
export function rulerOf(index: PlanIndex, segment: Segment): Ruler | null {
  const prefix = segment.prefixes4[0];
  if (prefix === undefined) return null;
  const size = Number(addressCount(prefix));
  const offset = (address: Address): number => Number(BigInt(address) - BigInt(prefix.network));
  const inside = (first: number, last: number) =>
    last < 0 || first >= size ? [] : [stretch(Math.max(0, first), Math.min(size - 1, last))];
  const usableAddresses = usableRange(prefix);
  const usable = stretch(offset(usableAddresses.first), offset(usableAddresses.last));
  const gateways = (index.gatewayOf(segment)?.addresses4 ?? [])
    .filter((a) => containsAddress(prefix, a))
    .map((a) => offsetIn(prefix, a));
  const scope = rowScope(index, segment);
  const pools =
    scope === undefined
      ? []
      : offeredRanges(scope).flatMap((range) => inside(offset(range.first), offset(range.last)));
  const pins = pinsOf(index, segment, prefix);
  const staticBlock = staticBlockOf(index, prefix, offset, pools);
  const firstPool = Math.min(size, ...pools.map((p) => p.first));
  const lastFixed = Math.max(
    0,
    ...[...gateways, ...pins.map((p) => p.offset)].filter((offset) => offset < firstPool),
    staticBlock?.last ?? 0,
  );
  const last = Math.max(
    0,
    ...gateways,
    ...pools.map((p) => p.last),
    ...pins.map((p) => p.offset),
    staticBlock?.last ?? 0,
  );
  return {
    prefix,
    size,
    usable,
    gateways,
    staticBlock,
    pools,
    pins,
    free: freeRuns(index, segment).map((run) => ({
      ...stretch(offset(run.first), offset(run.last)),
      count: Number(rangeCount(run)),
    })),
    crowded: stretch(0, Math.min(size - 1, last + Math.max(2, Math.ceil(last / 12)))),
    fixedEnd: stretch(0, Math.min(size - 1, lastFixed + 3)),
  };
}

/** The block kept for static devices by the site's convention, as far as no pool lies in it. */
function staticBlockOf(
  index: PlanIndex,
  prefix: Prefix4,
  offset: (address: Address) => number,
  pools: readonly Stretch[],
): Stretch | null {
  const kept = staticBlockIn(index.plan.site.conventions, prefix);
  if (kept === null) return null;
  const [first, last] = [offset(kept.first), offset(kept.last)];
  if (index.plan.site.conventions.staticAt === "end") {
    const lastPool = Math.max(-1, ...pools.filter((pool) => pool.first <= last).map((pool) => pool.last));
    return last <= lastPool ? null : stretch(Math.max(first, lastPool + 1), last);
  }
  const nextPool = Math.min(
    Infinity,
    ...pools.filter((pool) => pool.last >= first).map((pool) => pool.first),
  );
  return nextPool <= first ? null : stretch(first, Math.min(last, nextPool - 1));
}
