"use client";

import { wakeFindings } from "@/core/commands";
import type { Acceptance } from "@/core/plan";
import { toast } from "sonner";
import { usePlan } from "../../plan-store/use-plan";
import { FindingRow } from "./FindingRow";

const MOST_SHOWN = 300;
const HEAD = "flex h-9 items-center gap-2 border-b border-rule px-4 text-13 text-ink2";

/** Who accepted it, why, and until when. */
export const acceptedWords = ({ by, reason, until }: Acceptance): string =>
  `${reason} (${by === "" ? "somebody" : by}${until === null ? "" : `, until ${until}`})`;

/** What somebody has decided to live with, and what of that is found no more. */
export function AcceptedSections({ family }: { family: string }) {
  const all = usePlan((state) => state.accepted);
  const gone = usePlan((state) => state.acceptedGone);
  const edit = usePlan((state) => state.edit);
  const accepted = all.filter(({ finding }) => family === "" || finding.family === family);
  const forget = () => {
    const refusal = edit(wakeFindings({ acceptances: gone.map(({ id }) => id) }));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <>
      {accepted.length === 0 ? null : (
        <section aria-label="Accepted">
          <h2 className={HEAD}>
            Accepted as they are <span className="mono">{accepted.length}</span>
          </h2>
          <ul>
            {accepted.slice(0, MOST_SHOWN).map(({ finding, acceptance }) => (
              <FindingRow key={finding.key} finding={finding}>
                <span className="block text-13 text-ink2">Accepted: {acceptedWords(acceptance)}</span>
              </FindingRow>
            ))}
          </ul>
        </section>
      )}
      {gone.length === 0 || family !== "" ? null : (
        <section aria-label="Accepted, found no more">
          <h2 className={HEAD}>
            Accepted, and found no more <span className="mono">{gone.length}</span>
            <button type="button" className="button ml-auto !min-h-7" onClick={forget}>
              Forget {gone.length === 1 ? "it" : "them"}
            </button>
          </h2>
          <ul>
            {gone.slice(0, MOST_SHOWN).map((acceptance) => (
              <li key={acceptance.id} className="border-b border-hair px-4 py-2 text-13 text-ink2">
                {acceptance.says} Accepted: {acceptedWords(acceptance)}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
