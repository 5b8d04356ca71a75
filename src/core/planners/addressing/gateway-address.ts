import { formatAddress, formatPrefix, type Ipv4 } from "../../address";
import { type Interface, type PlanEdits, type Segment, subnetHolding } from "../../plan";
import { giveGateway } from "../segments/add-segment";
import { followEntered } from "../register/own-network";
import type { EditContext, Refusal } from "../planner";
import { usualGateway } from "./usual-gateway";

/** Clients that ask the old address for names ask the new one, also those that have it entered themselves. */
function moveNames(edits: PlanEdits, segment: string, old: Ipv4 | undefined, address: Ipv4): void {
  if (old === undefined) return;
  const { dns } = edits.need("segment", segment);
  if (dns.includes(old)) edits.patch("segment", segment, { dns: dns.map((d) => (d === old ? address : d)) });
  followEntered(edits, old, address);
}

/** Gives the leg that address as its first, its others staying, and makes it the segment's gateway. */
function useLeg(edits: PlanEdits, segment: string, leg: Interface, address: Ipv4): Refusal {
  const [old] = leg.addresses4;
  const addresses4 = leg.addresses4.includes(address)
    ? leg.addresses4
    : [address, ...leg.addresses4.slice(1)];
  edits.patch("interface", leg.id, { addresses4 });
  edits.patch("segment", segment, { gatewayInterface: leg.id });
  moveNames(edits, segment, old, address);
  return null;
}

/**
 * Makes `address` the address that a segment's clients are given as their gateway. A device that has the
 * address already becomes the gateway with the leg that it has; else the present gateway's leg, or that of
 * the usual gateway, gets the address.
 */
export function setGatewayAddress({ edits, ids }: EditContext, segment: Segment, address: Ipv4): Refusal {
  const prefix = subnetHolding(segment, address);
  if (segment.prefixes4.length > 0 && prefix === undefined) {
    return (
      `${formatAddress(address)} is not in ` +
      `${segment.prefixes4.map(formatPrefix).join(" or ")}: clients of ${segment.name} ` +
      "could not reach it. Write an address of the subnet, or move the subnet first."
    );
  }
  const holder = edits
    .all("interface")
    .find((leg) => leg.segment === segment.id && leg.addresses4.includes(address));
  if (holder !== undefined) {
    const old =
      segment.gatewayInterface === null
        ? undefined
        : edits.get("interface", segment.gatewayInterface)?.addresses4[0];
    edits.patch("segment", segment.id, { gatewayInterface: holder.id });
    moveNames(edits, segment.id, old, address);
    return null;
  }
  const host = edits.all("host").find((host) => host.ipv4 === address && host.manner !== "dynamic");
  if (host !== undefined)
    return `${host.name} has ${formatAddress(address)} already; give one of the two another address.`;
  const present =
    segment.gatewayInterface === null ? undefined : edits.get("interface", segment.gatewayInterface);
  if (present !== undefined) return useLeg(edits, segment.id, present, address);
  const gateway = usualGateway(edits);
  if (gateway === undefined) return "The plan has nothing that routes yet; add a gateway on Hardware first.";
  const own = edits.all("interface").find((leg) => leg.segment === segment.id && leg.device === gateway.id);
  if (own === undefined) giveGateway(edits, ids, segment.id, gateway.id);
  const leg = own ?? edits.get("interface", edits.need("segment", segment.id).gatewayInterface ?? "");
  return leg === undefined
    ? `${segment.name} has no IPv4 subnet yet; give it one first.`
    : useLeg(edits, segment.id, leg, address);
}
