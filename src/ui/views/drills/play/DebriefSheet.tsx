import type { Asked } from "@/core/diagnosis";
import { didText, type Debrief, type Lesson, type Played } from "@/core/drills";
import type { DrillState } from "../../../drill-store/store";

const ENDS: Readonly<Record<Played["end"], string>> = {
  open: "",
  solved: "Found and mended",
  "time is up": "The time is up",
  "given up": "Given up",
};

/** When it is over: what it was, the shortest way to it, and what each look told. */
export function DebriefSheet({
  drill,
  lesson,
  debrief,
}: {
  drill: DrillState;
  lesson: Lesson | null;
  debrief: Debrief | null;
}) {
  const { played } = drill;
  if (played === null) return null;
  const isSolved = played.end === "solved";
  return (
    <section aria-label="Debrief" className="border-t border-ink px-4 py-3">
      <div role="status">
        <h2 className={`text-18 font-semibold ${isSolved ? "text-sound" : "text-stop"}`}>
          {isSolved ? "✓ " : "✕ "}
          {ENDS[played.end]}
          {isSolved ? ` in ${played.used} min` : ""}
        </h2>
      </div>
      {debrief === null ? (
        <p role="status" className="mt-2 text-15 text-ink2">
          Looking for the shortest way to it …
        </p>
      ) : (
        <Told debrief={debrief} played={played} />
      )}
      {lesson === null ? null : (
        <div className="mt-3 max-w-[72ch] border-l-4 border-act bg-panel p-3">
          <h3 className="text-13 font-semibold">What this drill teaches</h3>
          <p className="mt-1 text-15">{lesson.text}</p>
          <p className="mt-1 text-13 text-ink2">{lesson.standard}</p>
        </div>
      )}
    </section>
  );
}

const shortestNote = ({ isProven, outOf }: Debrief["shortest"]): string =>
  isProven
    ? `for who knows where to look; of ${outOf} readings that tell something here no others take less`
    : `for who knows where to look; the search through ${outOf} readings was cut off: others may take less`;

function Told({ debrief, played }: { debrief: Debrief; played: Played }) {
  const { faults, shortest, suggested, looks } = debrief;
  return (
    <>
      <ul className="mt-2 max-w-[80ch] text-15">
        {faults.map(({ words, mend, kind }) => (
          <li key={words} className="mb-1">
            <b className="font-semibold">{words}.</b> {mend}{" "}
            <span className="text-13 text-ink2">({kind})</span>
          </li>
        ))}
      </ul>
      <WayList
        title={`${shortest.isProven ? "The shortest way" : "A short way"}: ${shortest.minutes} min`}
        note={shortestNote(shortest)}
        asked={shortest.asked}
      />
      <WayList
        title={`What “What is wrong?” would have asked for: ${suggested.minutes} min`}
        note={suggested.isNamed ? "and it names the fault by it" : "and it leaves others, too"}
        asked={suggested.asked}
      />
      {looks.length === 0 ? null : (
        <div className="mt-3 overflow-x-auto">
          <h3 className="text-13 font-semibold">What each of your looks told</h3>
          <table className="table still" aria-label="What each of your looks told">
            <thead>
              <tr>
                <th scope="col">You looked at</th>
                <th scope="col" className="right">
                  Fitted before
                </th>
                <th scope="col" className="right">
                  After
                </th>
                <th scope="col">What would have told more</th>
              </tr>
            </thead>
            <tbody>
              {looks.map(({ at, does, before, after, better }, row) => (
                <tr key={`${row} ${at}`}>
                  <td className="whitespace-normal">{didText({ at, does })}</td>
                  <td className="right mono">{before}</td>
                  <td className="right mono">{after}</td>
                  <td className="whitespace-normal">
                    {better === null ? "nothing" : `${didText(better)} (${better.left} left)`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {played.rows.length === 0 ? <p className="mt-3 text-15">You looked at nothing.</p> : null}
    </>
  );
}

function WayList({ title, note, asked }: { title: string; note: string; asked: readonly Asked[] }) {
  return (
    <div className="mt-3">
      <h3 className="text-13 font-semibold">
        {title} <span className="font-normal text-ink2">{note}</span>
      </h3>
      <ol className="ml-5 list-decimal text-15">
        {asked.map(({ at, does, place, minutes }) => (
          <li key={`${at} ${does}`}>
            {didText({ at, does })}{" "}
            <span className="text-13 text-ink2">
              {place === "" ? "" : `${place}, `}
              {minutes} min
            </span>
          </li>
        ))}
      </ol>
    </div>
  );
}
