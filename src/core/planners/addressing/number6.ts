import { step } from "../../address";
import { byText } from "../../kernel";
import type { EditContext, Refusal } from "../planner";
import { blocks6, nextSubnet6 } from "./conventions";
import { planOf } from "../drafted";

/**
 * Gives every segment that has a gateway and no IPv6 subnet one of the site's IPv6 blocks (a delegated
 * prefix, or its own), with the gateway at its first address and advertisements by which clients make their
 * own. Refused when the blocks have no room for all.
 */
export function numberAll6({ edits, index }: EditContext): Refusal {
  if (blocks6(planOf(edits)).length === 0)
    return "The site has no IPv6 block; write what its line delegates, or draw a block of its own.";
  const segments = edits
    .all("segment")
    .filter((segment) => segment.prefixes6.length === 0 && segment.gatewayInterface !== null)
    .sort((a, b) => (index.vidOf(a) ?? 5000) - (index.vidOf(b) ?? 5000) || byText(a.id, b.id));
  if (segments.length === 0) return "Every segment with a gateway has an IPv6 subnet already.";
  for (const segment of segments) {
    const prefix = nextSubnet6(planOf(edits), index.vidOf(segment));
    const gateway = prefix === null ? null : step(prefix.network, 1);
    if (prefix === null || gateway === null)
      return (
        `The IPv6 blocks have no /64 left for ${segment.name}; ` +
        "ask the provider for a shorter prefix, or add a block."
      );
    edits.patch("segment", segment.id, {
      prefixes6: [prefix],
      advertise: segment.advertise === "none" ? "slaac" : segment.advertise,
    });
    const leg =
      segment.gatewayInterface === null ? undefined : edits.get("interface", segment.gatewayInterface);
    if (leg !== undefined && leg.addresses6.length === 0)
      edits.patch("interface", leg.id, { addresses6: [gateway] });
  }
  return null;
}
