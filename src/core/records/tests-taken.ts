import { expectedLines, expectedText, type Expected, type SiteTest } from "../commissioning";
import type { PlanIndex } from "../plan";
import { MOST_NAMED, type Recorded, type TakenTest, type TestTaken } from "./entry";
import { takenBack } from "./visit";

/** A test's last reading that stands, and who took it. */
export interface LatestTest {
  readonly by: string;
  readonly taken: TestTaken;
  /** How many of its readings stand, with this one. */
  readonly times: number;
}

/** What has to be read, as it is written down: of a lease everything that a laptop shows of it. */
export function recordedText(index: PlanIndex, expected: Expected): string {
  if (expected.is !== "lease") return expectedText(index, expected);
  const [, ...rest] = expectedLines(index, expected);
  return [expectedText(index, expected), ...rest.map(([name, value]) => `${name}: ${value}`)].join("\n");
}

/** A test of the sheet as it is written down; pages say in what they show which facts those are. */
export function takenTest(index: PlanIndex, test: SiteTest): TakenTest {
  const { id, place, at, does, expected, proves } = test;
  const isListed = expected.is !== "shown" && proves.length <= MOST_NAMED;
  return {
    ...{ id, place, at, does },
    expected: recordedText(index, expected),
    proves: isListed ? proves : null,
  };
}
/** Whether the plan still asks what was written down; records of before did not say all of a lease. */
export const isStillAsked = (index: PlanIndex, expected: Expected, taken: TakenTest): boolean =>
  taken.expected === recordedText(index, expected) ||
  (taken.proves === null && taken.expected === expectedText(index, expected));

/** By the test's id, its last reading that was not taken back. */
export function latestTests(record: readonly Recorded[]): ReadonlyMap<string, LatestTest> {
  const gone = takenBack(record.map(({ entry }) => entry));
  const latest = new Map<string, LatestTest>();
  for (const { by, entry } of record) {
    if (entry.do !== "test" || gone.has(entry.id)) continue;
    const times = (latest.get(entry.test.id)?.times ?? 0) + 1;
    latest.set(entry.test.id, { by, taken: entry, times });
  }
  return latest;
}
