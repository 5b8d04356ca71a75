import { familyOf, type Address } from "../address";
import {
  isFilter,
  isGateway,
  type Device,
  type Interface,
  type Line,
  type PlanIndex,
  type Segment,
} from "../plan";
import { forwardsPackets, routeFrom, translatesAt, type RouteChoice } from "./routes";

/** A router on a packet's way. */
export interface Hop {
  readonly device: Device;
  /** The leg that the packet leaves by. */
  readonly leg: Interface;
  /** The next router's leg, to which it is handed; null at the end of the way. */
  readonly next: Interface | null;
  /**
   * The segment whose address the packet carries when it comes here; null as long as that is the sender's
   * own.
   */
  readonly source: Segment | null;
}

/** A packet's way over routers, from the sender's gateway to a segment or out by a line. */
export interface Way {
  readonly hops: readonly Hop[];
  /**
   * The segment whose address it carries at its end: a router on the way has translated it (RFC 3022); null
   * for the sender's own.
   */
  readonly source: Segment | null;
  /** The line it leaves the site by; null for a way that ends inside. */
  readonly line: Line | null;
}

/** Where a packet's way ends: in a segment, by a line, at a router that has no way on, or round and round. */
export interface Followed {
  readonly end: "inside" | "line" | "lost" | "circle";
  readonly hops: readonly Hop[];
  /** The router at which it ends; of a circle the one that it comes to for the second time. */
  readonly at: Device;
  /** The segment whose address it carries there; null for the sender's own. */
  readonly source: Segment | null;
  readonly line: Line | null;
}

/** Follows a packet for an address from a router on, over all that pass it on. */
export function followFrom(index: PlanIndex, start: Device, to: Address): Followed {
  const hops: Hop[] = [];
  let [device, source]: [Device, Segment | null] = [start, null];
  const ended = (end: Followed["end"], line: Line | null = null): Followed => ({
    end,
    hops,
    at: device,
    source,
    line,
  });
  for (;;) {
    const here = device.id;
    if (hops.some((hop) => hop.device.id === here)) return ended("circle");
    const route = routeFrom(index, device, to);
    if (route === null) return ended("lost");
    const next = nextLeg(index, route);
    hops.push({ device, leg: route.leg, next, source });
    if (familyOf(to) === 4 && route.line === null && translatesAt(route.leg))
      source = index.plan.segment.get(route.leg.segment ?? "") ?? source;
    if (route.via === null) return ended(route.line === null ? "inside" : "line", route.line);
    const following = next === null ? undefined : index.plan.device.get(next.device);
    if (following === undefined || !forwardsPackets(following)) return ended("lost");
    device = following;
  }
}

/** The leg that a route hands packets to; null at the end of the way, and where nobody has the address. */
const nextLeg = (index: PlanIndex, { via }: RouteChoice): Interface | null =>
  via === null ? null : (index.groups("interfacesByAddress").get(via)?.[0] ?? null);

/**
 * The way of a packet for an address from a router on; null where a router has no route, or hands it to
 * something that sends nothing on, or round in a circle.
 */
export function wayFrom(index: PlanIndex, start: Device, to: Address): Way | null {
  const { end, hops, source, line } = followFrom(index, start, to);
  return end === "inside" || end === "line" ? { hops, source, line } : null;
}

/**
 * Whether every filter on a way believes the sender: answers to its address would leave by the leg that the
 * packet comes in at (RFC 3704). The first router is the sender's own gateway and is not asked; a translated
 * packet carries the address of a neighbour.
 */
export const isBelieved = (index: PlanIndex, { hops }: Way, sender: Address): boolean =>
  hops.every(
    ({ device, source }, i) =>
      i === 0 ||
      source !== null ||
      !isGateway(device) ||
      routeFrom(index, device, sender)?.leg.id === hops[i - 1]?.next?.id,
  );

/**
 * The least that the filters on a way let through, `door` saying it of one of them by the segment whose
 * address it sees; null where nothing filters.
 */
export function leastAlong(
  row: Segment,
  { hops }: Way,
  door: (from: Segment, filter: Device) => number,
): number | null {
  let least: number | null = null;
  for (const { device, source } of hops)
    if (isFilter(device)) least = Math.min(least ?? Infinity, door(source ?? row, device));
  return least;
}
