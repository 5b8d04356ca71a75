import { madeMac, type Mac } from "../address";
import { joinsAt, nameOf, type Host, type Interface, type PlanIndex, type Ssid } from "../plan";
import { FABRIC, ownPort, type Fabric, type Tag } from "../fabric";
import type { Flood, Source } from "../forwarding";

/** Where something hangs on the network. */
export type Place =
  /** An end device on a port's cable, with the tag it sends and takes. */
  | { readonly at: "cable"; readonly port: string; readonly tag: Tag; readonly host: string | null }
  /**
   * Inside a device, in one of its VLANs: its own leg, a wireless station, or one that sign-in put there
   * (`port` is where it is plugged in).
   */
  | {
      readonly at: "inside";
      readonly device: string;
      readonly vid: number;
      readonly port: string | null;
      readonly ssid: string | null;
    }
  /** A device's routed port. */
  | { readonly at: "routed"; readonly port: string; readonly tag: Tag };

/** Someone who sends or answers. */
export interface Party {
  readonly name: string;
  readonly mac: Mac;
  readonly place: Place;
  /** The gear it belongs to; null for an end device. */
  readonly leg: Interface | null;
  readonly host: Host | null;
}

export function sourceOf(place: Place): Source {
  switch (place.at) {
    case "cable":
      return { at: "port", port: place.port, tag: place.tag, host: place.host };
    case "inside":
      return { at: "device", device: place.device, vid: place.vid, port: place.port };
    case "routed":
      return { at: "port", port: place.port, tag: place.tag, host: null };
  }
}

/** How a broadcast came to someone: the arrival inside a device, or -1, and the frame that brought it. */
export interface Hearing {
  readonly arrival: number;
  readonly emission: number;
}

/** Whether a broadcast reaches a place, and how; null when it does not. */
export function hears(fabric: Fabric, flood: Flood, place: Place): Hearing | null {
  if (place.at === "inside") {
    const device = fabric.deviceNumber.get(place.device);
    const arrival = flood.arrivals.findIndex(
      (arrival) => arrival.device === device && arrival.vid === place.vid,
    );
    return arrival < 0 ? null : { arrival, emission: flood.arrivals[arrival]?.emission ?? -1 };
  }
  const number = fabric.portNumber.get(place.port);
  if (place.at === "routed") {
    const found = flood.routed.find((routed) => routed.port === number && routed.tag === place.tag);
    return found === undefined ? null : { arrival: -1, emission: found.emission };
  }
  const wire = number === undefined ? -1 : (fabric.wireOf[number] ?? -1);
  const emission = wire < 0 ? -1 : flood.firstOn(wire, place.tag);
  return emission < 0 ? null : { arrival: -1, emission };
}

/** The port that a host hangs on, itself or through the host it is behind. */
export function portOfHost(index: PlanIndex, host: Host): string | null {
  let at: Host | undefined = host;
  for (let i = 0; at !== undefined && i < 8; i += 1) {
    if (at.attachment.at === "port") return at.attachment.port;
    at = at.attachment.at === "behind" ? index.plan.host.get(at.attachment.host) : undefined;
  }
  return null;
}

/** The port by which a device takes part in a wire; null where it has none. */
function portInto(index: PlanIndex, id: string): string | null {
  const device = index.plan.device.get(id);
  return device === undefined ? null : ownPort(index, device);
}

/** The port of a device's own leg in a segment, as far as it works; null where it has none of its own. */
const legPort = (index: PlanIndex, device: string, segment: string): string | null =>
  index
    .interfacesIn(segment)
    .find((leg) => leg.device === device && index.plan.port.get(leg.port ?? "")?.enabled === true)?.port ??
  null;

/**
 * Where a station hangs that joins a wireless name at an access point: in the name's VLAN, or, where its
 * segment is on none, on the wire of what radiates it, to which its frames go out untagged: that of a router's
 * own leg in the segment, else of the first cable. Null where that wire is missing.
 */
export function placeOnAir(index: PlanIndex, ssid: Ssid, point: string, host: string | null): Place | null {
  const segment = index.plan.segment.get(ssid.segment);
  const vid = segment === undefined ? null : index.vidOf(segment);
  if (vid !== null) return { at: "inside", device: point, vid, port: null, ssid: ssid.id };
  const port = segment === undefined ? null : (legPort(index, point, segment.id) ?? portInto(index, point));
  return port === null ? null : { at: "cable", port, tag: null, host };
}

/**
 * Where a host of the register hangs; null when it is not plugged in, or its wireless name is offered
 * nowhere.
 */
export function placeOfHost(index: PlanIndex, host: Host): Place | null {
  if (host.attachment.at === "ssid") {
    const ssid = index.plan.ssid.get(host.attachment.ssid);
    const [point] = joinsAt(index, host);
    return ssid === undefined || point === undefined ? null : placeOnAir(index, ssid, point.id, host.id);
  }
  const port = portOfHost(index, host);
  return port === null ? null : { at: "cable", port, tag: host.tag, host: host.id };
}

/**
 * Where a device's leg hangs. One without a port of its own is inside, in its VLAN; where there is none, on the
 * wire of the ports that gear without VLANs joins. Null where it is neither.
 */
export function placeOfLeg(index: PlanIndex, leg: Interface): Place | null {
  if (leg.port !== null)
    return {
      at: "routed",
      port: leg.port,
      tag: leg.line === null ? null : (index.plan.line.get(leg.line)?.vlanTag ?? null),
    };
  const segment = leg.segment === null ? undefined : index.plan.segment.get(leg.segment);
  const vid = segment === undefined ? null : index.vidOf(segment);
  if (vid !== null) return { at: "inside", device: leg.device, vid, port: null, ssid: null };
  const isPlain = index.plan.device.get(leg.device)?.bridging === "plain";
  const port = isPlain && segment !== undefined ? portInto(index, leg.device) : null;
  return port === null ? null : { at: "cable", port, tag: null, host: null };
}

/** Made-up addresses by who has them: they are asked for again and again. */
const MADE = new WeakMap<object, Mac>();

/** The MAC address of a host or leg; a made-up one, always the same, where none is known. */
export function macOf(entity: { readonly id: string; readonly mac: Mac | null }): Mac {
  if (entity.mac !== null) return entity.mac;
  const known = MADE.get(entity) ?? madeMac(entity.id);
  MADE.set(entity, known);
  return known;
}

export function partyOfHost(index: PlanIndex, host: Host): Party | null {
  const place = placeOfHost(index, host);
  return place === null ? null : { name: host.name, mac: macOf(host), place, leg: null, host };
}

export function partyOfLeg(index: PlanIndex, leg: Interface): Party | null {
  const place = placeOfLeg(index, leg);
  return place === null
    ? null
    : { name: nameOf(index, "device", leg.device), mac: macOf(leg), place, leg, host: null };
}

/** The device that a place is at, for following cables to it. */
export function deviceAt(index: PlanIndex, place: Place): string {
  return place.at === "inside" ? place.device : (index.plan.port.get(place.port)?.device ?? "");
}

/**
 * The first device that took a frame in as part of a VLAN, and the port it came in at; null when nobody did.
 */
export function entryOf(
  index: PlanIndex,
  flood: Flood,
): { readonly device: string; readonly port: number; readonly vid: number } | null {
  const [first] = flood.arrivals;
  const device = first === undefined ? undefined : index.derived(FABRIC).devices[first.device];
  return first === undefined || device === undefined
    ? null
    : { device: device.id, port: first.port, vid: first.vid };
}
