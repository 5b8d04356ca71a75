import type { SeenTag } from "./link";
import { macOf, type MacNumber } from "./octets";

/** As many rows of each kind are kept, and of all kinds together: what a port hears is dozens. */
const MOST_ROWS = 5_000;
const MOST_IN_ALL = 60_000;

/** What one capture may keep in all, since a file can be made to fill memory. */
export class Budget {
  #left = MOST_IN_ALL;
  #leftOut = false;

  /** Whether there was more than is kept. */
  get leftOut(): boolean {
    return this.#leftOut;
  }

  /** Room for one more, where there are `known` of its kind already; false where there is none. */
  take(known: number): boolean {
    const hasRoom = known < MOST_ROWS && this.#left > 0;
    if (hasRoom) this.#left -= 1;
    else this.#leftOut = true;
    return hasRoom;
  }
}

/** Rows by key, each made once. */
export class Rows<Row> {
  readonly #budget: Budget;
  readonly #rows = new Map<string | number, Row>();

  constructor(budget: Budget) {
    this.#budget = budget;
  }

  /** The row with a key, made where there is none; null where there are too many already. */
  at(key: string | number, make: () => Row): Row | null {
    const known = this.#rows.get(key);
    if (known !== undefined) return known;
    if (!this.#budget.take(this.#rows.size)) return null;
    const made = make();
    this.#rows.set(key, made);
    return made;
  }

  get(key: string | number): Row | undefined {
    return this.#rows.get(key);
  }

  all(): Row[] {
    return [...this.#rows.values()];
  }
}

/** Contents, each with the number of frames that said the same. */
export class Contents<Content extends object> {
  readonly #rows: Rows<{ readonly content: Content; frames: number }>;

  constructor(budget: Budget) {
    this.#rows = new Rows(budget);
  }

  add(content: Content): void {
    const row = this.#rows.at(JSON.stringify(content), () => ({ content, frames: 0 }));
    if (row !== null) row.frames += 1;
  }

  all(): (Content & { readonly frames: number })[] {
    return this.#rows.all().map(({ content, frames }) => ({ ...content, frames }));
  }
}

/** Stations by their MAC addresses, with how many frames each sent. */
export class Senders {
  readonly #rows: Rows<{ readonly mac: MacNumber; frames: number }>;

  constructor(budget: Budget) {
    this.#rows = new Rows(budget);
  }

  add(mac: MacNumber): void {
    const row = this.#rows.at(mac, () => ({ mac, frames: 0 }));
    if (row !== null) row.frames += 1;
  }

  counts(): Counts {
    return Object.fromEntries(this.#rows.all().map(({ mac, frames }) => [macOf(mac), frames]));
  }
}

/** Counts by name. */
export type Counts = Readonly<Record<string, number>>;

/** One more of a name. */
export const countIn = (counts: Map<string, number>, name: string): void => {
  counts.set(name, (counts.get(name) ?? 0) + 1);
};
export const countsOf = (counts: ReadonlyMap<string, number>): Counts => Object.fromEntries(counts);

/** As many values stand in one row. */
const MOST_VALUES = 100;

/** One more value, of few. */
export const addTo = (values: string[], value: string): void => {
  if (values.length < MOST_VALUES && !values.includes(value)) values.push(value);
};

/** The VLAN that a frame was tagged with: null for none, 0 for a priority tag, and the tags inside. */
export interface Tagged {
  readonly vid: number | null;
  readonly inner?: readonly number[];
}

export function taggedOf([outer, ...inner]: readonly SeenTag[]): Tagged {
  if (outer === undefined) return { vid: null };
  return inner.length === 0 ? { vid: outer.vid } : { vid: outer.vid, inner: inner.map(({ vid }) => vid) };
}
export const tagKey = ({ vid, inner = [] }: Tagged): string => [vid ?? "-", ...inner].join(".");
