import { familyOf, inRange, lastOf } from "../address";
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

/** Whether a client made its own address from what a router advertises (RFC 4862). */
const isSelfMade = ({ address, server }: NonNullable<Outcome["lease"]>): boolean =>
  familyOf(address) === 6 && server !== "static";

/** What a client has to show after it asked for an address; of a device of the plan, its own. */
export function leaseExpected(index: PlanIndex, outcome: Outcome, host: Host | null): Expected {
  const { lease, cause } = outcome;
  if (lease === null || !(lease.leased || isSelfMade(lease)))
    return { is: "no lease", why: cause?.sentence ?? "Nobody gives it an address." };
  const scope = scopeOfLease(index, outcome);
  const isKept = host?.manner === "reserved" && host.ipv4 !== null && lease.address === host.ipv4;
  const isSix = familyOf(lease.address) === 6;
  const made = isSix ? lease.own.map((prefix) => ({ first: prefix.network, last: lastOf(prefix) })) : [];
  const ranges = scope === null ? made : offeredRanges(scope);
  return {
    is: "lease",
    segment: lease.segment,
    address: isKept || !ranges.some((range) => inRange(range, lease.address)) ? lease.address : null,
    ranges,
    // Of IPv6 it is the router's link-local address, which no plan gives.
    gateway: isSix ? null : lease.gateway,
    dns: lease.dns,
    leaseSeconds: lease.leaseSeconds,
  };
}

/** Whether two readings come out the same: why there is no address is not read. */
export const readsTheSame = (a: Expected, b: Expected): boolean =>
  a.is === "no lease" ? b.is === "no lease" : equal(a, b);
