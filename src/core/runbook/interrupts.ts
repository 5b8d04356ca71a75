import { classify } from "../fabric";
import { JOINS, type Nodes } from "../forwarding";
import { placeOfHost, placeOfLeg, type Place } from "../places";
import {
  afterEdits,
  PlanEdits,
  type Change,
  type Derived,
  type Host,
  type Interface,
  type PlanIndex,
  type Port,
} from "../plan";

/** A number that everything has in common that hears one another in a VLAN; null where that is nowhere. */
function domainOf(index: PlanIndex, place: Place | null): number | null {
  if (place === null) return null;
  const { fabric, nodes } = index.derived(JOINS);
  const at = place.at === "inside" ? place : atPort(index, place);
  const device = at === null ? undefined : fabric.deviceNumber.get(at.device);
  const column = at === null ? undefined : nodes.number.get(at.vid);
  if (device === undefined || column === undefined) return null;
  return nodes.sets.rootOf(device * nodes.vids.length + column);
}

function atPort(
  index: PlanIndex,
  place: Exclude<Place, { readonly at: "inside" }>,
): { readonly device: string; readonly vid: number } | null {
  const port = index.plan.port.get(place.port);
  const vid = port?.enabled === true ? classify(port, place.tag) : null;
  return port === undefined || vid === null ? null : { device: port.device, vid };
}

/**
 * Whether a laptop at a port can't be heard by a leg, whatever is entered on it: no VLAN joins them. False
 * where only trying tells: at ports that ask for a sign-in, that have a leg of their own or are on gear without
 * VLANs, and for legs that hang on a cable.
 */
export function isApart(index: PlanIndex, port: Port, leg: Interface): boolean {
  const device = index.plan.device.get(port.device);
  const place = placeOfLeg(index, leg);
  const isPlain =
    device?.bridging !== "vlan" || port.guards.signIn || index.groups("interfacesByPort").has(port.id);
  if (isPlain || place?.at !== "inside") return false;
  const domain = domainOf(index, { at: "cable", port: port.id, tag: null, host: null });
  return domain === null || domain !== domainOf(index, place);
}

/** Whether the leg that a segment's hosts go out by is in a domain, and in which. */
const gatewayDomains = (index: PlanIndex): Map<string, number | null> =>
  new Map(
    [...index.plan.segment.values()].map((segment) => {
      const leg = index.gatewayOf(segment);
      return [segment.id, leg === undefined ? null : domainOf(index, placeOfLeg(index, leg))];
    }),
  );

interface Connected {
  readonly joined: ReadonlySet<string>;
  readonly gateways: ReadonlyMap<string, number | null>;
  readonly nodes: Nodes;
}

function isJoined(index: PlanIndex, gateways: Connected["gateways"], host: Host): boolean {
  const gateway = gateways.get(host.segment ?? "") ?? null;
  return gateway !== null && domainOf(index, placeOfHost(index, host)) === gateway;
}

/** What can change without anybody's place on the air or at another port changing. */
const STAY_PUT: ReadonlySet<Change["kind"]> = new Set([
  "port",
  "interface",
  "segment",
  "vlan",
  "device",
  "deviceVlan",
  "line",
  "lag",
  "rule",
  "scope",
]);

/** Whether a change leaves everybody whose port it is not where they are. */
function staysPut(index: PlanIndex, { kind, id }: Change): boolean {
  if (!STAY_PUT.has(kind)) return false;
  if (kind !== "port") return true;
  // The leg of gear without VLANs hangs on a cable, a router's own on its port: they move with it.
  const device = index.plan.port.get(id)?.device ?? "";
  return !index.groups("interfacesByPort").has(id) && index.plan.device.get(device)?.bridging === "vlan";
}

/**
 * Where what is joined did not change, only those plugged in at changed ports may have another way, and those
 * whose gateway moved.
 */
function followConnected(
  previous: Connected,
  index: PlanIndex,
  changes: readonly Change[],
): Connected | null {
  // A name whose segment has no VLAN goes out by a port of its access point.
  const isOnAir = [...index.plan.ssid.values()].some(({ segment }) => {
    const own = index.plan.segment.get(segment);
    return own === undefined || index.vidOf(own) === null;
  });
  if (isOnAir || index.derived(JOINS).nodes !== previous.nodes) return null;
  if (!changes.every((change) => staysPut(index, change))) return null;
  const gateways = changes.every(({ kind }) => kind === "port") ? previous.gateways : gatewayDomains(index);
  const moved = [...index.plan.segment.keys()].filter(
    (id) => gateways !== previous.gateways && gateways.get(id) !== previous.gateways.get(id),
  );
  const hosts = new Set([
    ...changes.flatMap(({ kind, id }) => (kind === "port" ? index.hostsAt(id) : [])),
    ...moved.flatMap((id) => index.hostsIn(id)),
  ]);
  const turned = [...hosts].filter(
    (host) => isJoined(index, gateways, host) !== previous.joined.has(host.id),
  );
  if (turned.length === 0) return { ...previous, gateways };
  const joined = new Set(previous.joined);
  for (const { id } of turned) if (!joined.delete(id)) joined.add(id);
  return { ...previous, gateways, joined };
}

const CONNECTED: Derived<Connected> = {
  reads: [...JOINS.reads, "segment", "vlan", "ssid", "radio", "line"],
  make: (index) => {
    const gateways = gatewayDomains(index);
    const joined = new Set<string>();
    for (const host of index.plan.host.values()) if (isJoined(index, gateways, host)) joined.add(host.id);
    return { joined, gateways, nodes: index.derived(JOINS).nodes };
  },
  follow: followConnected,
};

/**
 * Hosts that get to the gateway of their segment, as the cables and VLANs have it. Filters, sign-in and
 * addresses are not asked: what a step of setting up interrupts is the way there.
 */
export const connected = (index: PlanIndex): ReadonlySet<string> => index.derived(CONNECTED).joined;

/** A state of the site while a device is off: none of its ports forwards. */
export function withoutDevice(index: PlanIndex, device: string): PlanIndex {
  const edits = new PlanEdits(index.plan);
  for (const { id } of index.portsOf(device)) edits.patch("port", id, { enabled: false });
  return afterEdits(index, edits) ?? index;
}
