import {
  deviceExports,
  SITE_EXPORTS,
  zoneExports,
  type ExportContent,
  type SiteExport,
} from "@/core/formats";
import { entityCount, type PlanIndex, type Window } from "@/core/plan";
import { allDue, recordExports, remaining, studyExports, type Recorded } from "@/core/records";
import { windowsInOrder, type Runbook } from "@/core/runbook";
import type { Due } from "@/core/sheets";

// The files that the server makes of a plan and its record, beside the plan files.

export interface ExportLine {
  readonly file: string;
  readonly type: string;
  readonly what: string;
  readonly about: string;
}

type CalendarText = { readonly text: string } | { readonly fault: string };
/** How calendars are written (RFC 5545). */
export interface Calendars {
  readonly due: (index: PlanIndex, due: readonly Due[]) => CalendarText;
  readonly windows: (index: PlanIndex, windows: readonly Window[], runbook: Runbook) => CalendarText;
}

/** Entities up to which a file is worked out on the server, beside other people's requests. */
const MOST_STUDIED = 5_000;

export const refused = (sentence: string): ExportContent => ({ is: "refused", sentence });
const written = (made: CalendarText): ExportContent =>
  "fault" in made ? refused(made.fault) : { is: "text", text: made.text };

/** A file that takes its time to work out: only of a plan that others need not wait for. */
const ofFew = (siteExport: SiteExport): SiteExport => ({
  ...siteExport,
  make: (index) => {
    const count = entityCount(index.plan);
    return count > MOST_STUDIED
      ? refused(
          `The plan has ${count} things; ${siteExport.file} is worked out here of at most ${MOST_STUDIED}, ` +
            "since others would wait for it. Whoever opens the site can save it there.",
        )
      : siteExport.make(index);
  },
});

const CALENDAR = "text/calendar;charset=utf-8";
const calendarExports = (calendars: Calendars, record: readonly Recorded[]): readonly SiteExport[] => [
  {
    what: "What falls due, as a calendar",
    file: "due.ics",
    type: CALENDAR,
    about: "The same days, for a calendar (RFC 5545).",
    make: (index) => written(calendars.due(index, allDue(index, record))),
  },
  ofFew({
    what: "Windows for work, as a calendar",
    file: "windows.ics",
    type: CALENDAR,
    about: "The windows with the steps that fall into each, for a calendar (RFC 5545).",
    make: (index) => {
      const windows = windowsInOrder(index);
      const proven = windows.length === 0 ? null : remaining(index, record);
      return proven === null
        ? refused("The plan has no windows for work, or no order for them; Runbook says why.")
        : written(calendars.windows(index, windows, proven.runbook));
    },
  }),
];

/** All of them, in the order of a job. */
export const exportsOf = (
  calendars: Calendars,
  index: PlanIndex,
  { revision, record }: { readonly revision: number; readonly record: readonly Recorded[] },
): readonly SiteExport[] => [
  ...SITE_EXPORTS,
  ...recordExports(record),
  ...calendarExports(calendars, record),
  ...studyExports(record).map(ofFew),
  ...zoneExports(index, revision),
  ...deviceExports(index),
];
