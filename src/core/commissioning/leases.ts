import { familyOf, inRange } from "../address";
import { offeredRanges } from "../dhcp";
import type { Host, PlanIndex, Scope } from "../plan";
import { serverOf, type Outcome } from "../probe";
import { equal } from "../kernel";
import type { Expected } from "./tests";

/** The scope that gave a lease; null for none that is known. */
export function scopeOfLease(index: PlanIndex, { lease }: Outcome): Scope | null {
  if (lease === null || !lease.leased || lease.segment === null) return null;
  const scopes = index.scopesOf(lease.segment).filter(({ family }) => family === familyOf(lease.address));
  return scopes.find((scope) => serverOf(index, scope) === lease.server) ?? null;
}

/** What a client has to show after it asked for an address; of a device of the plan, its own. */
export function leaseExpected(index: PlanIndex, outcome: Outcome, host: Host | null): Expected {
  const { lease, cause } = outcome;
  if (lease === null || !lease.leased)
    return { is: "no lease", why: cause?.sentence ?? "Nobody gives it an address." };
  const scope = scopeOfLease(index, outcome);
  const isKept = host?.manner === "reserved" && host.ipv4 !== null && lease.address === host.ipv4;
  const ranges = scope === null ? [] : offeredRanges(scope);
  return {
    is: "lease",
    segment: lease.segment,
    address: isKept || !ranges.some((range) => inRange(range, lease.address)) ? lease.address : null,
    ranges,
    gateway: lease.gateway,
    dns: lease.dns,
    leaseSeconds: lease.leaseSeconds,
  };
}

/** Whether two readings come out the same: why there is no address is not read. */
export const readsTheSame = (a: Expected, b: Expected): boolean =>
  a.is === "no lease" ? b.is === "no lease" : equal(a, b);
