import { containsAddress, type AddressRange, type Ipv4, type Prefix4 } from "../address";
import { byNaturalText, grouped, must } from "../kernel";
import { freeRuns } from "../planners";
import { modeOf } from "../fabric";
import { pageFrom, type Laptop } from "../probe";
import {
  afterEdits,
  PlanEdits,
  type Derived,
  type Interface,
  type PlanIndex,
  type Port,
  type Segment,
} from "../plan";
import { PORT_SETTINGS, setUpDevices } from "./found";
import { isApart } from "./interrupts";

/** How many ports of one device the laptop is tried at. */
const MOST_SPOTS = 4;

/**
 * The port that the laptop is plugged into first is the one to keep: the rescue port, then one that nothing is
 * planned at, then one whose device has to be unplugged for the time.
 */
function rank(index: PlanIndex, { id, device, pvid, enabled }: Port): number {
  const domain = index.plan.device.get(device)?.domain ?? null;
  const vlan = pvid === null ? undefined : index.vlanOf(domain, pvid);
  if (vlan?.purpose === "wayBack") return 0;
  if (index.hostsAt(id).length > 0) return 3;
  return enabled ? 1 : 2;
}

/** Whether a port becomes one of a network in which its device has an address of its own. */
function isAtHome(index: PlanIndex, { device, pvid }: Port): boolean {
  const domain = index.plan.device.get(device)?.domain ?? null;
  const segment = pvid === null ? undefined : index.segmentOn(domain, pvid);
  return segment !== undefined && index.interfacesOf(device).some((leg) => leg.segment === segment.id);
}

/**
 * Ports that a laptop can be plugged into: of each device one of every kind (those that are found alike and
 * become alike), none that a cable to other gear is in.
 */
function spotsOf(found: PlanIndex, index: PlanIndex): string[] {
  return setUpDevices(index).flatMap(({ id }) => {
    const kinds = new Map<string, Port>();
    const free = index
      .portsOf(id)
      .filter((port) => index.linkAt(port.id) === undefined && port.medium !== "fibre");
    for (const port of [...free].sort((a, b) => a.position - b.position)) {
      const was = found.plan.port.get(port.id) ?? port;
      const key = JSON.stringify([
        rank(index, port),
        ...[was, port].map((port) => PORT_SETTINGS.map((setting) => port[setting])),
      ]);
      kinds.set(key, port);
    }
    const sorted = [...kinds.values()].sort(
      (a, b) => rank(index, a) - rank(index, b) || byNaturalText(a.id, b.id),
    );
    const home = sorted.find((port) => isAtHome(index, port));
    const tried = sorted.slice(0, MOST_SPOTS);
    return [...new Set(home === undefined ? tried : [...tried, home])].map((port) => port.id);
  });
}

/** By segment, the addresses that nobody has; found when first asked for. */
const FREE: Derived<Map<string, readonly AddressRange[]>> = {
  reads: ["segment", "host", "interface", "scope"],
  make: () => new Map(),
};

/** The highest address of a subnet that nobody has and no server gives; null where there is none. */
function freeFor(index: PlanIndex, segment: Segment, subnet: Prefix4): Ipv4 | null {
  const known = index.derived(FREE);
  const runs = known.get(segment.id) ?? freeRuns(index, segment);
  known.set(segment.id, runs);
  const run = runs.findLast(({ last }) => containsAddress(subnet, last));
  return run === undefined || typeof run.last === "bigint" ? null : run.last;
}

/** Where the laptop can be plugged in. */
export interface Spots {
  /** Free ports of all gear. */
  readonly free: readonly string[];
  /** By device, those of them that are its own: where one goes first to get to it. */
  readonly own: ReadonlyMap<string, readonly string[]>;
  /** By device, its own ports whose cable would have to be pulled for it. */
  readonly cabled: ReadonlyMap<string, readonly string[]>;
  /** By device, those that a cable joins it with. */
  readonly neighbours: ReadonlyMap<string, ReadonlySet<string>>;
}

/** With more free ports than that, those of a device itself and of its neighbours are tried, and no others. */
const MOST_FREE = 60;

/**
 * Ports at which a device may be reached, each once: where the laptop is, then by what it costs to go there.
 */
export const spotsFor = (
  { free, own, cabled, neighbours }: Spots,
  device: string,
  at: string | null,
): Set<string> =>
  new Set([
    ...(at === null ? [] : [at]),
    ...(own.get(device) ?? []),
    ...(free.length <= MOST_FREE
      ? free
      : [...(neighbours.get(device) ?? [])].flatMap((id) => own.get(id) ?? [])),
    ...(cabled.get(device) ?? []),
  ]);

/** By device, the devices at the other ends of its cables. */
function neighboursIn(index: PlanIndex): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>();
  for (const { a, b } of index.plan.link.values()) {
    const [from, to] = [a, b].map((port) => index.plan.port.get(port)?.device ?? "");
    for (const [one, other] of [
      [from, to],
      [to, from],
    ]) {
      const known = found.get(one ?? "") ?? new Set();
      found.set(one ?? "", known.add(other ?? ""));
    }
  }
  return found;
}

/** Whether a cable has to be pulled for the laptop to be at a port. */
export const isCabled = ({ cabled }: Spots, port: string): boolean =>
  [...cabled.values()].some((ports) => ports.includes(port));

