import { freeRanges, type AddressRange } from "./range";
import { lastOf, prefixOf, widthOf, type Prefix } from "./prefix";
import { step, type Address } from "./address";

/** Rounds up to the next multiple of `size`. */
const alignUp = (value: bigint, size: bigint): bigint => ((value + size - 1n) / size) * size;

/**
 * The first prefix of `length` inside `block` that meets none of `taken`, or null when there is none.
 * The gaps are walked, not the subnets: a /64 in a /48 is found as fast as a /30 in a /24.
 */
export function nextFreeSubnet(block: Prefix, length: number, taken: readonly Prefix[]): Prefix | null {
  if (length < block.length || length > widthOf(block.family)) return null;
  const size = 2n ** BigInt(widthOf(block.family) - length);
  const gaps = freeRanges(
    { first: block.network, last: lastOf(block) },
    taken.filter((t) => t.family === block.family).map((t) => ({ first: t.network, last: lastOf(t) })),
  );
  for (const gap of gaps) {
    const start = alignUp(BigInt(gap.first), size);
    if (start + size - 1n > BigInt(gap.last)) continue;
    return prefixOf((block.family === 4 ? Number(start) : start) as Address, length);
  }
  return null;
}

/**
 * The next address to give out in `block`: the one after the last used there, then, at the block's end, the
 * first free from its start. Null when the block is full. An address given back is thus not handed on at
 * once.
 */
export function nextFreeAddress(block: AddressRange, used: readonly Address[]): Address | null {
  const singles = used.map((address) => ({ first: address, last: address }));
  const free = freeRanges(block, singles);
  const inside = used.filter((address) => address >= block.first && address <= block.last);
  const lastUsed = inside.reduce<Address | null>(
    (max, address) => (max === null || address > max ? address : max),
    null,
  );
  const after = lastUsed === null ? block.first : step(lastUsed, 1);
  if (after !== null && after <= block.last) return after;
  return free[0]?.first ?? null;
}
