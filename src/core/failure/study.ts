import { joinsAt, type Host, type PlanIndex, type Segment } from "../plan";
import { TREE, treeIn, type PlanTree } from "../spanning-tree";
import { carriedVids, joinNodes, JOINS } from "../forwarding";
import { FABRIC, type Fabric } from "../fabric";
import { placeOfHost, placeOfLeg, placeOnAir, portOfHost } from "../places";
import { cutsOf, gearFabric, planWithout, without, type Cuts } from "./fabric-without";
import { darkAfter, type Dark, type Failure } from "./kinds";
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

/** Who loses what when something fails: hosts by id, only those that had it before. */
export interface Loss {
  readonly failures: readonly Failure[];
  /** What it hangs on is dark or cut. */
  readonly cutOff: readonly string[];
  /** Connected, but not to its gateway. */
  readonly noGateway: readonly string[];
  /** Its DHCP server does not hear it: it goes on until its lease ends. */
  readonly noAddress: readonly string[];
  readonly noInternet: readonly string[];
  /** Ports that stood by and take over. */
  readonly takeOver: readonly string[];
}

/** Hosts that are cut off or without their gateway: what failures are ranked by. */
export const lostCount = ({ cutOff, noGateway }: Loss): number => cutOff.length + noGateway.length;

/** Hosts that lose anything at all: only a failure with none of them does no harm. */
export const harmedCount = ({ cutOff, noGateway, noAddress, noInternet }: Loss): number =>
  new Set([...cutOff, ...noGateway, ...noAddress, ...noInternet]).size;

interface Placed {
  readonly host: Host;
  /** The gear that it hangs on itself; null for what hangs nowhere. */ readonly on: string | null;
  readonly spot: Spot | null;
  readonly segment: Segment | null;
  /** Its own gateway; undefined where its segment's holds. */ readonly entered: Gate | undefined;
}
/** Who somebody's packets go to first: null device for an address that nobody has. */
interface Gate {
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
      : state.index.interfacesIn(home.id).find((one) => one.addresses4.includes(gateway4));
  if (home === undefined || leg === undefined) return { gateway: null, gatewaySpot: null, out: null };
  return {
    gateway: leg.device,
    gatewaySpot: spotOf(state, placeOfLeg(state.index, leg)),
    out: new WaysOut(state).from(home, leg.device),
  };
}

const placedHosts = (state: State): Placed[] =>
  [...state.index.plan.host.values()].map((host) => ({
    host,
    on: gearOf(state.index, host),
    spot: spotOf(state, placeOfHost(state.index, host)),
    segment: host.segment === null ? null : (state.index.plan.segment.get(host.segment) ?? null),
    entered: enteredGate(state, host),
  }));

/** What a state holds beside its wiring. */
interface Served {
  readonly services: ReadonlyMap<string, Services>;
  readonly routers: Routers;
}
const servedIn = (state: State): Served => ({ services: servicesOf(state), routers: routersOf(state) });

/** What each host has, as flags: on the network, its gateway, a DHCP server, the internet. */
interface Has {
  readonly on: Uint8Array;
  readonly gateway: Uint8Array;
  readonly address: Uint8Array;
  readonly internet: Uint8Array;
}

const aliveIn = (dark: Dark) => (device: string | null) => device === null || !dark.devices.has(device);

function look(state: State, dark: Dark, hosts: readonly Placed[], { services, routers }: Served): Has {
  const { fabric } = state;
  const has: Has = {
    on: new Uint8Array(hosts.length),
    gateway: new Uint8Array(hosts.length),
    address: new Uint8Array(hosts.length),
    internet: new Uint8Array(hosts.length),
  };
  const alive = aliveIn(dark);
  const isUp = ({ device, spot, asks }: Server) =>
    alive(device) &&
    alive(spot === null ? null : (fabric.devices[spot.device]?.id ?? null)) &&
    (asks === null || passesOn(state, routers, alive, device ?? "", asks));
  const up = new Map([...services].map(([segment, { servers }]) => [segment, servers.filter(isUp)]));
  const standing = new Map<WayOut, boolean>();
  const goesOut = (way: WayOut | null) => {
    if (way === null) return false;
    const known = standing.get(way) ?? wayStands(state, way, dark);
    standing.set(way, known);
    return known;
  };
  for (const [i, { host, on, spot: usual, segment, entered }] of hosts.entries()) {
    const stays = usual !== null && alive(on) && alive(fabric.devices[usual.device]?.id ?? "");
    const spot = stays ? usual : roamed(state, dark, host);
    if (spot === null) continue;
    has.on[i] = 1;
    const own = segment === null ? undefined : services.get(segment.id);
    if (own === undefined) continue;
    const { gateway, gatewaySpot, out }: Gate = entered ?? own;
    if (gateway !== null && alive(gateway) && together(state, spot, gatewaySpot)) {
      has.gateway[i] = 1;
      if (goesOut(out)) has.internet[i] = 1;
    }
    const served = () => up.get(segment?.id ?? "")?.some((server) => together(state, spot, server.spot));
    if (host.manner === "typed" || served() === true) has.address[i] = 1;
  }
  return has;
}

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

