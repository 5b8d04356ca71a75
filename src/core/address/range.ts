import { ascending } from "../kernel";
import { familyOf, formatAddress, parseAddress, step, type Address } from "./address";
import { floorLog2, trailingZeros } from "./bits";
import { lastOf, prefixOf, widthOf, type Prefix } from "./prefix";

/** From `first` to `last`, both included; one family. */
export interface AddressRange {
  readonly first: Address;
  readonly last: Address;
}

/** Both ends counted: .60 to .99 is 40. */
export const rangeCount = (range: AddressRange): bigint => BigInt(range.last) - BigInt(range.first) + 1n;

export const inRange = (range: AddressRange, address: Address): boolean =>
  familyOf(address) === familyOf(range.first) && address >= range.first && address <= range.last;

export const rangesOverlap = (a: AddressRange, b: AddressRange): boolean =>
  familyOf(a.first) === familyOf(b.first) && a.first <= b.last && b.first <= a.last;

export const formatRange = (range: AddressRange): string =>
  `${formatAddress(range.first)} to ${formatAddress(range.last)}`;

/**
 * "first-last" with an ASCII hyphen, en dash or "to" between; null when unreadable, mixed in family or
 * backwards.
 */
export function parseRange(text: string): AddressRange | null {
  const parts = text.split(/\s*(?:-|–|\bto\b)\s*/);
  const first = parseAddress((parts[0] ?? "").trim());
  const last = parseAddress((parts[1] ?? "").trim());
  if (parts.length !== 2 || first === null || last === null) return null;
  return familyOf(first) === familyOf(last) && first <= last ? { first, last } : null;
}

/** The fewest prefixes that together are exactly `range`, ascending. */
export function prefixesOfRange(range: AddressRange): Prefix[] {
  const width = widthOf(familyOf(range.first));
  const toAddress = (value: bigint): Address => (width === 32 ? Number(value) : value) as Address;
  const prefixes: Prefix[] = [];
  let at = BigInt(range.first);
  const end = BigInt(range.last);
  while (at <= end) {
    const hostBits = Math.min(trailingZeros(at, width), floorLog2(end - at + 1n));
    const prefix = prefixOf(toAddress(at), width - hostBits);
    if (prefix === null) break;
    prefixes.push(prefix);
    at += 2n ** BigInt(hostBits);
  }
  return prefixes;
}

/** The addresses of `whole` that no range of `taken` holds, as ascending ranges. */
export function freeRanges(whole: AddressRange, taken: readonly AddressRange[]): AddressRange[] {
  const sorted = taken
    .filter((range) => rangesOverlap(range, whole))
    .sort((a, b) => ascending(a.first, b.first));
  const toAddress = (value: bigint): Address =>
    (typeof whole.first === "number" ? Number(value) : value) as Address;
  const free: AddressRange[] = [];
  let at = BigInt(whole.first);
  for (const range of sorted) {
    if (BigInt(range.first) > at)
      free.push({ first: toAddress(at), last: toAddress(BigInt(range.first) - 1n) });
    const next = BigInt(range.last) + 1n;
    if (next > at) at = next;
  }
  if (at <= BigInt(whole.last)) free.push({ first: toAddress(at), last: whole.last });
  return free;
}

/**
 * The addresses a host may have, both ends included. IPv4: without network and broadcast address, but all of
 * a /31 (RFC 3021) and /32. IPv6: without the subnet-router anycast address (RFC 4291 section 2.6.1), but all
 * of a /127 (RFC 6164) and /128.
 */
export function usableRange(prefix: Prefix): AddressRange {
  const last = lastOf(prefix);
  if (prefix.length >= widthOf(prefix.family) - 1) return { first: prefix.network, last };
  const first = step<Address>(prefix.network, 1) ?? prefix.network;
  return { first, last: prefix.family === 4 ? (step(last, -1) ?? last) : last };
}
