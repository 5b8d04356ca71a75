import { checkOf, sentenceOf } from "../checks";
import { comparedTable } from "../comparison";
import { nameOf } from "../plan";
import {
  CAME_WORDS,
  photosFor,
  photosTakenOut,
  pointsOpen,
  remarksOf,
  stillCounts,
  TEST_CAME_WORDS,
  visitsOf,
  type Remark,
  type TestTaken,
  type Tick,
} from "../records";
import { counted } from "../repairs";
import { fallsDue } from "../sheets";
import { sheetBefore } from "./before";
import { quiet, tableBlock, text, under } from "./blocks";
import type { Block, PackStudy } from "./model";
import { dayWords, timeWords } from "./words";

const when = ({ index }: PackStudy, at: string): string => timeWords(at, index.plan.site.timeZone);

/** Facts about cables, their speed and the power that they carry. */
const OF_CABLES = /^(?:cable|speed|power) /;
const isOfCables = ({ test }: TestTaken): boolean =>
  [test.id, ...(test.proves ?? [])].some((fact) => OF_CABLES.test(fact));

const readingRows = (study: PackStudy, is: (taken: TestTaken) => boolean): string[][] =>
  stillCounts(study.record).flatMap(({ by, entry }) =>
    entry.do === "test" && is(entry)
      ? [
          [
            entry.test.place,
            entry.test.at,
            entry.test.does,
            entry.test.expected,
            [entry.read, entry.says].filter((part) => part !== "").join("; "),
            TEST_CAME_WORDS[entry.came],
            by,
            when(study, entry.at),
          ],
        ]
      : [],
  );
const READING_HEADS = ["Place", "At", "Do", "Expected", "Read", "Came", "Who", "When"];

/** The readings that were taken, by whom. */
export function testBlocks(study: PackStudy): Block[] {
  const rows = readingRows(study, () => true);
  return rows.length === 0 ? [text("No reading is in the record.")] : tableBlock([READING_HEADS, ...rows]);
}
/** Those of cables, speeds and power alone. */
export function cableTestBlocks(study: PackStudy): Block[] {
  const rows = readingRows(study, isOfCables);
  return rows.length === 0 ? [text("No cable test is in the record.")] : tableBlock([READING_HEADS, ...rows]);
}
/** How it stood with the readings when the sheet was issued, in a customer's words. */
export function plainTestBlocks(study: PackStudy): Block[] {
  const taken = stillCounts(study.record).flatMap(({ entry }) => (entry.do === "test" ? [entry] : []));
  const right = taken.filter(({ came }) => came === "expected").length;
  return [
    text(
      taken.length === 0
        ? "No reading is in the record."
        : `${taken.length} readings were taken on site; ${right} came as expected.`,
    ),
  ];
}

/** What was done on site, step by step, in each visit. */
export function runbookBlocks(study: PackStudy): Block[] {
  const visits = visitsOf(study.record);
  if (visits.length === 0) return [text("No visit is in the record.")];
  return visits.flatMap(({ start, by, ended, ticks }) => {
    const until = ended === null ? "it goes on" : `until ${when(study, ended)}`;
    return under(`Visit of ${when(study, start.at)}, ${by}, ${until}`, [
      ...(ticks.length === 0 ? [quiet("No step was ticked.")] : []),
      ...tableBlock([
        ["When", "Who", "Step", "Entered", "Came", "Read"],
        ...ticks.map(({ by: who, tick }) => [
          when(study, tick.at),
          who,
          tick.step.title,
          tick.step.values.map(([name, value]) => `${name}: ${value}`).join("; "),
          CAME_WORDS[tick.came],
          tick.read,
        ]),
      ]),
    ]);
  });
}

const untilWords = (until: string | null): string => (until === null ? "always" : dayWords(until));

/** Findings that somebody has decided to live with, and those that are still open. */
export const findingBlocks = ({ index, accepted, open }: PackStudy): Block[] => [
  ...(accepted.length === 0 ? [text("No finding was accepted.")] : []),
  ...tableBlock([
    ["Finding", "Accepted because", "By", "Until"],
    ...accepted.map(({ finding, acceptance: { reason, by, until } }) => [
      sentenceOf(finding, index),
      reason,
      by,
      untilWords(until),
    ]),
  ]),
  ...under(
    "Still open",
    tableBlock([
      ["Weighs", "Finding"],
      ...open.map((finding) => [finding.severity, sentenceOf(finding, index)]),
    ]),
  ),
];

/**
 * What was accepted, in a customer's pack: by what it is about in general, since the sentence tells of the
 * inside.
 */
export const plainFindingBlocks = ({ accepted, open }: PackStudy): Block[] => [
  ...(accepted.length === 0 ? [text("Nothing was accepted as it is with a reason.")] : []),
  ...tableBlock([
    ["What was left as it is", "Because", "By", "Until"],
    ...accepted.map(({ finding, acceptance: { reason, by, until } }) => [
      checkOf(finding)?.title ?? "",
      reason,
      by,
      untilWords(until),
    ]),
  ]),
  ...(open.length === 0
    ? []
    : [text(`${counted(open.length, "finding is", "findings are")} still open: ask whoever planned it.`)]),
];

