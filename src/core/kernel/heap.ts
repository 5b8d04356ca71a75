/** Gives its items back smallest first: a binary heap. */
export class Heap<T> {
  readonly #items: T[] = [];
  readonly #compare: (a: T, b: T) => number;

  constructor(compare: (a: T, b: T) => number) {
    this.#compare = compare;
  }

  push(item: T): void {
    const items = this.#items;
    let at = items.push(item) - 1;
    while (at > 0) {
      const up = Math.floor((at - 1) / 2);
      const parent = items[up];
      if (parent === undefined || this.#compare(parent, item) <= 0) break;
      items[at] = parent;
      at = up;
    }
    items[at] = item;
  }

  /** Takes the smallest item out; undefined when there is none. */
  pop(): T | undefined {
    const items = this.#items;
    const [first] = items;
    const last = items.pop();
    if (last === undefined || items.length === 0) return first;
    let at = 0;
    for (let child = 1; child < items.length; child = 2 * at + 1) {
      let least = items[child];
      const right = items[child + 1];
      let place = child;
      if (right !== undefined && least !== undefined && this.#compare(right, least) < 0)
        [least, place] = [right, child + 1];
      if (least === undefined || this.#compare(last, least) <= 0) break;
      items[at] = least;
      at = place;
    }
    items[at] = last;
    return first;
  }
}
