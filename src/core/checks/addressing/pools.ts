import {
  containsAddress,
  formatAddress,
  freeRanges,
  inRange,
  rangeCount,
  usableRange,
  type Address,
  type AddressRange,
} from "../../address";
import { leasableCount, offeredRanges } from "../../dhcp";
import type { Host, PlanIndex, Scope, Segment } from "../../plan";
import { plannedDynamic, poolFor, nextFreeFor } from "../../planners";
import { freeAddressRepairs, type Repair, rangeWithCount, shortAddress } from "../../repairs";
import { check, localCheck, type Found } from "../check";
import { hostsTouched, segmentsTouched } from "../touched";

const segmentName = (index: PlanIndex, id: string) => index.plan.segment.get(id)?.name ?? "a segment";

const setPools = (scope: Scope, pools: AddressRange[], label: string): Repair => ({
  label,
  planner: "set-pool",
  args: { scope: scope.id, pools: pools.map((p) => [formatAddress(p.first), formatAddress(p.last)]) },
  edit: (edits) => edits.patch("scope", scope.id, { pools }),
});

/** The pool cut to what its subnet and gateway leave, largest piece, when anything is left. */
function cutPool(index: PlanIndex, scope: Scope, pool: AddressRange): Repair[] {
  const segment = index.plan.segment.get(scope.segment);
  if (segment === undefined) return [];
  const gateways = (index.gatewayOf(segment)?.addresses4 ?? []).map((a): AddressRange => ({
    first: a,
    last: a,
  }));
  const usable = [...segment.prefixes4, ...segment.prefixes6].map(usableRange);
  const pieces = usable.flatMap((range) => {
    const first = pool.first > range.first ? pool.first : range.first;
    const last = pool.last < range.last ? pool.last : range.last;
    return first <= last && typeof first === typeof range.first ? freeRanges({ first, last }, gateways) : [];
  });
  const best = pieces.sort((a, b) => Number(rangeCount(b) - rangeCount(a)))[0];
  const others = scope.pools.filter((p) => p !== pool);
  return best === undefined ? [] : [setPools(scope, [...others, best], `Pool ${rangeWithCount(best)}`)];
}

interface PoolData {
  readonly scope: string;
  readonly pool: AddressRange;
}

export const poolOutsideSubnet = check<PoolData>({
  code: "pool-outside-subnet",
  severity: "stop",
  family: "segments",
  title: "A pool reaches outside its subnet",
  why: "Clients with an address outside the subnet reach nobody, and most servers refuse such a pool.",
  reads: ["scope", "segment", "interface"],
  find: (index): Found<PoolData>[] =>
    [...index.plan.scope.values()].flatMap((scope) => {
      const segment = index.plan.segment.get(scope.segment);
      const prefixes = scope.family === 4 ? (segment?.prefixes4 ?? []) : (segment?.prefixes6 ?? []);
      return scope.pools
        .filter(
          (pool) =>
            !prefixes.some((p) => inRange(usableRange(p), pool.first) && inRange(usableRange(p), pool.last)),
        )
        .map((pool) => ({
          subjects: [
            { kind: "segment" as const, id: scope.segment },
            { kind: "scope" as const, id: scope.id },
          ],
          data: { scope: scope.id, pool },
        }));
    }),
  describe: ({ scope, pool }, index) => {
    const owner = index.plan.scope.get(scope);
    return (
      `The pool of ${segmentName(index, owner?.segment ?? "")}, ${formatAddress(pool.first)} ` +
      `to ${formatAddress(pool.last)}, is not wholly among the usable addresses of its subnet.`
    );
  },
  repairs: ({ scope, pool }, index) => {
    const owner = index.plan.scope.get(scope);
    if (owner === undefined) return [];
    const segment = index.plan.segment.get(owner.segment);
    const fresh = segment === undefined || owner.family !== 4 ? null : poolFor(index, segment);
    const cut = cutPool(index, owner, pool);
    return [
      ...cut,
      ...(fresh === null ? [] : [setPools(owner, [fresh], `Draft it anew, ${rangeWithCount(fresh)}`)]),
    ];
  },
});

export const poolOverGateway = check<PoolData>({
  code: "pool-over-gateway",
  severity: "stop",
  family: "segments",
  title: "A pool holds the gateway's address",
  why: "The server may lease the gateway's own address to a client; then everybody loses the gateway.",
  reads: ["scope", "segment", "interface"],
  find: (index): Found<PoolData>[] =>
    [...index.plan.scope.values()].flatMap((scope) => {
      const segment = index.plan.segment.get(scope.segment);
      const leg = segment === undefined ? undefined : index.gatewayOf(segment);
      const gateways: Address[] =
        scope.family === 4 ? [...(leg?.addresses4 ?? [])] : [...(leg?.addresses6 ?? [])];
      const offered = offeredRanges(scope);
      return scope.pools
        .filter((pool) =>
          gateways.some((g) => inRange(pool, g) && offered.some((range) => inRange(range, g))),
        )
        .map((pool) => ({
          subjects: [
            { kind: "segment" as const, id: scope.segment },
            { kind: "scope" as const, id: scope.id },
          ],
          data: { scope: scope.id, pool },
        }));
    }),
  describe: ({ scope, pool }, index) =>
    `The pool of ${segmentName(index, index.plan.scope.get(scope)?.segment ?? "")}, ` +
    `${rangeWithCount(pool)}, holds the gateway's own address.`,
  repairs: ({ scope, pool }, index) => {
    const owner = index.plan.scope.get(scope);
    return owner === undefined ? [] : cutPool(index, owner, pool);
  },
});

interface Small {
  readonly scope: string;
  readonly segment: string;
  readonly needed: number;
  readonly offered: number;
}

