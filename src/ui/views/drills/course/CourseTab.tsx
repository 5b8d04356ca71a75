"use client";

import { COURSE, type CourseSite, type Lesson } from "@/core/drills";
import { startDrill, useDrill } from "../../../drill-store/store";
import { useHeld } from "../../../plan-store/use-plan";
import { mineOf, type Progress } from "../../../drill-store/use-progress";

const SITES: Readonly<Record<CourseSite, string>> = {
  house: "A house",
  practice: "A veterinary practice",
  works: "A cider works",
};
export const LEVELS = {
  1: "single and visible",
  2: "it hides behind something that works",
  3: "two at once",
} as const;

/** Twenty drills in the order of the job, each in a copy of a site that comes with the application. */
export function CourseTab({ progress }: { progress: Progress }) {
  const { trouble } = useDrill();
  const solved = COURSE.filter(({ number }) => (mineOf(progress, "course", number)?.solved ?? 0) > 0).length;
  return (
    <section aria-label="The course">
      <p className="max-w-[72ch] px-4 py-3 text-15">
        Somebody rings in. One thing on the site is not as planned: find it, name it, mend it. Every look
        costs its minutes, as it does on a job. Nothing of it is in any plan of yours.
      </p>
      {trouble === null ? null : (
        <p role="alert" className="px-4 pb-3 text-15 text-stop">
          {trouble}
        </p>
      )}
      <div className="overflow-x-auto">
        <table className="table" aria-label="Twenty drills">
          <caption className="px-4 py-1 text-left text-13 text-ink2">
            {solved} of {COURSE.length} solved
          </caption>
          <thead>
            <tr>
              <th scope="col" className="right">
                No.
              </th>
              <th scope="col">Drill</th>
              <th scope="col" className="max-[600px]:hidden">
                Where
              </th>
              <th scope="col" className="max-[600px]:hidden">
                The fault is
              </th>
              <th scope="col">Yours</th>
              <th scope="col">
                <span className="sr-only">Play</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {COURSE.map((lesson) => (
              <LessonRow key={lesson.number} lesson={lesson} progress={progress} />
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

/** "7 min", "tried twice", or nothing. */
function mineText(progress: Progress, number: number): string {
  const mine = mineOf(progress, "course", number);
  if (mine === null) return "";
  return mine.best === null ? `tried, ${mine.tries} ×` : `${mine.best} min`;
}

function LessonRow({ lesson, progress }: { lesson: Lesson; progress: Progress }) {
  const { index, revision } = useHeld();
  const { number, title, site, level } = lesson;
  const isSolved = (mineOf(progress, "course", number)?.solved ?? 0) > 0;
  return (
    <tr>
      <td className="right mono">{number}</td>
      <td className={isSolved ? "" : "font-semibold"}>{title}</td>
      <td className="max-[600px]:hidden">{SITES[site]}</td>
      <td className="max-[600px]:hidden">{LEVELS[level]}</td>
      <td className="mono">
        {isSolved ? <span className="text-sound">✓ </span> : null}
        {mineText(progress, number)}
      </td>
      <td className="right py-[3px]">
        <button
          type="button"
          className="button"
          aria-label={`Play drill ${number}, ${title}`}
          onClick={() => startDrill(index.plan.site.id, index.plan, revision, { what: "course", number })}
        >
          {isSolved ? "Play again" : "Play"}
        </button>
      </td>
    </tr>
  );
}
