import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { PlanIndex } from "../plan";
import { testId } from "../testing/build-plan";
import { decodeEntry, encodeEntry, photosOf, type Recorded, type RecordEntry } from "./entry";
import { diaryOf } from "./diary";
import { photosNamed } from "./photo";
import type { Remark } from "./remark";
import { pointsDue, pointsOpen, remarksOf } from "./remarks";
import { recordTable } from "./table";
import { isOutdated } from "./visit";

const by = (entry: RecordEntry, name = "Ruth"): Recorded => ({ by: name, entry });
const remark = (text: string, more: Partial<Remark> = {}): Remark => ({
  id: testId("remark", text),
  at: "2026-11-30T09:00:00.000Z",
  do: "remark",
  about: null,
  for: "us",
  text,
  isOpen: false,
  due: null,
  photos: [],
  ...more,
});
const at = (instant: string, entry: object): RecordEntry =>
  ({ id: testId("entry", instant + JSON.stringify(entry)), at: instant, ...entry }) as RecordEntry;
const close = (id: string, instant = "2026-12-01T10:00:00.000Z") =>
  at(instant, { do: "close", remark: id, note: "" });
const back = (id: string) => at("2026-12-02T10:00:00.000Z", { do: "takeBack", tick: id });

const OPEN = remark("order the longer cable", { isOpen: true, due: "2026-12-24" });
const LATER = remark("ask about the roof", { isOpen: true });
const SOONER = remark("bring the ladder", { isOpen: true, due: "2026-12-03", for: "customer" });

test("remarks, what was seen to and printed labels are written and read as they are", () => {
  const device = testId("device", "x");
  const entries: RecordEntry[] = [
    remark("a remark", {
      about: { kind: "device", id: device, name: "Hall switch" },
      photos: [testId("photo", "1")],
    }),
    close(OPEN.id),
    at("2026-12-01T10:00:00.000Z", { do: "labels", printed: [[`device ${device}`, "a1b2"]] }),
  ];
  for (const entry of entries)
    expect(decodeEntry(JSON.parse(JSON.stringify(encodeEntry(entry))))).toEqual(entry);
  expect(photosOf(entries[0] as RecordEntry)).toEqual([testId("photo", "1")]);
  expect(photosNamed(entries.map((entry) => by(entry)))).toEqual([testId("photo", "1")]);
});

test.each([
  [{ for: "everybody" }],
  [{ due: "24 December" }],
  [{ about: { kind: "gadget", id: testId("device", "x"), name: "" } }],
  [{ text: "x".repeat(2001) }],
  [{ photos: [1, 2, 3, 4, 5].map((n) => testId("photo", String(n))) }],
])("a remark with %j is none", (wrong) => {
  expect(decodeEntry({ ...(encodeEntry(OPEN) as object), ...wrong })).toBeNull();
});

test("points are open until somebody has seen to them, the one that is due first in front", () => {
  const record = [OPEN, LATER, SOONER, remark("only said")].map((entry) => by(entry));
  expect(pointsOpen(record).map((remarked) => remarked.remark.text)).toEqual([
    SOONER.text,
    OPEN.text,
    LATER.text,
  ]);
  const seen = [...record, by(close(SOONER.id), "Marek")];
  expect(pointsOpen(seen).map((remarked) => remarked.remark.text)).toEqual([OPEN.text, LATER.text]);
  expect(remarksOf(seen).find((remarked) => remarked.remark.id === SOONER.id)?.closed?.by).toBe("Marek");
  // Not seen to after all; and one that is withdrawn is open no more.
  const again = [...seen, by(back(close(SOONER.id).id)), by(back(OPEN.id))];
  expect(pointsOpen(again).map((remarked) => remarked.remark.text)).toEqual([SOONER.text, LATER.text]);
});

