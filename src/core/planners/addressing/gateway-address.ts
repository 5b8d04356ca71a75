import { containsAddress, formatAddress, formatPrefix, type Ipv4 } from "../../address";
import type { Draft, Interface, Segment } from "../../plan";
import { giveGateway } from "../segments/add-segment";
import { followEntered } from "../register/own-network";
import type { Bench, Refusal } from "../planner";
import { usualGateway } from "./usual-gateway";

/** Clients that ask the old address for names ask the new one, also those that have it entered themselves. */
function moveNames(draft: Draft, segment: string, old: Ipv4 | undefined, address: Ipv4): void {
  if (old === undefined) return;
  const { dns } = draft.need("segment", segment);
  if (dns.includes(old)) draft.patch("segment", segment, { dns: dns.map((d) => (d === old ? address : d)) });
  followEntered(draft, old, address);
}

/** Gives the leg that address as its first, its others staying, and makes it the segment's gateway. */
function useLeg(draft: Draft, segment: string, leg: Interface, address: Ipv4): Refusal {
  const [old] = leg.addresses4;
  const addresses4 = leg.addresses4.includes(address)
    ? leg.addresses4
    : [address, ...leg.addresses4.slice(1)];
  draft.patch("interface", leg.id, { addresses4 });
  draft.patch("segment", segment, { gatewayInterface: leg.id });
  moveNames(draft, segment, old, address);
  return null;
}

/**
 * Makes `address` the address that a segment's clients are given as their gateway. A device that has the
 * address already becomes the gateway with the leg that it has; else the present gateway's leg, or that of
 * the usual gateway, gets the address.
 */
export function setGatewayAddress({ draft, ids }: Bench, segment: Segment, address: Ipv4): Refusal {
  const prefix = segment.prefixes4.find((one) => containsAddress(one, address));
  if (segment.prefixes4.length > 0 && prefix === undefined) {
    return (
      `${formatAddress(address)} is not in ` +
      `${segment.prefixes4.map(formatPrefix).join(" or ")}: clients of ${segment.name} ` +
      "could not reach it. Write an address of the subnet, or move the subnet first."
    );
  }
  const holder = draft
    .all("interface")
    .find((leg) => leg.segment === segment.id && leg.addresses4.includes(address));
  if (holder !== undefined) {
    const old =
      segment.gatewayInterface === null
        ? undefined
        : draft.get("interface", segment.gatewayInterface)?.addresses4[0];
    draft.patch("segment", segment.id, { gatewayInterface: holder.id });
    moveNames(draft, segment.id, old, address);
    return null;
  }
  const host = draft.all("host").find((one) => one.ipv4 === address && one.manner !== "dynamic");
  if (host !== undefined)
    return `${host.name} has ${formatAddress(address)} already; give one of the two another address.`;
  const present =
    segment.gatewayInterface === null ? undefined : draft.get("interface", segment.gatewayInterface);
  if (present !== undefined) return useLeg(draft, segment.id, present, address);
  const gateway = usualGateway(draft);
  if (gateway === undefined) return "The plan has nothing that routes yet; add a gateway on Hardware first.";
  const own = draft.all("interface").find((leg) => leg.segment === segment.id && leg.device === gateway.id);
  if (own === undefined) giveGateway(draft, ids, segment.id, gateway.id);
  const leg = own ?? draft.get("interface", draft.need("segment", segment.id).gatewayInterface ?? "");
  return leg === undefined
    ? `${segment.name} has no IPv4 subnet yet; give it one first.`
    : useLeg(draft, segment.id, leg, address);
}
