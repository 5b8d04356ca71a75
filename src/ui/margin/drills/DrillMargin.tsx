"use client";

import { clsx } from "clsx";
import { COURSE, type Lesson } from "@/core/drills";
import { useDrill, type DrillState } from "../../drill-store/store";
import { mineOf, useProgress, type Progress } from "../../drill-store/use-progress";
import { MarginHead } from "../parts";

/** The course beside the drill that is played: what was solved how fast, and what is still possible. */
export function DrillMargin() {
  const drill = useDrill();
  const progress = useProgress(drill.played?.end ?? "");
  const solved = COURSE.filter(({ number }) => (mineOf(progress, "course", number)?.solved ?? 0) > 0).length;
  return (
    <>
      <MarginHead kick="The course">Twenty drills, {solved} solved</MarginHead>
      <ol aria-label="The course" className="py-2">
        {COURSE.map((lesson) => (
          <Line key={lesson.number} lesson={lesson} drill={drill} progress={progress} />
        ))}
      </ol>
      <Possible drill={drill} />
    </>
  );
}

function stateText({ number }: Lesson, { asked, played }: DrillState, progress: Progress): string {
  if (asked?.what === "course" && asked.number === number && played?.end === "open") return "now";
  const mine = mineOf(progress, "course", number);
  if (mine === null) return "";
  return mine.best === null ? "tried" : `${mine.best} min`;
}

function Line({ lesson, drill, progress }: { lesson: Lesson; drill: DrillState; progress: Progress }) {
  const text = stateText(lesson, drill, progress);
  return (
    <li
      className={clsx(
        "flex items-baseline gap-3 px-4 text-13 leading-[25px]",
        text === "now" ? "font-semibold" : "",
        text === "" ? "text-ink2" : "",
      )}
    >
      <span className="mono w-5 text-right">{lesson.number}</span>
      <span className="min-w-0 flex-1 truncate">{lesson.title}</span>
      <span className="mono">{text}</span>
    </li>
  );
}

/** How much is left, and that which stays unsaid until it is over. */
function Possible({ drill: { played } }: { drill: DrillState }) {
  if (played?.end !== "open") return null;
  const isOne = played.possible.length === 1;
  return (
    <section aria-label="What is still possible" className="border-t border-hair px-4 py-3">
      <h3 className="text-13 font-semibold">What is still possible</h3>
      {played.possible.map(({ left, tried }, at) => (
        <p key={at} className="mt-1 text-13">
          <b className="font-semibold">
            {left} of {tried}
          </b>{" "}
          single faults fit {isOne ? "what you saw" : `complaint ${at + 1} and what you saw`}.
        </p>
      ))}
      <p className="mt-1 text-13 text-ink2">
        Which, and what this drill teaches, is told when it is named or given up.
      </p>
    </section>
  );
}
