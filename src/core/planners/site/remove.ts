import type { PlanEdits, WallEnd } from "../../plan";
import { forget } from "./forget";
import { removeLeg } from "../addressing/legs";
import { removeSsid } from "../wireless/ssid";

/** Hosts, wireless names and legs are in a segment no longer; who was on a name that goes is nowhere. */
function leaveSegment(edits: PlanEdits, id: string): void {
  for (const host of edits.all("host")) {
    const onSsid = host.attachment.at === "ssid" && edits.get("ssid", host.attachment.ssid)?.segment === id;
    if (host.segment === id) edits.patch("host", host.id, { segment: null });
    if (onSsid) edits.patch("host", host.id, { attachment: { at: "unplaced" } });
  }
  for (const ssid of edits.all("ssid"))
    if (ssid.moreSegments.includes(id))
      edits.patch("ssid", ssid.id, { moreSegments: ssid.moreSegments.filter((segment) => segment !== id) });
  for (const leg of edits.all("interface")) if (leg.segment === id) removeLeg({ edits }, leg.id);
}

/** A zone goes with its walls. */
function removeZone(edits: PlanEdits, zone: string): void {
  const isIt = (end: WallEnd) => end.at === "zone" && end.zone === zone;
  for (const wall of edits.all("wall")) if (isIt(wall.from) || isIt(wall.to)) edits.remove("wall", wall.id);
  forget(edits, new Set([zone]));
  edits.remove("zone", zone);
}

/**
 * Removes a segment with its legs, scopes, wireless names and, when nothing else uses them, its VLAN and
 * zone. Hosts stay, without a segment.
 */
export function removeSegment(edits: PlanEdits, id: string): void {
  const segment = edits.need("segment", id);
  const names = edits.all("ssid").filter((ssid) => ssid.segment === id);
  forget(edits, new Set([id, ...names.map((ssid) => ssid.id)]));
  leaveSegment(edits, id);
  for (const kind of ["scope", "ssid"] as const)
    for (const entity of edits.all(kind)) if (entity.segment === id) edits.remove(kind, entity.id);
  edits.remove("segment", id);
  const { vlan, zone } = segment;
  const rest = edits.all("segment");
  if (vlan !== null && !rest.some((other) => other.vlan === vlan)) edits.remove("vlan", vlan);
  if (!rest.some((other) => other.zone === zone)) removeZone(edits, zone);
}

function unplugFrom(edits: PlanEdits, device: string, ports: ReadonlySet<string>): void {
  for (const { id, attachment } of edits.all("host")) {
    if (attachment.at === "port" && ports.has(attachment.port))
      edits.patch("host", id, { attachment: { at: "unplaced" } });
    if (attachment.at === "ssid" && attachment.accessPoint === device)
      edits.patch("host", id, { attachment: { ...attachment, accessPoint: null } });
  }
}

/** Takes a device off the lists of those who hear it and of the names that it offers. */
function takeOffLists(edits: PlanEdits, id: string): void {
  for (const other of edits.all("device"))
    if (other.hears.includes(id))
      edits.patch("device", other.id, { hears: other.hears.filter((heard) => heard !== id) });
  for (const ssid of edits.all("ssid")) {
    if (!ssid.at.includes(id)) continue;
    const at = ssid.at.filter((point) => point !== id);
    // An empty list would mean every access point: a name that only this one offered goes with it.
    if (at.length > 0) edits.patch("ssid", ssid.id, { at });
    else removeSsid(edits, ssid.id);
  }
}

/**
 * Removes a device with its ports, cables, legs and the scopes it serves; what was plugged in stays,
 * unplugged.
 */
// eslint-disable-next-line complexity -- one line for each kind that hangs on a device
export function removeDevice(edits: PlanEdits, id: string): void {
  const ports = new Set(
    edits
      .all("port")
      .filter((port) => port.device === id)
      .map((port) => port.id),
  );
  for (const link of edits.all("link"))
    if (ports.has(link.a) || ports.has(link.b)) edits.remove("link", link.id);
  unplugFrom(edits, id, ports);
  for (const leg of edits.all("interface")) if (leg.device === id) removeLeg({ edits }, leg.id);
  for (const scope of edits.all("scope")) if (scope.serverDevice === id) edits.remove("scope", scope.id);
  for (const entry of edits.all("deviceVlan")) if (entry.device === id) edits.remove("deviceVlan", entry.id);
  for (const gear of edits.all("gear"))
    if (gear.device === id) edits.patch("gear", gear.id, { device: null });
  for (const kind of ["lag", "radio"] as const)
    for (const entity of edits.all(kind)) if (entity.device === id) edits.remove(kind, entity.id);
  takeOffLists(edits, id);
  forget(edits, new Set([id, ...ports]));
  for (const port of ports) edits.remove("port", port);
  edits.remove("device", id);
}

/** Removes an end device; what hangs behind it and the scopes it serves lose it. */
export function removeHost(edits: PlanEdits, id: string): void {
  for (const other of edits.all("host")) {
    if (other.attachment.at === "behind" && other.attachment.host === id)
      edits.patch("host", other.id, { attachment: { at: "unplaced" } });
  }
  for (const scope of edits.all("scope")) if (scope.serverHost === id) edits.remove("scope", scope.id);
  forget(edits, new Set([id]));
  edits.remove("host", id);
}
