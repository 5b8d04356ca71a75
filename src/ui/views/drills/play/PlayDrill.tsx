"use client";

import { useMemo } from "react";
import { COURSE, type Lesson, type Played } from "@/core/drills";
import { PlanIndex } from "@/core/plan";
import type { Opened } from "@/workers/drill-room";
import { act, leaveDrill, useDrill, type DrillState } from "../../../drill-store/store";
import { LEVELS } from "../course/CourseTab";
import { DebriefSheet } from "./DebriefSheet";
import { JobSlip } from "./JobSlip";
import { LookAgain } from "./LookAgain";
import { LookTable } from "./LookTable";
import { NameIt } from "./NameIt";

/** A drill that is played: what was rung in, what was looked at, what to look at next, and what it is. */
export function PlayDrill() {
  const drill = useDrill();
  const { asked, opened, played, trouble } = drill;
  const index = useMemo(() => (opened === null ? null : PlanIndex.of(opened.plan)), [opened]);
  const lesson = (asked?.what === "course" ? COURSE[asked.number - 1] : undefined) ?? null;
  const isOpen = played?.end === "open";
  return (
    <>
      <Head drill={drill} lesson={lesson} isOpen={isOpen} />
      <div className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
        {trouble === null ? null : (
          <p role="alert" className="p-4 text-15 text-stop">
            {trouble}
          </p>
        )}
        {opened === null || index === null || played === null ? (
          <p role="status" className="p-4 text-15 text-ink2">
            {trouble === null
              ? "Planting a fault that can be found … On a large site that takes minutes."
              : ""}
          </p>
        ) : (
          <Board index={index} drill={drill} opened={opened} played={played} lesson={lesson} />
        )}
      </div>
      {isOpen && index !== null ? <NameIt index={index} drill={drill} /> : null}
    </>
  );
}

function Head({ drill, lesson, isOpen }: { drill: DrillState; lesson: Lesson | null; isOpen: boolean }) {
  const { opened, isWorking } = drill;
  return (
    <div className="head">
      <h1>{lesson?.title ?? "A fault on this site"}</h1>
      <p>{opened === null ? "" : `level ${opened.level}: ${LEVELS[opened.level]}`}</p>
      <span className="push" />
      {isOpen ? (
        <button type="button" className="button" disabled={isWorking} onClick={() => act({ act: "giveUp" })}>
          Give up, show me
        </button>
      ) : null}
      <button type="button" className="button" onClick={leaveDrill}>
        {isOpen ? "Leave it" : "All drills"}
      </button>
    </div>
  );
}

interface BoardProps {
  readonly index: PlanIndex;
  readonly drill: DrillState;
  readonly opened: Opened;
  readonly played: Played;
  readonly lesson: Lesson | null;
}

function Board({ index, drill, opened, played, lesson }: BoardProps) {
  return (
    <>
      <JobSlip index={index} opened={opened} number={lesson?.number ?? null} />
      <LookTable played={played} minutes={opened.minutes} />
      {played.end === "open" ? (
        <LookAgain index={index} opened={opened} played={played} isWorking={drill.isWorking} />
      ) : (
        <DebriefSheet drill={drill} lesson={lesson} debrief={drill.debrief} />
      )}
    </>
  );
}
