import { classify } from "../fabric";
import { JOINS } from "../forwarding";
import { partyOfHost, placeOfLeg, type Place } from "../places";
import { afterEdits, PlanEdits, type Host, type PlanIndex } from "../plan";

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
 * Hosts that get to the gateway of their segment, as the cables and VLANs have it. Filters, sign-in and
 * addresses are not asked: what a step of setting up interrupts is the way there.
 */
export function connected(index: PlanIndex): Set<string> {
  const joined = new Set<string>();
  for (const host of index.plan.host.values()) if (isJoined(index, host)) joined.add(host.id);
  return joined;
}

function isJoined(index: PlanIndex, host: Host): boolean {
  const segment = index.plan.segment.get(host.segment ?? "");
  const leg = segment === undefined ? undefined : index.gatewayOf(segment);
  if (leg === undefined) return false;
  const own = domainOf(index, partyOfHost(index, host)?.place ?? null);
  return own !== null && own === domainOf(index, placeOfLeg(index, leg));
}

/** A state of the site while a device is off: none of its ports forwards. */
export function withoutDevice(index: PlanIndex, device: string): PlanIndex {
  const edits = new PlanEdits(index.plan);
  for (const { id } of index.portsOf(device)) edits.patch("port", id, { enabled: false });
  return afterEdits(index, edits) ?? index;
}
