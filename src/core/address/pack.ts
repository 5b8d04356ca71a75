import type { Address } from "./address";
import { byPrefix, lastOf, prefixesOverlap, prefixOf, widthOf, type Prefix } from "./prefix";
import { freeRanges, prefixesOfRange } from "./range";

/** A subnet that is wanted. */
export interface SubnetWish {
  readonly key: string;
  readonly length: number;
  /**
   * The length of the room kept for it, the subnet itself included and at its beginning; never longer than
   * `length`.
   */
  readonly roomLength: number;
}

export interface Packed {
  readonly placed: ReadonlyMap<string, Prefix>;
  readonly unplaced: readonly string[];
}

/** The largest prefixes of `block` that meet none of `taken`, by address. */
export function freePrefixes(block: Prefix, taken: readonly Prefix[]): Prefix[] {
  const ranges = taken
    .filter((t) => t.family === block.family && prefixesOverlap(t, block))
    .map((t) => ({ first: t.network, last: lastOf(t) }));
  return freeRanges({ first: block.network, last: lastOf(block) }, ranges).flatMap(prefixesOfRange);
}

const at = (prefix: Prefix, offset: bigint, length: number): Prefix | null =>
  prefixOf(
    (prefix.family === 4
      ? Number(BigInt(prefix.network) + offset)
      : BigInt(prefix.network) + offset) as Address,
    length,
  );

/** Free prefixes by length, each list by address; taking a part of one puts what is left of it back. */
class FreeSpace {
  readonly #byLength = new Map<number, Prefix[]>();

  /** From prefixes by address. */
  constructor(prefixes: readonly Prefix[]) {
    for (const prefix of prefixes) this.#put(prefix);
  }

  #put(prefix: Prefix): void {
    const list = this.#byLength.get(prefix.length) ?? [];
    // The lowest stands at the end, where it can be taken off at once: what is put in lies above all of its
    // length, for a part only goes back where there is none.
    list.unshift(prefix);
    this.#byLength.set(prefix.length, list);
  }

  /** The tightest free place for `length`, the lowest of equals; null when none is large enough. */
  take(length: number): Prefix | null {
    for (let size = length; size >= 0; size -= 1) {
      const found = this.#byLength.get(size)?.pop();
      if (found === undefined) continue;
      for (let half = size + 1; half <= length; half += 1) {
        const upper = at(found, 2n ** BigInt(widthOf(found.family) - half), half);
        if (upper !== null) this.#put(upper);
      }
      return prefixOf(found.network, length);
    }
    return null;
  }
}

/**
 * Gives every wish a subnet inside the blocks that meets no other and nothing of `forbidden`. The largest are
 * placed first, each in the tightest place, so as long as everything fits at all it is placed; wishes of one
 * size keep their order. The same wishes always give the same subnets.
 */
export function packSubnets(
  blocks: readonly Prefix[],
  wishes: readonly SubnetWish[],
  forbidden: readonly Prefix[],
): Packed {
  const apart: Prefix[] = [];
  for (const block of [...blocks].sort(byPrefix))
    if (!apart.some((other) => prefixesOverlap(other, block))) apart.push(block);
  const space = new FreeSpace(apart.flatMap((block) => freePrefixes(block, forbidden)));
  const order = [...wishes].sort((a, b) => a.roomLength - b.roomLength);
  const placed = new Map<string, Prefix>();
  const unplaced: string[] = [];
  for (const wish of order) {
    const room = space.take(wish.roomLength);
    const subnet = room === null ? null : prefixOf(room.network, wish.length);
    if (subnet === null) unplaced.push(wish.key);
    else placed.set(wish.key, subnet);
  }
  return { placed, unplaced };
}
