import { expectedText, type TestSheet } from "../commissioning";
import {
  askOfKey,
  isAboutPlan,
  onPlan,
  type Ask,
  type Reading,
  type Seen,
  type SuspectKind,
} from "../diagnosis";
import { byText } from "../kernel";
import type { PlanIndex } from "../plan";
import type { FaultNamed, Recorded, TestTaken } from "./entry";
import { latestTests } from "./tests-taken";
import { takenBack } from "./visit";

/** A reading that stands in the record, as diagnosis takes it. */
interface RecordedReading {
  readonly reading: Reading;
  readonly taken: TestTaken;
  readonly by: string;
  /** It was otherwise before a fault was found: once that is mended it has to be taken again. */
  readonly isToRepeat: boolean;
}

/**
 * What was seen: as planned where it was ticked so and the plan still says the same; else the words that were
 * written down; null where it could not be read.
 */
function seenOf({ came, read, test }: TestTaken, planned: string): Seen | null {
  if (came === "cannot") return null;
  if (came === "expected")
    return test.expected === planned ? { is: "planned" } : { is: "text", text: test.expected };
  return read === "" ? { is: "not planned" } : { is: "text", text: read };
}

/** What was heard stands line by line, right or not: what is not there was not heard. */
const listenedOf = ({ came, read }: TestTaken): Seen | null =>
  came === "cannot" ? null : { is: "text", text: read };

/** With as many readings that are as expected faults are compared: thousands would take minutes. */
const MOST_EXPECTED = 200;

/** The readings that faults are laid beside: all that are otherwise, and the last of the others. */
export function laidBeside(readings: readonly RecordedReading[]): RecordedReading[] {
  const counts = readings.filter(({ isToRepeat }) => !isToRepeat);
  const last = new Set(counts.filter(({ taken }) => taken.came === "expected").slice(-MOST_EXPECTED));
  return counts.filter((one) => one.taken.came !== "expected" || last.has(one));
}

/** How a reading that diagnosis asked for is written down: what it has to be, in words. */
export const recordedAs = (index: PlanIndex, expected: Parameters<typeof expectedText>[1]): string =>
  expected.is === "shown" ? "as planned" : expectedText(index, expected);

/** The last reading of each test that stands and that a simulation can be laid beside, the oldest first. */
export function readingsOf(
  index: PlanIndex,
  sheet: TestSheet | null,
  record: readonly Recorded[],
): RecordedReading[] {
  const mended = faultsNamed(record)[0]?.named.id;
  // In the order of the record: clocks of telephones differ.
  const before = new Set(
    record.slice(0, record.findIndex(({ entry }) => entry.id === mended) + 1).map(({ entry }) => entry.id),
  );
  const tests = new Map((sheet?.tests ?? []).map((test) => [test.id, test]));
  return [...latestTests(record).values()]
    .sort((a, b) => byText(a.taken.at, b.taken.at))
    .flatMap(({ taken, by }): RecordedReading[] => {
      const test = tests.get(taken.test.id);
      // What is read while something is pulled out is no reading of the site as it is.
      const question = test?.pulled === null ? test.question : null;
      const ask: Ask | null = question === null ? askOfKey(taken.test.id) : { what: "try", question };
      // What is asked on the sheet is written down in its words; what diagnosis asks, in its own.
      if (ask === null || !isAboutPlan(index, ask)) return [];
      const planned =
        test === undefined
          ? recordedAs(index, onPlan(index, ask).expected)
          : expectedText(index, test.expected);
      const seen = ask.what === "listen" ? listenedOf(taken) : seenOf(taken, planned);
      const isToRepeat = taken.came === "otherwise" && before.has(taken.id);
      return seen === null ? [] : [{ reading: { id: taken.id, ask, seen }, taken, by, isToRepeat }];
    });
}

/** The faults that were found and not taken back, the last first. */
export function faultsNamed(
  record: readonly Recorded[],
): { readonly by: string; readonly named: FaultNamed }[] {
  const gone = takenBack(record.map(({ entry }) => entry));
  return record
    .flatMap(({ by, entry }) => (entry.do === "fault" && !gone.has(entry.id) ? [{ by, named: entry }] : []))
    .reverse();
}

/**
 * How often the record names faults of each kind: what is common on this site. A fault that is named again
 * before anything else was read otherwise was named by two people, and counts once.
 */
export function namedKinds(record: readonly Recorded[]): Readonly<Partial<Record<SuspectKind, number>>> {
  const gone = takenBack(record.map(({ entry }) => entry));
  const counts: Partial<Record<SuspectKind, number>> = {};
  const since = new Set<string>();
  for (const { entry } of record) {
    if (gone.has(entry.id)) continue;
    if (entry.do === "test" && entry.came === "otherwise") since.clear();
    if (entry.do !== "fault" || since.has(entry.fault.id)) continue;
    since.add(entry.fault.id);
    counts[entry.fault.kind] = (counts[entry.fault.kind] ?? 0) + 1;
  }
  return counts;
}
