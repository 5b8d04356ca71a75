"use client";

import { setConventions } from "@/core/commands";
import { useMemo, useState } from "react";
import { toast } from "sonner";
import { v7 } from "uuid";
import { previewChanges } from "@/core/checks";
import { counted } from "@/core/repairs";
import { integrityFault } from "@/core/formats";
import type { Site } from "@/core/plan";
import {
  DRAFT_PARTS,
  draftBatch,
  PART_TITLES,
  SCHOOL_WORDS,
  USUAL_PARTS,
  type DraftedPart,
  type DraftPart,
} from "@/core/survey";
import { useUi } from "../../frame/use-ui";
import { Choose } from "../../kit/Choose";
import { SeverityCount } from "../../kit/signs";
import { namerOf } from "../../plan-store/store";
import { useHeld, useIndex, usePlan } from "../../plan-store/use-plan";
import { MarginHead, Section } from "../parts";
import { FindingsAfter } from "../findings/Proposal";
import { findingsOf } from "@/ui/plan-store/held";

const MOST_NOTES = 12;

function countsText({ counts }: DraftedPart): string {
  const parts = counts
    .flatMap(({ word, added, changed, removed }) => [
      added > 0 ? counted(added, word, `${word}s`) : "",
      changed > 0 ? `${counted(changed, word, `${word}s`)} changed` : "",
      removed > 0 ? `${counted(removed, word, `${word}s`)} removed` : "",
    ])
    .filter((text) => text !== "");
  return parts.length === 0 ? "nothing to do" : parts.join(", ");
}

/** What some parts of the draft would do, and what would be found then or what keeps them from it. */
function useDrafted(parts: ReadonlySet<DraftPart>) {
  const { index, judged } = useHeld();
  const draft = useMemo(() => draftBatch(index, v7, parts), [index, parts]);
  // A large plan is judged after it is drawn: only what would be found is asked again then.
  const previewed = useMemo(() => {
    const { batch } = draft;
    return batch === null ? null : previewChanges(index, findingsOf({ index, judged }), batch.changes);
  }, [draft, index, judged]);
  const fault = previewed === null || previewed.ok ? null : previewed.error;
  return {
    ...draft,
    refusal: draft.refusal ?? (fault === null ? null : integrityFault(fault, namerOf(index)).sentence),
    preview: previewed?.ok === true ? previewed.value : null,
  };
}

/** All that the draft would do, part by part, with what would be found then; it can be applied in part. */
// eslint-disable-next-line max-lines-per-function -- one draft with what it changes and what it leaves out
export function DraftMargin() {
  const { separation } = useIndex().plan.site.conventions;
  const commit = usePlan((state) => state.commit);
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const [parts, setParts] = useState<ReadonlySet<DraftPart>>(USUAL_PARTS);
  const drafted = useDrafted(parts);
  // What a part that is not chosen would do is not known; it keeps its name.
  const toggle = (part: DraftPart, on: boolean) =>
    setParts(new Set(DRAFT_PARTS.filter((own) => (own === part ? on : parts.has(own)))));
  const separate = (separation: Site["conventions"]["separation"]) => {
    edit(setConventions({ separation }));
  };
  const apply = () => {
    if (drafted.batch === null) return;
    const refusal = commit(drafted.batch);
    if (refusal === null) {
      toast("The draft is in the plan. Undo takes all of it back.");
      select(null);
    } else toast.error(refusal);
  };
  const { report, preview } = drafted;
  const nothing = (drafted.batch?.changes.length ?? 0) === 0;
  const stops =
    preview === null
      ? 0
      : [...preview.findings.values()].flat().filter((finding) => finding.severity === "stop").length;
  return (
    <>
      <MarginHead kick="Draft from the survey">
        {nothing ? "Nothing is missing" : "What it would do"}
      </MarginHead>
      {report === null ? null : (
        <p className="px-4 pt-3 text-13">
          <b className="font-semibold">{SCHOOL_WORDS[report.school.school]}.</b> {report.school.reason}
        </p>
      )}
      <div className="pt-2">
        <Choose
          label="Separation"
          value={separation}
          choices={[
            ["auto", "what fits the survey"],
            ["vlans", SCHOOL_WORDS.vlans],
            ["routers", SCHOOL_WORDS.routers],
            ["gap", SCHOOL_WORDS.gap],
          ]}
          onChoose={separate}
        />
      </div>
      <fieldset className="px-4 pt-2 text-13">
        <legend className="sr-only">Parts of the draft</legend>
        {DRAFT_PARTS.map((part) => {
          const done = report?.parts.find((draftedPart) => draftedPart.part === part);
          return (
            <label key={part} className="flex min-h-8 items-start gap-2 border-b border-hair py-1">
              <input
                type="checkbox"
                className="mt-[3px]"
                checked={parts.has(part)}
                onChange={(event) => toggle(part, event.target.checked)}
              />
              <span>
                <span className="block">{PART_TITLES[part]}</span>
                <span className="text-12 text-ink2">
                  {done === undefined ? "left out" : countsText(done)}
                </span>
              </span>
            </label>
          );
        })}
      </fieldset>
      {drafted.refusal === null ? null : (
        <p role="alert" className="mx-4 mt-2 border border-stop bg-stop-wash p-2 text-13 text-stop">
          {drafted.refusal}
        </p>
      )}
      <div className="flex gap-[6px] px-4 py-3">
        <button type="button" className="button go" disabled={nothing} onClick={apply}>
          {nothing ? "Nothing to do" : "Accept the draft"}
        </button>
        <button type="button" className="button" onClick={() => select(null)}>
          Cancel
        </button>
      </div>
      {report === null || report.notes.length === 0 ? null : (
        <Section title="To know">
          <ul className="list-disc px-4 pl-8 text-13">
            {report.notes.slice(0, MOST_NOTES).map((note) => (
              <li key={note} className="py-[2px]">
                {note}
              </li>
            ))}
            {report.notes.length > MOST_NOTES ? (
              <li className="text-ink2">and {report.notes.length - MOST_NOTES} more</li>
            ) : null}
          </ul>
        </Section>
      )}
      {preview === null || nothing ? null : (
        <Section
          title={
            <>
              Findings then{" "}
              {stops === 0 ? (
                <span className="text-sound">no stop</span>
              ) : (
                <SeverityCount severity="stop" count={stops} word />
              )}
            </>
          }
        >
          <div className="px-4 text-13">
            <FindingsAfter preview={preview} />
          </div>
        </Section>
      )}
    </>
  );
}
