import { inTheRunning, nextReadings, Study, type Ask, type Reading } from "@/core/diagnosis";
import { must } from "@/core/kernel";
import { PlanIndex, type Plan } from "@/core/plan";
import { asClient } from "@/core/probe";
import { planOf, questionOf, siteCases, type SiteCase } from "./support/site-cases";

// Sites of real software with one thing changed: the base is the plan, what the real thing did is what is read.
// Nothing can be looked at there, only tried.

/** Cases whose edits are one change, with what it is. */
const ONE_CHANGE = [
  "home: trunk lacks Household at the hall switch",
  "home: study-pc and lodgers-desk swapped",
  "office: a printer and a card terminal swapped",
  "office: native mismatch between the switches",
  "home: household may do anything in the studio",
  "home: a second server in the household hands out a wrong gateway",
  "plant: a drive typed into the wrong subnet",
  "plant: ring port Cold to Office off",
  "office: staff laptops at two access points, kept apart",
  "home: a plain switch with a typed and a reserved device, uplink off",
];
/** As many rows are at hand beside those of whoever complains. */
const OTHERS = 60;
const NEAR = 150;
const MOST_READINGS = 12;

interface Real {
  readonly ask: Ask;
  readonly seen: Reading["seen"];
}
const keyOf = (ask: Ask): string => JSON.stringify(ask);

function leasesOf(base: Plan, { leases, ambiguousLeases }: SiteCase): Real[] {
  return [...base.host.values()].flatMap((host): Real[] => {
    const leased = leases[host.name];
    if (host.manner === "typed" || leased === undefined || ambiguousLeases.includes(host.name)) return [];
    const gateway = leased === null || leased.gateway === null ? "" : `\nGateway ${leased.gateway}`;
    return [
      {
        ask: { what: "try", question: asClient({ at: "host", host: host.id }, { to: "address" }) },
        seen: { is: "text", text: leased === null ? "no address" : `${leased.address}${gateway}` },
      },
    ];
  });
}

const rowsOf = (base: Plan, { expect: rows }: SiteCase): Real[] =>
  rows
    .filter(({ ambiguous }) => ambiguous === undefined)
    .map((row) => ({
      ask: { what: "try", question: questionOf(base, row) },
      seen: { is: "text", text: row.answered ? "answer" : "nothing" },
    }));

const endsOf = ({ ask }: Pick<Reading, "ask">): string[] => {
  if (ask.what !== "try") return [];
  const { from, goal } = ask.question;
  return [...(from.at === "host" ? [from.host] : []), ...(goal.to === "host" ? [goal.host] : [])];
};

/** What is at hand to be asked: what lies near what was read, and a part of the rest. */
function atHand(all: readonly Real[], readings: readonly Reading[]): Ask[] {
  const ends = new Set(readings.flatMap(endsOf));
  const isNear = (real: Real) =>
    (real.ask.what === "try" && real.ask.question.goal.to === "address") ||
    endsOf(real).some((id) => ends.has(id));
  const each = Math.ceil(all.length / OTHERS);
  return [...all.filter(isNear).slice(0, NEAR), ...all.filter((_, at) => at % each === 0)].map(
    ({ ask }) => ask,
  );
}

/** The ids that a case changes, and what something it adds belongs to. */
const changedBy = ({ edit }: SiteCase): ReadonlySet<string> =>
  new Set(
    edit.flatMap(({ id, add }) => [
      ...(id === undefined ? [] : [id]),
      ...(add !== undefined && "segment" in add ? [String(add.segment)] : []),
    ]),
  );

const CASES = siteCases();

test.each(ONE_CHANGE)("%s: what was changed is named", (name) => {
  const siteCase = must(
    CASES.find((siteCase) => siteCase.name === name),
    name,
  );
  const base = planOf({ ...siteCase, edit: [] });
  const study = new Study(PlanIndex.of(base, "2026-11-27"));
  const all = [...leasesOf(base, siteCase), ...rowsOf(base, siteCase)];
  const real = new Map(all.map((real) => [keyOf(real.ask), real]));
  const complaint = must(
    all.find((real) => !study.isAsPlanned({ id: "", ...real })),
    "somebody complains",
  );
  const readings: Reading[] = [{ id: "1", ...complaint }];
  for (;;) {
    const diagnosed = study.diagnose(readings);
    const [next] = nextReadings(study, diagnosed, atHand(all, readings));
    if (next === undefined || readings.length >= MOST_READINGS) break;
    readings.push({ id: `${readings.length + 1}`, ...must(real.get(keyOf(next.ask)), "it was recorded") });
  }
  const diagnosed = study.diagnose(readings);
  const left = inTheRunning(diagnosed);
  const changed = changedBy(siteCase);
  expect(left[0]?.explains.every(Boolean)).toBe(true);
  expect(
    left
      .filter(({ suspect }) => suspect.subjects.some(({ id }) => changed.has(id)))
      .map(({ suspect }) => suspect.words),
  ).not.toEqual([]);
  // Those that no reading parts count as one; most others are out by then.
  expect(left.length).toBeLessThan(diagnosed.tried / 3);
});
