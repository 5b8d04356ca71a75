"use client";

import { useMemo, useState } from "react";
import { nameOf, type PlanIndex } from "@/core/plan";
import { allDue } from "@/core/records";
import { dueTable, type Due } from "@/core/sheets";
import { useGoTo } from "../../frame/go-to";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { useRecord } from "../../record-store/use-record";
import { dayText } from "../../kit/day-text";
import { dueCalendar } from "@/http/contracts/due-calendar";

/** Days of the plan on which something ends: support, licences, certificates, exceptions, forwards. */
export function FallsDue({ index }: { index: PlanIndex }) {
  const { record } = useRecord();
  const due = useMemo(() => allDue(index, record), [index, record]);
  const [fault, setFault] = useState<string | null>(null);
  const { name } = index.plan.site;
  const calendar = () => {
    const made = dueCalendar(index, due);
    if ("fault" in made) return setFault(made.fault);
    setFault(null);
    download(fileName(name, "due.ics"), "text/calendar;charset=utf-8", made.text);
  };
  if (due.length === 0)
    return (
      <p className="max-w-[64ch] p-4 text-15">
        Nothing falls due: no support, licence, certificate, port forward, exception, accepted finding or open
        point has a day. The days are entered where those things are.
      </p>
    );
  return (
    <section aria-label="What falls due">
      <div className="flex flex-wrap items-center gap-2 px-4 py-3">
        <button type="button" className="button" onClick={calendar}>
          Save as a calendar
        </button>
        <button
          type="button"
          className="button"
          onClick={() => download(fileName(name, "due.csv"), CSV_TYPE, csv(dueTable(due)))}
        >
          Save CSV
        </button>
      </div>
      {fault === null ? null : (
        <p role="alert" className="px-4 pb-2 text-stop">
          {fault}
        </p>
      )}
      <ol className="text-13">
        {due.map((due) => (
          <Row key={`${due.day} ${due.subject.kind} ${due.subject.id} ${due.what}`} index={index} due={due} />
        ))}
      </ol>
    </section>
  );
}

function Row({ index, due: { day, what, subject, isOver } }: { index: PlanIndex; due: Due }) {
  const goTo = useGoTo();
  return (
    <li className="grid grid-cols-[7rem_minmax(0,1fr)_auto] items-center gap-3 border-t border-hair px-4 py-1">
      <span className={isOver === true ? "text-stop" : ""}>
        {dayText(day)}
        {isOver === true ? <span className="block text-12">over</span> : null}
      </span>
      <span className="[overflow-wrap:anywhere]">{what}</span>
      <button
        type="button"
        className="button"
        aria-label={`Open ${nameOf(index, subject.kind, subject.id)}`}
        onClick={() => goTo.entity(subject)}
      >
        Open
      </button>
    </li>
  );
}
