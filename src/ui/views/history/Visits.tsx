"use client";

import type { PlanIndex } from "@/core/plan";
import { nameOf } from "@/core/plan";
import { CAME_WORDS, visitsOf, type Visit } from "@/core/records";
import { counted } from "@/core/repairs";
import { whenText } from "../../kit/when-text";
import { Photos } from "../../record-store/Photos";
import { useRecord, useRecordNews } from "../../record-store/use-record";

const FROM: Readonly<Record<Visit["start"]["from"], string>> = {
  box: "gear out of its box",
  plan: "what an earlier plan said",
  last: "what the last visit left",
};

/** How many steps of a visit came out otherwise, in words; empty where all are done. */
function otherwise({ ticks }: Visit): string {
  const count = (came: "differs" | "cannot") => ticks.filter(({ tick }) => tick.came === came).length;
  const parts = (["differs", "cannot"] as const).flatMap((came) =>
    count(came) === 0 ? [] : [`${count(came)} ${CAME_WORDS[came]}`],
  );
  return parts.length === 0 ? "" : `, ${parts.join(", ")}`;
}

/** The visits to the site, the last first, with what was ticked in each. */
export function Visits({ index }: { index: PlanIndex }) {
  useRecordNews();
  const { record } = useRecord();
  const visits = visitsOf(record).reverse();
  if (visits.length === 0) return null;
  const { timeZone } = index.plan.site;
  return (
    <section aria-label="Visits" className="border-b border-ink text-13">
      <h2 className="px-4 pt-3 pb-1 text-15">Visits</h2>
      <ul>
        {visits.map((visit) => (
          <li key={visit.start.id} className="border-t border-hair px-4 py-2">
            <details>
              <summary className="min-h-6 cursor-pointer">
                <b className="font-semibold">{whenText(visit.start.at, timeZone)}</b>, {visit.by}: from{" "}
                {FROM[visit.start.from]}, {counted(visit.ticks.length, "step", "steps")} ticked
                {otherwise(visit)};{" "}
                {visit.ended === null ? "goes on" : `ended ${whenText(visit.ended, timeZone)}`}
              </summary>
              <Ticks index={index} visit={visit} />
            </details>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Ticks({ index, visit: { ticks } }: { index: PlanIndex; visit: Visit }) {
  if (ticks.length === 0) return <p className="py-1 text-ink2">Nothing was ticked.</p>;
  return (
    <ol className="list-decimal py-1 pl-6">
      {ticks.map(({ by, tick: { id, at, came, step, read, note, photos } }) => (
        <li key={id} className="py-[2px]">
          {step.title}
          {step.device === null ? "" : ` on ${nameOf(index, "device", step.device)}`}: {CAME_WORDS[came]}
          {read === "" ? "" : `, read: ${read}`}
          {note === "" ? "" : `, ${note}`}{" "}
          <span className="text-ink2">
            {by}, {whenText(at, index.plan.site.timeZone)}
          </span>
          <Photos ids={photos} of={step.title} onTakeOut={null} entry={id} />
        </li>
      ))}
    </ol>
  );
}
