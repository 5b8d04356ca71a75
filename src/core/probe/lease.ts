import { netmaskText, containsAddress, parseAddress, prefixOf, type Address, type Prefix } from "../address";
import { leasableCount } from "../dhcp";
import {
  type Host,
  type Interface,
  nameOf,
  type PlanIndex,
  type Scope,
  type Segment,
  segmentHolding,
  subnetHolding,
} from "../plan";
import { enteredOn } from "../routing";
import type { Cause } from "./step";

/** What the client shows after it got (or typed in, or made) its address. */
export interface Lease {
  readonly address: Address;
  readonly mask: string;
  /** What it takes for its own subnet. */
  readonly own: readonly Prefix[];
  readonly gateway: Address | null;
  /** The gateway itself, where an advertisement named it. */
  readonly gatewayLeg: Interface | null;
  readonly dns: readonly Address[];
  readonly leaseSeconds: number | null;
  readonly server: string;
  /** The segment it is of; null for an address that is none's. */
  readonly segment: string | null;
  readonly free: number | null;
  readonly leased: boolean;
  /** Where a VLAN turned into another on the way to the server; null when it did not. */
  readonly turnedAt: Cause | null;
}

/** The name of the scope's server; "nobody" without one. */
export const serverOf = (index: PlanIndex, scope: Scope): string => {
  if (scope.serverDevice !== null) return nameOf(index, "device", scope.serverDevice);
  if (scope.serverHost === null) return "nobody";
  return nameOf(index, "host", scope.serverHost);
};

/** An option of the scope (RFC 2132) as addresses, or null when it is not set there. */
function optionAddresses(scope: Scope, code: number): Address[] | null {
  const option = scope.options.find((option) => option.code === code);
  if (option === undefined) return null;
  const found = option.value.split(/[\s,]+/).flatMap((text) => parseAddress(text) ?? []);
  return found.length === 0 ? null : found;
}

/** A mask as it is entered: dotted for IPv4, a length for IPv6; empty when no subnet is known. */
const maskText = (prefix: Prefix | null | undefined): string => {
  if (prefix === null || prefix === undefined) return "";
  return prefix.family === 4 ? netmaskText(prefix) : `/${prefix.length}`;
};

/** What is entered on a static host, or what a segment says to whoever has that address in it (null). */
export function typedLease(index: PlanIndex, segment: Segment, address: Address, host: Host | null): Lease {
  const { own, gateway, gatewayLeg } = enteredOn(index, host, segment, address);
  const prefix = own.find((p) => containsAddress(p, address));
  return {
    address,
    mask: maskText(prefix),
    own: prefix === undefined ? own : [prefix],
    gateway,
    gatewayLeg,
    dns: host !== null && host.dns.length > 0 ? host.dns : segment.dns,
    leaseSeconds: null,
    server: "static",
    segment: segment.id,
    free: null,
    leased: false,
    turnedAt: null,
  };
}

/** A static address without a plan: what somebody has on the laptop. */
export function ownLease(index: PlanIndex, address: Address, length: number, gateway: Address | null): Lease {
  const prefix = prefixOf(address, length);
  return {
    address,
    mask: maskText(prefix),
    own: prefix === null ? [] : [prefix],
    gateway,
    gatewayLeg: null,
    dns: [],
    leaseSeconds: null,
    server: "static",
    segment: segmentHolding(index.plan, address)?.id ?? null,
    free: null,
    leased: false,
    turnedAt: null,
  };
}

/** What a client gets from a scope with an address of its segment. */
export function leaseOf(index: PlanIndex, segment: Segment, address: Address, scope: Scope): Lease {
  const prefix = subnetHolding(segment, address);
  return {
    ...typedLease(index, segment, address, null),
    own: prefix === undefined ? [] : [prefix],
    gateway: optionAddresses(scope, 3)?.[0] ?? index.gatewayOf(segment)?.addresses4[0] ?? null,
    dns: optionAddresses(scope, 6) ?? segment.dns,
    leaseSeconds: scope.leaseSeconds,
    server: serverOf(index, scope),
    free: Number(leasableCount(index, scope)),
    leased: true,
  };
}
