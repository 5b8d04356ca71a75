"use client";

import type { FactState, FactStanding, Proof } from "@/core/records";
import { RowList, type ListRow } from "../../kit/RowList";

const ROW = 44;
const COLUMNS = "grid-cols-[20px_minmax(0,3fr)_minmax(0,2fr)]";
const SIGNS: Readonly<Record<FactState, readonly [sign: string, colour: string, words: string]>> = {
  proven: ["✓", "text-sound", "proven"],
  otherwise: ["✕", "text-stop", "read otherwise"],
  open: ["·", "text-ink2", "to prove"],
  never: ["–", "text-warn", "no reading proves it"],
};

/** Everything that is to be proven, with how it stands: what is wrong first, then what is open. */
const ORDER: readonly FactState[] = ["otherwise", "open", "never", "proven"];

export function FactList({ proof, onOpen }: { proof: Proof; onOpen: (test: string) => void }) {
  const facts = [...proof.facts].sort((a, b) => ORDER.indexOf(a.state) - ORDER.indexOf(b.state));
  const count = (state: FactState) => facts.filter((factStanding) => factStanding.state === state).length;
  return (
    <>
      <p role="status" className="flex-none border-b border-hair px-4 py-2 text-13">
        {ORDER.map((state) => (
          <span key={state} className={`mr-4 ${SIGNS[state][1]}`}>
            {SIGNS[state][0]} {count(state)} {SIGNS[state][2]}
          </span>
        ))}
      </p>
      <div className="flex min-h-0 flex-1 flex-col print:hidden">
        <RowList
          label="What is to be proven"
          count={facts.length}
          height={ROW}
          columns={COLUMNS}
          at={null}
          choose={(at) => {
            const test = testOf(facts[at]);
            if (test !== undefined) onOpen(test);
          }}
          row={(at) => rowOf(facts[at])}
        />
      </div>
    </>
  );
}

/** The reading that is opened from a fact; undefined where none proves it. */
const testOf = (standing: FactStanding | undefined): string | undefined => standing?.by[0]?.id;

function rowOf(standing: FactStanding | undefined): ListRow | null {
  if (standing === undefined) return null;
  const { fact, state, why, by } = standing;
  const [sign, colour, words] = SIGNS[state];
  const said = why === "" ? [...new Set(by.map(({ at }) => at))].join("; ") : why;
  return {
    key: fact.id,
    words: `${fact.words}: ${words}. ${said}`,
    content: (
      <>
        <b className={`text-center ${colour}`}>{sign}</b>
        <span className="truncate" title={fact.words}>
          {fact.words}
        </span>
        <span className="truncate text-ink2" title={said}>
          {said}
        </span>
      </>
    ),
  };
}
