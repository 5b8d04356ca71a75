import type { Heading } from "./link";
import { Rows, Senders, taggedOf, type Budget, type Counts, type Tagged } from "./rows";

/** Frames that bore the same tags, and who sent them. */
export interface TagFact extends Tagged {
  /** The tag's type in hexadecimal digits where it is not that of a customer VLAN tag. */
  readonly tpid?: string;
  readonly priorityTag?: true;
  readonly frames: number;
  readonly senders: Counts;
}

const C_TAG = 0x8100;

/** A tag as a number: its type, and its VLAN; 0 for none. */
const numberOf = (tag: Heading["tags"][number] | undefined): number =>
  tag === undefined ? 0 : tag.tpid * 4096 + tag.vid;

/** Which tags frames bear. */
export class TagFacts {
  readonly #budget: Budget;
  readonly #rows: Rows<{ readonly tags: Heading["tags"]; frames: number; readonly senders: Senders }>;

  constructor(budget: Budget) {
    this.#budget = budget;
    this.#rows = new Rows(budget);
  }

  add({ tags, from }: Heading): void {
    const key = tags.length < 2 ? numberOf(tags[0]) : tags.map(numberOf).join();
    const row = this.#rows.at(key, () => ({ tags, frames: 0, senders: new Senders(this.#budget) }));
    if (row === null) return;
    row.frames += 1;
    row.senders.add(from);
  }

  facts(): TagFact[] {
    return this.#rows.all().map(({ tags, frames, senders }) => {
      const [outer] = tags;
      return {
        ...taggedOf(tags),
        ...(outer === undefined || outer.tpid === C_TAG ? {} : { tpid: outer.tpid.toString(16) }),
        ...(outer?.vid === 0 ? { priorityTag: true as const } : {}),
        frames,
        senders: senders.counts(),
      };
    });
  }
}
