import { type Family, lastOf } from "../address";
import { ascending, putInto } from "../kernel";
import { classesByRule, classesOf, type Taken, type ValueClass } from "./classes";

import { common, merged, sameSpans, type Span } from "./spans";
import type { Side } from "../policy";
import type { ListRule, Universe } from "./universe";

/**
 * All packets of a family from one network to another (or to the router), and the rules that any of them
 * meets.
 */
export interface Block {
  readonly family: Family;
  readonly from: string;
  readonly to: string;
  /** The rules by their place in the list, ascending. */
  readonly rules: readonly number[];
  readonly sources: readonly ValueClass[];
  readonly targets: readonly ValueClass[];
  readonly services: readonly ValueClass[];
  /** For each of `rules` the service classes it takes in: `words` words, one rule behind the other. */
  readonly words: number;
  readonly bits: Int32Array;
}

interface Place extends Span {
  readonly network: string;
}

/** Whose an address is, by binary search over all networks of a family. */
class AddressBook {
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
function takenBy(sides: readonly Side[], book: AddressBook, family: Family): Map<string, Taken> {
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
function takenOfRouter(sides: readonly Side[], own: readonly Span[], family: Family): Taken | undefined {
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

/** A rule that takes in packets of a block, and which of its senders and receivers; null for all of them. */
interface Met {
  readonly rule: number;
  readonly source: Taken;
  readonly target: Taken;
}

/** What rules meet, by the numbers of the networks from and to which it goes. */
class MetByPair {
  readonly #met: Met[][] = [];
  readonly #width: number;
  /** Most rules take networks in whole: one value says it for all pairs of a rule. */
  #whole: Met = { rule: -1, source: null, target: null };

  constructor(width: number) {
    this.#width = width;
  }

  put(from: number, to: number, met: Met): void {
    const { rule, source, target } = met;
    let own = met;
    if (source === null && target === null) {
      if (this.#whole.rule !== rule) this.#whole = met;
      own = this.#whole;
    }
    const at = from * this.#width + to;
    const known = this.#met[at];
    if (known === undefined) this.#met[at] = [own];
    else known.push(own);
  }

  of(from: number, to: number): readonly Met[] {
    return this.#met[from * this.#width + to] ?? [];
  }
}

/** The classes of networks that each of a block's rules takes in whole: one class, made once for each count. */
class WholeClasses {
  readonly #known = new Map<readonly Span[], Map<number, readonly ValueClass[]>>();

  of(spans: readonly Span[], count: number): readonly ValueClass[] {
    const byCount = this.#known.get(spans) ?? new Map<number, readonly ValueClass[]>();
    this.#known.set(spans, byCount);
    const known = byCount.get(count);
    if (known !== undefined) return known;
    const made = classesOf(spans, new Array<Taken>(count).fill(null));
    byCount.set(count, made);
    return made;
  }
}

/** Whether what goes from one to the other never meets the router. */
const isOneLeg = ({ legs }: Universe, from: string, to: string): boolean =>
  (legs?.get(from) ?? from) === (legs?.get(to) ?? to);

/**
 * The service classes of a block by the rules that it meets; blocks that the same rules meet, as all between
 * two zones, share them.
 */
function servedBy(services: readonly Span[], taken: readonly Taken[]) {
  type Served = Pick<Block, "rules" | "services" | "words" | "bits">;
  const known = new Map<string, Served>();
  return (numbers: readonly number[]): Served => {
    const key = numbers.join();
    const before = known.get(key);
    if (before !== undefined) return before;
    const classes = classesOf(
      services,
      numbers.map((rule) => taken[rule] ?? null),
    );
    const made = { rules: numbers, services: classes, ...classesByRule(classes, numbers.length) };
    known.set(key, made);
    return made;
  };
}

/** Which rules meet what goes from each network to each other one, or to the router, by their numbers. */
function rulesMet(
  universe: Universe,
  rules: readonly ListRule[],
  { family, book, own, names }: FamilyOf,
): MetByPair {
  const met = new MetByPair(names.length);
  const numberOf = new Map(names.map((name, at) => [name, at]));
  const numbered = (taken: ReadonlyMap<string, Taken>) =>
    [...taken].map(([name, spans]) => ({ name, number: numberOf.get(name) ?? -1, spans }));
  rules.forEach((rule, at) => {
    const targets = takenBy(rule.to, book, family);
    const router = takenOfRouter(rule.to, own, family);
    if (router !== undefined && own.length > 0) targets.set("router", router);
    const to = numbered(targets);
    for (const source of numbered(takenBy(rule.from, book, family)))
      for (const target of to)
        if (!isOneLeg(universe, source.name, target.name))
          met.put(source.number, target.number, { rule: at, source: source.spans, target: target.spans });
  });
  return met;
}

/** One family's addresses: whose they are, the router's own, and the networks with the router behind them. */
interface FamilyOf {
  readonly family: Family;
  readonly book: AddressBook;
  readonly own: readonly Span[];
  readonly names: readonly string[];
}

function familyOf({ stations, router }: Universe, family: Family): FamilyOf {
  const isOurs = (value: number | bigint) => (typeof value === "number") === (family === 4);
  const book = new AddressBook(
    [...stations].map(([network, spans]) => [network, spans.filter(({ first }) => isOurs(first))]),
  );
  const own = merged(router.filter(isOurs).map((address): Span => ({ first: address, last: address })));
  return { family, book, own, names: [...book.byNetwork.keys(), ...(own.length > 0 ? ["router"] : [])] };
}

/** The blocks of one family; those that no rule meets are among them. */
function blocksOfFamily(universe: Universe, rules: readonly ListRule[], family: Family): Block[] {
  const ours = familyOf(universe, family);
  const services = universe.services[family];
  const taken = rules.map((rule): Taken => {
    const spans = common(services, rule.services);
    return sameSpans(spans, services) ? null : spans;
  });
  const met = rulesMet(universe, rules, ours);
  const served = servedBy(services, taken);
  const whole = new WholeClasses();
  const cut = (spans: readonly Span[], here: readonly Met[], by: "source" | "target") =>
    here.every((one) => one[by] === null)
      ? whole.of(spans, here.length)
      : classesOf(
          spans,
          here.map((one) => one[by]),
        );
  const blocks: Block[] = [];
  ours.names.forEach((from, fromNumber) => {
    const sources = ours.book.byNetwork.get(from);
    if (sources === undefined) return;
    ours.names.forEach((to, toNumber) => {
      if (isOneLeg(universe, from, to)) return;
      const here = met.of(fromNumber, toNumber).filter(({ rule }) => taken[rule]?.length !== 0);
      const targets = to === "router" ? ours.own : (ours.book.byNetwork.get(to) ?? []);
      blocks.push({
        family,
        from,
        to,
        sources: cut(sources, here, "source"),
        targets: cut(targets, here, "target"),
        ...served(here.map(({ rule }) => rule)),
      });
    });
  });
  return blocks;
}

/** Every packet there is, cut into blocks: IPv4 first. */
export const blocksOf = (universe: Universe, rules: readonly ListRule[]): Block[] => [
  ...blocksOfFamily(universe, rules, 4),
  ...blocksOfFamily(universe, rules, 6),
];
