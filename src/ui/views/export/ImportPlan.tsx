"use client";

import { useState } from "react";
import { toast } from "sonner";
import { v7 } from "uuid";
import { previewChanges, sentenceOf, type Preview } from "@/core/checks";
import { countChanges, describeChanges, integrityFault, type FileFault } from "@/core/formats";
import { importPlan, runOrder } from "@/core/commands";
import type { ChangeBatch } from "@/core/plan";
import { MOST_FILE_BYTES } from "@/core/records";
import { SeveritySign, severityColour } from "../../kit/signs";
import { ChangeList } from "../../margin/findings/Proposal";
import { planWorker } from "../../plan-store/plan-worker";
import { namerOf } from "../../plan-store/store";
import { useHeld, usePlan } from "../../plan-store/use-plan";
import { findingsOf } from "../../plan-store/held";

interface Ready {
  readonly file: string;
  readonly name: string;
  readonly batch: ChangeBatch;
  readonly preview: Preview;
  readonly base: object;
}

/**
 * Takes a plan file in place of this plan: first what would change, then, if wanted, as one batch that can be
 * undone.
 */
// eslint-disable-next-line max-lines-per-function -- one form: the file, what is in it, where it goes
export function ImportPlan() {
  const held = useHeld();
  const commit = usePlan((state) => state.commit);
  const [ready, setReady] = useState<Ready | null>(null);
  const [faults, setFaults] = useState<readonly FileFault[]>([]);
  const [busy, setBusy] = useState(false);
  const refuse = (sentence: string) => setFaults([{ place: "", sentence }]);
  const read = async (file: File | undefined) => {
    if (file === undefined) return;
    setReady(null);
    setFaults([]);
    if (file.size > MOST_FILE_BYTES)
      return refuse(
        `${file.name} has ${Math.ceil(file.size / 1_000_000)} MB; ` +
          `a plan file has at most ${Math.floor(MOST_FILE_BYTES / 1_000_000)} MB.`,
      );
    setBusy(true);
    const result = await planWorker().readFile(await file.text());
    setBusy(false);
    if (!result.ok) return setFaults(result.error);
    const order = importPlan({ file: file.name, plan: result.value });
    const { batch, refusal } = runOrder(held.index, v7, order);
    if (batch === null) return refuse(refusal);
    const preview = previewChanges(held.index, findingsOf(held), batch.changes);
    if (!preview.ok) return refuse(integrityFault(preview.error, namerOf(held.index)).sentence);
    setReady({
      file: file.name,
      name: result.value.site.name,
      batch,
      preview: preview.value,
      base: held.index,
    });
  };
  const apply = ({ batch, file }: Ready) => {
    const refusal = commit(batch);
    setReady(null);
    if (refusal === null) toast(`${file} is taken in. Undo brings the old plan back.`);
    else toast.error(refusal);
  };
  const current = ready !== null && ready.base === held.index ? ready : null;
  return (
    <section className="mx-4 mt-4 border-t border-ink pt-3">
      <h2 className="text-15">Import a plan file</h2>
      <p className="mb-2 text-13 text-ink2">
        It takes the place of this plan. You see first what would change; nothing is written before you say
        so, and undo brings the old plan back.
      </p>
      <input
        type="file"
        aria-label="Plan file"
        accept=".json,application/json"
        disabled={busy}
        className="field h-8 w-80 py-1"
        onChange={(event) => {
          void read(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      {busy ? (
        <p role="status" className="pt-2 text-13 text-ink2">
          Reading …
        </p>
      ) : null}
      {faults.length === 0 ? null : (
        <div role="alert" className="mt-3 border border-stop bg-stop-wash p-3 text-13 text-stop">
          <p className="font-semibold">The file is refused and nothing has changed.</p>
          <ul className="list-disc pl-4">
            {faults.map((fault) => (
              <li key={`${fault.place} ${fault.sentence}`}>{fault.sentence}</li>
            ))}
          </ul>
        </div>
      )}
      {current === null ? null : (
        <div
          role="group"
          aria-label={`Preview of ${current.file}`}
          className="mt-3 max-w-[70ch] border border-act p-3 text-13"
        >
          <p className="mb-1 font-semibold">
            {current.file}, the plan of {current.name}: {countChanges(current.batch.changes)}
          </p>
          <ChangeList
            changes={describeChanges(held.index, current.preview.index, current.batch.changes.slice(0, 100))}
            total={current.batch.changes.length}
          />
          <p className="mt-2">
            {current.preview.gone.length} findings go, {current.preview.come.length} come.
          </p>
          <ul>
            {current.preview.come.slice(0, 6).map((finding) => (
              <li key={finding.key} className={`flex gap-2 ${severityColour(finding.severity)}`}>
                <span className="mt-[3px]">
                  <SeveritySign severity={finding.severity} />
                </span>
                {sentenceOf(finding, current.preview.index)}
              </li>
            ))}
          </ul>
          <div className="mt-2 flex gap-2">
            <button
              type="button"
              className="button go"
              disabled={current.batch.changes.length === 0}
              onClick={() => apply(current)}
            >
              {current.batch.changes.length === 0 ? "It is the same plan" : "Import"}
            </button>
            <button type="button" className="button" onClick={() => setReady(null)}>
              Cancel
            </button>
          </div>
        </div>
      )}
    </section>
  );
}
