/** Keeps what was asked for last: at most so many; what was asked for longest ago goes first. */
export class Lately<Key, Value> {
  readonly #most: number;
  readonly #kept = new Map<Key, Value>();

  constructor(most: number) {
    this.#most = most;
  }

  /** What is kept under a key, made where it is not there. */
  get(key: Key, make: () => Value): Value {
    const found = this.#kept.has(key) ? (this.#kept.get(key) as Value) : make();
    this.#kept.delete(key);
    this.#kept.set(key, found);
    for (const oldest of this.#kept.keys()) {
      if (this.#kept.size <= this.#most) break;
      this.#kept.delete(oldest);
    }
    return found;
  }
}
