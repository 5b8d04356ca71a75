import { grouped, putInto } from "../kernel";
import type { Taken } from "./classes";
import { merged, type Span } from "./spans";

/** A rule that takes in addresses of a network, and which; null for all of them. */
export interface Met {
  readonly rule: number;
  readonly spans: Taken;
}

/** A network as one end of packets. */
export interface End {
  readonly name: string;
  readonly leg: string;
  readonly spans: readonly Span[];
  /** The rules that meet it at this end, ascending. */
  readonly met: readonly Met[];
}

/** Networks that all rules treat alike at one end: one alone, or some that each rule takes in whole or not. */
export interface EndGroup {
  readonly ends: readonly End[];
  readonly legs: ReadonlySet<string>;
  readonly spans: readonly Span[];
  readonly met: readonly Met[];
}

/** Some ends as one. */
function groupOf(ends: readonly End[]): EndGroup {
  return {
    ends,
    legs: new Set(ends.map(({ leg }) => leg)),
    spans: ends.length === 1 ? (ends[0]?.spans ?? []) : merged(ends.flatMap(({ spans }) => spans)),
    met: ends[0]?.met ?? [],
  };
}

/**
 * The groups of some ends; those of which `apart` says different things are never in one. Ends that rules take
 * in whole share what meets them as one value (`MetAt`).
 */
export function groupsOfEnds(ends: readonly End[], apart: (network: string) => string): EndGroup[] {
  const numbers = new Map<readonly Met[], number>();
  const numberOf = (met: readonly Met[]): number => {
    const known = numbers.get(met) ?? numbers.size;
    numbers.set(met, known);
    return known;
  };
  const key = ({ name, met }: End): string =>
    met.some(({ spans }) => spans !== null) ? `one ${name}` : `like ${numberOf(met)} ${apart(name)}`;
  return [...grouped(ends, key).values()].map(groupOf);
}

/** Two groups whose networks all reach one another by the router. */
export interface GroupPair {
  readonly from: EndGroup;
  readonly to: EndGroup;
}

const withoutLegs = ({ ends }: EndGroup, legs: ReadonlySet<string>): End[] =>
  ends.filter(({ leg }) => !legs.has(leg));

function meetAtLeg(a: ReadonlySet<string>, b: ReadonlySet<string>): boolean {
  const [few, many] = a.size < b.size ? [a, b] : [b, a];
  for (const leg of few) if (many.has(leg)) return true;
  return false;
}

/**
 * What goes from one group to another, as pairs of groups: what comes in and goes out by the same leg never
 * meets the router, and is in none of them.
 */
export function pairsBetween(from: EndGroup, to: EndGroup): GroupPair[] {
  if (!meetAtLeg(from.legs, to.legs)) return [{ from, to }];
  const shared = new Set([...from.legs].filter((leg) => to.legs.has(leg)));
  const others = withoutLegs(from, shared);
  const sharing = grouped(
    from.ends.filter(({ leg }) => shared.has(leg)),
    ({ leg }) => leg,
  );
  return [
    ...(others.length === 0 ? [] : [{ from: groupOf(others), to }]),
    ...[...sharing].flatMap(([leg, ends]): GroupPair[] => {
      const targets = withoutLegs(to, new Set([leg]));
      return targets.length === 0 ? [] : [{ from: groupOf(ends), to: groupOf(targets) }];
    }),
  ];
}

/** A rule that meets what goes from one group to another, and which of its senders and receivers. */
export interface MetBoth {
  readonly rule: number;
  readonly source: Taken;
  readonly target: Taken;
}

const NONE_MET: readonly MetBoth[] = [];

/**
 * The rules that meet what goes from a group to each of some others, by the place of the others. A rule names
 * few networks of many: who goes by its receivers finds them at once.
 */
export function meetingsOf(
  targets: readonly EndGroup[],
): (from: EndGroup) => (place: number) => readonly MetBoth[] {
  const byRule: { readonly place: number; readonly spans: Taken }[][] = [];
  targets.forEach(({ met }, place) => {
    for (const { rule, spans } of met) (byRule[rule] ??= []).push({ place, spans });
  });
  return ({ met }) => {
    const all = new Map<number, MetBoth[]>();
    for (const { rule, spans: source } of met)
      for (const { place, spans: target } of byRule[rule] ?? [])
        putInto(all, place, { rule, source, target });
    return (place) => all.get(place) ?? NONE_MET;
  };
}