/** Where the laptop can be plugged in on the way from what is found to the plan. */
export function spotsAlong(found: PlanIndex, index: PlanIndex): Spots {
  const free = spotsOf(found, index);
  return {
    free,
    own: grouped(free, (port) => index.plan.port.get(port)?.device ?? ""),
    cabled: new Map(setUpDevices(index).map(({ id }) => [id, cabledSpots(index, id)])),
    neighbours: neighboursIn(index),
  };
}

/** How many cabled ports of one device the laptop is tried at. */
const MOST_PULLED = 3;

/** Ports of a device whose cable can be pulled for the laptop's: the last way before a console cable. */
const cabledSpots = (index: PlanIndex, device: string): string[] =>
  index
    .portsOf(device)
    .filter(({ id, medium }) => medium !== "fibre" && index.linkAt(id) !== undefined)
    .slice(0, MOST_PULLED)
    .map(({ id }) => id);

/** The site while the laptop is in place of a port's cable; as it is where no cable is there. */
function withoutCable(index: PlanIndex, port: string): PlanIndex {
  const link = index.linkAt(port);
  if (link === undefined) return index;
  const edits = new PlanEdits(index.plan);
  edits.remove("link", link.id);
  return must(afterEdits(index, edits), "a cable can be pulled");
}

/** What is entered on the laptop to be a neighbour of a leg; null where there is no address left. */
function beside(index: PlanIndex, leg: Interface, port: string): { laptop: Laptop; to: Ipv4 } | null {
  const segment = index.plan.segment.get(leg.segment ?? "");
  const [to] = leg.addresses4;
  const subnet =
    to === undefined ? undefined : segment?.prefixes4.find((prefix) => containsAddress(prefix, to));
  const address = segment === undefined || subnet === undefined ? null : freeFor(index, segment, subnet);
  return to === undefined || subnet === undefined || address === null
    ? null
    : { laptop: { port, address, length: subnet.length, gateway: null }, to };
}

/** The gateway of the segment that a port is in, as far as something at the port can be heard by it. */
function gatewayAt(
  index: PlanIndex,
  port: Port,
): { readonly segment: Segment; readonly gateway: Ipv4; readonly subnet: Prefix4 } | null {
  const device = index.plan.device.get(port.device);
  const segment =
    port.pvid === null || device === undefined ? undefined : index.segmentOn(device.domain, port.pvid);
  const leg = segment === undefined ? undefined : index.gatewayOf(segment);
  const gateway = leg?.addresses4[0];
  const subnet =
    gateway === undefined
      ? undefined
      : segment?.prefixes4.find((prefix4) => containsAddress(prefix4, gateway));
  if (segment === undefined || leg === undefined || gateway === undefined || subnet === undefined)
    return null;
  return isApart(index, port, leg) ? null : { segment, gateway, subnet };
}

/** What is entered on the laptop to be one of the segment that its port is in, with that one's gateway. */
function asLocal(index: PlanIndex, port: Port): Laptop | null {
  const local = gatewayAt(index, port);
  const address = local === null ? null : freeFor(index, local.segment, local.subnet);
  return local === null || address === null
    ? null
    : { port: port.id, address, length: local.subnet.length, gateway: local.gateway };
}

/** The legs at which a device's pages may be opened, the managed one first. */
const legsOf = (index: PlanIndex, device: string): Interface[] =>
  index
    .interfacesOf(device)
    .filter(({ line, addresses4 }) => line === null && addresses4.length > 0)
    .sort((a, b) => Number(isManaged(index, b)) - Number(isManaged(index, a)) || byNaturalText(a.id, b.id));

/** How a laptop gets to a device: what is entered on it, and the address that it opens. */
export interface Way {
  readonly laptop: Laptop;
  readonly to: Ipv4;
}

/**
 * The way from a laptop at a port to the pages of a device; null where there is none. Where a cable is in the
 * port, the laptop takes its place.
 */
export function wayFrom(cabled: PlanIndex, port: string, device: string): Way | null {
  const spot = cabled.plan.port.get(port);
  if (spot === undefined || modeOf(spot) === "off") return null;
  const legs = legsOf(cabled, device);
  // What is apart with the cable in is apart without it, too.
  const near = legs.filter((leg) => !isApart(cabled, spot, leg));
  const local = asLocal(cabled, spot);
  if (near.length === 0 && local === null) return null;
  const index = withoutCable(cabled, port);
  for (const leg of near) {
    const way = beside(index, leg, port);
    if (way !== null && pageFrom(index, way.laptop, { device, address: way.to }) === null) return way;
  }
  for (const leg of local === null ? [] : legs) {
    const [to] = leg.addresses4;
    if (local !== null && to !== undefined && pageFrom(index, local, { device, address: to }) === null)
      return { laptop: local, to };
  }
  return null;
}

/** Why a laptop at a port does not open the pages of a device, where it would be its neighbour. */
export function whyNot(cabled: PlanIndex, port: string, device: string): string {
  const index = withoutCable(cabled, port);
  const spot = index.plan.port.get(port);
  if (spot === undefined || modeOf(spot) === "off") return "the port is off.";
  const [leg] = legsOf(index, device);
  if (leg === undefined) return "it has no address.";
  const near = beside(index, leg, port);
  if (near === null) return "no address beside its own is free.";
  return pageFrom(index, near.laptop, { device, address: near.to })?.sentence ?? "";
}

const isManaged = (index: PlanIndex, { segment }: Interface): boolean =>
  index.plan.segment.get(segment ?? "")?.management === true;