/** Days on which support, licences, certificates and exceptions end. */
export const dueBlocks = ({ index }: PackStudy): Block[] => {
  const due = fallsDue(index);
  return due.length === 0
    ? [text("No day is in the plan on which something ends.")]
    : tableBlock([["Day", "What"], ...due.map(({ day, what }) => [dayWords(day), what])]);
};
/** The same for a customer: of gear only. */
export const plainDueBlocks = ({ index }: PackStudy): Block[] => {
  const due = fallsDue(index).filter(({ subject }) => subject.kind === "device" || subject.kind === "gear");
  return due.length === 0
    ? [text("No day is in the plan on which support of some gear ends.")]
    : tableBlock([["Day", "What"], ...due.map(({ day, what }) => [dayWords(day), what])]);
};

const about = ({ about: of }: Remark): string => of?.name ?? "the site";

/** Remarks and photos that are the customer's: only these leave the office. */
export function remarkBlocks(study: PackStudy): Block[] {
  const own = remarksOf(study.record).filter(({ remark }) => remark.for === "customer");
  const out = photosTakenOut(study.record);
  const open = new Set(pointsOpen(study.record).map(({ remark }) => remark.id));
  return [
    ...tableBlock([
      ["About", "What", "Open until", "Who", "When"],
      ...own.map(({ by, remark }) => [
        about(remark),
        remark.text,
        open.has(remark.id) ? openUntil(remark.due) : "",
        by,
        when(study, remark.at),
      ]),
    ]),
    ...own.flatMap(({ remark }) =>
      remark.photos
        .filter((photo) => !out.has(photo))
        .map((photo): Block => ({ is: "photo", photo, caption: `${about(remark)}: ${remark.text}` })),
    ),
    ...workPhotos(study, out),
  ];
}

/** Photos of steps and readings that are the customer's, with where and when: how it was set stays inside. */
function workPhotos(study: PackStudy, out: ReadonlySet<string>): Block[] {
  const whose = photosFor(study.record);
  return stillCounts(study.record).flatMap(({ entry }) => {
    if ((entry.do !== "tick" && entry.do !== "test") || whose.get(entry.id) !== "customer") return [];
    const caption = `${whereTaken(study, entry)}, ${when(study, entry.at)}`;
    return entry.photos
      .filter((photo) => !out.has(photo))
      .map((photo): Block => ({ is: "photo", photo, caption }));
  });
}
function whereTaken({ index }: PackStudy, entry: Tick | TestTaken): string {
  if (entry.do === "test") return entry.test.place;
  const { device } = entry.step;
  return device === null ? "On site" : nameOf(index, "device", device);
}
const openUntil = (due: string | null): string => (due === null ? "open" : dayWords(due));

/** The sheets that were issued, and what is otherwise than in the one before. */
export function changeBlocks(study: PackStudy): Block[] {
  const { since } = study;
  const before = sheetBefore(study.sheets, study.sheet);
  const unknown = before !== undefined && since === null;
  return [
    ...sheetBlocks(study),
    ...(since === null ? [] : under(`Otherwise than in ${since.name}`, sinceBlocks(since.groups))),
    ...(unknown
      ? [text(`What is otherwise than in ${before.letter} could not be had when this was made.`)]
      : []),
  ];
}
const sinceBlocks = (groups: NonNullable<PackStudy["since"]>["groups"]): Block[] => {
  const [heads = [], ...rows] = comparedTable(groups);
  return rows.length === 0 ? [text("Nothing.")] : tableBlock([heads.map(capital), ...rows]);
};
const capital = (word: string): string => `${word.slice(0, 1).toUpperCase()}${word.slice(1)}`;

/** The sheets that were issued. */
export const sheetBlocks = (study: PackStudy): Block[] =>
  study.sheets.length === 0
    ? [text("No sheet was issued yet.")]
    : tableBlock([
        ["Sheet", "Name", "For", "Revision", "Issued", "By", "Checked", "Accepted", "Stands"],
        ...study.sheets.map(({ letter, by, issue, signed, isWithdrawn, replacedBy }) => [
          letter,
          issue.sheet.name,
          issue.sheet.recipient,
          String(issue.sheet.revision),
          when(study, issue.at),
          by,
          signText(signed.checked),
          signText(signed.accepted),
          standsText(isWithdrawn, replacedBy),
        ]),
      ]);
/** Who signed when; empty where nobody has. */
export const signText = (sign: { readonly name: string; readonly day: string } | null): string =>
  sign === null ? "" : `${sign.name}, ${dayWords(sign.day)}`;
const standsText = (isWithdrawn: boolean, replacedBy: string | null): string => {
  if (isWithdrawn) return "withdrawn";
  return replacedBy === null ? "stands" : `replaced by ${replacedBy}`;
};
