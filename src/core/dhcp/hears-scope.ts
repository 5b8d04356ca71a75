import type { Host, Interface, PlanIndex, Scope } from "../plan";

/**
 * How the question of a segment's clients comes to a scope's server: by its own leg there, as a host there,
 * or over a relay's leg.
 */
export type WayToServer =
  | { readonly by: "leg"; readonly leg: Interface }
  | { readonly by: "host"; readonly host: Host }
  | { readonly by: "relay"; readonly leg: Interface };

/**
 * How a leg in a scope's segment brings the question to the server (RFC 2131 section 4.1): its device serves
 * the scope, or relays to who does; null when neither.
 */
export function byLeg(
  index: PlanIndex,
  { serverDevice, serverHost }: Scope,
  { device, relayTo }: Pick<Interface, "device" | "relayTo">,
): "leg" | "relay" | null {
  if (serverDevice === device) return "leg";
  if (relayTo === null) return null;
  return index
    .holdersOf(relayTo)
    .some((holder) => ("device" in holder ? holder.device === serverDevice : holder.id === serverHost))
    ? "relay"
    : null;
}

/**
 * Every way by which a segment's clients can be heard by a scope's server as planned, whether or not the
 * cables lead there.
 */
export function waysToServer(index: PlanIndex, scope: Scope): WayToServer[] {
  const legs = index.interfacesIn(scope.segment).flatMap((leg): WayToServer[] => {
    const by = byLeg(index, scope, leg);
    return by === null ? [] : [{ by, leg }];
  });
  const host = scope.serverHost === null ? undefined : index.plan.host.get(scope.serverHost);
  return host?.segment === scope.segment ? [...legs, { by: "host", host }] : legs;
}
