import type { SeenTag } from "./link";

/** As many rows of each kind are kept: what a port hears is dozens, and a file can be made to fill memory. */
const MOST_ROWS = 5_000;

/** Rows by key, each with how many frames said it. */
export class Rows<Row> {
  readonly #rows = new Map<string | number, Row>();
  #leftOut = false;

  /** Whether there were more kinds than are kept. */
  get leftOut(): boolean {
    return this.#leftOut;
  }

  /** The row with a key, made where there is none; null where there are too many already. */
  at(key: string | number, make: () => Row): Row | null {
    const known = this.#rows.get(key);
    if (known !== undefined) return known;
    if (this.#rows.size >= MOST_ROWS) {
      this.#leftOut = true;
      return null;
    }
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
  readonly #rows = new Rows<{ readonly content: Content; frames: number }>();

  get leftOut(): boolean {
    return this.#rows.leftOut;
  }

  add(content: Content): void {
    const row = this.#rows.at(JSON.stringify(content), () => ({ content, frames: 0 }));
    if (row !== null) row.frames += 1;
  }

  all(): (Content & { readonly frames: number })[] {
    return this.#rows.all().map(({ content, frames }) => ({ ...content, frames }));
  }
}

/** Counts by name. */
export type Counts = Readonly<Record<string, number>>;

/** One more of a name. */
export const countIn = (counts: Map<string, number>, name: string): void => {
  counts.set(name, (counts.get(name) ?? 0) + 1);
};
export const countsOf = (counts: ReadonlyMap<string, number>): Counts => Object.fromEntries(counts);

/** One more value, of few. */
export const addTo = (values: string[], value: string): void => {
  if (values.length < MOST_ROWS && !values.includes(value)) values.push(value);
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
