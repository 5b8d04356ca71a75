"use client";

import { COURSE, progressTable, type DrillProgress, type PersonProgress } from "@/core/drills";
import { counted } from "@/core/repairs";
import { csv, CSV_TYPE, download } from "../../../kit/download";
import type { Progress } from "../../../drill-store/use-progress";

/** How far everybody has come: one line for each person, the teacher's sheet of a group. */
export function ProgressTab({ progress }: { progress: Progress }) {
  const { people, me, refusal, waiting } = progress;
  const save = () => download("drills.csv", CSV_TYPE, csv(progressTable(people)));
  return (
    <section aria-label="Progress">
      <div className="flex items-center gap-3 px-4 py-3 max-[600px]:flex-wrap">
        <p className="max-w-[64ch] text-15">
          The fewest minutes of each drill of the course; a dot where it was tried and not solved yet. Who
          owns all sites here sees everybody; others see their own line.
        </p>
        <span className="ml-auto" />
        <button
          type="button"
          className="button"
          disabled={people.length === 0}
          onClick={() => window.print()}
        >
          Print
        </button>
        <button type="button" className="button" disabled={people.length === 0} onClick={save}>
          Save CSV
        </button>
      </div>
      {refusal === null ? null : (
        <p role="alert" className="px-4 pb-2 text-15 text-stop">
          {refusal}
        </p>
      )}
      {waiting === 0 ? null : (
        <p role="status" className="px-4 pb-2 text-13 text-ink2">
          {counted(waiting, "try waits", "tries wait")} here for the server.
        </p>
      )}
      {people.length === 0 ? (
        <p className="px-4 text-15">{refusal === null ? "Nobody has tried a drill yet." : ""}</p>
      ) : (
        <Sheet people={people} me={me} />
      )}
    </section>
  );
}

function Sheet({ people, me }: { people: readonly PersonProgress[]; me: string }) {
  return (
    <div className="overflow-x-auto">
      <table className="table lead" aria-label="Everybody’s progress">
        <thead>
          <tr>
            <th scope="col">Who</th>
            {COURSE.map(({ number, title }) => (
              <th key={number} scope="col" className="right" title={title} aria-label={`${number}, ${title}`}>
                {number}
              </th>
            ))}
            <th scope="col" className="right">
              Solved
            </th>
            <th scope="col">On sites, levels 1 2 3</th>
            <th scope="col">Orders</th>
            <th scope="col">Sums</th>
          </tr>
        </thead>
        <tbody>
          {people.map((progress) => (
            <PersonRow key={progress.person} progress={progress} isMe={progress.person === me} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

const cellText = (drill: DrillProgress | undefined): string => {
  if (drill === undefined) return "";
  return drill.best === null ? "·" : `${drill.best}`;
};

function PersonRow({ progress: { person, drills }, isMe }: { progress: PersonProgress; isMe: boolean }) {
  const of = (what: DrillProgress["what"]) => drills.filter((drill) => drill.what === what);
  const course = new Map(of("course").map((drill) => [drill.number, drill]));
  const solved = (what: DrillProgress["what"]) => of(what).reduce((sum, { solved: own }) => sum + own, 0);
  const tries = (what: DrillProgress["what"]) => of(what).reduce((sum, { tries: own }) => sum + own, 0);
  return (
    <tr>
      <th scope="row" className={isMe ? "font-semibold" : "font-normal"}>
        {person}
        {isMe ? <span className="text-ink2"> (you)</span> : null}
      </th>
      {COURSE.map(({ number }) => (
        <td key={number} className="right mono">
          {cellText(course.get(number))}
        </td>
      ))}
      <td className="right mono">
        {[...course.values()].filter(({ best }) => best !== null).length} of {COURSE.length}
      </td>
      <td className="mono">{[1, 2, 3].map((level) => siteText(of("site"), level)).join(" · ")}</td>
      <td className="mono">{tries("order") === 0 ? "" : counted(tries("order"), "job", "jobs")}</td>
      <td className="mono">{tries("sums") === 0 ? "" : `${solved("sums")} of ${tries("sums")} rounds`}</td>
    </tr>
  );
}

/** "2 of 3" solved on sites of one's own at a level. */
function siteText(drills: readonly DrillProgress[], level: number): string {
  const drill = drills.find(({ number }) => number === level);
  return drill === undefined ? "–" : `${drill.solved} of ${drill.tries}`;
}
