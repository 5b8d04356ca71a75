"use client";

import { v7 } from "uuid";
import type { PlanIndex } from "@/core/plan";
import type { faultsNamed } from "@/core/records";
import { whenText } from "../../../kit/when-text";
import { showView } from "../../../frame/views";
import { useRecord } from "../../../record-store/use-record";
import type { Standing } from "./ReadingTable";

/** The fault that was found last, how it is mended, and what has to be read again after that. */
export function NamedFaults({
  index,
  faults,
  toRepeat,
}: {
  index: PlanIndex;
  faults: ReturnType<typeof faultsNamed>;
  toRepeat: Standing;
}) {
  const { add } = useRecord();
  const [last] = faults;
  if (last === undefined) return null;
  const { named, by } = last;
  return (
    <section aria-label="Fault found" className="border-b border-ink px-4 py-3 text-13">
      <p>
        <b className="font-semibold">Found: {named.fault.words}</b>{" "}
        <span className="text-ink2">
          {by}, {whenText(named.at, index.plan.site.timeZone)}
          {faults.length > 1 ? `; ${faults.length} found on this site` : ""}
        </span>
      </p>
      <p>{named.fault.mend}</p>
      {named.changes.length === 0 ? null : (
        <p className="text-ink2">The runbook begins from there: it has the step that mends it.</p>
      )}
      {toRepeat.length === 0 ? null : (
        <div className="mt-1">
          <p>Once it is mended, read again:</p>
          <ul className="list-disc pl-5">
            {toRepeat.map(({ taken }) => (
              <li key={taken.id}>
                {taken.test.at}: {taken.test.does} Has to be {taken.test.expected}.
              </li>
            ))}
          </ul>
        </div>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        {named.changes.length === 0 ? null : (
          <button type="button" className="button go" onClick={() => showView(index.plan.site.id, "runbook")}>
            Open the runbook
          </button>
        )}
        <button
          type="button"
          className="button"
          onClick={() => add({ id: v7(), at: new Date().toISOString(), do: "takeBack", tick: named.id }, [])}
        >
          It was not this
        </button>
      </div>
    </section>
  );
}
