import type { Recorded, TestTaken } from "./entry";
import { takenBack } from "./visit";

/** A test's last reading that stands, and who took it. */
export interface LatestTest {
  readonly by: string;
  readonly taken: TestTaken;
  /** How many of its readings stand, with this one. */
  readonly times: number;
}

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
