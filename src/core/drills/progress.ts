import { z } from "zod";
import { idField } from "../plan";
import { COURSE } from "./course";

/** What is practised: the course, faults on a site of one's own, the order of work, rounds of sums. */
const DRILLS = ["course", "site", "order", "sums"] as const;
export type DrillKind = (typeof DRILLS)[number];

/** Of the course the place, of faults and orders the level, of sums 0. */
const MOST_NUMBER = 99;
const MOST_SCORE = 60_000;

/** One try that is over. */
export const tryField = z.strictObject({
  id: idField,
  what: z.enum(DRILLS),
  number: z.int().min(0).max(MOST_NUMBER),
  isSolved: z.boolean(),
  /** Minutes that a fault took; mistakes of an order, or of a round of sums. */
  score: z.int().min(0).max(MOST_SCORE),
});
export type DrillTry = z.output<typeof tryField>;

/** How far somebody has come with one drill. */
export interface DrillProgress {
  readonly what: DrillKind;
  readonly number: number;
  readonly tries: number;
  readonly solved: number;
  /** The least score of those that were solved; null where none was. */
  readonly best: number | null;
  /** When it was last tried: an ISO 8601 instant. */
  readonly lastAt: string;
}

/** The same of everybody who has tried anything: what a teacher looks at. */
export interface PersonProgress {
  readonly person: string;
  readonly drills: readonly DrillProgress[];
}

/** A round of sums has so many; it is solved with at most so many mistakes. */
export const ROUND = 10;
export const MOST_MISTAKES = 2;

const KIND_WORDS: Readonly<Record<DrillKind, string>> = {
  course: "Course",
  site: "Fault on a site",
  order: "Order of work",
  sums: "Round of sums",
};
const UNITS: Readonly<Record<DrillKind, string>> = {
  course: "minutes",
  site: "minutes",
  order: "mistakes",
  sums: "mistakes",
};

/** The teacher's sheet as a table: a row for each person and drill. */
export const progressTable = (people: readonly PersonProgress[]): string[][] => [
  ["Person", "Drill", "Number or level", "Title", "Tries", "Solved", "Best", "Unit", "Last tried"],
  ...people.flatMap(({ person, drills }) =>
    drills.map(({ what, number, tries, solved, best, lastAt }) => [
      person,
      KIND_WORDS[what],
      what === "sums" ? "" : String(number),
      what === "course" ? (COURSE[number - 1]?.title ?? "") : "",
      String(tries),
      String(solved),
      best === null ? "" : String(best),
      UNITS[what],
      lastAt,
    ]),
  ),
];
