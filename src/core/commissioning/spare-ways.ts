import { nameOf, type Link, type PlanIndex } from "../plan";
import { asClient, probe } from "../probe";
import { crossingsOf } from "./crossings";
import { leaseExpected, readsTheSame } from "./leases";
import { cablesOnRings, failoverFact, linesWithOthers, spareFact, withoutPulled, type Tried } from "./pulled";
import type { Asked, Asker } from "./tests";

const nobody = () => "";
const QUIET = "At a quiet hour: whoever works there is cut off for some seconds.";

/** By each port between gear, the first laptop whose way to its address crosses it. */
function firstAcross(index: PlanIndex, laptops: readonly Asked[]): ReadonlyMap<string, Asked> {
  const found = new Map<string, Asked>();
  for (const laptop of laptops)
    if (laptop.outcome.cause === null)
      for (const { port } of crossingsOf(index, laptop.outcome.steps))
        if (!found.has(port)) found.set(port, laptop);
  return found;
}

/** The ports that a cable's frames go by: its own, and those that are one with them. */
const endsOf = (index: PlanIndex, { a, b }: Link): string[] =>
  [a, b].flatMap((id) => {
    const lag = index.plan.port.get(id)?.lag ?? null;
    return lag === null ? [id] : (index.groups("portsByLag").get(lag) ?? []).map((port) => port.id);
  });

/** The cable of a spare way is pulled out, and a laptop gets the same as before. */
function spareTests(index: PlanIndex, laptops: readonly Asked[]): Tried[] {
  const across = firstAcross(index, laptops);
  return cablesOnRings(index).map((link): Tried => {
    const fact = spareFact(link.id);
    const laptop = endsOf(index, link).flatMap((port) => across.get(port) ?? [])[0];
    const name = nameOf(index, "link", link.id);
    if (laptop === undefined)
      return { fact, why: `Nobody’s way leads over ${name}: pull out the one that it stands by for.` };
    const site = withoutPulled(index, { what: "link", id: link.id });
    const question = asClient(laptop.spot.from, { to: "address" });
    const expected = leaseExpected(site, probe(site, question, nobody), null);
    if (!readsTheSame(expected, laptop.test.expected))
      return { fact, why: `Without ${name} it does not go on: see Failures.` };
    const does =
      `Pull out ${name}, and wait until the tree has settled. ${laptop.test.does} ` +
      `Then put the cable back. ${QUIET}`;
    return {
      test: {
        ...laptop.test,
        id: `spare ${link.id}`,
        does,
        expected,
        proves: [fact],
        pulled: { what: "link", id: link.id },
      },
    };
  });
}

/** As many are asked whether the internet is there without a line. */
const MOST_ASKED = 6;

/** A line is pulled out, and the internet is still there. */
function failoverTests(index: PlanIndex, askers: readonly Asker[]): Tried[] {
  return linesWithOthers(index).map((line): Tried => {
    const fact = failoverFact(line.id);
    const pulled = { what: "line", id: line.id } as const;
    const site = withoutPulled(index, pulled);
    const goal = { to: "internet", service: null } as const;
    const asker = askers
      .slice(0, MOST_ASKED)
      .find(({ spot, as }) => probe(site, { ...asClient(spot.from, goal), as }, nobody).cause === null);
    if (asker === undefined)
      return { fact, why: `Without ${line.name} the internet is not there: see Gateway.` };
    const { spot, as, entered } = asker;
    return {
      test: {
        id: `failover ${line.id}`,
        place: spot.place,
        at: spot.at,
        does:
          `Pull out the cable of ${line.name}, wait a minute, and open something on the internet${entered}. ` +
          `Then put it back. ${QUIET}`,
        question: { ...asClient(spot.from, goal), as },
        expected: { is: "answer" },
        proves: [fact],
        pulled,
      },
    };
  });
}

/** What goes on while something is pulled out. */
export const pulledTried = (
  index: PlanIndex,
  laptops: readonly Asked[],
  askers: readonly Asker[],
): Tried[] => [...spareTests(index, laptops), ...failoverTests(index, askers)];