test("the diary tells day by day, where the site is, who was there from when to when and what was done", () => {
  const record = [
    by(at("2026-11-30T09:00:00.000Z", { do: "start", from: "box", name: "", changes: [] })),
    by(remark("said", { at: "2026-11-30T11:30:00.000Z" }), "Marek"),
    // An hour after midnight in the east is the day after.
    by(at("2026-11-30T23:30:00.000Z", { do: "end", note: "the hall is done" })),
    by(close(OPEN.id, "2026-12-01T10:00:00.000Z")),
    by(OPEN),
    by(remark("withdrawn", { at: "2026-12-05T09:00:00.000Z" })),
    by(back(remark("withdrawn").id)),
  ];
  const days = (zone: string) => diaryOf(record, zone).map(({ day, done }) => [day, done]);
  expect(days("Europe/London")).toEqual([
    ["2026-12-01", ["seen to: order the longer cable"]],
    ["2026-11-30", ["2 remarks", "the hall is done"]],
  ]);
  expect(days("Europe/Berlin")).toEqual([
    ["2026-12-01", ["the hall is done", "seen to: order the longer cable"]],
    ["2026-11-30", ["2 remarks"]],
  ]);
  expect(days("No/Where")[0]?.[0]).toBe("2026-12-01");
  const [, first] = diaryOf(record, "Europe/London");
  expect(
    first?.people.map(({ name, from, until }) => [name, from.slice(11, 16), until.slice(11, 16)]),
  ).toEqual([
    ["Ruth", "09:00", "23:30"],
    ["Marek", "11:30", "11:30"],
  ]);
});

test("a customer's diary is silent of remarks and notes that are ours, and of having seen to them", () => {
  const end = at("2026-12-01T12:00:00.000Z", { do: "end", note: "the manager was rude" });
  const record = [by(OPEN), by(SOONER), by(close(OPEN.id)), by(close(SOONER.id)), by(end)];
  expect(diaryOf(record, "UTC", "customer").flatMap(({ done }) => done)).toEqual([
    "seen to: bring the ladder",
    "1 remark",
  ]);
  expect(diaryOf(record, "UTC").flatMap(({ done }) => done)).toEqual(
    expect.arrayContaining(["seen to: order the longer cable", "the manager was rude"]),
  );
});

test("they stand in the record's table, and change nothing on any device", () => {
  const plan = lockkeepersHouse();
  const record = [
    OPEN,
    close(OPEN.id),
    at("2026-12-01T10:00:00.000Z", { do: "labels", printed: [["device x", "a1"]] }),
    at("2026-12-01T11:00:00.000Z", { do: "photosFor", entry: OPEN.id, for: "customer" }),
    back(close(OPEN.id).id),
  ].map((entry) => by(entry));
  const [heads = [], ...rows] = recordTable(PlanIndex.of(plan), record);
  expect(rows.map((row) => row.length)).toEqual(rows.map(() => heads.length));
  expect(rows.map((row) => row.slice(2, 7))).toEqual([
    ["open point", "", OPEN.text, "until 2026-12-24", "ours"],
    ["seen to", "", OPEN.text, "", ""],
    ["labels printed", "", "device x", "", ""],
    ["photos are the customer's", "", OPEN.text, "", ""],
    ["taken back", "", "", "", ""],
  ]);
  expect(isOutdated([], record)).toBe(false);
});

test("an open point with a day falls due, at the thing that it is about as long as that is there", () => {
  const plan = lockkeepersHouse();
  const index = PlanIndex.of(plan, "2026-12-10");
  const [device] = plan.device.values();
  const about = { kind: "device", id: device?.id ?? "", name: "Hall switch" } as const;
  const gone = { ...about, id: testId("device", "gone") };
  const record = [
    remark("first", { isOpen: true, due: "2026-12-03", about }),
    remark("second", { isOpen: true, due: "2026-12-24", about: gone }),
    remark("no day", { isOpen: true }),
  ].map((entry) => by(entry));
  expect(pointsDue(index, record)).toEqual([
    {
      day: "2026-12-03",
      what: "Open point, Hall switch: first",
      subject: { kind: "device", id: about.id },
      isOver: true,
    },
    {
      day: "2026-12-24",
      what: "Open point, Hall switch: second",
      subject: { kind: "site", id: plan.site.id },
      isOver: false,
    },
  ]);
});