const forwarding = ({ named }: PlanTree): Set<string> => {
  const found = new Set<string>();
  for (const { key, tree } of named)
    for (const [id, { role }] of tree.ports)
      if (role !== "alternate" && role !== "backup") found.add(`${key} ${id}`);
  return found;
};

const NOTHING: Dark = { devices: new Set(), cables: new Set(), lines: new Set() };

/** Tries failures on a plan, one after another. What is the same for all of them is worked out once. */
export class FailureStudy {
  readonly #index: PlanIndex;
  readonly #base: State;
  readonly #gear: Fabric;
  readonly #vids: number[];
  readonly #cuts: Cuts;
  readonly #hosts: readonly Placed[];
  readonly #served: Served;
  readonly #had: Has;
  readonly #forwarded: ReadonlySet<string>;

  constructor(index: PlanIndex) {
    const fabric = index.derived(FABRIC);
    const tree = index.derived(TREE);
    this.#index = index;
    this.#base = { index, fabric, tree, nodes: index.derived(JOINS).nodes };
    this.#gear = gearFabric(fabric);
    this.#vids = carriedVids(fabric);
    this.#cuts = cutsOf(index, fabric);
    this.#hosts = placedHosts(this.#base);
    this.#served = servedIn(this.#base);
    this.#had = look(this.#base, NOTHING, this.#hosts, this.#served);
    this.#forwarded = forwarding(tree);
  }

  /** Whether taking something out of the fabric is enough; else the plan is compiled anew without it. */
  #isSimple({ devices, cables }: Dark): boolean {
    return (
      [...devices].every((id) => !this.#cuts.plain.has(id)) &&
      [...cables].every((id) => this.#cuts.alone.has(id) || !this.#cuts.wireOfCable.has(id))
    );
  }

  #stateWithout(dark: Dark): State {
    if (dark.devices.size === 0 && dark.cables.size === 0) return this.#base;
    if (!this.#isSimple(dark)) {
      const index = planWithout(this.#index, dark);
      return {
        index,
        fabric: index.derived(FABRIC),
        tree: index.derived(TREE),
        nodes: index.derived(JOINS).nodes,
      };
    }
    const wires = new Set([...dark.cables].flatMap((id) => this.#cuts.wireOfCable.get(id) ?? []));
    const fabric = without(this.#gear, dark.devices, wires);
    const tree = treeIn(this.#index, fabric);
    return { index: this.#index, fabric, tree, nodes: joinNodes(fabric, tree, this.#vids).nodes };
  }

  /** Who loses what when all of these fail at once. */
  fail(failures: readonly Failure[]): Loss {
    const dark = darkAfter(this.#index, failures);
    const state = this.#stateWithout(dark);
    const anew = state.index !== this.#index;
    const hosts = anew ? placedHosts(state) : this.#hosts;
    const has = look(state, dark, hosts, anew ? servedIn(state) : this.#served);
    const had = this.#had;
    const loss = {
      failures,
      cutOff: [] as string[],
      noGateway: [] as string[],
      noAddress: [] as string[],
      noInternet: [] as string[],
    };
    for (const [i, { host }] of hosts.entries()) {
      if (had.on[i] === 1 && has.on[i] === 0) {
        loss.cutOff.push(host.id);
        continue;
      }
      if (had.gateway[i] === 1 && has.gateway[i] === 0) loss.noGateway.push(host.id);
      if (had.address[i] === 1 && has.address[i] === 0) loss.noAddress.push(host.id);
      if (had.internet[i] === 1 && has.internet[i] === 0) loss.noInternet.push(host.id);
    }
    return {
      ...loss,
      takeOver:
        state === this.#base
          ? []
          : [...forwarding(state.tree)]
              .filter((key) => !this.#forwarded.has(key))
              .flatMap((key) => {
                const id = key.split(" ").at(-1) ?? "";
                return this.#wasStandingBy(key, id) ? [id] : [];
              }),
    };
  }

  /** A port that was in that tree and did not forward; one that only enters it now takes nothing over. */
  #wasStandingBy(key: string, id: string): boolean {
    const tree = this.#base.tree.named.find((one) => key === `${one.key} ${id}`)?.tree;
    return tree?.ports.has(id) === true;
  }
}
