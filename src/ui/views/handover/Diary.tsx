"use client";

import { useMemo, useState } from "react";
import type { PlanIndex } from "@/core/plan";
import { diaryOf, pointsOpen, remarksOf, type DiaryDay } from "@/core/records";
import { counted } from "@/core/repairs";
import { dayText } from "../../kit/day-text";
import { RemarkForm } from "../../margin/remarks/RemarkForm";
import { RemarkRow } from "../../margin/remarks/RemarkRow";
import { useRecord } from "../../record-store/use-record";
import { PackState } from "./papers/PackState";
import { usePack } from "./papers/use-pack";

/** What was done at the site day by day, what is still open, and what was remarked; prints as a job report. */
export function Diary({ index }: { index: PlanIndex }) {
  const { record } = useRecord();
  const { timeZone } = index.plan.site;
  const days = useMemo(() => diaryOf(record, timeZone), [record, timeZone]);
  const open = useMemo(() => pointsOpen(record), [record]);
  const others = useMemo(() => {
    const isShown = new Set(open.map(({ remark }) => remark.id));
    return remarksOf(record)
      .filter(({ remark }) => !isShown.has(remark.id))
      .reverse();
  }, [record, open]);
  const [isWriting, setWriting] = useState(false);
  const { work, make, stop } = usePack();
  const report = () => void make({ sheet: null, reader: "report", size: "A4", leftOut: [], as: "pdf" });
  return (
    <div className="grid min-[1100px]:grid-cols-2">
      <section aria-label="Days" className="border-hair text-13 min-[1100px]:border-r">
        <div className="flex flex-wrap items-center gap-2 px-4 py-3">
          <h2 className="text-15">Diary</h2>
          <span className="push" />
          <button type="button" className="button" disabled={work.is === "working"} onClick={report}>
            Make the job report
          </button>
        </div>
        <PackState work={work} onStop={stop} />
        {days.length === 0 ? (
          <p className="max-w-[64ch] px-4 pb-4 text-15">
            Nothing was written down on site yet. Steps of the runbook, readings, sheets and remarks stand
            here by the day on which they were made, with who made them.
          </p>
        ) : (
          <ol>
            {days.map((day) => (
              <Day key={day.day} day={day} timeZone={timeZone} />
            ))}
          </ol>
        )}
      </section>
      <section aria-label="Points and remarks" className="text-13">
        <div className="flex flex-wrap items-center gap-2 px-4 py-3">
          <h2 className="text-15">Open points</h2>
          <span className="text-ink2">
            {open.length === 0 ? "none" : counted(open.length, "point", "points")}
          </span>
          <span className="push" />
          <button type="button" className="button" onClick={() => setWriting(true)}>
            Remark on the site …
          </button>
        </div>
        <ul>
          {open.map((remarked) => (
            <RemarkRow key={remarked.remark.id} remarked={remarked} isNamed />
          ))}
        </ul>
        {others.length === 0 ? null : <h2 className="px-4 pt-4 text-15">Other remarks</h2>}
        <ul>
          {others.slice(0, MOST_SHOWN).map((remarked) => (
            <RemarkRow key={remarked.remark.id} remarked={remarked} isNamed />
          ))}
        </ul>
        {others.length > MOST_SHOWN ? (
          <p className="px-4 py-2 text-ink2">
            and {others.length - MOST_SHOWN} older ones: in the papers and in the record’s CSV
          </p>
        ) : null}
      </section>
      {isWriting ? <RemarkForm about={null} onClose={() => setWriting(false)} /> : null}
    </div>
  );
}
const MOST_SHOWN = 100;

const clock = (instant: string, timeZone: string): string =>
  new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit", timeZone }).format(
    new Date(instant),
  );

function Day({ day: { day, people, done }, timeZone }: { day: DiaryDay; timeZone: string }) {
  return (
    <li className="grid grid-cols-[7rem_minmax(0,1fr)] gap-3 border-t border-hair px-4 py-2">
      <b className="font-semibold">{dayText(day)}</b>
      <div>
        {people.map(({ name, from, until }) => (
          <p key={name} className="text-ink2">
            {name}, {clock(from, timeZone)} to {clock(until, timeZone)}
          </p>
        ))}
        <ul className="list-disc pl-4">
          {done.map((point, at) => (
            // Two points can be told in the same words.
            <li key={`${at} ${point}`} className="[overflow-wrap:anywhere]">
              {point}
            </li>
          ))}
        </ul>
      </div>
    </li>
  );
}
