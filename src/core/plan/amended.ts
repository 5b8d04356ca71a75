/** With more replaced than that, a copy costs less than looking twice. */
const MOST_REPLACED = 256;
/** A collection that is smaller is copied: that takes no time. */
const FEWEST = 1000;

/**
 * A large collection with some entities replaced, without copying it: its ids and their order are the same. For
 * plans that are only asked what would be, one after the other. No `Map`: it does not go into another thread.
 */
class Amended<V> implements ReadonlyMap<string, V> {
  readonly base: ReadonlyMap<string, V>;
  readonly replaced: ReadonlyMap<string, V>;

  constructor(base: ReadonlyMap<string, V>, replaced: ReadonlyMap<string, V>) {
    this.base = base;
    this.replaced = replaced;
  }

  get size(): number {
    return this.base.size;
  }
  has(id: string): boolean {
    return this.base.has(id);
  }
  get(id: string): V | undefined {
    return this.replaced.get(id) ?? this.base.get(id);
  }
  keys(): MapIterator<string> {
    return this.base.keys();
  }
  *entries(): MapIterator<[string, V]> {
    for (const [id, value] of this.base) yield [id, this.replaced.get(id) ?? value];
  }
  *values(): MapIterator<V> {
    for (const [id, value] of this.base) yield this.replaced.get(id) ?? value;
  }
  [Symbol.iterator](): MapIterator<[string, V]> {
    return this.entries();
  }
  forEach(hear: (value: V, id: string, all: ReadonlyMap<string, V>) => void): void {
    for (const [id, value] of this.entries()) hear(value, id, this);
  }
}

/**
 * A collection after some of its entities were replaced, by id; null where a copy is better: it is small, or
 * much was replaced already. Every id has to be in it.
 */
export function amended<V>(
  all: ReadonlyMap<string, V>,
  replaced: ReadonlyMap<string, V>,
): ReadonlyMap<string, V> | null {
  if (all.size < FEWEST) return null;
  const [base, before] =
    all instanceof Amended
      ? [all.base as ReadonlyMap<string, V>, all.replaced as ReadonlyMap<string, V>]
      : [all, new Map<string, V>()];
  if (before.size + replaced.size > MOST_REPLACED) return null;
  return new Amended(base, new Map([...before, ...replaced]));
}
