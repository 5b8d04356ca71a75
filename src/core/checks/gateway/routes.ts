import { containsAddress, formatPrefix, isLinkLocal, prefixesOverlap, prefixOf } from "../../address";
import {
  nameOf,
  prefixesOf,
  type Device,
  type Interface,
  type PlanIndex,
  type Route,
  type Segment,
} from "../../plan";
import { addressesOf } from "../../routing";
import { check, type Found } from "../check";
import { routeText, withoutRoute } from "./route-repair";

interface RouteData {
  readonly device: string;
  readonly route: Route;
  readonly other: string | null;
}

/** The segments that a device has an address in. */
const ownSegments = (index: PlanIndex, device: Device): Segment[] =>
  index.interfacesOf(device.id).flatMap((leg) => index.plan.segment.get(leg.segment ?? "") ?? []);

/** Whether the next hop is in a line's outside network, as far as that is known. */
function isOnLine(index: PlanIndex, leg: Interface, { via }: Route): boolean {
  const line = index.plan.line.get(leg.line ?? "");
  if (line === undefined) return false;
  if (via === line.nextHop4 || via === line.nextHop6) return true;
  const [own, length] =
    typeof via === "number" ? [leg.addresses4[0], line.length4] : [leg.addresses6[0], line.length6];
  const outside = own === undefined || length === null ? null : prefixOf(own, length);
  return outside !== null && containsAddress(outside, via);
}

/** Whether the next hop is a neighbour: in a subnet that a leg is in, on a line, or link-local. */
function isNeighbour(index: PlanIndex, device: Device, route: Route): boolean {
  const { via } = route;
  const family = typeof via === "number" ? 4 : 6;
  return index.interfacesOf(device.id).some((leg) => {
    if (family === 6 && isLinkLocal(via)) return true;
    if (leg.line !== null) return isOnLine(index, leg, route);
    const segment = index.plan.segment.get(leg.segment ?? "");
    return (
      segment !== undefined &&
      prefixesOf(segment, family).some(
        (prefix) =>
          containsAddress(prefix, via) &&
          addressesOf(leg, family).some((own) => containsAddress(prefix, own)),
      )
    );
  });
}

const foundAt = (device: Device, route: Route, other: string | null): Found<RouteData> => ({
  subjects: [{ kind: "device", id: device.id }],
  data: { device: device.id, route, other },
  apart: routeText(route),
});

export const routeNextHopLost = check<RouteData>({
  code: "route-next-hop-lost",
  severity: "stop",
  family: "gateway",
  title: "A route's next hop is no neighbour",
  why: "A router hands packets only to somebody in a network that it is in itself; else it does nothing.",
  reads: ["device", "interface", "segment", "line"],
  find: (index) =>
    [...index.plan.device.values()].flatMap((device) =>
      device.routes.flatMap((route) =>
        isNeighbour(index, device, route) ? [] : [foundAt(device, route, null)],
      ),
    ),
  describe: (data, index) =>
    `${nameOf(index, "device", data.device)} has a route for ${routeText(data.route)}, ` +
    "which lies in no network that it has an address in.",
  repairs: ({ device, route }, index) => [withoutRoute(index, device, route)],
});

export const routeHidesOwn = check<RouteData>({
  code: "route-hides-own",
  severity: "warn",
  family: "gateway",
  title: "A route leads away what lies in a network of its own",
  why: "The longer prefix wins (RFC 1812 section 5.2.4.3): neighbours are looked for behind another router.",
  reads: ["device", "interface", "segment"],
  find: (index) =>
    [...index.plan.device.values()].flatMap((device) =>
      device.routes.flatMap((route) => {
        const hidden = ownSegments(index, device).find((segment) =>
          prefixesOf(segment, route.prefix.family).some(
            (own) => prefixesOverlap(own, route.prefix) && route.prefix.length > own.length,
          ),
        );
        return hidden === undefined ? [] : [foundAt(device, route, hidden.id)];
      }),
    ),
  describe: (data, index) =>
    `The route for ${formatPrefix(data.route.prefix)} on ${nameOf(index, "device", data.device)} leads away ` +
    `a part of ${nameOf(index, "segment", data.other ?? "")}, where it has a leg itself.`,
  repairs: ({ device, route }, index) => [withoutRoute(index, device, route)],
});
