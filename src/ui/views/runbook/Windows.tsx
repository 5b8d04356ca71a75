"use client";

import { addWindow, pasteWindows, removeWindows, writeWindow } from "@/core/commands";
import { useRef } from "react";
import { toast } from "sonner";
import type { PlanIndex, Window } from "@/core/plan";
import { WINDOW_COLUMNS, windowCellText, windowTable, type WindowColumn } from "@/core/planners";
import { counted, listed } from "@/core/repairs";
import { minutesText, timeText, windowsInOrder, type Runbook, type Slot } from "@/core/runbook";
import { useUi } from "../../frame/use-ui";
import { TextTable } from "../../grid/TextTable";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { usePlan } from "../../plan-store/use-plan";

const MONO: ReadonlySet<WindowColumn> = new Set(["starts", "length"] as const);

/** When work may stop others, and how the steps fall into that. */
export function Windows({ index, runbook }: { index: PlanIndex; runbook: Runbook }) {
  const scroller = useRef<HTMLDivElement>(null);
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto print:hidden" tabIndex={-1}>
      <TextTable<Window, WindowColumn>
        label="Windows"
        about={`when devices may be stopped; ${index.plan.site.timeZone} time`}
        what="window"
        rows={index.plan.window}
        columns={WINDOW_COLUMNS}
        text={(window, column) => windowCellText(index, window, column)}
        mono={MONO}
        cellOf={{ "window-without-consent": "permit" }}
        offers={{
          segments: ["everybody", ...[...index.plan.segment.values()].map(({ name }) => name)],
          length: ["1 h", "2 h", "4 h", "8 h"],
        }}
        actions={{
          edit: (id, column, text) =>
            id === null ? edit(newWindow(column, text)) : edit(writeWindow({ window: id, column, text })),
          paste: (rows, from, onto) => edit(pasteWindows({ rows, from, onto })),
          remove: (ids) => edit(removeWindows({ windows: ids })),
          select: (id) => select({ what: "window", id }),
        }}
        scroller={scroller}
        newRow={{ name: "New window: Saturday 2028-06-03 18:00", starts: "or paste rows" }}
        add={<Saves index={index} runbook={runbook} />}
      />
      <Slots runbook={runbook} />
    </div>
  );
}

/** "Saturday 2028-06-03 18:00" as a new row: the name, and when it begins. */
function newWindow(column: WindowColumn, text: string) {
  const [, name, starts] = /^(.*?)[,\s]+(\d{4}-\d{2}-\d{2}.*)$/.exec(text.trim()) ?? [];
  const isBoth = column === "name" && name !== undefined && starts !== undefined;
  return isBoth ? addWindow({ name, starts }) : pasteWindows({ rows: [[text]], from: column, onto: [] });
}

function Saves({ index, runbook }: { index: PlanIndex; runbook: Runbook }) {
  const windows = windowsInOrder(index);
  const name = index.plan.site.name;
  if (windows.length === 0) return null;
  const save = async () => {
    // Heavy, so it comes when it is asked for.
    const { calendarOf } = await import("@/http/contracts/windows-calendar");
    const calendar = calendarOf(index, windows, runbook);
    if ("fault" in calendar) toast.error(calendar.fault);
    else download(fileName(name, "windows.ics"), "text/calendar;charset=utf-8", calendar.text);
  };
  return (
    <>
      <button type="button" className="button" onClick={() => void save()}>
        Save calendar file
      </button>
      <button
        type="button"
        className="button"
        onClick={() => download(fileName(name, "windows.csv"), CSV_TYPE, csv(windowTable(index)))}
      >
        Save CSV
      </button>
    </>
  );
}

const stepsText = ({ from, to }: Slot): string =>
  from === to ? `Step ${from + 1}` : `Steps ${from + 1} to ${to + 1}`;

/** When a slot is, in words. */
function whenText({ window, after, stops }: Slot): string {
  if (stops.length === 0) return "at any time";
  return window === null ? "in no window" : `${window.name}, ${timeText(window, after)}`;
}

/** The order in pieces, each with its time. */
function Slots({ runbook: { slots, steps } }: { runbook: Runbook }) {
  const stopping = slots.filter(({ stops }) => stops.length > 0);
  return (
    <section aria-label="How the steps fall" className="border-t border-ink">
      <h2 className="px-4 py-2 text-15">How the steps fall</h2>
      <p className="px-4 pb-2 text-13 text-ink2">
        {stopping.length === 0
          ? "No step stops anybody who works now: all of them can be done at any time."
          : "What is stopped by one step and goes on after a later one is done in one go. " +
            "Minutes are for planning, not measured."}
      </p>
      {steps.length === 0 ? null : (
        <ol className="px-4 pb-4 text-13">
          {slots.map((slot) => (
            <SlotRow key={slot.from} slot={slot} />
          ))}
        </ol>
      )}
    </section>
  );
}

const MOST_NAMES = 6;
const namesOf = (slot: Slot): string => {
  const names = slot.stops.map(({ name }) => name);
  const rest = names.length - MOST_NAMES;
  return rest <= 1 ? listed(names) : `${names.slice(0, MOST_NAMES).join(", ")} and ${rest} more`;
};

/** Up to where all of it can be taken back before the window ends. */
function backText({ lastBack, from, to }: Slot): string {
  if (lastBack === to) return "All of it can be taken back before the window ends.";
  return lastBack === null
    ? `Point of no return: step ${from + 1} itself. Once begun it can't be taken back within the window.`
    : `Point of no return: after step ${lastBack + 1}. What is done beyond it can't all be taken back in time.`;
}

function SlotRow({ slot }: { slot: Slot }) {
  const select = useUi((state) => state.select);
  const { stops, window, minutes, refused } = slot;
  return (
    <li className="grid grid-cols-[minmax(96px,auto)_minmax(0,1fr)] gap-x-4 border-t border-hair py-2">
      <span>
        <button
          type="button"
          className="font-semibold underline decoration-hair underline-offset-2"
          onClick={() => select({ what: "step", number: slot.from })}
        >
          {stepsText(slot)}
        </button>
      </span>
      <span>
        <b className={`font-semibold ${refused === "" ? "" : "text-warn"}`}>{whenText(slot)}</b>,{" "}
        {minutesText(minutes)}
        {stops.length === 0 ? null : (
          <>
            <br />
            Stops {namesOf(slot)} ({counted(stops.length, "device", "devices")}).{" "}
            {window === null ? <span className="text-warn">{refused}</span> : backText(slot)}
          </>
        )}
      </span>
    </li>
  );
}
