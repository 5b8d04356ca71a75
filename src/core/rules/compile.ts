import { byText, grouped } from "../kernel";
import { formatPrefix } from "../address";
import { ruleStates } from "./anomalies";
import type { ServiceSpan } from "./service-space";
import { listSpace } from "./space";
import { merged } from "./spans";
import type { Side } from "../policy";
import type { ListRule, Universe } from "./universe";

/** Something that shall pass, with what it is for. */
export interface Wish<T> {
  readonly from: readonly Side[];
  readonly to: readonly Side[];
  readonly services: readonly ServiceSpan[];
  readonly serves: readonly T[];
}

/** A rule of the compiled list, with all that it is for. */
export interface CompiledRule<T> extends ListRule {
  readonly serves: readonly T[];
}

const sideKey = ({ network, prefixes }: Side): string =>
  prefixes === null ? network : `${network} ${prefixes.map(formatPrefix).sort(byText).join()}`;
const sidesKey = (sides: readonly Side[]): string => sides.map(sideKey).sort(byText).join("|");
const servicesKey = (spans: readonly ServiceSpan[]): string =>
  spans.map(({ first, last }) => `${first}-${last}`).join();

const joined = (sides: readonly Side[]): Side[] => [
  ...new Map(sides.map((side) => [sideKey(side), side])).values(),
];

/** Makes one wish of those that differ in one thing only. */
function join<T>(wishes: readonly Wish<T>[], keyOf: (wish: Wish<T>) => string): Wish<T>[] {
  return [...grouped(wishes, keyOf).values()].map((alike) => {
    const [first] = alike;
    if (first === undefined || alike.length === 1) return alike[0] as Wish<T>;
    return {
      from: joined(alike.flatMap(({ from }) => from)),
      to: joined(alike.flatMap(({ to }) => to)),
      services: merged(alike.flatMap(({ services }) => services)),
      serves: [...new Set(alike.flatMap(({ serves }) => serves))],
    };
  });
}

/** Joins wishes until no two differ in one thing only: services first, then who asks, then whom. */
function joinAll<T>(wishes: readonly Wish<T>[]): Wish<T>[] {
  let [now, before] = [[...wishes], Infinity];
  while (now.length < before) {
    before = now.length;
    now = join(now, ({ from, to }) => `${sidesKey(from)} > ${sidesKey(to)}`);
    now = join(now, ({ to, services }) => `${sidesKey(to)} : ${servicesKey(services)}`);
    now = join(now, ({ from, services }) => `${sidesKey(from)} : ${servicesKey(services)}`);
  }
  return now;
}

/**
 * The list of rules that lets exactly the wishes pass where everything else is dropped. None of its rules can
 * be taken out, and no two differ in one thing only.
 */
export function compileWishes<T>(universe: Universe, wishes: readonly Wish<T>[]): CompiledRule<T>[] {
  const asRule = (wish: Wish<T>): CompiledRule<T> => ({ ...wish, action: "accept" });
  // A wish that no packet can ask for would only make the rule longer that it is joined to.
  const asked = ruleStates(listSpace(universe, closedList(wishes.map(asRule))));
  let rules = joinAll(wishes.filter((_, at) => asked[at]?.emptyMatch === false)).map(asRule);
  for (;;) {
    const states = ruleStates(listSpace(universe, closedList(rules)));
    const last = states.findLastIndex(({ removable }) => removable);
    if (last < 0) return rules;
    rules = rules.filter((_, at) => at !== last);
  }
}

/** A list that drops what none of its rules takes. */
export const closedList = <R extends ListRule>(rules: readonly R[]) =>
  ({ rules, forwardDefault: "drop", inputDefault: "drop" }) as const;
