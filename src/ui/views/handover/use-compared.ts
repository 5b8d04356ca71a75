"use client";

import { useEffect, useState } from "react";
import { STATE_FORM } from "@/core/comparison";
import type { Plan } from "@/core/plan";
import type { IssuedSheet } from "@/core/records";
import type { Compared } from "@/workers/plan.worker";
import { planAt } from "../../plan-store/plan-at";
import { planWorker } from "../../plan-store/plan-worker";
import { useHeld, usePlan } from "../../plan-store/use-plan";
import type { Held } from "../../plan-store/held";

/** Compared with the plan as it is on the screen. */
export const NOW = "now";

/** Two states beside one another, as far as it is worked out. */
export type ComparedState =
  | { readonly is: "working" }
  | { readonly is: "refused"; readonly sentence: string }
  | { readonly is: "compared"; readonly before: Plan; readonly after: Plan; readonly compared: Compared };

const NO_WORKER = "It could not be compared in this browser; reload the page and try again.";

/** The state that was issued, held against its check value; a sentence where it can't be had. */
export async function issuedState(
  site: string,
  held: Held,
  { letter, issue }: IssuedSheet,
): Promise<Plan | string> {
  const { revision, form, check } = issue.sheet;
  const plan = await planAt(site, held, revision);
  // In another form of plan files the same state is another text.
  if (typeof plan === "string" || form !== STATE_FORM) return plan;
  return (await planWorker().check(plan)) === check
    ? plan
    : `Revision ${revision} of this site is not what was issued as ${letter}: ` +
        "the site was made anew from a file since.";
}

/** What an earlier state has otherwise than a later one; a sentence stands for one that can't be had. */
async function compare(
  before: Plan | string,
  after: Plan | string,
  today: string | null,
): Promise<ComparedState> {
  if (typeof before === "string") return { is: "refused", sentence: before };
  if (typeof after === "string") return { is: "refused", sentence: after };
  const compared = await planWorker().compare(before, after, today);
  return { is: "compared", before, after, compared };
}

/** Compares as soon as what is asked for changes: `key` says what that is. */
function useComparison(
  key: string,
  load: (site: string, held: Held) => Promise<ComparedState>,
): ComparedState {
  const site = usePlan((state) => state.site);
  const held = useHeld();
  const [known, setKnown] = useState<{ readonly of: string; readonly state: ComparedState } | null>(null);
  const { index, revision } = held;
  const of = `${key} ${revision}`;
  useEffect(() => {
    let isCurrent = true;
    void load(site, held)
      .catch((): ComparedState => ({ is: "refused", sentence: NO_WORKER }))
      .then((state) => {
        if (isCurrent) setKnown({ of, state });
      });
    return () => {
      isCurrent = false;
    };
    // What is loaded and from where is in the key and the revision.
    // eslint-disable-next-line react-hooks/exhaustive-deps -- see above
  }, [site, of, index]);
  return known?.of === of ? known.state : { is: "working" };
}

/** What is otherwise in the plan as it is now, or in another sheet, than in one that was issued. */
export function useCompared(
  sheet: IssuedSheet,
  sheets: readonly IssuedSheet[],
  other: string,
): ComparedState {
  const to = sheets.find(({ issue }) => issue.id === other) ?? null;
  return useComparison(`${sheet.issue.id} ${other}`, async (site, held) =>
    compare(
      await issuedState(site, held, sheet),
      to === null ? held.index.plan : await issuedState(site, held, to),
      held.index.today,
    ),
  );
}

interface FileOfPlan {
  readonly id: string;
  readonly plan: Plan;
}

/** What is otherwise in a later plan file than in an earlier one; null for the plan as it is on the screen. */
export const useFilePlan = (file: FileOfPlan, later: FileOfPlan | null): ComparedState =>
  useComparison(`file ${file.id} ${later?.id ?? ""}`, async (_site, held) =>
    compare(file.plan, later?.plan ?? held.index.plan, held.index.today),
  );

/** What is otherwise in a later revision than in an earlier one; null for the plan as it is on the screen. */
export const useRevisions = (from: number, to: number | null): ComparedState =>
  useComparison(`${from} ${to}`, async (site, held) =>
    compare(
      await planAt(site, held, from),
      to === null ? held.index.plan : await planAt(site, held, to),
      held.index.today,
    ),
  );
