import type { Expected, SiteTest, TestSheet } from "../commissioning";
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
import type { FaultNamed, Recorded, TakenTest, TestTaken } from "./entry";
import { isStillAsked, latestTests, recordedText } from "./tests-taken";
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
function seenOf({ came, read, test }: TestTaken, isStill: () => boolean): Seen | null {
  if (came === "cannot") return null;
  if (came === "expected") return isStill() ? { is: "planned" } : { is: "text", text: test.expected };
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
  return counts.filter((reading) => reading.taken.came !== "expected" || last.has(reading));
}

/** How a reading that diagnosis asked for is written down: what it has to be, in words. */
export const recordedAs = (index: PlanIndex, expected: Expected): string =>
  expected.is === "shown" ? AS_PLANNED : recordedText(index, expected);
const AS_PLANNED = "as planned";

/** Whether the plan still says what a reading was laid beside when it was taken. */
function isStillPlanned(index: PlanIndex, test: SiteTest | undefined, ask: Ask, taken: TakenTest): boolean {
  if (test !== undefined) return isStillAsked(index, test.expected, taken);
  const { expected } = onPlan(index, ask);
  return expected.is === "shown" ? taken.expected === AS_PLANNED : isStillAsked(index, expected, taken);
}

/** The last reading of each test that stands and that a simulation can be laid beside, the oldest first. */
export function readingsOf(
  index: PlanIndex,
  sheet: TestSheet | null,
  record: readonly Recorded[],
): RecordedReading[] {
  const waits = explainedBefore(record);
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
      const isStill = () => isStillPlanned(index, test, ask, taken.test);
      const seen = ask.what === "listen" ? listenedOf(taken) : seenOf(taken, isStill);
      const isToRepeat = taken.came === "otherwise" && waits(taken.id);
      return seen === null ? [] : [{ reading: { id: taken.id, ask, seen }, taken, by, isToRepeat }];
    });
}

/**
 * Whether a reading waits to be taken again: a fault that was named after it explains it. In the order of the
 * record: clocks of telephones differ.
 */
function explainedBefore(record: readonly Recorded[]): (reading: string) => boolean {
  const place = new Map(record.map(({ entry }, at) => [entry.id, at]));
  const placeOf = (id: string) => place.get(id) ?? record.length;
  const faults = faultsNamed(record).map(({ named }) => named);
  return (reading) =>
    faults.some(
      ({ id, fault: { explains } }) =>
        placeOf(reading) < placeOf(id) && (explains === null || explains.includes(reading)),
    );
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
