import { containsAddress, containsPrefix, offsetIn, step, type Address, type Prefix } from "../../address";
import { byText } from "../../kernel";
import type { Device, Interface, PlanEdits, Route } from "../../plan";
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
  for (const device of edits.all("device")) routesLike4(edits, device);
  return null;
}

/** The leg that a next hop is, with its segment's subnets of both families. */
function hopOf(edits: PlanEdits, via: Address): { leg: Interface; from: Prefix; to: Prefix } | null {
  const leg = edits
    .all("interface")
    .find(({ addresses4 }) => (addresses4 as readonly Address[]).includes(via));
  const segment = leg?.segment === null || leg === undefined ? undefined : edits.get("segment", leg.segment);
  const from = segment?.prefixes4.find((prefix) => containsAddress(prefix, via));
  const to = segment?.prefixes6[0];
  return leg === undefined || from === undefined || to === undefined ? null : { leg, from, to };
}

/**
 * Gives a router the routes by IPv6 that it has by IPv4 to segments of the site; the next hop gets the address
 * with the same last part where it has none.
 */
function routesLike4(edits: PlanEdits, device: Device): void {
  const added = device.routes.flatMap(({ prefix, via, metric }): Route[] => {
    const hop = prefix.family === 4 ? hopOf(edits, via) : null;
    const targets = edits
      .all("segment")
      .filter(({ prefixes4 }) => prefixes4.some((own) => containsPrefix(prefix, own)))
      .flatMap(({ prefixes6 }) => prefixes6)
      .filter((own) => !device.routes.some((route) => containsPrefix(route.prefix, own)));
    if (hop === null || targets.length === 0) return [];
    const made = step<Address>(hop.to.network, offsetIn(hop.from, via));
    const [known] = hop.leg.addresses6;
    if (known === undefined && typeof made === "bigint")
      edits.patch("interface", hop.leg.id, { addresses6: [made] });
    const next = known ?? made;
    return next === null ? [] : targets.map((target): Route => ({ prefix: target, via: next, metric }));
  });
  if (added.length > 0) edits.patch("device", device.id, { routes: [...device.routes, ...added] });
}
