import { diaryOf, pointsOpen } from "../records";
import { tableBlock, text } from "./blocks";
import { plainTestBlocks } from "./done";
import type { Block, Pack, PackStudy, Part } from "./model";
import { titleBlock } from "./title";
import { dayWords, timeWords } from "./words";

const hours = (instant: string, zone: string): string => timeWords(instant, zone).split(" ").at(-1) ?? "";

/** What was done, day by day: only what may leave the office is told. */
function diaryBlocks({ index, record }: PackStudy): Block[] {
  const { timeZone } = index.plan.site;
  const days = diaryOf(record, timeZone, "customer");
  return days.length === 0
    ? [text("Nothing is in the record.")]
    : tableBlock([
        ["Day", "Who, from when to when", "What was done"],
        ...days.map(({ day, people, done }) => [
          dayWords(day),
          people
            .map(({ name, from, until }) => `${name}, ${hours(from, timeZone)} to ${hours(until, timeZone)}`)
            .join("; "),
          done.join("; "),
        ]),
      ]);
}

/** Points that are still open and are the customer's to know. */
function pointBlocks({ record }: PackStudy): Block[] {
  const open = pointsOpen(record).filter(({ remark }) => remark.for === "customer");
  return open.length === 0
    ? [text("No point is open.")]
    : tableBlock([
        ["Until", "About", "What"],
        ...open.map(({ remark }) => [
          remark.due === null ? "no day was named" : dayWords(remark.due),
          remark.about?.name ?? "the site",
          remark.text,
        ]),
      ]);
}

const PARTS: readonly (readonly [key: string, title: string, make: (study: PackStudy) => Block[]])[] = [
  ["diary", "Job report", diaryBlocks],
  ["points", "Open points", pointBlocks],
  ["readings", "Readings", plainTestBlocks],
];

/** The job report of a site: what was done when and by whom, what is still open, what was read. */
export const reportFor = (study: PackStudy): Pack => ({
  reader: "customer",
  block: titleBlock(study, "customer"),
  parts: PARTS.map(([key, title, make]): Part => ({ key, title, blocks: make(study) })),
});
