import { waysToServer } from "../dhcp";
import type { PlanIndex, Scope } from "../plan";
import { forwardsPackets } from "../routing";
import { placeOfHost, placeOfLeg } from "../probe/place";
import { spotOf, together, type Spot, type State } from "./state";

/** A server of a segment: where it is heard, on which device (null for an end device), and for a relay the servers it asks. */
export interface Server { readonly device: string | null; readonly spot: Spot | null; readonly asks: Asked | null }
/** Who a relay asks: the server's device or null for an end device, and where it can be met, by segment. */
interface Asked { readonly device: string | null; readonly at: readonly { readonly segment: string; readonly spot: Spot | null }[] }
/** What serves a segment: its gateway, and who gives addresses there. */
export interface Services { readonly gateway: string | null; readonly gatewaySpot: Spot | null; readonly servers: readonly Server[]; readonly mayGoOut: boolean }

/** Routers' legs, by device and by segment: the ways that a relay's question can take. */
export interface Routers { readonly byDevice: ReadonlyMap<string, readonly Met[]>; readonly bySegment: ReadonlyMap<string, readonly Met[]> }
interface Met { readonly device: string; readonly segment: string; readonly spot: Spot | null }

export function routersOf(state: State): Routers {
  const [byDevice, bySegment] = [new Map<string, Met[]>(), new Map<string, Met[]>()];
  for (const leg of state.index.plan.interface.values()) {
    if (leg.segment === null) continue;
    const met: Met = { device: leg.device, segment: leg.segment, spot: spotOf(state, placeOfLeg(state.index, leg)) };
    byDevice.set(leg.device, [...(byDevice.get(leg.device) ?? []), met]);
    bySegment.set(leg.segment, [...(bySegment.get(leg.segment) ?? []), met]);
  }
  return { byDevice, bySegment };
}

function askedOf(state: State, scope: Scope): Asked {
  const { index } = state;
  const host = scope.serverHost === null ? undefined : index.plan.host.get(scope.serverHost);
  if (host !== undefined) return { device: null, at: host.segment === null ? [] : [{ segment: host.segment, spot: spotOf(state, placeOfHost(index, host)) }] };
  const legs = scope.serverDevice === null ? [] : index.interfacesOf(scope.serverDevice);
  return { device: scope.serverDevice, at: legs.flatMap((leg) => (leg.segment === null ? [] : [{ segment: leg.segment, spot: spotOf(state, placeOfLeg(index, leg)) }])) };
}

export function servicesOf(state: State): Map<string, Services> {
  const { index } = state;
  const goesOut = new Set([...index.plan.wall.values()].flatMap((wall) => (wall.to.at === "internet" && wall.from.at === "zone" && wall.door !== "closed" ? [wall.from.zone] : [])));
  return new Map([...index.plan.segment.values()].map((segment): [string, Services] => {
    const leg = index.gatewayOf(segment);
    const servers = index.scopesOf(segment.id).filter((scope) => scope.family === 4).flatMap((scope) => waysToServer(index, scope).map((way): Server => (way.by === "host"
      ? { device: null, spot: spotOf(state, placeOfHost(index, way.host)), asks: null }
      : { device: way.leg.device, spot: spotOf(state, placeOfLeg(index, way.leg)), asks: way.by === "relay" ? askedOf(state, scope) : null })));
    return [segment.id, { gateway: leg?.device ?? null, gatewaySpot: leg === undefined ? null : spotOf(state, placeOfLeg(index, leg)), mayGoOut: goesOut.has(segment.zone), servers }];
  }));
}

/** Whether a relay's question comes to the server: over routers that are up and joined, from segment to segment. */
export function passesOn(state: State, { byDevice, bySegment }: Routers, alive: (device: string | null) => boolean, relay: string, asks: Asked): boolean {
  if (!alive(asks.device)) return false;
  if (asks.device === relay) return true;
  const seen = new Set([relay]);
  for (const device of seen) {
    for (const here of byDevice.get(device) ?? []) {
      if (asks.at.some(({ segment, spot }) => segment === here.segment && together(state, here.spot, spot))) return true;
      for (const next of bySegment.get(here.segment) ?? []) if (alive(next.device) && routes(state.index, next.device) && together(state, here.spot, next.spot)) seen.add(next.device);
    }
  }
  return false;
}

const routes = (index: PlanIndex, device: string): boolean => { const known = index.plan.device.get(device); return known !== undefined && forwardsPackets(known); };
