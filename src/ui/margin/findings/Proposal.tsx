"use client";

import { useState, type ReactNode } from "react";
import { toast } from "sonner";
import { v7 } from "uuid";
import { previewChanges, sentenceOf, type Finding, type Preview } from "@/core/checks";
import {
  countChanges,
  describeChanges,
  integrityFault,
  kindWord,
  type DescribedChange,
} from "@/core/formats";
import type { ChangeBatch, PlanIndex } from "@/core/plan";
import { runOrder, type Order } from "@/core/commands";
import type { Refusal } from "@/core/planners";
import { SeveritySign, severityColour } from "../../kit/signs";
import { namerOf } from "../../plan-store/store";
import { useHeld, usePlan } from "../../plan-store/use-plan";
import { findingsOf } from "@/ui/plan-store/held";

/** What an edit would do, worked out and not done. */
export interface Proposal {
  readonly of: PlanIndex;
  readonly label: string;
  readonly batch: ChangeBatch;
  readonly preview: Preview;
  readonly changes: readonly DescribedChange[];
}

const MOST_DESCRIBED = 100;

/**
 * Looks at what an edit would do before it is done: `look` works it out, `apply` commits it, and it goes as
 * soon as the plan is another.
 */
export function useProposal() {
  const held = useHeld();
  const commit = usePlan((state) => state.commit);
  const [shown, setShown] = useState<Proposal | null>(null);
  const look = (order: Order): Refusal => {
    const { batch, refusal } = runOrder(held.index, v7, order);
    if (batch === null) {
      setShown(null);
      return refusal;
    }
    const preview = previewChanges(held.index, findingsOf(held), batch.changes);
    if (!preview.ok) {
      setShown(null);
      return integrityFault(preview.error, namerOf(held.index)).sentence;
    }
    setShown({
      of: held.index,
      label: batch.summary,
      batch,
      preview: preview.value,
      changes: describeChanges(held.index, preview.value.index, batch.changes.slice(0, MOST_DESCRIBED)),
    });
    return null;
  };
  const apply = (): boolean => {
    if (shown === null || shown.of !== held.index) return false;
    const refusal = commit(shown.batch);
    setShown(null);
    if (refusal === null) toast(`Done: ${shown.label}. Undo takes it back.`);
    else toast.error(refusal);
    return refusal === null;
  };
  // A preview of a plan that has moved on would lie.
  return { shown: shown?.of === held.index ? shown : null, look, apply, cancel: () => setShown(null) };
}

/** The findings that go and come, stops first; nothing but a sentence when none does. */
export function FindingsAfter({ preview }: { preview: Preview }) {
  const { index } = useHeld();
  const shown = (findings: readonly Finding[]) => findings.slice(0, MOST_SHOWN);
  const rest = (findings: readonly Finding[], word: string) =>
    findings.length > MOST_SHOWN ? (
      <li className="text-ink2">
        and {findings.length - MOST_SHOWN} more {word}
      </li>
    ) : null;
  return (
    <ul className="my-2 flex flex-col gap-1">
      {shown(preview.gone).map((finding) => (
        <li key={finding.key} className="flex gap-2">
          <span className="text-sound">goes:</span>
          <span className="text-ink2">{sentenceOf(finding, index)}</span>
        </li>
      ))}
      {rest(preview.gone, "go")}
      {shown(preview.come).map((finding) => (
        <li key={finding.key} className={`flex gap-2 ${severityColour(finding.severity)}`}>
          <span className="mt-[3px]">
            <SeveritySign severity={finding.severity} />
          </span>
          <span>comes: {sentenceOf(finding, preview.index)}</span>
        </li>
      ))}
      {rest(preview.come, "come")}
      {preview.gone.length + preview.come.length === 0 ? (
        <li className="text-ink2">No finding goes or comes.</li>
      ) : null}
    </ul>
  );
}

/** What would change and what would then be found, with the choice to do it. */
export function ProposalPanel({
  shown,
  apply,
  cancel,
  children,
}: {
  shown: Proposal;
  apply: () => void;
  cancel: () => void;
  children?: ReactNode;
}) {
  const nothing = shown.batch.changes.length === 0;
  return (
    <div
      role="group"
      aria-label={`Preview: ${shown.label}`}
      className="mt-2 border border-act bg-panel p-2 text-13"
    >
      <p className="mb-1 font-semibold">What it would do: {countChanges(shown.batch.changes)}</p>
      <ChangeList changes={shown.changes} total={shown.batch.changes.length} />
      {children}
      <FindingsAfter preview={shown.preview} />
      <div className="flex gap-[6px]">
        <button type="button" className="button go" disabled={nothing} onClick={apply}>
          {nothing ? "Nothing to do" : "Apply"}
        </button>
        <button type="button" className="button" onClick={cancel}>
          Cancel
        </button>
      </div>
    </div>
  );
}

const MOST_SHOWN = 12;

/** Changes in words: each entity with the fields that differ. */
export function ChangeList({
  changes,
  total = changes.length,
}: {
  changes: readonly DescribedChange[];
  total?: number;
}) {
  return (
    <ul className="flex flex-col gap-1">
      {changes.slice(0, MOST_SHOWN).map((change, i) => (
        <li key={`${change.kind} ${change.name} ${i}`}>
          {change.what === "changed" ? null : (
            <span className="text-ink2">
              {change.what} {kindWord(change.kind)}{" "}
            </span>
          )}
          {change.name}
          {change.fields.map((field) => (
            <span key={field.field} className="block pl-3 text-12">
              <span className="text-ink2">
                {field.field}: {field.before} →{" "}
              </span>
              <b className="font-semibold">{field.after}</b>
            </span>
          ))}
        </li>
      ))}
      {total > MOST_SHOWN ? <li className="text-ink2">and {total - MOST_SHOWN} more</li> : null}
    </ul>
  );
}
