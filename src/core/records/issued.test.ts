import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { PlanIndex } from "../plan";
import { testId } from "../testing/build-plan";
import { countingEntries } from "./as-is";
import { decodeEntry, encodeEntry, type Recorded, type RecordEntry } from "./entry";
import type { Issue, Sign } from "./issue";
import { issuedSheets, issuedTable, sheetLetter, shortCheck } from "./issued";
import { recordTable } from "./table";
import { isOutdated, visitsOf } from "./visit";

const AT = "2026-11-30T09:00:00.000Z";
const by = (entry: RecordEntry): Recorded => ({ by: "Ruth", entry });
const issued = (name: string, revision: number): Issue => ({
  id: testId("issue", name),
  at: AT,
  do: "issue",
  sheet: {
    name,
    recipient: "the customer",
    revision,
    form: 16,
    check: "0123456789abcdef".repeat(4),
    stood: ["no finding"],
  },
  note: "",
});
const signed = (issue: Issue, as: Sign["as"], name: string): Sign => ({
  id: testId("sign", `${issue.id} ${as} ${name}`),
  at: AT,
  do: "sign",
  issue: issue.id,
  as,
  name,
  day: "2026-11-30",
  note: "",
});
const back = (id: string): RecordEntry => ({ id: testId("back", id), at: AT, do: "takeBack", tick: id });
const [offer, built] = [issued("Offer", 31), issued("As built", 171)];

test("letters go on after Z, and none is given twice", () => {
  expect([0, 1, 25, 26, 51, 52, 701, 702].map(sheetLetter)).toEqual([
    ...["A", "B", "Z", "AA", "AZ", "BA", "ZZ", "AAA"],
  ]);
  expect(new Set(Array.from({ length: 5000 }, (_, at) => sheetLetter(at))).size).toBe(5000);
});

test("a sheet is replaced by the next that stands; one that is withdrawn keeps its letter", () => {
  const third = issued("Second stage", 205);
  const sheets = issuedSheets([offer, built, back(built.id), third].map(by));
  expect(sheets.map(({ letter, replacedBy, isWithdrawn }) => [letter, replacedBy, isWithdrawn])).toEqual([
    ["A", "C", false],
    ["B", "C", true],
    ["C", null, false],
  ]);
});

test("who signed last counts, until it is taken back; a signature of another sheet is none", () => {
  const [first, second] = [signed(offer, "accepted", "Mr Hale"), signed(offer, "accepted", "Mrs Hale")];
  const names = (...entries: RecordEntry[]) =>
    issuedSheets([offer, built, ...entries].map(by)).map(({ signed: { accepted, checked } }) => [
      checked?.name,
      accepted?.name,
    ]);
  expect(names(first, second, signed(built, "checked", "Marek"))).toEqual([
    [undefined, "Mrs Hale"],
    ["Marek", undefined],
  ]);
  expect(names(first, second, back(second.id))[0]).toEqual([undefined, "Mr Hale"]);
});

test("sheets travel as they are, change nothing on devices, and are in the tables", () => {
  const sign = signed(offer, "checked", "Marek");
  for (const entry of [offer, sign])
    expect(decodeEntry(JSON.parse(JSON.stringify(encodeEntry(entry))))).toEqual(entry);
  for (const wrong of [
    { ...offer, sheet: { ...offer.sheet, check: "00" } },
    { ...offer, sheet: { ...offer.sheet, name: " " } },
    { ...offer, sheet: { ...offer.sheet, revision: 0 } },
    { ...sign, day: "yesterday" },
    { ...sign, as: "drawn" },
    { ...sign, name: "" },
  ])
    expect(decodeEntry(wrong)).toBeNull();
  const record = [by(offer), by(sign)];
  expect([countingEntries([offer, sign]), visitsOf(record)]).toEqual([[], []]);
  expect(isOutdated(record, [...record, by(back(offer.id))])).toBe(false);
  const rows = recordTable(PlanIndex.of(lockkeepersHouse()), [...record, by(back(sign.id))]);
  expect(rows.slice(1).map((row) => [row[2], row[4], row[9]])).toEqual([
    ["sheet issued", "Offer", ""],
    ["sheet checked", "Offer", "taken back later"],
    ["taken back", "checked by Marek", ""],
  ]);
  const [, row] = issuedTable(issuedSheets(record));
  expect(row?.slice(0, 8)).toEqual([
    ...["A", "Offer", "the customer", "31", AT, "Ruth", "Marek, 2026-11-30", ""],
  ]);
  expect(shortCheck(offer.sheet.check)).toBe("0123 4567 89ab cdef");
});
