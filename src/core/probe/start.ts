import type { Subject } from "../checks";
import { offers, pointsOf, type Host, type PlanIndex, type Port, type Segment, type Vid } from "../plan";
import { setAccess } from "../planners/paint-ports";
import { classify, dropReason, FABRIC, flood, type Flood, type Tag } from "../switching";
import type { Journey } from "./step";
import { tagText } from "./hops";

/** Where something is plugged in or joins. */
export type ProbeFrom =
  | { readonly at: "port"; readonly port: string; readonly tag: Vid | null }
  | { readonly at: "ssid"; readonly ssid: string; readonly device: string }
  | { readonly at: "host"; readonly host: string };

/** How far the frame got at the very first device. */
export interface Started {
  readonly result: Flood;
  readonly device: string;
  readonly port: Port | undefined;
  readonly tag: Tag;
  readonly vid: number;
  readonly segment: Segment;
  readonly host: Host | undefined;
}

const AP_NEEDED = "an access point that offers it";

/** The port a host hangs on, itself or through the host it is behind. */
function portOfHost(index: PlanIndex, host: Host): string | null {
  let at: Host | undefined = host;
  for (let i = 0; at !== undefined && i < 8; i += 1) {
    if (at.attachment.at === "port") return at.attachment.port;
    at = at.attachment.at === "behind" ? index.plan.host.get(at.attachment.host) : undefined;
  }
  return null;
}

/** Sends the first frame and passes (or stops at) the port it comes in at. Null after a stop. */
export function start(index: PlanIndex, journey: Journey, from: ProbeFrom): Started | null {
  if (from.at === "ssid") return startWireless(index, journey, from.ssid, from.device, undefined);
  if (from.at === "port") return startAtPort(index, journey, from.port, from.tag, undefined);
  const host = index.plan.host.get(from.host);
  if (host === undefined) return null;
  if (host.attachment.at === "ssid") {
    const ssid = index.plan.ssid.get(host.attachment.ssid);
    return startWireless(index, journey, host.attachment.ssid, (ssid === undefined ? undefined : pointsOf(index, ssid, host.place)[0]?.id) ?? "", host);
  }
  const port = portOfHost(index, host);
  if (port !== null) return startAtPort(index, journey, port, host.tag, host);
  journey.stop(
    { title: host.name, place: "not plugged in", says: "is not plugged in anywhere", why: "The plan gives it no port and no wireless name.", tag: undefined, subjects: [{ kind: "host", id: host.id }], device: null, ports: [] },
    { sentence: `${host.name} is not plugged in anywhere. Give it a port or a wireless name.`, subjects: [{ kind: "host", id: host.id }], repairs: [] },
  );
  return null;
}

function startWireless(index: PlanIndex, journey: Journey, ssidId: string, deviceId: string, host: Host | undefined): Started | null {
  const ssid = index.plan.ssid.get(ssidId);
  const device = index.plan.device.get(deviceId);
  const segment = ssid === undefined ? undefined : index.plan.segment.get(ssid.segment);
  const vid = segment === undefined ? null : index.vidOf(segment);
  const who = host?.name ?? "Laptop";
  const offered = device !== undefined && ssid !== undefined && offers(index, device, ssid);
  if (ssid === undefined || segment === undefined || device === undefined || vid === null || !offered) {
    const missing = !offered ? AP_NEEDED : "a VLAN behind the wireless name";
    journey.stop(
      { title: who, place: ssid?.name ?? "wireless", says: `needs ${missing}`, why: "", tag: undefined, subjects: [], device: null, ports: [] },
      { sentence: `${who} can't join ${ssid?.name ?? "the wireless name"}: it needs ${missing}.`, subjects: ssid === undefined ? [] : [{ kind: "ssid", id: ssid.id }], repairs: [] },
    );
    return null;
  }
  journey.pass({ title: who, place: ssid.name, says: `joins ${ssid.name} and asks all: who gives addresses?`, why: `${ssid.name} leads into ${segment.name}, VLAN ${vid}.`, tag: null, subjects: [{ kind: "ssid", id: ssid.id }], device: null, ports: [] });
  return { result: flood(index, { at: "device", device: device.id, vid }), device: device.id, port: undefined, tag: null, vid, segment, host };
}

function startAtPort(index: PlanIndex, journey: Journey, portId: string, tag: Tag, host: Host | undefined): Started | null {
  const port = index.plan.port.get(portId);
  const device = port === undefined ? undefined : index.plan.device.get(port.device);
  if (port === undefined || device === undefined) return null;
  const subjects: Subject[] = [{ kind: "port", id: portId }];
  const who = host?.name ?? "Laptop";
  journey.pass({ title: who, place: `at ${device.name} ${port.label}`, says: "asks all: who gives addresses?", why: "A new device knows nobody yet, so it asks everybody in its VLAN.", tag, subjects, device: null, ports: [portId] });
  const stopHere = (says: string, sentence: string) =>
    journey.stop(
      { title: device.name, place: `port ${port.label} in`, says, why: "", tag, subjects, device: device.id, ports: [portId] },
      { sentence, subjects, repairs: host === undefined ? [] : accessRepairs(index, host, port) },
    );
  if (!port.enabled) {
    stopHere("the port is off", `${device.name} port ${port.label} is switched off.`);
    return null;
  }
  const result = flood(index, { at: "port", port: portId, tag, host: host?.id ?? null });
  const first = result.arrivals.find((arrival) => arrival.port >= 0);
  if (first === undefined) {
    stopHere(`${dropReason(port, tag)}: dropped`, `${device.name} port ${port.label} drops the frame (${tagText(tag)}): ${dropReason(port, tag)}.`);
    return null;
  }
  const arrivalDevice = index.derived(FABRIC).devices[first.device] ?? device;
  const vid = device.bridging === "vlan" ? (classify(port, tag) ?? first.vid) : first.vid;
  const segment = index.segmentOn(arrivalDevice.domain, vid);
  if (segment === undefined) {
    stopHere(`joins ${vid}, where nothing is`, `${device.name} port ${port.label} puts the frame into VLAN ${vid}, and no segment is on that VLAN.`);
    return null;
  }
  const entry = index.derived(FABRIC).ports[first.port];
  return { result, device: arrivalDevice.id, port: entry, tag, vid, segment, host };
}

function accessRepairs(index: PlanIndex, host: Host, port: Port) {
  const segment = host.segment === null ? undefined : index.plan.segment.get(host.segment);
  const vlan = segment?.vlan === null || segment === undefined ? undefined : index.plan.vlan.get(segment.vlan);
  if (segment === undefined || vlan === undefined) return [];
  return [{
    label: `Make it an access port in ${segment.name} (${vlan.vid})`, planner: "paint-access", args: { port: port.id, vid: vlan.vid },
    edit: (draft: Parameters<typeof setAccess>[0]) => setAccess(draft, [port.id], vlan.vid),
  }];
}
