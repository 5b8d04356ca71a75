import type { Address } from "../address";
import { waysToServer } from "../dhcp";
import type { Device, Interface, PlanIndex, Scope, Segment } from "../plan";
import { endOf, wallBetween } from "../policy";
import {
  addressIn,
  allLinesOf,
  forwardsPackets,
  isBelieved,
  leastAlong,
  lineFor,
  linesOf,
  noticesLoss,
  OUTSIDE,
  pinnedLine,
  sharingLines,
  wayFrom,
  type OwnLine,
  type Way,
} from "../routing";
import { standingDoor } from "../walls";
import { placeOfHost, placeOfLeg } from "../places";
import { spotOf, together, type Spot, type State } from "./state";
import { putInto } from "../kernel";

/**
 * A server of a segment: where it is heard, on which device (null for an end device), and for a relay the
 * servers it asks.
 */
export interface Server {
  readonly device: string | null;
  readonly spot: Spot | null;
  readonly asks: Asked | null;
}
/** Who a relay asks: the server's device or null for an end device, and where it can be met, by segment. */
interface Asked {
  readonly device: string | null;
  readonly at: readonly { readonly segment: string; readonly spot: Spot | null }[];
}
/** What serves a segment: its gateway, and who gives addresses there. */
export interface Services {
  readonly gateway: string | null;
  readonly gatewaySpot: Spot | null;
  readonly servers: readonly Server[];
  /** The way to the internet from its gateway. */ readonly out: WayOut | null;
}

/** Routers' legs, by device and by segment: the ways that a relay's question can take. */
export interface Routers {
  readonly byDevice: ReadonlyMap<string, readonly Met[]>;
  readonly bySegment: ReadonlyMap<string, readonly Met[]>;
}
interface Met {
  readonly device: string;
  readonly segment: string;
  readonly spot: Spot | null;
}

export function routersOf(state: State): Routers {
  const [byDevice, bySegment] = [new Map<string, Met[]>(), new Map<string, Met[]>()];
  for (const leg of state.index.plan.interface.values()) {
    if (leg.segment === null) continue;
    const met: Met = {
      device: leg.device,
      segment: leg.segment,
      spot: spotOf(state, placeOfLeg(state.index, leg)),
    };
    putInto(byDevice, leg.device, met);
    putInto(bySegment, leg.segment, met);
  }
  return { byDevice, bySegment };
}

function askedOf(state: State, scope: Scope): Asked {
  const { index } = state;
  const host = scope.serverHost === null ? undefined : index.plan.host.get(scope.serverHost);
  if (host !== undefined)
    return {
      device: null,
      at:
        host.segment === null
          ? []
          : [{ segment: host.segment, spot: spotOf(state, placeOfHost(index, host)) }],
    };
  const legs = scope.serverDevice === null ? [] : index.interfacesOf(scope.serverDevice);
  return {
    device: scope.serverDevice,
    at: legs.flatMap((leg) =>
      leg.segment === null ? [] : [{ segment: leg.segment, spot: spotOf(state, placeOfLeg(index, leg)) }],
    ),
  };
}

export function servicesOf(state: State): Map<string, Services> {
  const { index } = state;
  const out = new WaysOut(state);
  return new Map(
    [...index.plan.segment.values()].map((segment): [string, Services] => {
      const leg = index.gatewayOf(segment);
      const servers = index
        .scopesOf(segment.id)
        .filter((scope) => scope.family === 4)
        .flatMap((scope) =>
          waysToServer(index, scope).map((way): Server =>
            way.by === "host"
              ? { device: null, spot: spotOf(state, placeOfHost(index, way.host)), asks: null }
              : {
                  device: way.leg.device,
                  spot: spotOf(state, placeOfLeg(index, way.leg)),
                  asks: way.by === "relay" ? askedOf(state, scope) : null,
                },
          ),
        );
      return [
        segment.id,
        {
          gateway: leg?.device ?? null,
          gatewaySpot: leg === undefined ? null : spotOf(state, placeOfLeg(index, leg)),
          servers,
          out: leg === undefined ? null : out.from(segment, leg.device),
        },
      ];
    }),
  );
}

/** A way out of the site with the wires that lead from each router on it to the next. */
export interface WayOut {
  readonly way: Way;
  readonly joints: readonly (readonly [from: Spot | null, to: Spot | null])[];
}

/** The ways out from each router, asked for once. */
export class WaysOut {
  readonly #state: State;
  /** By router, before anybody's doors are asked. */
  readonly #routers = new Map<string, WayOut | null>();

  constructor(state: State) {
    this.#state = state;
  }

