"use client";

import { useState } from "react";
import { comparedTable } from "@/core/comparison";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { useHeld } from "../../plan-store/use-plan";
import { ComparedSheet } from "../handover/Differences";
import { useRevisions } from "../handover/use-compared";

/** Two revisions beside one another: asked for, since an old one takes a while. */
export function CompareRevisions() {
  const { revision } = useHeld();
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const [asked, setAsked] = useState<{ readonly from: number; readonly to: number | null } | null>(null);
  const [first, last] = [Number(from || revision - 1), Number(to || revision)];
  const isPair = Number.isInteger(first) && Number.isInteger(last) && first >= 1 && first < last;
  if (revision < 2) return null;
  return (
    <section aria-label="Compare revisions" className="border-b border-ink text-13">
      <form
        className="flex flex-wrap items-center gap-2 px-4 py-3"
        onSubmit={(event) => {
          event.preventDefault();
          setAsked({ from: first, to: last >= revision ? null : last });
        }}
      >
        <h2 className="text-15">Compare</h2>
        <Revision label="Revision" value={from} empty={revision - 1} onChange={setFrom} />
        <span className="text-ink2">with</span>
        <Revision label="Later revision" value={to} empty={revision} onChange={setTo} />
        <button type="submit" className="button" disabled={!isPair}>
          Compare
        </button>
        {asked === null ? null : (
          <button type="button" className="button" onClick={() => setAsked(null)}>
            Close
          </button>
        )}
        {isPair ? null : (
          <p role="alert" className="text-warn">
            The first one has to be earlier: 1 to {revision - 1}.
          </p>
        )}
      </form>
      {asked === null ? null : <Compared key={`${asked.from} ${asked.to ?? "now"}`} {...asked} />}
    </section>
  );
}

function Revision({
  label,
  value,
  empty,
  onChange,
}: {
  label: string;
  value: string;
  /** What stands for nothing typed. */
  empty: number;
  onChange: (text: string) => void;
}) {
  return (
    <input
      aria-label={label}
      className="field mono w-20"
      inputMode="numeric"
      maxLength={9}
      placeholder={String(empty)}
      value={value}
      onChange={(event) => onChange(event.target.value.trim())}
    />
  );
}

function Compared({ from, to }: { from: number; to: number | null }) {
  const { index } = useHeld();
  const state = useRevisions(from, to);
  return (
    <div className="pb-2">
      {state.is === "compared" && state.compared.groups.length > 0 ? (
        <p className="px-4 pb-2">
          <button
            type="button"
            className="button"
            onClick={() =>
              download(
                fileName(index.plan.site.name, `revision-${from}-to-${to ?? "now"}.csv`),
                CSV_TYPE,
                csv(comparedTable(state.compared.groups)),
              )
            }
          >
            Save CSV
          </button>
        </p>
      ) : null}
      <ComparedSheet state={state} from={to === null ? `revision ${from}` : null} />
    </div>
  );
}
