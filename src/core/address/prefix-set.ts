import { powerOfTwo } from "./bits";
import { addressCount, byPrefix, containsPrefix, lastOf, prefixOf, widthOf, type Prefix } from "./prefix";
import { prefixesOfRange } from "./range";
import type { Address } from "./address";

/** The fewest prefixes that hold the same addresses, ascending; IPv4 before IPv6. */
export function summarise(prefixes: readonly Prefix[]): Prefix[] {
  const sorted = [...prefixes].sort(byPrefix);
  const merged: { first: Address; last: Address }[] = [];
  let family = 0;
  for (const prefix of sorted) {
    const last = lastOf(prefix);
    const open = merged.at(-1);
    const touches =
      open !== undefined && family === prefix.family && BigInt(prefix.network) <= BigInt(open.last) + 1n;
    if (touches) {
      if (last > open.last) open.last = last;
    } else {
      merged.push({ first: prefix.network, last });
    }
    family = prefix.family;
  }
  return merged.flatMap(prefixesOfRange);
}

/** What is left of `whole` without `hole`, ascending; `whole` itself when they don't meet. */
export function exclude(whole: Prefix, hole: Prefix): Prefix[] {
  if (containsPrefix(hole, whole)) return [];
  if (!containsPrefix(whole, hole)) return [whole];
  const halves = [...subnetsOf(whole, whole.length + 1)];
  return halves.flatMap((half) => (containsPrefix(half, hole) ? exclude(half, hole) : [half]));
}

/** How many prefixes of `length` fit into `prefix`; 0 when `length` is wider than it. */
export const subnetCount = (prefix: Prefix, length: number): bigint =>
  length < prefix.length || length > widthOf(prefix.family) ? 0n : powerOfTwo(length - prefix.length);

/** Every prefix of `length` inside `prefix`, ascending. Lazy: a wide prefix holds more than anyone can list. */
export function* subnetsOf(prefix: Prefix, length: number): Generator<Prefix> {
  const count = subnetCount(prefix, length);
  const size = count === 0n ? 0n : addressCount(prefix) / count;
  for (let i = 0n; i < count; i += 1n) {
    const value = BigInt(prefix.network) + i * size;
    const subnet = prefixOf((prefix.family === 4 ? Number(value) : value) as Address, length);
    if (subnet !== null) yield subnet;
  }
}

/** The prefix of the shorter `length` around `prefix`, or null when `length` is longer. */
export const supernetOf = (prefix: Prefix, length: number): Prefix | null =>
  length > prefix.length ? null : prefixOf(prefix.network, length);
