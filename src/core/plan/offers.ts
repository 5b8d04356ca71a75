import { hasRadios } from "./blank";
import { byNaturalText } from "../kernel";
import type { PlanIndex } from "./plan-index";
import type { Device, Host } from "./schema/hardware";
import type { Segment, Ssid } from "./schema/separation";

/** The segments a wireless name can lead into: its own first, then those that the sign-in may choose. */
export const segmentsOfSsid = (index: PlanIndex, ssid: Ssid): Segment[] =>
  [ssid.segment, ...ssid.moreSegments].flatMap((id) => index.plan.segment.get(id) ?? []);

/** The VLANs a wireless name needs on the wire. */
export const vidsOfSsid = (index: PlanIndex, ssid: Ssid): number[] => [
  ...new Set(segmentsOfSsid(index, ssid).flatMap((segment) => index.vidOf(segment) ?? [])),
];

/**
 * Whether an access point offers a name: it is listed, or the list is empty and the name's segment belongs to
 * its domain.
 */
export function offers(index: PlanIndex, device: Device, ssid: Ssid): boolean {
  if (!hasRadios(device)) return false;
  if (ssid.at.length > 0) return ssid.at.includes(device.id);
  const vlan = index.plan.segment.get(ssid.segment)?.vlan ?? null;
  return vlan === null || index.plan.vlan.get(vlan)?.domain === device.domain;
}

/**
 * The access points that offer a name, by their own names, those in a place first: where someone there joins
 * it.
 */
export const pointsOf = (index: PlanIndex, ssid: Ssid, place = ""): Device[] => {
  const near = (device: Device) =>
    place !== "" && device.place.toLowerCase() === place.toLowerCase() ? 0 : 1;
  return [...index.plan.device.values()]
    .filter((device) => offers(index, device, ssid))
    .sort((a, b) => near(a) - near(b) || byNaturalText(a.name, b.name));
};

/**
 * Where a host on a wireless name can join, first where it does: the access point that the plan names for it
 * as long as that one offers the name, then the nearest; the others stand in when it fails. None for a host
 * that is on no wireless name.
 */
export function joinsAt(index: PlanIndex, { attachment, place }: Host): Device[] {
  const ssid = attachment.at === "ssid" ? index.plan.ssid.get(attachment.ssid) : undefined;
  const points = ssid === undefined ? [] : pointsOf(index, ssid, place);
  const isNamed = (point: Device) => attachment.at === "ssid" && point.id === attachment.accessPoint;
  return [...points.filter(isNamed), ...points.filter((point) => !isNamed(point))];
}

/** The names that an access point offers. */
export const ssidsOf = (index: PlanIndex, device: Device): Ssid[] =>
  [...index.plan.ssid.values()].filter((ssid) => offers(index, device, ssid));
