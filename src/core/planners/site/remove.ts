import type { Draft, WallEnd } from "../../plan";
import { forget } from "./forget";
import { removeLeg } from "../addressing/legs";
import { removeSsid } from "../wireless/ssid";

/** Hosts, wireless names and legs are in a segment no longer; who was on a name that goes is nowhere. */
function leaveSegment(draft: Draft, id: string): void {
  for (const host of draft.all("host")) {
    const onSsid = host.attachment.at === "ssid" && draft.get("ssid", host.attachment.ssid)?.segment === id;
    if (host.segment === id) draft.patch("host", host.id, { segment: null });
    if (onSsid) draft.patch("host", host.id, { attachment: { at: "unplaced" } });
  }
  for (const ssid of draft.all("ssid"))
    if (ssid.moreSegments.includes(id))
      draft.patch("ssid", ssid.id, { moreSegments: ssid.moreSegments.filter((one) => one !== id) });
  for (const leg of draft.all("interface")) if (leg.segment === id) removeLeg({ draft }, leg.id);
}

/** A zone goes with its walls. */
function removeZone(draft: Draft, zone: string): void {
  const isIt = (end: WallEnd) => end.at === "zone" && end.zone === zone;
  for (const wall of draft.all("wall")) if (isIt(wall.from) || isIt(wall.to)) draft.remove("wall", wall.id);
  draft.remove("zone", zone);
}

/**
 * Removes a segment with its legs, scopes, wireless names and, when nothing else uses them, its VLAN and
 * zone. Hosts stay, without a segment.
 */
export function removeSegment(draft: Draft, id: string): void {
  const segment = draft.need("segment", id);
  const names = draft.all("ssid").filter((ssid) => ssid.segment === id);
  forget(draft, new Set([id, ...names.map((ssid) => ssid.id)]));
  leaveSegment(draft, id);
  for (const kind of ["scope", "ssid"] as const)
    for (const entity of draft.all(kind)) if (entity.segment === id) draft.remove(kind, entity.id);
  draft.remove("segment", id);
  const { vlan, zone } = segment;
  const rest = draft.all("segment");
  if (vlan !== null && !rest.some((other) => other.vlan === vlan)) draft.remove("vlan", vlan);
  if (!rest.some((other) => other.zone === zone)) removeZone(draft, zone);
}

function unplugFrom(draft: Draft, device: string, ports: ReadonlySet<string>): void {
  for (const { id, attachment } of draft.all("host")) {
    if (attachment.at === "port" && ports.has(attachment.port))
      draft.patch("host", id, { attachment: { at: "unplaced" } });
    if (attachment.at === "ssid" && attachment.accessPoint === device)
      draft.patch("host", id, { attachment: { ...attachment, accessPoint: null } });
  }
}

/** Takes a device off the lists of those who hear it and of the names that it offers. */
function takeOffLists(draft: Draft, id: string): void {
  for (const other of draft.all("device"))
    if (other.hears.includes(id))
      draft.patch("device", other.id, { hears: other.hears.filter((one) => one !== id) });
  for (const ssid of draft.all("ssid")) {
    if (!ssid.at.includes(id)) continue;
    const at = ssid.at.filter((one) => one !== id);
    // An empty list would mean every access point: a name that only this one offered goes with it.
    if (at.length > 0) draft.patch("ssid", ssid.id, { at });
    else removeSsid(draft, ssid.id);
  }
}

/**
 * Removes a device with its ports, cables, legs and the scopes it serves; what was plugged in stays,
 * unplugged.
 */
// eslint-disable-next-line complexity -- one line for each kind that hangs on a device
export function removeDevice(draft: Draft, id: string): void {
  const ports = new Set(
    draft
      .all("port")
      .filter((port) => port.device === id)
      .map((port) => port.id),
  );
  for (const link of draft.all("link"))
    if (ports.has(link.a) || ports.has(link.b)) draft.remove("link", link.id);
  unplugFrom(draft, id, ports);
  for (const leg of draft.all("interface")) if (leg.device === id) removeLeg({ draft }, leg.id);
  for (const scope of draft.all("scope")) if (scope.serverDevice === id) draft.remove("scope", scope.id);
  for (const entry of draft.all("deviceVlan")) if (entry.device === id) draft.remove("deviceVlan", entry.id);
  for (const gear of draft.all("gear"))
    if (gear.device === id) draft.patch("gear", gear.id, { device: null });
  for (const kind of ["lag", "radio"] as const)
    for (const entity of draft.all(kind)) if (entity.device === id) draft.remove(kind, entity.id);
  takeOffLists(draft, id);
  forget(draft, new Set([id, ...ports]));
  for (const port of ports) draft.remove("port", port);
  draft.remove("device", id);
}

/** Removes an end device; what hangs behind it and the scopes it serves lose it. */
export function removeHost(draft: Draft, id: string): void {
  for (const other of draft.all("host")) {
    if (other.attachment.at === "behind" && other.attachment.host === id)
      draft.patch("host", other.id, { attachment: { at: "unplaced" } });
  }
  for (const scope of draft.all("scope")) if (scope.serverHost === id) draft.remove("scope", scope.id);
  forget(draft, new Set([id]));
  draft.remove("host", id);
}
