import type { Address } from "../address";
import { joinsAt, type Host, type PlanIndex, type Segment } from "../plan";
import { placeOfHost, placeOfLeg, placeOnAir, portOfHost } from "../places";
import type { Dark } from "./kinds";
import {
  passesOn,
  routersOf,
  servicesOf,
  WaysOut,
  wayStands,
  type Routers,
  type Server,
  type Services,
  type WayOut,
} from "./services";
import { spotOf, together, type Spot, type State } from "./state";

export interface Placed {
  readonly host: Host;
  /** The gear that it hangs on itself; null for what hangs nowhere. */ readonly on: string | null;
  readonly spot: Spot | null;
  readonly segment: Segment | null;
  /** Its own gateway; undefined where its segment's holds. */ readonly entered: Gate | undefined;
}
/** Who somebody's packets go to first: null device for an address that nobody has. */
export interface Gate {
  readonly gateway: string | null;
  readonly gatewaySpot: Spot | null;
  readonly out: WayOut | null;
}

/** The access point that a host joins, or the device whose port it is plugged into. */
function gearOf(index: PlanIndex, host: Host): string | null {
  if (host.attachment.at === "ssid") return joinsAt(index, host)[0]?.id ?? null;
  return index.plan.port.get(portOfHost(index, host) ?? "")?.device ?? null;
}

/** The router that a static host has entered as its gateway. */
function enteredGate(state: State, { manner, gateway4, segment }: Host): Gate | undefined {
  if (manner !== "typed" || gateway4 === null) return undefined;
  const home = segment === null ? undefined : state.index.plan.segment.get(segment);
  const leg =
    home === undefined
      ? undefined
      : state.index.interfacesIn(home.id).find((leg) => leg.addresses4.includes(gateway4));
  if (home === undefined || leg === undefined) return { gateway: null, gatewaySpot: null, out: null };
  return {
    gateway: leg.device,
    gatewaySpot: spotOf(state, placeOfLeg(state.index, leg)),
    out: new WaysOut(state).from(home, leg.device),
  };
}

export const placedHosts = (state: State): Placed[] =>
  [...state.index.plan.host.values()].map((host) => ({
    host,
    on: gearOf(state.index, host),
    spot: spotOf(state, placeOfHost(state.index, host)),
    segment: host.segment === null ? null : (state.index.plan.segment.get(host.segment) ?? null),
    entered: enteredGate(state, host),
  }));

/** What a state holds beside its wiring. */
export interface Served {
  readonly services: ReadonlyMap<string, Services>;
  readonly routers: Routers;
}
export const servedIn = (state: State): Served => ({
  services: servicesOf(state),
  routers: routersOf(state),
});

/** What a host has: the network, its gateway, a DHCP server that hears it, the internet. */
export interface Has {
  readonly on: boolean;
  readonly gateway: boolean;
  readonly address: boolean;
  readonly internet: boolean;
}
/** What somebody has who is cut off. */
export const NO_NETWORK: Has = { on: false, gateway: false, address: false, internet: false };
const ON_ONLY: Has = { ...NO_NETWORK, on: true };

const aliveIn = (dark: Dark) => (device: string | null) => device === null || !dark.devices.has(device);

/** Keeps what a function has answered, by what it was asked. */
function kept<K, V>(answer: (key: K) => V): (key: K) => V {
  const known = new Map<K, V>();
  return (key) => {
    const found = known.get(key);
    if (found !== undefined) return found;
    const value = answer(key);
    known.set(key, value);
    return value;
  };
}

/** A look at hosts in a state with something dark: what each has. What several of them need is asked once. */
export function lookIn(state: State, dark: Dark, { services, routers }: Served): (placed: Placed) => Has {
  const { fabric } = state;
  const alive = aliveIn(dark);
  const gearAt = (spot: Spot) => fabric.devices[spot.device]?.id ?? "";
  const isUp = ({ device, spot, asks }: Server) =>
    alive(device) &&
    alive(spot === null ? null : gearAt(spot)) &&
    (asks === null || passesOn(state, routers, { alive, relay: device ?? "", asks }));
  const serversUp = kept((own: Services) => own.servers.filter(isUp));
  const goesOut = kept((way: WayOut) => wayStands(state, way, dark));
  return ({ host, on, spot: usual, segment, entered }) => {
    const stays = usual !== null && alive(on) && alive(gearAt(usual));
    const spot = stays ? usual : roamed(state, dark, host);
    if (spot === null) return NO_NETWORK;
    const own = segment === null ? undefined : services.get(segment.id);
    if (own === undefined) return ON_ONLY;
    const { gateway, gatewaySpot, out }: Gate = entered ?? own;
    const hasGateway = gateway !== null && alive(gateway) && together(state, spot, gatewaySpot);
    const isServed = () => serversUp(own).some((server) => together(state, spot, server.spot));
    return {
      on: true,
      gateway: hasGateway,
      address: host.manner === "typed" || isServed(),
      internet: hasGateway && out !== null && goesOut(out)(senderOf(host, segment)),
    };
  };
}

/** The address that a router sees of a host: its own, else one of its segment. */
const senderOf = (host: Host, segment: Segment | null): Address | null =>
  host.ipv4 ?? segment?.prefixes4[0]?.network ?? null;

/** Where a wireless host goes when its access point is dark: to another that offers the name. */
function roamed(state: State, { devices }: Dark, host: Host): Spot | null {
  const { index } = state;
  const ssid = host.attachment.at === "ssid" ? index.plan.ssid.get(host.attachment.ssid) : undefined;
  const point =
    ssid === undefined ? undefined : joinsAt(index, host).find((device) => !devices.has(device.id));
  return ssid === undefined || point === undefined
    ? null
    : spotOf(state, placeOnAir(index, ssid, point.id, host.id));
}
