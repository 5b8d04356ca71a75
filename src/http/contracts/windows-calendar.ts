import { TZDate } from "@date-fns/tz";
import { createEvents, type EventAttributes } from "ics";
import type { PlanIndex, Window } from "@/core/plan";
import type { Slot, Step } from "@/core/runbook";

/** A window's begin as UTC; null where the site's time zone is one that this browser does not know. */
function utcOf({ starts }: Window, timeZone: string): Date | null {
  const [year = 0, month = 1, day = 1, hour = 0, minute = 0] = starts.split(/\D/).map(Number);
  const at = TZDate.tz(timeZone, year, month - 1, day, hour, minute);
  return Number.isNaN(at.valueOf()) ? null : new Date(at.valueOf());
}

/** The steps of a window, a line each. */
const linesOf = (steps: readonly Step[], { from, to }: Slot): string[] =>
  steps.slice(from, to + 1).map(({ title }, at) => `${from + at + 1}. ${title}`);

function eventOf(
  index: PlanIndex,
  steps: readonly Step[],
  slots: readonly Slot[],
  window: Window,
): EventAttributes {
  const { name, timeZone } = index.plan.site;
  const utc = utcOf(window, timeZone);
  const [year = 0, month = 1, day = 1, hour = 0, minute = 0] = window.starts.split(/\D/).map(Number);
  const own = slots.filter((slot) => slot.window?.id === window.id);
  return {
    uid: `${window.id}@dianome`,
    title: `${name}: ${window.name}`,
    location: name,
    ...(utc === null
      ? { start: [year, month, day, hour, minute], startInputType: "local", startOutputType: "local" }
      : { start: utc.valueOf(), startInputType: "utc", startOutputType: "utc" }),
    duration: { minutes: window.minutes },
    description: [
      ...(window.permit === "" ? [] : [`Permit: ${window.permit}`]),
      ...(window.consent === "" ? [] : [`Agrees first: ${window.consent}`]),
      ...own.flatMap((slot) => linesOf(steps, slot)),
      ...(window.notes === "" ? [] : [window.notes]),
    ].join("\n"),
  };
}

/**
 * The windows as a calendar (RFC 5545) with the steps that fall into each; a sentence where that can't be
 * written. Times are told in UTC; in the site's own time where its time zone is not known here.
 */
export function calendarOf(
  index: PlanIndex,
  windows: readonly Window[],
  { steps, slots }: { readonly steps: readonly Step[]; readonly slots: readonly Slot[] },
): { readonly text: string } | { readonly fault: string } {
  const { error, value } = createEvents(
    windows.map((window) => eventOf(index, steps, slots, window)),
    { productId: "dianome", calName: index.plan.site.name },
  );
  return value === undefined || value === null
    ? { fault: error?.message ?? "The calendar file could not be made." }
    : { text: value };
}
