import { freeRanges, step, usableRange, type Address, type AddressRange, type Ipv4 } from "../../address";
import type { PlanEdits, Segment } from "../../plan";
import { gatewayIn, staticBlockIn } from "../../planners";

/** Hands out the fixed addresses of one batch: a look at the draft for each segment, not for each address. */
export class AddressGiver {
  readonly #draft: PlanEdits;
  readonly #known = new Map<string, { typed: AddressRange[]; reserved: AddressRange[] }>();
  readonly #given = new Set<Ipv4>();

  constructor(edits: PlanEdits) {
    this.#draft = edits;
  }

  #runs(segment: Segment): { typed: AddressRange[]; reserved: AddressRange[] } {
    const known = this.#known.get(segment.id);
    if (known !== undefined) return known;
    const prefix = segment.prefixes4[0];
    if (prefix === undefined) return { typed: [], reserved: [] };
    const { conventions } = this.#draft.plan.site;
    const taken: Ipv4[] = [
      gatewayIn(conventions, prefix),
      ...this.#draft
        .all("host")
        .flatMap((host) => (host.segment === segment.id && host.ipv4 !== null ? [host.ipv4] : [])),
      ...this.#draft.all("interface").flatMap((leg) => (leg.segment === segment.id ? leg.addresses4 : [])),
    ];
    const single = taken.map((address): AddressRange => ({ first: address, last: address }));
    const pools = this.#draft
      .all("scope")
      .filter((scope) => scope.segment === segment.id && scope.family === 4)
      .flatMap((scope) => scope.pools);
    const block = staticBlockIn(conventions, prefix);
    const outside = freeRanges(usableRange(prefix), [...single, ...pools]);
    const inBlock = block === null ? [] : freeRanges(block, [...single, ...pools]);
    const made = {
      typed: [
        ...inBlock,
        ...(block === null ? outside : freeRanges(usableRange(prefix), [...single, ...pools, block])),
      ],
      reserved: pools.length === 0 ? [...outside] : pools.flatMap((pool) => freeRanges(pool, single)),
    };
    this.#known.set(segment.id, made);
    return made;
  }

  /** The next free address of its kind; null when the segment has none left. */
  next(segment: Segment, manner: "typed" | "reserved"): Ipv4 | null {
    const runs = this.#runs(segment)[manner];
    for (let first = runs[0]; first !== undefined && typeof first.first === "number"; first = runs[0]) {
      const after = step<Address>(first.first, 1);
      if (after === null || after > first.last) runs.shift();
      else runs[0] = { first: after, last: first.last };
      // Without a pool both manners draw on the same addresses.
      if (this.#given.has(first.first)) continue;
      this.#given.add(first.first);
      return first.first;
    }
    return null;
  }
}
