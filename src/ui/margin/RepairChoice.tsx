"use client";

import { useState } from "react";
import { toast } from "sonner";
import { v7 } from "uuid";
import { previewChanges, sentenceOf, type Preview, type Repair } from "@/core/checks";
import { countChanges, describeChanges, integrityFault, kindWord, type DescribedChange } from "@/core/formats";
import type { ChangeBatch, PlanIndex } from "@/core/plan";
import { plan } from "@/core/planners";
import { SeveritySign, severityColour } from "../kit/signs";
import { namerOf } from "../plan-store/store";
import { useHeld, usePlan } from "../plan-store/use-plan";

interface Shown { readonly of: PlanIndex; readonly label: string; readonly batch: ChangeBatch; readonly preview: Preview; readonly changes: readonly DescribedChange[] }

/** Repairs on offer: one click shows what it would do, the next does it. The recommended one comes first. */
export function RepairChoice({ repairs, recommend = true }: { repairs: readonly Repair[]; recommend?: boolean }) {
  const held = useHeld();
  const commit = usePlan((state) => state.commit);
  const [shown, setShown] = useState<Shown | null>(null);
  const look = (repair: Repair) => {
    const { batch } = plan(held.index, v7, { planner: repair.planner, summary: repair.label, args: repair.args }, ({ draft, ids }) => repair.edit(draft, ids));
    if (batch === null) return;
    const preview = previewChanges(held.index, held.findings, batch.changes);
    if (!preview.ok) {
      toast.error(integrityFault(preview.error, namerOf(held.index)).sentence);
      return;
    }
    setShown({ of: held.index, label: repair.label, batch, preview: preview.value, changes: describeChanges(held.index, preview.value.index, batch.changes) });
  };
  const apply = (one: Shown) => {
    const refusal = commit(one.batch);
    setShown(null);
    if (refusal === null) toast(`Done: ${one.label}. Undo takes it back.`);
    else toast.error(refusal);
  };
  // A preview of a plan that has moved on would lie: it goes as soon as the plan is another.
  const current = shown?.of === held.index ? shown : null;
  return (
    <>
      <div className="flex flex-wrap gap-[6px]">
        {repairs.map((repair, i) => (
          <button key={repair.label} type="button" aria-expanded={current?.label === repair.label} className={`button wrap ${i === 0 && recommend && current === null ? "go" : ""}`} onClick={() => look(repair)}>{repair.label}</button>
        ))}
      </div>
      {current === null ? null : <PreviewPanel shown={current} apply={() => apply(current)} cancel={() => setShown(null)} />}
    </>
  );
}

function PreviewPanel({ shown, apply, cancel }: { shown: Shown; apply: () => void; cancel: () => void }) {
  const { index } = useHeld();
  const { preview, changes, batch } = shown;
  return (
    <div role="group" aria-label={`Preview: ${shown.label}`} className="mt-2 border border-act bg-panel p-2 text-13">
      <p className="mb-1 font-semibold">What it would do: {countChanges(batch.changes)}</p>
      <ChangeList changes={changes} />
      <ul className="my-2 flex flex-col gap-1">
        {preview.gone.map((finding) => <li key={finding.key} className="flex gap-2"><span className="text-sound">goes:</span><span className="text-ink2">{sentenceOf(finding, index)}</span></li>)}
        {preview.come.map((finding) => <li key={finding.key} className={`flex gap-2 ${severityColour(finding.severity)}`}><span className="mt-[3px]"><SeveritySign severity={finding.severity} /></span><span>comes: {sentenceOf(finding, preview.index)}</span></li>)}
        {preview.gone.length + preview.come.length === 0 ? <li className="text-ink2">No finding goes or comes.</li> : null}
      </ul>
      <div className="flex gap-[6px]">
        <button type="button" className="button go" onClick={apply}>Apply</button>
        <button type="button" className="button" onClick={cancel}>Not now</button>
      </div>
    </div>
  );
}

const MOST_SHOWN = 12;

/** Changes in words: each entity with the fields that differ. */
export function ChangeList({ changes, total = changes.length }: { changes: readonly DescribedChange[]; total?: number }) {
  return (
    <ul className="flex flex-col gap-1">
      {changes.slice(0, MOST_SHOWN).map((change) => (
        <li key={`${change.kind} ${change.name}`}>
          {change.what === "changed" ? null : <span className="text-ink2">{change.what} {kindWord(change.kind)} </span>}{change.name}
          {change.fields.map((field) => (
            <span key={field.field} className="block pl-3 text-12"><span className="text-ink2">{field.field}: {field.before} → </span><b className="font-semibold">{field.after}</b></span>
          ))}
        </li>
      ))}
      {total > MOST_SHOWN ? <li className="text-ink2">and {total - MOST_SHOWN} more</li> : null}
    </ul>
  );
}