const scopesIn4 = (index: PlanIndex, segment: Segment) =>
  index.scopesOf(segment.id).filter((scope) => scope.family === 4);

export const poolTooSmall = localCheck<Small, "segment">({
  code: "pool-too-small",
  severity: "warn",
  family: "segments",
  title: "A pool is smaller than the planned hosts",
  why: "Whoever comes after the pool is used up gets no address until a lease ends.",
  reads: ["scope", "segment", "host", "interface", "site"],
  of: "segment",
  touched: segmentsTouched,
  findAt: (index, segment): Found<Small>[] => {
    const scopes = scopesIn4(index, segment);
    const scope = scopes[0];
    if (scope === undefined) return [];
    const needed = plannedDynamic(index, segment);
    const offered = Number(scopes.reduce((sum, s) => sum + leasableCount(index, s), 0n));
    if (offered >= needed) return [];
    return [
      {
        subjects: [
          { kind: "segment" as const, id: segment.id },
          { kind: "scope" as const, id: scope.id },
        ],
        data: { scope: scope.id, segment: segment.id, needed, offered },
      },
    ];
  },
  describe: ({ segment, needed, offered }, index) =>
    `${segmentName(index, segment)}: ${needed} devices are planned to get their address ` +
    `from the pool, which has ${offered} to lease. Number ${offered + 1} gets none.`,
  repairs: ({ scope, segment }, index) => {
    const owner = index.plan.scope.get(scope);
    const target = index.plan.segment.get(segment);
    const fresh = target === undefined ? null : poolFor(index, target);
    return owner === undefined || fresh === null
      ? []
      : [setPools(owner, [fresh], `Pool ${rangeWithCount(fresh)}`)];
  },
});

interface Static {
  readonly host: string;
  readonly scope: string;
  readonly address: Address;
}

function staticRepairs(index: PlanIndex, { host, scope, address }: Static): Repair[] {
  const device = index.plan.host.get(host);
  const owner = index.plan.scope.get(scope);
  const segment =
    device?.segment === null || device === undefined ? undefined : index.plan.segment.get(device.segment);
  if (device === undefined || owner === undefined || segment === undefined) return [];
  const repairs: Repair[] = [];
  if (device.mac !== null) {
    repairs.push({
      label: `Reserve ${shortAddress(address)} for this MAC`,
      planner: "reserve-address",
      args: { host },
      edit: (edits) => edits.patch("host", host, { manner: "reserved" }),
    });
  }
  const free = nextFreeFor(index, segment, "typed");
  if (free !== null) {
    repairs.push({
      label: `Move to ${shortAddress(free)}, static`,
      planner: "move-address",
      args: { host, to: formatAddress(free) },
      edit: (edits) => edits.patch("host", host, { ipv4: free }),
    });
  }
  repairs.push({
    label: `Exclude ${shortAddress(address)} from the pool`,
    planner: "exclude-address",
    args: { scope, address: formatAddress(address) },
    edit: (edits) =>
      edits.patch("scope", scope, {
        exclusions: [...edits.need("scope", scope).exclusions, { first: address, last: address }],
      }),
  });
  return repairs;
}

export const staticInPool = localCheck<Static, "host">({
  code: "static-in-pool",
  severity: "warn",
  family: "addresses",
  title: "A static address lies inside a pool",
  why: "The server knows nothing of it and may lease it to another device; then both lose their connection.",
  reads: ["scope", "host"],
  of: "host",
  touched: hostsTouched,
  findAt: (index, host: Host): Found<Static>[] => {
    if (host.manner !== "typed" || host.segment === null) return [];
    const found: Found<Static>[] = [];
    for (const scope of index.scopesOf(host.segment)) {
      const address = scope.family === 4 ? host.ipv4 : host.ipv6;
      if (address === null || !offeredRanges(scope).some((range) => inRange(range, address))) continue;
      found.push({
        subjects: [
          { kind: "host", id: host.id },
          { kind: "segment", id: scope.segment },
        ],
        data: { host: host.id, scope: scope.id, address },
      });
    }
    return found;
  },
  describe: ({ host, address }, index) => {
    const device = index.plan.host.get(host);
    return (
      `${shortAddress(address)} is static on ${device?.name ?? "a device"} ` +
      "and also lies in the pool. The server may lease it to another device."
    );
  },
  repairs: (data, index) => staticRepairs(index, data),
});

interface Outside {
  readonly host: string;
  readonly address: Address;
  readonly segment: string;
}

export const hostOutsideSubnet = localCheck<Outside, "host">({
  code: "host-outside-subnet",
  severity: "stop",
  family: "addresses",
  title: "A fixed address lies outside its segment's subnet",
  why: "The device would have an address that nobody in its segment can reach.",
  reads: ["host", "segment"],
  of: "host",
  touched: hostsTouched,
  findAt: (index, host): Found<Outside>[] => {
    const { ipv4, segment: home } = host;
    const segment = home === null || ipv4 === null ? undefined : index.plan.segment.get(home);
    if (segment === undefined || ipv4 === null || segment.prefixes4.length === 0) return [];
    if (segment.prefixes4.some((p) => containsAddress(p, ipv4) && inRange(usableRange(p), ipv4))) return [];
    return [
      {
        subjects: [
          { kind: "host", id: host.id },
          { kind: "segment", id: segment.id },
        ],
        data: { host: host.id, address: ipv4, segment: segment.id },
      },
    ];
  },
  describe: ({ host, address, segment }, index) => {
    const target = index.plan.segment.get(segment);
    return (
      `${index.plan.host.get(host)?.name ?? "A device"} has ${formatAddress(address)}, ` +
      `which is not a usable address of ${target?.name ?? "its segment"}.`
    );
  },
  repairs: ({ host, segment }, index) => freeAddressRepairs(index, host, segment),
});
