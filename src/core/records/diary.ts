import { putInto } from "../kernel";
import { counted } from "../repairs";
import type { Recorded, RecordEntry } from "./entry";
import { stillCounts } from "./remarks";

/** Somebody on a day at the site: from the first to the last thing that they wrote down. */
export interface Attendance {
  readonly name: string;
  /** ISO 8601 instants in UTC. */
  readonly from: string;
  readonly until: string;
}

/** A day on which something was written down. */
export interface DiaryDay {
  /** As YYYY-MM-DD, by the calendar of the site. */
  readonly day: string;
  readonly people: readonly Attendance[];
  /** What was done, in short sentences without a full stop. */
  readonly done: readonly string[];
}

/** The day of an instant in a time zone, as YYYY-MM-DD; in UTC where nobody knows the zone. */
function dayIn(instant: string, timeZone: string): string {
  try {
    return new Intl.DateTimeFormat("en-CA", { timeZone, dateStyle: "short" }).format(new Date(instant));
  } catch {
    return instant.slice(0, 10);
  }
}

type Does = RecordEntry["do"];
const COUNTED: readonly (readonly [Does, string, string])[] = [
  ["tick", "step of the runbook", "steps of the runbook"],
  ["test", "reading", "readings"],
  ["read", "device read", "devices read"],
  ["remark", "remark", "remarks"],
  ["labels", "print of labels", "prints of labels"],
];

/** What came of the readings of a day, where not all were as expected. */
function readingsText(entries: readonly RecordEntry[]): string[] {
  const otherwise = entries.filter((entry) => entry.do === "test" && entry.came === "otherwise").length;
  return otherwise === 0 ? [] : [`${counted(otherwise, "reading", "readings")} otherwise than expected`];
}

/** What is told with its own words: a fault, a sheet, a point that was seen to. */
function toldText(entry: RecordEntry, titles: ReadonlyMap<string, string>): string[] {
  switch (entry.do) {
    case "fault":
      return [`fault found: ${entry.fault.words}`];
    case "issue":
      return [`sheet issued: ${entry.sheet.name}`];
    case "sign":
      return [`sheet ${entry.as} by ${entry.name}`];
    case "close":
      return [`seen to: ${titles.get(entry.remark) ?? ""}`];
    case "end":
      return entry.note === "" ? [] : [entry.note];
    default:
      return [];
  }
}

function doneOn(entries: readonly RecordEntry[], titles: ReadonlyMap<string, string>): string[] {
  const counts = COUNTED.flatMap(([does, one, many]) => {
    const count = entries.filter((entry) => entry.do === does).length;
    return count === 0 ? [] : [counted(count, one, many)];
  });
  return [...counts, ...readingsText(entries), ...entries.flatMap((entry) => toldText(entry, titles))];
}

function attendanceOf(own: readonly Recorded[]): Attendance[] {
  const by = new Map<string, Attendance>();
  for (const { by: name, entry } of own) {
    const known = by.get(name);
    by.set(name, {
      name,
      from: known !== undefined && known.from < entry.at ? known.from : entry.at,
      until: known !== undefined && known.until > entry.at ? known.until : entry.at,
    });
  }
  return [...by.values()];
}

/**
 * What was done at a site, day by day, the last day first; without what was taken back. `whose` leaves out
 * remarks of others: "customer" tells only of those that are the customer's.
 */
export function diaryOf(
  record: readonly Recorded[],
  timeZone: string,
  whose: "all" | "customer" = "all",
): DiaryDay[] {
  const all = stillCounts(record);
  const ours = new Set(
    all.flatMap(({ entry }) =>
      whose === "customer" && entry.do === "remark" && entry.for === "us" ? [entry.id] : [],
    ),
  );
  /** A visit's own note is the office's, too. */
  const isOurs = (entry: RecordEntry): boolean =>
    ours.has(entry.id) ||
    (entry.do === "close" && ours.has(entry.remark)) ||
    (entry.do === "end" && whose === "customer");
  const titles = new Map(
    all.flatMap(({ entry }) => (entry.do === "remark" ? [[entry.id, entry.text] as const] : [])),
  );
  const byDay = new Map<string, Recorded[]>();
  for (const recorded of all) {
    const { entry } = recorded;
    // What leaves on paper is decided in the office.
    if (entry.do === "takeBack" || entry.do === "photosFor" || isOurs(entry)) continue;
    const day = dayIn(entry.at, timeZone);
    putInto(byDay, day, recorded);
  }
  return [...byDay]
    .map(([day, own]): DiaryDay => ({
      day,
      people: attendanceOf(own),
      done: doneOn(
        own.map(({ entry }) => entry),
        titles,
      ),
    }))
    .filter(({ done }) => done.length > 0)
    .sort((a, b) => (a.day < b.day ? 1 : -1));
}
