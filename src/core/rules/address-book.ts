import { ascending } from "../kernel";
import { merged, type Span } from "./spans";

interface Place extends Span {
  readonly network: string;
}

/** Whose an address is, by binary search over all networks of a family. */
export class AddressBook {
  readonly byNetwork: ReadonlyMap<string, readonly Span[]>;
  private readonly places: readonly Place[];

  constructor(stations: Iterable<readonly [network: string, spans: readonly Span[]]>) {
    const entries = [...stations].map(([network, spans]) => [network, merged(spans)] as const);
    this.byNetwork = new Map(entries.filter(([, spans]) => spans.length > 0));
    this.places = entries
      .flatMap(([network, spans]) => spans.map((span) => ({ ...span, network })))
      .sort((a, b) => ascending(a.first, b.first));
  }

  /** The places that share an address with the span, ascending. */
  meeting({ first, last }: Span): readonly Place[] {
    let [low, high] = [0, this.places.length];
    while (low < high) {
      const middle = Math.floor((low + high) / 2);
      if ((this.places[middle]?.last ?? 0) < first) low = middle + 1;
      else high = middle;
    }
    let end = low;
    while (end < this.places.length && (this.places[end]?.first ?? 0) <= last) end += 1;
    return this.places.slice(low, end);
  }
}
