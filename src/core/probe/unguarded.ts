import { containsAddress, type Address, type Ipv4 } from "../address";
import { DOMAINS } from "../forwarding";
import { isFilter, type Derived, type Device, type Host, type PlanIndex, type Segment } from "../plan";
import { placeOfLeg } from "../places";

/** Whether nothing between two of a VLAN minds who they are: no snooping, inspection or isolated port. */
const UNGUARDED: Derived<boolean> = {
  reads: ["device", "port"],
  make: ({ plan }) =>
    [...plan.device.values()].every(
      ({ protections }) => protections.snooping.length + protections.arpInspection.length === 0,
    ) && [...plan.port.values()].every(({ guards }) => !guards.isolated),
};

/** The broadcast domain at a device where it does not matter at which of its devices one is; else null. */
export const evenDomain = (index: PlanIndex, device: string, vid: number): number | null =>
  index.derived(UNGUARDED) ? index.derived(DOMAINS).at(device, vid) : null;

/** The only address of a device and where it has it; null with several, without one, or on a routed port. */
function onlyAddress(
  index: PlanIndex,
  device: Device,
): { readonly segment: Segment; readonly src: Ipv4; readonly vid: number } | null {
  const own = index.interfacesOf(device.id).flatMap((leg) => leg.addresses4.map((src) => ({ leg, src })));
  const [first] = own;
  if (first === undefined || own.length > 1) return null;
  const segment = index.plan.segment.get(first.leg.segment ?? "");
  const place = placeOfLeg(index, first.leg);
  return segment === undefined || place?.at !== "inside" || place.port !== null
    ? null
    : { segment, src: first.src, vid: place.vid };
}

/**
 * What all devices have in common whose own questions to a server go the same way and are answered alike:
 * they lie in its broadcast domain and its subnet, with one leg each, and its address and theirs are nobody
 * else's. Null for a device of which that can't be told without asking.
 */
export function asksLike(index: PlanIndex, device: Device, server: Host, dst: Address): string | null {
  const at = onlyAddress(index, device);
  if (at === null || device.routes.length > 0 || isFilter(device)) return null;
  const { segment, src, vid } = at;
  const isNear = segment.prefixes4.some(
    (prefix4) => containsAddress(prefix4, src) && containsAddress(prefix4, dst),
  );
  const isTheirs = index.holdersOf(src).length === 1 && index.holdersOf(dst).length === 1;
  const domain = isNear && isTheirs ? evenDomain(index, device.id, vid) : null;
  return domain === null ? null : `${domain} ${vid} ${server.id}`;
}
