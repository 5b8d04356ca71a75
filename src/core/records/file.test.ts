import { readFileSync } from "node:fs";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { readPlanFile, writePlanFile } from "../formats";
import { must } from "../kernel";
import { PlanEdits } from "../plan";
import { decodeEntry, encodeEntry, type Recorded, type RecordEntry } from "./entry";
import { recordsOfFile, recordsToFile } from "./file";

const house = lockkeepersHouse();
const id = (n: number) => `019a0000-0000-7000-8000-${String(n).padStart(12, "0")}`;
const at = "2026-11-29T09:00:00.000Z";
const edits = new PlanEdits(house);
const [port] = [...house.port.keys()];
edits.patch("port", must(port, "a port"), { enabled: false });
const entries: readonly RecordEntry[] = [
  { id: id(1), at, do: "start", from: "box", name: "", changes: edits.changes() },
  {
    id: id(2),
    at,
    do: "tick",
    after: null,
    step: {
      kind: "permit",
      device: null,
      page: null,
      title: "Before Saturday: have it signed",
      values: [["Permit", "14/26"]],
    },
    came: "done",
    read: "",
    note: "R. Lindqvist",
    photos: [],
    changes: [],
  },
  { id: id(3), at, do: "takeBack", tick: id(2) },
  { id: id(4), at, do: "end", note: "until Monday" },
];
const record: readonly Recorded[] = entries.map((entry, n) => ({
  by: n % 2 === 0 ? "Ruth" : "Märek",
  entry,
}));
const breath = () => Promise.resolve();
const read = (file: unknown) => recordsOfFile(file, breath);

test("a record comes out of the plan file as it went in, and so does the plan beside it", async () => {
  const text = writePlanFile(house, { records: recordsToFile(record), photos: [] });
  expect(readPlanFile(text)).toEqual({ ok: true, value: house });
  expect(await read(JSON.parse(text))).toEqual({ ok: true, value: record });
});

test("a file without a record is one with nothing done, and nothing of it is written", async () => {
  expect(writePlanFile(house, { records: [], photos: [] })).toBe(writePlanFile(house));
  expect(await read(JSON.parse(writePlanFile(house)))).toEqual({ ok: true, value: [] });
  expect(await read("no object")).toEqual({ ok: true, value: [] });
});

const whole = recordsToFile(record) as Record<string, unknown>[];
test.each([
  ["no list", { records: {} }, /^records: A list belongs here/],
  ["no name", { records: [{ ...whole[0], by: "" }] }, /^records\[0\]\.by: /],
  ["something more", { records: [{ ...whole[0], word: "x" }] }, /^records\[0\]/],
  [
    "a time that is none",
    { records: [whole[0], { by: "Ruth", entry: { ...(whole[3]?.entry as object), at: "now" } }] },
    /^records\[1\]\.at: /,
  ],
  ["one twice", { records: [whole[3], whole[3]] }, /^records\[1\] is there twice/],
  [
    "another kind",
    { records: [{ by: "Ruth", entry: { id: id(9), at, do: "dance" } }] },
    /^records\[0\]\.do: /,
  ],
] as const)("%s is refused, and the place is named", async (_, file, says) => {
  const found = await read(file);
  expect(found.ok ? "" : found.error[0]?.sentence).toMatch(says);
});

test("an entry in the form of before is brought into the present one", async () => {
  const now = encodeEntry(must(entries[0], "the start")) as { changes: { before: object; after: object }[] };
  const older = now.changes.map(({ before, after, ...rest }) => {
    const { voicePolicy: _, ...was } = before as Record<string, unknown>;
    return { ...rest, before: was, after };
  });
  expect(await read({ records: [{ by: "Ruth", entry: { ...now, changes: older } }] })).toEqual({
    ok: true,
    value: [record[0]],
  });
});

test("what a browser kept before readings said what they proved is read, and faults, too", () => {
  const kept = JSON.parse(readFileSync("tests/fixtures/waiting/record-2.json", "utf8")) as {
    outbox: { entry: { test: object } };
    record: { entry: { fault: object } };
  };
  expect(decodeEntry(kept.outbox.entry)).toEqual({
    ...kept.outbox.entry,
    test: { ...kept.outbox.entry.test, proves: null },
  });
  expect(decodeEntry(kept.record.entry)).toEqual({
    ...kept.record.entry,
    fault: { ...kept.record.entry.fault, explains: null },
  });
});

test("what a browser kept before ticks had photos is read: it has none", () => {
  const kept = JSON.parse(readFileSync("tests/fixtures/waiting/record-1.json", "utf8")) as {
    outbox: { entry: object };
  };
  expect(decodeEntry(kept.outbox.entry)).toMatchObject({ ...kept.outbox.entry, photos: [] });
});
