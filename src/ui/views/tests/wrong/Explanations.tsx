"use client";

import { clsx } from "clsx";
import { useState } from "react";
import { COMMON_WORDS, SUSPECT_KINDS, type Answer, type ShownCandidate } from "@/core/diagnosis";
import { counted } from "@/core/repairs";

/** How common a kind of fault is, in four marks; a site's own log makes one more common. */
const MOST_COMMON = 4;
/** As many faults stand there at first. */
const FIRST_SHOWN = 6;

interface Props {
  readonly answer: Answer;
  /** The readings that have a column. */
  readonly shown: readonly number[];
  readonly chosen: string | null;
  readonly byPairs: boolean;
  readonly onChoose: (id: string) => void;
  readonly onPairs: (byPairs: boolean) => void;
}

const NOTHING = {
  single:
    "No fault that is tried explains all that was read. It may be two at once, or something that is " +
    "not in the plan.",
  pairs:
    "No two faults that are tried explain all that was read: look whether a reading was taken elsewhere " +
    "than it says, and at what is not in the plan.",
} as const;

/** How many were tried, and how many of them explain all. */
function triedText({ tried, explainAll, isAsPlanned }: Answer, byPairs: boolean): string {
  const [one, many] = byPairs ? ["pair of faults", "pairs of faults"] : ["single fault", "single faults"];
  const all = isAsPlanned.length === 1 ? "the reading" : `all ${isAsPlanned.length} readings`;
  const how =
    explainAll === 0 ? "none explains" : `${explainAll} ${explainAll === 1 ? "explains" : "explain"}`;
  return `${counted(tried, one, many)} tried; ${how} ${all}`;
}

/** The faults that explain something of what was read, the most likely first, each beside every reading. */
export function Explanations({ answer, shown, chosen, byPairs, onChoose, onPairs }: Props) {
  const { candidates, isAsPlanned } = answer;
  const [isWhole, setWhole] = useState(false);
  return (
    <section aria-label="What would explain it" className="border-b border-ink">
      <div className="flex flex-wrap items-baseline gap-3 px-4 py-2">
        <h2 className="text-15 font-semibold">What would explain it</h2>
        <p role="status" className="text-13 text-ink2">
          {triedText(answer, byPairs)}
        </p>
        <button
          type="button"
          className="button ml-auto"
          aria-pressed={byPairs}
          onClick={() => onPairs(!byPairs)}
        >
          {byPairs ? "One at a time" : "Two at once"}
        </button>
      </div>
      {answer.explainAll > 0 ? null : (
        <p className="max-w-[64ch] px-4 pb-2 text-13 text-warn">{NOTHING[byPairs ? "pairs" : "single"]}</p>
      )}
      {candidates.length === 0 ? null : (
        <div className="overflow-x-auto">
          <table className="w-full text-13">
            <thead>
              <tr className="text-left text-ink2">
                <th scope="col" className="px-2 py-1 pl-4 font-medium">
                  Fault
                </th>
                {shown.map((at, number) => (
                  <th key={at} scope="col" className="w-6 py-1 text-center font-medium">
                    {number + 1}
                  </th>
                ))}
                <th scope="col" className="px-2 py-1 text-right font-medium">
                  Explains
                </th>
                <th scope="col" className="px-2 py-1 pr-4 font-medium">
                  How common
                </th>
              </tr>
            </thead>
            <tbody>
              {candidates.slice(0, isWhole ? candidates.length : FIRST_SHOWN).map((candidate) => (
                <FaultRow
                  key={candidate.suspect.id}
                  candidate={candidate}
                  isAsPlanned={isAsPlanned}
                  shown={shown}
                  isChosen={candidate.suspect.id === chosen}
                  onChoose={onChoose}
                />
              ))}
            </tbody>
          </table>
        </div>
      )}
      {candidates.length <= FIRST_SHOWN ? null : (
        <p className="px-4 py-2">
          <button type="button" className="button" aria-expanded={isWhole} onClick={() => setWhole(!isWhole)}>
            {isWhole ? "Only the most likely" : `The first ${candidates.length}`}
          </button>
        </p>
      )}
    </section>
  );
}

function FaultRow({
  candidate,
  isAsPlanned,
  shown,
  isChosen,
  onChoose,
}: {
  candidate: ShownCandidate;
  isAsPlanned: readonly boolean[];
  shown: readonly number[];
  isChosen: boolean;
  onChoose: (id: string) => void;
}) {
  const { suspect, explains, count, weight } = candidate;
  return (
    <tr className={`border-t border-hair ${isChosen ? "bg-act-wash" : ""}`}>
      <th scope="row" className="px-2 py-1 pl-4 text-left font-normal">
        <button
          type="button"
          className="text-left hover:underline"
          aria-pressed={isChosen}
          onClick={() => onChoose(suspect.id)}
        >
          {suspect.words}
        </button>
      </th>
      {shown.map((at) => (
        <td key={at} className="py-1 text-center">
          <Square explains={explains[at] === true} isAsPlanned={isAsPlanned[at] === true} />
        </td>
      ))}
      <td className="px-2 py-1 text-right font-semibold whitespace-nowrap">
        {count} of {explains.length}
      </td>
      <td className="px-2 py-1 pr-4 whitespace-nowrap">
        <Common weight={weight} usual={SUSPECT_KINDS[suspect.kind].weight} />
      </td>
    </tr>
  );
}

/** A filled square: this fault gives that reading; an empty one: it would have been otherwise. */
function Square({ explains, isAsPlanned }: { explains: boolean; isAsPlanned: boolean }) {
  const words = explains ? "explains it" : "would have been otherwise";
  const colour = isAsPlanned ? "bg-ink" : "bg-stop";
  return (
    <span
      role="img"
      aria-label={words}
      title={words}
      className={clsx(
        "inline-block h-[11px] w-[11px] align-middle",
        explains ? colour : "border border-dashed border-ink2",
      )}
    />
  );
}

function Common({ weight, usual }: { weight: number; usual: number }) {
  const marks = Math.min(MOST_COMMON, weight);
  const words = weight > usual ? "often here" : (COMMON_WORDS[Math.min(usual, MOST_COMMON)] ?? "");
  return (
    <span title={`Weight ${weight}${weight > usual ? `, ${usual} elsewhere: this site’s log names it` : ""}`}>
      <span aria-hidden className="mr-2 inline-flex gap-[2px] align-middle">
        {Array.from({ length: MOST_COMMON }, (_, at) => (
          <i
            key={at}
            className={`inline-block h-[6px] w-[10px] border border-ink2 ${at < marks ? "bg-ink2" : ""}`}
          />
        ))}
      </span>
      {words}
    </span>
  );
}
