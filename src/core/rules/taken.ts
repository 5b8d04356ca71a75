import { lastOf, type Family } from "../address";
import { putInto } from "../kernel";
import type { Side } from "../policy";
import type { AddressBook } from "./address-book";
import type { Taken } from "./classes";
import { common, merged, sameSpans, type Span } from "./spans";

const overlap = (place: Span, span: Span): Span => ({
  first: place.first > span.first ? place.first : span.first,
  last: place.last < span.last ? place.last : span.last,
});

/** What of a side's prefixes lies in which network. */
function takenByPrefixes(
  { network, prefixes }: Side,
  book: AddressBook,
  family: Family,
  some: Map<string, Span[]>,
): void {
  for (const prefix of prefixes ?? []) {
    if (prefix.family !== family) continue;
    const span = { first: prefix.network, last: lastOf(prefix) };
    for (const place of book.meeting(span))
      if (network === "any" || network === place.network) putInto(some, place.network, overlap(place, span));
  }
}

/** Which addresses of which networks a rule's sides take in; null stands for all of a network's. */
export function takenBy(sides: readonly Side[], book: AddressBook, family: Family): Map<string, Taken> {
  const some = new Map<string, Span[]>();
  const taken = new Map<string, Taken>();
  for (const side of sides)
    if (side.network !== "router" && side.prefixes === null)
      for (const name of side.network === "any" ? book.byNetwork.keys() : [side.network])
        if (book.byNetwork.has(name)) taken.set(name, null);
  for (const side of sides) if (side.network !== "router") takenByPrefixes(side, book, family, some);
  for (const [name, spans] of some) {
    if (taken.has(name)) continue;
    const all = merged(spans);
    taken.set(name, sameSpans(all, book.byNetwork.get(name) ?? []) ? null : all);
  }
  return taken;
}

/** The router's own addresses that a rule's sides take in; undefined for none. */
export function takenOfRouter(
  sides: readonly Side[],
  own: readonly Span[],
  family: Family,
): Taken | undefined {
  const spans = sides
    .filter(({ network }) => network === "router")
    .map(({ prefixes }): Taken =>
      prefixes === null
        ? null
        : common(
            own,
            merged(
              prefixes
                .filter((prefix) => prefix.family === family)
                .map((prefix): Span => ({ first: prefix.network, last: lastOf(prefix) })),
            ),
          ),
    );
  if (spans.includes(null)) return null;
  const all = merged(spans.flatMap((list) => list ?? []));
  return all.length === 0 ? undefined : all;
}
