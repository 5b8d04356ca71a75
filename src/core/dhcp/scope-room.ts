import { ascending } from "../kernel";
import {
  freeRanges,
  inRange,
  rangeCount,
  step,
  type Address,
  type AddressRange,
  type Family,
  type Mac,
} from "../address";
import { holdsAddress, type Host, type PlanIndex, type Scope } from "../plan";

/**
 * Every host of a segment asks this of the same scope; a scope never changes, so the answer can be kept as
 * long as it lives.
 */
const KNOWN = new WeakMap<Scope, readonly AddressRange[]>();

/** The pools of a scope less its exclusions, ascending, without overlap. */
export function offeredRanges(scope: Scope): readonly AddressRange[] {
  const known = KNOWN.get(scope) ?? rangesOf(scope);
  KNOWN.set(scope, known);
  return known;
}

function rangesOf(scope: Scope): AddressRange[] {
  const sorted = [...scope.pools].sort((a, b) => ascending(a.first, b.first));
  const merged: AddressRange[] = [];
  for (const pool of sorted) {
    const open = merged.at(-1);
    if (open !== undefined && pool.first <= open.last)
      merged[merged.length - 1] = { first: open.first, last: pool.last > open.last ? pool.last : open.last };
    else merged.push(pool);
  }
  return merged.flatMap((range) => freeRanges(range, scope.exclusions));
}

export const offeredCount = (scope: Scope): bigint =>
  offeredRanges(scope).reduce((sum, range) => sum + rangeCount(range), 0n);

/**
 * Addresses that the server won't lease to just anyone: reservations inside the pool count even while their
 * owner is away.
 */
export function keptInPool(index: PlanIndex, scope: Scope): Address[] {
  const ranges = offeredRanges(scope);
  return index.hostsIn(scope.segment).flatMap((host) => {
    const address = scope.family === 4 ? host.ipv4 : host.ipv6;
    return address !== null && host.manner === "reserved" && ranges.some((range) => inRange(range, address))
      ? [address]
      : [];
  });
}

/** The server's own addresses in the segment: it never leases one of them. */
function ownAddresses(index: PlanIndex, scope: Scope): Set<Address> {
  // By segment, not by device: a gateway has a leg in every segment, and each of their scopes asks this.
  const legs = index.interfacesIn(scope.segment).filter((leg) => leg.device === scope.serverDevice);
  const host = scope.serverHost === null ? undefined : index.plan.host.get(scope.serverHost);
  return new Set<Address>([
    ...legs.flatMap((leg): Address[] => [...leg.addresses4, ...leg.addresses6]),
    ...[host?.ipv4, host?.ipv6].filter((a) => a !== null && a !== undefined),
  ]);
}

/**
 * How many addresses are left for clients without a reservation: the pools less what is reserved in them and
 * the server's own.
 */
export function leasableCount(index: PlanIndex, scope: Scope): bigint {
  const ranges = offeredRanges(scope);
  const taken = new Set<Address>([
    ...keptInPool(index, scope),
    ...[...ownAddresses(index, scope)].filter((address) => ranges.some((range) => inRange(range, address))),
  ]);
  return offeredCount(scope) - BigInt(taken.size);
}

export interface Offer {
  readonly address: Address;
  readonly reserved: boolean;
}

/** Who holds which address just now: leases by MAC address. */
export type Leases = ReadonlyMap<Mac, Address>;
const NO_LEASES: Leases = new Map();

const ownAddress = (host: Host, family: Family) => (family === 4 ? host.ipv4 : host.ipv6);

/**
 * The address kept for `mac`, or null. A server ignores a reservation outside its subnet and one of its own
 * address, and serves that client from the pool.
 */
function reservationOf(index: PlanIndex, scope: Scope, mac: Mac | null): Address | null {
  const owner =
    mac === null
      ? undefined
      : index
          .groups("hostsByMac")
          .get(mac)
          ?.find((host) => host.segment === scope.segment && host.manner === "reserved");
  const address = owner === undefined ? null : ownAddress(owner, scope.family);
  const segment = index.plan.segment.get(scope.segment);
  return address !== null &&
    segment !== undefined &&
    holdsAddress(segment, address) &&
    !ownAddresses(index, scope).has(address)
    ? address
    : null;
}

/**
 * What the scope offers to `mac` (RFC 2131 section 4.3.1): the address kept for it, else the one it holds,
 * else the one it asks for when that is free, else the lowest that nobody holds; null when the pool is
 * exhausted.
 */
export function offerTo(
  index: PlanIndex,
  scope: Scope,
  {
    mac,
    leases = NO_LEASES,
    asked = null,
  }: { readonly mac: Mac | null; readonly leases?: Leases; readonly asked?: Address | null },
): Offer | null {
  const reservation = reservationOf(index, scope, mac);
  if (reservation !== null) return { address: reservation, reserved: true };
  const held = mac === null ? undefined : leases.get(mac);
  if (held !== undefined) return { address: held, reserved: false };
  const ranges = offeredRanges(scope);
  const taken = new Set<Address>([
    ...keptInPool(index, scope),
    ...ownAddresses(index, scope),
    ...leases.values(),
  ]);
  if (asked !== null && !taken.has(asked) && ranges.some((range) => inRange(range, asked)))
    return { address: asked, reserved: false };
  const address = freeIn(ranges, taken).next().value;
  return address === undefined ? null : { address, reserved: false };
}

/** The addresses of ranges that are not taken, ascending. */
function* freeIn(
  ranges: readonly AddressRange[],
  taken: ReadonlySet<Address>,
): Generator<Address, undefined> {
  for (const range of ranges) {
    for (let at: Address | null = range.first; at !== null && at <= range.last; at = step(at, 1))
      if (!taken.has(at)) yield at;
  }
  return undefined;
}

/** What a scope has for anyone while nobody has asked yet, one after another. */
export const freeAddresses = (index: PlanIndex, scope: Scope): Generator<Address, undefined> =>
  freeIn(
    offeredRanges(scope),
    new Set<Address>([...keptInPool(index, scope), ...ownAddresses(index, scope)]),
  );
