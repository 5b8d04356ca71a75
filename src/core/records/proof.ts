import { putInto } from "../kernel";
import { cover, expectedText, type Fact, type SiteTest, type TestSheet } from "../commissioning";
import type { PlanIndex } from "../plan";
import type { Recorded, TestCame } from "./entry";
import { TEST_CAME_WORDS } from "./table";
import { isStillAsked, latestTests, type LatestTest } from "./tests-taken";

/**
 * How it stands with a test: still to take; as its last reading came; or to take anew, since the plan has
 * changed what has to be read.
 */
export type TestState = "open" | "anew" | TestCame;
/** How it stands with a fact: proven, shown to be otherwise, still to prove, or nothing proves it. */
export type FactState = "proven" | "otherwise" | "open" | "never";

export interface TestStanding {
  readonly test: SiteTest;
  readonly state: TestState;
  /** Its last reading; null where nobody has taken it. */
  readonly latest: LatestTest | null;
}
export interface FactStanding {
  readonly fact: Fact;
  readonly state: FactState;
  /** Why nothing proves it; empty otherwise. */
  readonly why: string;
  /** The tests that claim to prove it. */
  readonly by: readonly SiteTest[];
}

/** What is proven of a site by what was read so far. */
export interface Proof {
  readonly tests: readonly TestStanding[];
  readonly facts: readonly FactStanding[];
}

function stateOf(index: PlanIndex, test: SiteTest, latest: LatestTest | undefined): TestState {
  if (latest === undefined) return "open";
  return isStillAsked(index, test.expected, latest.taken.test) ? latest.taken.came : "anew";
}

/** The facts of today that a reading proved when it was taken. */
function provenBy({ test, state, latest }: TestStanding): readonly string[] {
  if (state !== "expected" || latest === null) return [];
  const { proves } = latest.taken.test;
  return proves === null ? test.proves : test.proves.filter((fact) => proves.includes(fact));
}

/**
 * Readings that are as expected, and claim facts that came into the plan after them and that nothing else
 * proves: as few as prove those are to be taken anew.
 */
function touched(tests: readonly TestStanding[]): ReadonlySet<string> {
  const proven = new Set(tests.flatMap(provenBy));
  const toTake = new Set(tests.flatMap(({ test, state }) => (isToTake(state) ? test.proves : [])));
  const claims = tests.flatMap(({ test, state }) => {
    const later = test.proves.filter((fact) => !proven.has(fact) && !toTake.has(fact));
    return state !== "expected" || later.length === 0 ? [] : [{ ...test, proves: later }];
  });
  return new Set(cover(claims).chosen.map(({ id }) => id));
}

/** Lays the record beside the sheet: which tests are taken, and which facts are proven. */
export function proofOf(index: PlanIndex, sheet: TestSheet, record: readonly Recorded[]): Proof {
  const latest = latestTests(record);
  const taken = sheet.tests.map((test): TestStanding => {
    const own = latest.get(test.id);
    return { test, state: stateOf(index, test, own), latest: own ?? null };
  });
  const anew = touched(taken);
  const proven = new Set(taken.flatMap(provenBy));
  const tests = taken.map((testStanding): TestStanding =>
    anew.has(testStanding.test.id) ? { ...testStanding, state: "anew" } : testStanding,
  );
  const by = new Map<string, TestStanding[]>();
  for (const testStanding of tests)
    for (const fact of testStanding.test.proves) putInto(by, fact, testStanding);
  const whys = new Map(sheet.unproven.map(({ fact, why }) => [fact.id, why]));
  return {
    tests,
    facts: sheet.facts.map((fact): FactStanding => {
      const own = by.get(fact.id) ?? [];
      return {
        fact,
        state: factState(
          own.map(({ state }) => state),
          proven.has(fact.id),
        ),
        why: whys.get(fact.id) ?? "",
        by: own.map(({ test }) => test),
      };
    }),
  };
}

/** Whether a test is still to be taken; what could not be read is, on another day or in another way. */
export const isToTake = (state: TestState): boolean =>
  state === "open" || state === "anew" || state === "cannot";

/** A reading that is otherwise weighs more than one that is as expected. */
function factState(states: readonly TestState[], isProven: boolean): FactState {
  if (states.length === 0) return "never";
  if (states.includes("otherwise")) return "otherwise";
  return isProven ? "proven" : "open";
}

export const TEST_STATE_WORDS: Readonly<Record<TestState, string>> = {
  ...TEST_CAME_WORDS,
  open: "to take",
  anew: "to take anew: the plan has changed",
};

/** The sheet as a table, for a spreadsheet: every test with what came of it. */
export const proofTable = (index: PlanIndex, { tests, facts }: Proof): string[][] => {
  const words = new Map(facts.map(({ fact }) => [fact.id, fact.words]));
  return [
    ["place", "at", "do", "expected", "state", "read", "note", "who", "when", "proves"],
    ...tests.map(({ test, state, latest }) => [
      test.place,
      test.at,
      test.does,
      expectedText(index, test.expected),
      TEST_STATE_WORDS[state],
      [latest?.taken.read ?? "", latest?.taken.says ?? ""].filter((text) => text !== "").join("; "),
      latest?.taken.note ?? "",
      latest?.by ?? "",
      latest?.taken.at ?? "",
      test.proves.map((id) => words.get(id) ?? "").join("; "),
    ]),
  ];
};
