import { createEvents } from "ics";
import type { PlanIndex } from "@/core/plan";
import type { Due } from "@/core/sheets";

/** What falls due as whole days of a calendar (RFC 5545); a sentence where that can't be written. */
export function dueCalendar(
  index: PlanIndex,
  due: readonly Due[],
): { readonly text: string } | { readonly fault: string } {
  const { name, id } = index.plan.site;
  const { error, value } = createEvents(
    due.map(({ day, what, subject }) => {
      const [year = 0, month = 1, date = 1] = day.split("-").map(Number);
      return {
        uid: `${id}-${subject.id}-${day}@dianome`,
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
