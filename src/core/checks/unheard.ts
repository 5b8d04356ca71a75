import { formatAddress } from "../address";
import { hostAddress } from "../probe/travel";
import { nameOf, type Interface, type PlanIndex, type Scope } from "../plan";
import { check, type Found, type Repair } from "./check";

interface Unheard { readonly scope: string; readonly leg: string | null }

/** Whether a scope's server hears the segment: by a leg or as a host there, or by a relay that passes questions on to it. */
function isHeard(index: PlanIndex, scope: Scope): boolean {
  const legs = index.interfacesIn(scope.segment);
  if (scope.serverDevice !== null && legs.some((leg) => leg.device === scope.serverDevice)) return true;
  const host = scope.serverHost === null ? undefined : index.plan.host.get(scope.serverHost);
  if (host?.segment === scope.segment) return true;
  return legs.some((leg) => leg.relayTo !== null && index.holdersOf(leg.relayTo).some((holder) => ("device" in holder ? holder.device === scope.serverDevice : holder.id === scope.serverHost)));
}

/** The server's address, as a relay would name it. */
function serverAddress(index: PlanIndex, scope: Scope): Interface["relayTo"] {
  const host = scope.serverHost === null ? undefined : index.plan.host.get(scope.serverHost);
  const address = host === undefined ? (scope.serverDevice === null ? null : (index.interfacesOf(scope.serverDevice).flatMap((leg) => leg.addresses4)[0] ?? null)) : hostAddress(index, host, 4);
  return typeof address === "number" ? address : null;
}

export const serverNotHeard = check<Unheard>({
  code: "server-not-heard", severity: "stop", family: "segments",
  title: "The address server does not hear the segment",
  why: "A client asks everybody in its own segment. A server elsewhere hears it only through a relay.",
  reads: ["scope", "interface", "host", "segment", "device"],
  find: (index): Found<Unheard>[] => [...index.plan.scope.values()].filter((scope) => scope.family === 4 && (scope.serverDevice !== null || scope.serverHost !== null) && !isHeard(index, scope))
    .map((scope) => ({ subjects: [{ kind: "segment", id: scope.segment }, { kind: "scope", id: scope.id }], data: { scope: scope.id, leg: index.plan.segment.get(scope.segment)?.gatewayInterface ?? null } })),
  describe: ({ scope }, index) => {
    const own = index.plan.scope.get(scope);
    const server = own?.serverDevice !== null && own !== undefined ? nameOf(index, "device", own.serverDevice) : nameOf(index, "host", own?.serverHost ?? "");
    return `${server} serves ${nameOf(index, "segment", own?.segment ?? "")} and does not hear it: it has no leg there, and nothing relays to it.`;
  },
  repairs: ({ scope, leg }, index): Repair[] => {
    const own = index.plan.scope.get(scope);
    const known = leg === null ? undefined : index.plan.interface.get(leg);
    const address = own === undefined ? null : serverAddress(index, own);
    if (own === undefined || known === undefined) return [];
    const relay: Repair[] = address === null ? [] : [{ label: `Let ${nameOf(index, "device", known.device)} relay to ${formatAddress(address)}`, planner: "set-relay", args: { leg }, edit: (draft) => draft.patch("interface", known.id, { relayTo: address }) }];
    return [...relay, { label: `Let ${nameOf(index, "device", known.device)} serve it`, planner: "set-server", args: { scope }, edit: (draft) => draft.patch("scope", scope, { serverDevice: known.device, serverHost: null }) }];
  },
});
