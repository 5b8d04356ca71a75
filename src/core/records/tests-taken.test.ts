import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { PlanIndex } from "../plan";
import { aTestTaken } from "../testing/a-tick";
import { testId } from "../testing/build-plan";
import { countingEntries } from "./as-is";
import { decodeEntry, encodeEntry, MOST_READ, type RecordEntry } from "./entry";
import { photosLeftBehind, photosNamed } from "./photo";
import { recordTable } from "./table";
import { latestTests } from "./tests-taken";
import { isOutdated, visitsOf } from "./visit";

const index = PlanIndex.of(lockkeepersHouse());
const by = (entry: RecordEntry) => ({ by: "Ruth", entry });
const back = (tick: string): RecordEntry => ({
  id: testId("back", tick),
  at: "2026-11-29T10:00:00.000Z",
  do: "takeBack",
  tick,
});
const first = aTestTaken({ read: "", came: "expected", photos: [testId("photo", "one")] });
const second = aTestTaken({ read: "10.9.9.9", came: "otherwise", says: "in no subnet of this site" });

test("the last reading of a test counts; one taken back lets the one before it stand again", () => {
  expect(latestTests([by(first), by(second)]).get(first.test.id)).toEqual({
    by: "Ruth",
    taken: second,
    times: 2,
  });
  expect(must(latestTests([by(first), by(second), by(back(second.id))]).get(first.test.id), "it").taken).toBe(
    first,
  );
  expect(latestTests([by(first), by(back(first.id))]).size).toBe(0);
});

test("it travels as it is, and what is too long, of no kind or missing is none", () => {
  expect(decodeEntry(JSON.parse(JSON.stringify(encodeEntry(second))))).toEqual(second);
  for (const wrong of [
    { read: "x".repeat(MOST_READ + 1) },
    { came: "perhaps" },
    { test: { ...first.test, id: "" + "x".repeat(401) } },
    { photos: Array.from({ length: 5 }, (_, at) => testId("photo", String(at))) },
    { note: undefined },
  ])
    expect(decodeEntry({ ...(encodeEntry(second) as object), ...wrong })).toBeNull();
});

test("a test changes nothing on any device and no order of work; its photos are photos of the record", () => {
  const record = [by(first), by(second)];
  expect(countingEntries(record.map(({ entry }) => entry))).toEqual([]);
  expect(visitsOf(record)).toEqual([]);
  expect(isOutdated([], record)).toBe(false);
  expect(isOutdated(record, [...record, by(back(first.id))])).toBe(false);
  expect(photosNamed(record)).toEqual(first.photos);
  expect(photosLeftBehind([...record, by(back(first.id))])).toEqual([
    { title: first.test.at, photos: first.photos },
  ]);
});

test("the table says what was asked, what had to be read and what was", () => {
  const [, one, two, three] = recordTable(index, [by(first), by(second), by(back(second.id))]);
  expect(must(one, "a row").slice(2)).toEqual([
    ...["as expected", first.test.at, first.test.does, first.test.expected, "", "", "1", ""],
  ]);
  expect(must(two, "a row").slice(2)).toEqual([
    ...["otherwise", first.test.at, first.test.does, first.test.expected],
    ...["10.9.9.9; in no subnet of this site", "", "", "taken back later"],
  ]);
  expect(three?.[4]).toBe(`${first.test.at}: ${first.test.does}`);
});
