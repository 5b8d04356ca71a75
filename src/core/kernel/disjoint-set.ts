/**
 * Union-find over 0..n-1: roots are joined by size, so no tree grows deeper than log2(n); paths halve on the
 * way up.
 */
export class DisjointSet {
  #parent: Uint32Array;
  #size: Uint32Array;

  constructor(count: number) {
    // A loop, not `from` with a callback: a site's devices times its VLANs can be a million.
    this.#parent = new Uint32Array(count);
    for (let i = 0; i < count; i += 1) this.#parent[i] = i;
    this.#size = new Uint32Array(count).fill(1);
  }

  rootOf(item: number): number {
    const parent = this.#parent;
    let at = item;
    while (parent[at] !== at) {
      const up = parent[at] ?? at;
      parent[at] = parent[up] ?? up;
      at = parent[at] ?? at;
    }
    return at;
  }

  join(a: number, b: number): void {
    const x = this.rootOf(a);
    const y = this.rootOf(b);
    if (x === y) return;
    const [small, large] = (this.#size[x] ?? 0) < (this.#size[y] ?? 0) ? [x, y] : [y, x];
    this.#parent[small] = large;
    this.#size[large] = (this.#size[large] ?? 0) + (this.#size[small] ?? 0);
  }

  clone(): DisjointSet {
    const copy = new DisjointSet(0);
    copy.#parent = this.#parent.slice();
    copy.#size = this.#size.slice();
    return copy;
  }

  /**
   * Takes an item out of its set. Every item of that set has to be taken out, or those that hang on this one
   * stay with it.
   */
  isolate(item: number): void {
    this.#parent[item] = item;
    this.#size[item] = 1;
  }
}