  /**
   * The way from a router to the internet for who is in a segment; null where no line is reached, or a wall
   * on the way is closed to them.
   */
  from(segment: Segment, router: string): WayOut | null {
    const { index } = this.#state;
    const out = this.#ofRouter(router);
    const leg = index.interfacesIn(segment.id).find((leg) => leg.device === router);
    const address = leg === undefined ? null : addressIn(segment, leg, 4);
    if (out === null || address === null || !isBelieved(index, out.way, address)) return null;
    return leastAlong(segment, out.way, (from, filter) => Number(opensOut(index, from, filter))) === 0
      ? null
      : out;
  }

  #ofRouter(router: string): WayOut | null {
    const known = this.#routers.get(router);
    if (known !== undefined) return known;
    const { index } = this.#state;
    const device = index.plan.device.get(router);
    const way = device === undefined ? null : wayFrom(index, device, OUTSIDE[4]);
    const spot = (leg: Interface) => spotOf(this.#state, placeOfLeg(index, leg));
    const found =
      way?.line === null || way === null
        ? null
        : {
            way,
            joints: way.hops.flatMap(({ leg, next }) =>
              next === null ? [] : [[spot(leg), spot(next)] as const],
            ),
          };
    this.#routers.set(router, found);
    return found;
  }
}

const opensOut = (index: PlanIndex, segment: Segment, filter: Device): boolean => {
  const door =
    filter.filter.list === "found"
      ? standingDoor(index, filter.id, segment.id, "internet")
      : wallBetween(index, endOf(segment), { at: "internet" })?.door;
  return door === "open" || door === "services";
};

/**
 * Whether what somebody sends still leaves by the lines of a router: by the one that the router takes it to be
 * up, which it goes on doing with a line whose loss it does not notice. Of lines that share all have to carry.
 */
function linesCarry(
  index: PlanIndex,
  device: string,
  dark: ReadonlySet<string>,
): (sender: Address | null) => boolean {
  const all = allLinesOf(index, device);
  const working = new Set(linesOf(index, device).map(({ line }) => line.id));
  const isUp = ({ line }: OwnLine) => working.has(line.id) && !(dark.has(line.id) && noticesLoss(line));
  const shared = sharingLines(all.filter(isUp));
  const usual = shared.length > 0 && shared.every(({ line }) => !dark.has(line.id));
  const hasPins = all.some(({ line }) => line.pins.length > 0);
  return (sender) => {
    if (!hasPins) return usual;
    const asks = sender === null ? null : { src: sender, service: null };
    if (pinnedLine(index, all, asks) === null) return usual;
    const out = lineFor(index, all, asks, isUp);
    return out !== null && !dark.has(out.line.id);
  };
}

/**
 * Whether a way out still stands for a sender: its routers up, each joined to the next over gear that is, and
 * a line at its end that carries. Null for a sender that nothing is pinned for.
 */
export function wayStands(
  state: State,
  { way, joints }: WayOut,
  { devices, lines }: { readonly devices: ReadonlySet<string>; readonly lines: ReadonlySet<string> },
): (sender: Address | null) => boolean {
  const { index, fabric } = state;
  const last = way.hops.at(-1);
  if (last === undefined) return () => false;
  const isUp = (spot: Spot | null) => spot !== null && !devices.has(fabric.devices[spot.device]?.id ?? "");
  const stands =
    way.hops.every(({ device }) => !devices.has(device.id)) &&
    joints.every(([from, to]) => isUp(from) && isUp(to) && together(state, from, to));
  return stands ? linesCarry(index, last.device.id, lines) : () => false;
}

/**
 * Whether a relay's question comes to the server: over routers that are up and joined, from segment to
 * segment.
 */
export function passesOn(
  state: State,
  { byDevice, bySegment }: Routers,
  {
    alive,
    relay,
    asks,
  }: { readonly alive: (device: string | null) => boolean; readonly relay: string; readonly asks: Asked },
): boolean {
  if (!alive(asks.device)) return false;
  if (asks.device === relay) return true;
  const seen = new Set([relay]);
  for (const device of seen) {
    for (const here of byDevice.get(device) ?? []) {
      if (asks.at.some(({ segment, spot }) => segment === here.segment && together(state, here.spot, spot)))
        return true;
      for (const next of bySegment.get(here.segment) ?? [])
        if (alive(next.device) && routes(state.index, next.device) && together(state, here.spot, next.spot))
          seen.add(next.device);
    }
  }
  return false;
}

const routes = (index: PlanIndex, device: string): boolean => {
  const known = index.plan.device.get(device);
  return known !== undefined && forwardsPackets(known);
};
