import type { Mac } from "../address";
import type { Heading } from "./link";
import { macOf, type MacNumber } from "./octets";
import { Rows, taggedOf, type Tagged } from "./rows";

/** Frames that bore the same tags, and who sent them. */
export interface TagFact extends Tagged {
  /** The tag's type in hexadecimal digits where it is not that of a customer VLAN tag. */
  readonly tpid?: string;
  readonly priorityTag?: true;
  readonly frames: number;
  readonly senders: Readonly<Record<Mac, number>>;
}

const C_TAG = 0x8100;

/** A tag as a number: its type, and its VLAN; 0 for none. */
const numberOf = (tag: Heading["tags"][number] | undefined): number =>
  tag === undefined ? 0 : tag.tpid * 4096 + tag.vid;

/** Which tags frames bear. */
export class TagFacts {
  readonly #rows = new Rows<{
    tags: Heading["tags"];
    frames: number;
    senders: Rows<{ mac: MacNumber; frames: number }>;
  }>();

  get leftOut(): boolean {
    return this.#rows.leftOut;
  }

  add({ tags, from }: Heading): void {
    const key = tags.length < 2 ? numberOf(tags[0]) : tags.map(numberOf).join();
    const row = this.#rows.at(key, () => ({ tags, frames: 0, senders: new Rows() }));
    if (row === null) return;
    row.frames += 1;
    const sender = row.senders.at(from, () => ({ mac: from, frames: 0 }));
    if (sender !== null) sender.frames += 1;
  }

  facts(): TagFact[] {
    return this.#rows.all().map(({ tags, frames, senders }) => {
      const [outer] = tags;
      return {
        ...taggedOf(tags),
        ...(outer === undefined || outer.tpid === C_TAG ? {} : { tpid: outer.tpid.toString(16) }),
        ...(outer?.vid === 0 ? { priorityTag: true as const } : {}),
        frames,
        senders: Object.fromEntries(senders.all().map((one) => [macOf(one.mac), one.frames])),
      };
    });
  }
}
