import { byNaturalText } from "../kernel";
import type { PlanIndex } from "../plan";
import { askingOn } from "./asking";
import { askersOf, devicesAsking, laptopsAsking, staticDevices, waysIn } from "./candidates";
import { cover } from "./cover";
import type { Fact } from "./fact";
import { factsOf } from "./facts";
import { ipv6Tests } from "./ipv6";
import { measuredTests } from "./measured";
import { lookedUp } from "./shown";
import { signInTried } from "./sign-in-facts";
import { pulledTried } from "./spare-ways";
import type { SiteTest } from "./tests";
import { wallsTried } from "./walls";

/** The readings that prove a site. */
export interface TestSheet {
  /** In the order of a walk: place by place. */
  readonly tests: readonly SiteTest[];
  readonly facts: readonly Fact[];
  /** What no reading proves, and why. */
  readonly unproven: readonly { readonly fact: Fact; readonly why: string }[];
  /** With fewer readings nothing proves as much. */
  readonly atLeast: number;
}

/** Told how far it is: so many parts of so many. */
export type Tell = (done: number, all: number) => void;
const PARTS = 6;

/** All readings that could be taken, and why none proves what none does. */
function possibleTests(
  index: PlanIndex,
  tell: Tell,
): {
  readonly tests: SiteTest[];
  readonly reasons: ReadonlyMap<string, string>;
} {
  const laptops = laptopsAsking(index);
  const askers = askersOf(index, laptops);
  tell(1, PARTS);
  const site = { index, asks: askingOn(index) };
  const devices = [...devicesAsking(index), ...staticDevices(site, askers)];
  tell(2, PARTS);
  const pages = waysIn(site, askers);
  tell(3, PARTS);
  const walls = wallsTried(site, askers);
  tell(4, PARTS);
  const tried = [...walls, ...pulledTried(index, laptops, askers), ...signInTried(index, laptops, devices)];
  tell(5, PARTS);
  return {
    tests: [
      ...laptops.map(({ test }) => test),
      ...devices,
      ...ipv6Tests(index, askers),
      ...pages,
      ...measuredTests(index).map(({ test }) => test),
      ...tried.flatMap((result) => ("test" in result ? [result.test] : [])),
    ],
    reasons: new Map(tried.flatMap((result) => ("test" in result ? [] : [[result.fact, result.why]]))),
  };
}

const UNREACHED = "From nowhere on the site is it reached: see Findings.";

/** Whether one only looks which address there is: that comes first at every port. */
const isAddress = ({ question }: SiteTest): boolean =>
  question?.goal.to === "address" && question.family === 4;

/** Where nobody said the place, last; else as a person counts. */
const inWalkingOrder = (a: SiteTest, b: SiteTest): number =>
  Number(a.place === "") - Number(b.place === "") ||
  byNaturalText(a.place, b.place) ||
  byNaturalText(a.at, b.at) ||
  Number(isAddress(b)) - Number(isAddress(a)) ||
  byNaturalText(a.does, b.does);

/** Few readings that prove everything about a site which readings can prove. */
export function testSheet(index: PlanIndex, tell: Tell = () => undefined): TestSheet {
  const facts = factsOf(index);
  const known = new Set(facts.map(({ id }) => id));
  const { tests, reasons } = possibleTests(index, tell);
  const tried = tests.map((test) => ({
    ...test,
    proves: [...new Set(test.proves)].filter((fact) => known.has(fact)),
  }));
  const proven = new Set(tried.flatMap(({ proves }) => proves));
  const rest = lookedUp(
    index,
    facts.filter(({ id }) => !proven.has(id)),
  );
  const { chosen, atLeast } = cover([...tried, ...rest]);
  const all = new Set(chosen.flatMap(({ proves }) => proves));
  return {
    tests: [...chosen].sort(inWalkingOrder),
    facts,
    unproven: facts.flatMap((fact) =>
      all.has(fact.id) ? [] : [{ fact, why: reasons.get(fact.id) ?? UNREACHED }],
    ),
    atLeast,
  };
}
