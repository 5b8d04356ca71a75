import { formatAddress, usableRange, type Ipv4 } from "../address";
import type { PlanIndex, Scope } from "../plan";
import type { Repair } from "./repair";

const MOST_POOLS = 32;

/**
 * What the scope can give besides: the largest run of addresses that nobody has. Pools and exclusions that
 * are there stay.
 */
export function growPoolRepairs(index: PlanIndex, scope: Scope): readonly Repair[] {
  const run = freeRun(index, scope);
  if (run === null || scope.pools.length >= MOST_POOLS) return [];
  return [
    {
      label: `Also give out ${formatAddress(run.first)} to ${formatAddress(run.last)}`,
      planner: "edit-pool",
      args: { scope: scope.id },
      edit: (edits) =>
        edits.patch("scope", scope.id, { pools: [...edits.need("scope", scope.id).pools, run] }),
    },
  ];
}

/**
 * The largest run of addresses in the scope's subnet that nobody has fixed, that no pool offers and that
 * nobody left out.
 */
function freeRun(index: PlanIndex, scope: Scope): { first: Ipv4; last: Ipv4 } | null {
  const prefix = index.plan.segment.get(scope.segment)?.prefixes4[0];
  if (prefix === undefined || prefix.length > 30) return null;
  const usable = usableRange(prefix);
  const offered = (index.groups("scopesBySegment").get(scope.segment) ?? [])
    .flatMap(({ pools, exclusions }) => [...pools, ...exclusions])
    .filter(({ first }) => typeof first === "number");
  const fixed = [
    ...index.interfacesIn(scope.segment).flatMap((leg) => leg.addresses4),
    ...index
      .hostsIn(scope.segment)
      .flatMap((host) => (host.ipv4 !== null && host.manner !== "dynamic" ? [host.ipv4] : [])),
  ];
  const taken = [...offered, ...fixed.map((address) => ({ first: address, last: address }))]
    .map(({ first, last }) => [Number(first), Number(last)] as const)
    .sort((x, y) => x[0] - y[0]);
  let best: { first: number; last: number } | null = null;
  let from = Number(usable.first);
  for (const [first, last] of [...taken, [Number(usable.last) + 1, Number(usable.last) + 1] as const]) {
    if (first > from && (best === null || first - from > best.last - best.first + 1))
      best = { first: from, last: first - 1 };
    from = Math.max(from, last + 1);
  }
  return best as { first: Ipv4; last: Ipv4 } | null;
}
