import { createEvents } from "ics";
import type { PlanIndex } from "@/core/plan";
import type { Due } from "@/core/sheets";

/** Tells things of one subject and day apart; empty for the first. */
function sameBefore(due: readonly Due[], at: number): string {
  const own = due[at];
  const before = due
    .slice(0, at)
    .filter(({ day, subject }) => day === own?.day && subject.id === own.subject.id);
  return before.length === 0 ? "" : `-${before.length + 1}`;
}

/** What falls due as whole days of a calendar (RFC 5545); a sentence where that can't be written. */
export function dueCalendar(
  index: PlanIndex,
  due: readonly Due[],
): { readonly text: string } | { readonly fault: string } {
  const { name, id } = index.plan.site;
  const { error, value } = createEvents(
    due.map(({ day, what, subject }, at) => {
      const [year = 0, month = 1, date = 1] = day.split("-").map(Number);
      return {
        // Two points of one thing can be due on one day.
        uid: `${id}-${subject.id}-${day}${sameBefore(due, at)}@dianome`,
        title: `${name}: ${what}`.slice(0, 200),
        start: [year, month, date],
        duration: { days: 1 },
      };
    }),
    { productId: "dianome", calName: name },
  );
  return value === undefined || value === null
    ? { fault: error?.message ?? "The calendar file could not be made." }
    : { text: value };
}
