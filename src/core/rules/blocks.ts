import type { Family } from "../address";
import type { Side } from "../policy";
import { AddressBook } from "./address-book";
import { classesByRule, classesOf, type Taken, type ValueClass } from "./classes";
import {
  groupsOfEnds,
  meetingsOf,
  pairsBetween,
  type End,
  type EndGroup,
  type GroupPair,
  type Met,
  type MetBoth,
} from "./groups";
import { MetAt } from "./met-at";
import { common, merged, sameSpans, type Span } from "./spans";
import { takenBy, takenOfRouter } from "./taken";
import type { ListRule, Universe } from "./universe";

/**
 * All packets of a family from each of some networks to each of some others (or to the router), and the rules
 * that any of them meets. Networks are together where no rule tells them apart.
 */
export interface Block {
  readonly family: Family;
  readonly from: readonly string[];
  readonly to: readonly string[];
  /** The rules by their place in the list, ascending. */
  readonly rules: readonly number[];
  readonly sources: readonly ValueClass[];
  readonly targets: readonly ValueClass[];
  readonly services: readonly ValueClass[];
  /** For each of `rules` the service classes it takes in: `words` words, one rule behind the other. */
  readonly words: number;
  readonly bits: Int32Array;
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

const NOTHING_MET: readonly Met[] = [];

/** The networks of a family as senders and as receivers, with the rules that meet them there. */
function endsOf(
  universe: Universe,
  rules: readonly ListRule[],
  { family, takes }: { readonly family: Family; readonly takes: (rule: number) => boolean },
): { readonly sources: End[]; readonly targets: End[] } {
  const { stations, router, legs } = universe;
  const isOurs = (value: number | bigint) => (typeof value === "number") === (family === 4);
  const book = new AddressBook(
    [...stations].map(([network, spans]) => [network, spans.filter(({ first }) => isOurs(first))]),
  );
  const own = merged(router.filter(isOurs).map((address): Span => ({ first: address, last: address })));
  const taken = (sides: readonly Side[]) => takenBy(sides, book, family);
  const [sources, targets] = [new MetAt(taken), new MetAt(taken)];
  const toRouter: Met[] = [];
  rules.forEach((rule, at) => {
    if (!takes(at)) return;
    sources.put(rule.from, at);
    targets.put(rule.to, at);
    const spans = takenOfRouter(rule.to, own, family);
    if (spans !== undefined) toRouter.push({ rule: at, spans });
  });
  const ends = (metAt: MetAt): End[] => {
    const met = metAt.byNetwork();
    return [...book.byNetwork].map(([name, spans]): End => ({
      name,
      leg: legs?.get(name) ?? name,
      spans,
      met: met.get(name) ?? NOTHING_MET,
    }));
  };
  const itself: End = { name: "router", leg: "router", spans: own, met: toRouter };
  return { sources: ends(sources), targets: [...ends(targets), ...(own.length > 0 ? [itself] : [])] };
}

const isRouter = ({ name }: End): boolean => name === "router";

/** The groups of receivers; the router is none of the networks, and stays by itself. */
const targetGroups = (targets: readonly End[], apart: (network: string) => string): EndGroup[] => [
  ...groupsOfEnds(
    targets.filter((end) => !isRouter(end)),
    apart,
  ),
  ...groupsOfEnds(targets.filter(isRouter), () => ""),
];

/** The blocks of one family; those that no rule meets are among them. */
function blocksOfFamily(
  universe: Universe,
  rules: readonly ListRule[],
  { family, apart }: { readonly family: Family; readonly apart: (network: string) => string },
): Block[] {
  const services = universe.services[family];
  const taken = rules.map((rule): Taken => {
    const spans = common(services, rule.services);
    return sameSpans(spans, services) ? null : spans;
  });
  const ends = endsOf(universe, rules, { family, takes: (rule) => taken[rule]?.length !== 0 });
  const served = servedBy(services, taken);
  const whole = new WholeClasses();
  const cut = (spans: readonly Span[], here: readonly MetBoth[], by: "source" | "target") =>
    here.every((metBoth) => metBoth[by] === null)
      ? whole.of(spans, here.length)
      : classesOf(
          spans,
          here.map((metBoth) => metBoth[by]),
        );
  const names = new Map<EndGroup, readonly string[]>();
  const namesOf = (group: EndGroup): readonly string[] => {
    const known = names.get(group) ?? group.ends.map(({ name }) => name);
    names.set(group, known);
    return known;
  };
  const unmet = served([]);
  const blockOf = ({ from, to }: GroupPair, here: readonly MetBoth[]): Block => ({
    family,
    from: namesOf(from),
    to: namesOf(to),
    sources: cut(from.spans, here, "source"),
    targets: cut(to.spans, here, "target"),
    ...(here.length === 0 ? unmet : served(here.map(({ rule }) => rule))),
  });
  const targets = targetGroups(ends.targets, apart);
  const meetings = meetingsOf(targets);
  const blocks: Block[] = [];
  for (const from of groupsOfEnds(ends.sources, apart)) {
    const metAt = meetings(from);
    targets.forEach((to, place) => {
      const here = metAt(place);
      for (const pair of pairsBetween(from, to)) blocks.push(blockOf(pair, here));
    });
  }
  return blocks;
}

/**
 * Every packet there is, cut into blocks: IPv4 first. Networks of which `apart` says different things are in
 * different blocks, whether a rule tells them apart or not.
 */
export const blocksOf = (
  universe: Universe,
  rules: readonly ListRule[],
  apart: (network: string) => string = () => "",
): Block[] => ([4, 6] as const).flatMap((family) => blocksOfFamily(universe, rules, { family, apart }));
