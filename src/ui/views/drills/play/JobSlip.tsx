import type { PlanIndex } from "@/core/plan";
import type { Opened } from "@/workers/drill-room";

/** "16:40", of minutes after midnight. */
const clockText = (minutes: number): string =>
  `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, "0")}`;

/** What the customer said on the telephone. */
export function JobSlip({
  index,
  opened,
  number,
}: {
  index: PlanIndex;
  opened: Opened;
  number: number | null;
}) {
  const faults = opened.level === 3 ? "Two things" : "One thing";
  const it = opened.level === 3 ? "them" : "it";
  return (
    <section aria-label="Job slip" className="m-4 border border-ink bg-panel px-[18px] py-3">
      <p className="flex flex-wrap gap-x-5 text-13">
        <b className="font-semibold">Job slip{number === null ? "" : ` ${number}`}</b>
        <span className="text-ink2">{index.plan.site.name}, a copy</span>
        <span className="text-ink2">rung in at {clockText(opened.rungAt)}</span>
      </p>
      {opened.complaints.map(({ told }) => (
        <p key={told} className="mt-2 text-18 leading-snug">
          “{told}”
        </p>
      ))}
      <p className="mt-2 text-13 text-ink2">
        {faults} on the site {opened.level === 3 ? "are" : "is"} not as planned. Find {it}, name {it}, mend{" "}
        {it}. Every look costs its minutes.
      </p>
    </section>
  );
}
