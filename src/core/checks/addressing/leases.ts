import { formatAddress, type Address } from "../../address";
import { adviseLease, offeredCount, peakUse } from "../../dhcp";
import { holdsAddress, nameOf, type PlanIndex, type Scope, type Segment, segmentHolding } from "../../plan";
import { poolFor, formatLease } from "../../planners";
import { check, localCheck, type Found } from "../check";
import { type Repair, rangeWithCount, shortAddress } from "../../repairs";
import { segmentsTouched } from "../touched";

interface Empty {
  readonly scope: string;
  readonly segment: string;
}

export const poolEmpty = check<Empty>({
  code: "pool-empty",
  severity: "stop",
  family: "segments",
  title: "A scope has nothing to give",
  why: "With every address of its pools excluded, or no pool at all, a server answers nobody.",
  reads: ["scope", "segment", "host", "interface", "site"],
  find: (index): Found<Empty>[] =>
    [...index.plan.scope.values()]
      .filter((scope) => offeredCount(scope) === 0n)
      .map((scope) => ({
        subjects: [
          { kind: "segment" as const, id: scope.segment },
          { kind: "scope" as const, id: scope.id },
        ],
        data: { scope: scope.id, segment: scope.segment },
      })),
  describe: ({ scope, segment }, index) =>
    `The scope of ${nameOf(index, "segment", segment)} ` +
    (index.plan.scope.get(scope)?.pools.length === 0
      ? "has no pool"
      : "excludes every address of its pools") +
    ".",
  repairs: ({ scope, segment }, index): Repair[] => {
    const owner = index.plan.scope.get(scope);
    const target = index.plan.segment.get(segment);
    const fresh = target === undefined || owner?.family !== 4 ? null : poolFor(index, target);
    return [
      ...(owner === undefined || owner.pools.length === 0
        ? []
        : [
            {
              label: "Take the exclusions away",
              planner: "set-pool",
              args: { scope },
              edit: (edits) => edits.patch("scope", scope, { exclusions: [] }),
            } satisfies Repair,
          ]),
      ...(fresh === null
        ? []
        : [
            {
              label: `Pool ${rangeWithCount(fresh)}`,
              planner: "set-pool",
              args: { scope },
              edit: (edits) => edits.patch("scope", scope, { pools: [fresh], exclusions: [] }),
            } satisfies Repair,
          ]),
    ];
  },
});

interface Tight {
  readonly segment: string;
  readonly scope: string;
  readonly lease: number;
  readonly needed: number;
  readonly offered: number;
}

/** Devices that are there all day beside the visitors. */
const residents = (index: PlanIndex, segment: Segment): number =>
  index.hostsIn(segment.id).filter((host) => host.manner === "dynamic").length;

function leaseRepairs(index: PlanIndex, scope: Scope, segment: Segment, offered: number): Repair[] {
  if (segment.visit === null) return [];
  const advice = adviseLease(segment.visit, offered, residents(index, segment));
  return advice.leaseSeconds >= scope.leaseSeconds
    ? []
    : [
        {
          label: `Lease ${formatLease(advice.leaseSeconds)}: ${advice.pool} in use at the peak`,
          planner: "set-lease",
          args: { scope: scope.id, seconds: advice.leaseSeconds },
          edit: (edits) => edits.patch("scope", scope.id, { leaseSeconds: advice.leaseSeconds }),
        },
      ];
}

export const leaseOutlivesVisit = localCheck<Tight, "segment">({
  code: "lease-outlives-visit",
  severity: "warn",
  family: "segments",
  title: "Leases last longer than visits, and the pool is too tight for that",
  why:
    "Each visitor who has left still holds an address until the " +
    "lease ends; when they are all held, the next one gets none.",
  reads: ["segment", "scope", "host"],
  of: "segment",
  touched: segmentsTouched,
  findAt: (index, segment): Found<Tight>[] => {
    const { visit } = segment;
    if (visit === null) return [];
    return index
      .scopesOf(segment.id)
      .filter((scope) => scope.family === 4 && scope.leaseSeconds > visit.staySeconds)
      .slice(0, 1)
      .flatMap((scope) => {
        const offered = Number(
          index
            .scopesOf(segment.id)
            .reduce((sum, scope) => sum + (scope.family === 4 ? offeredCount(scope) : 0n), 0n),
        );
        const needed = peakUse(visit, scope.leaseSeconds).needed + residents(index, segment);
        return needed <= offered
          ? []
          : [
              {
                subjects: [
                  { kind: "segment", id: segment.id },
                  { kind: "scope", id: scope.id },
                ],
                data: { segment: segment.id, scope: scope.id, lease: scope.leaseSeconds, needed, offered },
              },
            ];
      });
  },
  describe: ({ segment, lease, needed, offered }, index) => {
    const stay = index.plan.segment.get(segment)?.visit?.staySeconds ?? 0;
    return (
      `${nameOf(index, "segment", segment)}: a visit lasts ${formatLease(stay)} and a lease ` +
      `${formatLease(lease)}, so ${needed} addresses are in use at the peak; the pool has ${offered}.`
    );
  },
  repairs: ({ segment, scope, offered }, index) => {
    const [target, owner] = [index.plan.segment.get(segment), index.plan.scope.get(scope)];
    return target === undefined || owner === undefined ? [] : leaseRepairs(index, owner, target, offered);
  },
});

interface Nobody {
  readonly segment: string;
  readonly address: Address;
  readonly home: string | null;
}

export const namesWithoutServer = check<Nobody>({
  code: "names-without-server",
  severity: "stop",
  family: "segments",
  title: "The DNS server that clients are given does not exist",
  why: "Without DNS no page opens, though the internet itself is there.",
  reads: ["segment", "host", "interface"],
  find: (index): Found<Nobody>[] =>
    [...index.plan.segment.values()].flatMap((segment) =>
      segment.dns.flatMap((address): Found<Nobody>[] => {
        const own = holdsAddress(segment, address);
        const home = own ? segment : segmentHolding(index.plan, address);
        const held = index.holdersOf(address).length > 0;
        // Outside its own subnet nothing is reached without a gateway; inside the site somebody has to have
        // the address.
        if ((own || segment.gatewayInterface !== null) && (home === null || held)) return [];
        return [
          {
            subjects: [{ kind: "segment", id: segment.id }],
            data: { segment: segment.id, address, home: home?.id ?? null },
          },
        ];
      }),
    ),
  describe: ({ segment, address, home }, index) => {
    const asked = `${nameOf(index, "segment", segment)} is told to ask ${formatAddress(address)} for DNS`;
    return home !== null && index.holdersOf(address).length === 0
      ? `${asked}, an address in ${nameOf(index, "segment", home)} that no device of the plan has.`
      : `${asked}, and has no gateway that leads there.`;
  },
  repairs: ({ segment, address }, index): Repair[] => {
    const target = index.plan.segment.get(segment);
    const gateway = target === undefined ? undefined : index.gatewayOf(target)?.addresses4[0];
    return gateway === undefined || target === undefined
      ? []
      : [
          {
            label: `Hand out the gateway, ${shortAddress(gateway)}`,
            planner: "set-dns",
            args: { segment, dns: formatAddress(gateway) },
            edit: (edits) =>
              edits.patch("segment", segment, {
                dns: [...new Set(target.dns.map((d) => (d === address ? gateway : d)))],
              }),
          },
        ];
  },
});
