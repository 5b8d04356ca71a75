import { formatAddress } from "../address";
import { waysToServer } from "../dhcp";
import { nameOf, type Interface, type PlanIndex, type Scope, type Segment } from "../plan";
import { poolFor } from "../planners";
import type { Repair } from "./repair";
import { rangeWithCount } from "./wording";

/**
 * How many hosts of a segment ask for an IPv4 address that no scope has; 0 where there is a scope or no
 * subnet.
 */
export function waitingWithoutServer(index: PlanIndex, segment: Segment): number {
  if (segment.prefixes4.length === 0 || index.scopesOf(segment.id).some((scope) => scope.family === 4))
    return 0;
  return index.hostsIn(segment.id).filter((host) => host.manner !== "typed").length;
}

/** Lets the segment's gateway serve it; empty without a gateway, or without room for a pool. */
export function addScopeRepairs(index: PlanIndex, segment: string): readonly Repair[] {
  const target = index.plan.segment.get(segment);
  const leg = target === undefined ? undefined : index.gatewayOf(target);
  const pool = target === undefined ? null : poolFor(index, target);
  if (leg === undefined || pool === null) return [];
  return [
    {
      label: `Let ${nameOf(index, "device", leg.device)} serve ${rangeWithCount(pool)}`,
      planner: "add-scope",
      args: { segment },
      edit: (edits, ids) => {
        edits.put("scope", {
          id: ids(),
          segment,
          serverDevice: leg.device,
          serverHost: null,
          family: 4,
          pools: [pool],
          exclusions: [],
          leaseSeconds: 28_800,
          options: [],
        });
      },
    },
  ];
}

/** Whether an IPv4 scope's server hears nothing of the scope's segment, by itself or through a relay. */
export const isUnheard = (index: PlanIndex, scope: Scope): boolean =>
  scope.family === 4 &&
  (scope.serverDevice !== null || scope.serverHost !== null) &&
  waysToServer(index, scope).length === 0;

/** The server's address, as a relay would name it. */
function serverAddress(index: PlanIndex, scope: Scope): Interface["relayTo"] {
  const host = scope.serverHost === null ? undefined : index.plan.host.get(scope.serverHost);
  const routed =
    scope.serverDevice === null
      ? []
      : index.interfacesOf(scope.serverDevice).flatMap((leg) => leg.addresses4);
  const address = host === undefined ? routed[0] : host.ipv4;
  return typeof address === "number" ? address : null;
}

/** Lets the segment's gateway relay to the scope's server, or serve the scope itself. */
export function hearScopeRepairs(index: PlanIndex, scope: string): readonly Repair[] {
  const own = index.plan.scope.get(scope);
  const leg = index.plan.segment.get(own?.segment ?? "")?.gatewayInterface ?? null;
  const known = leg === null ? undefined : index.plan.interface.get(leg);
  const address = own === undefined ? null : serverAddress(index, own);
  if (own === undefined || known === undefined) return [];
  const relay: Repair[] =
    address === null
      ? []
      : [
          {
            label: `Let ${nameOf(index, "device", known.device)} relay to ${formatAddress(address)}`,
            planner: "set-relay",
            args: { leg },
            edit: (edits) => edits.patch("interface", known.id, { relayTo: address }),
          },
        ];
  return [
    ...relay,
    {
      label: `Let ${nameOf(index, "device", known.device)} serve it`,
      planner: "set-server",
      args: { scope },
      edit: (edits) => edits.patch("scope", scope, { serverDevice: known.device, serverHost: null }),
    },
  ];
}
