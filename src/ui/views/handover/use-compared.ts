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

type State =
  | { readonly is: "working" }
  | { readonly is: "refused"; readonly sentence: string }
  | { readonly is: "compared"; readonly before: Plan; readonly compared: Compared };

const NO_WORKER = "It could not be compared in this browser; reload the page and try again.";

/** The state that was issued, held against its check value; a sentence where it can't be had. */
async function issuedState(site: string, held: Held, { letter, issue }: IssuedSheet): Promise<Plan | string> {
  const { revision, form, check } = issue.sheet;
  const plan = await planAt(site, held, revision);
  // In another form of plan files the same state is another text.
  if (typeof plan === "string" || form !== STATE_FORM) return plan;
  return (await planWorker().check(plan)) === check
    ? plan
    : `Revision ${revision} of this site is not what was issued as ${letter}: ` +
        "the site was made anew from a file since.";
}

async function compare(
  site: string,
  held: Held,
  sheet: IssuedSheet,
  other: IssuedSheet | null,
): Promise<State> {
  const before = await issuedState(site, held, sheet);
  if (typeof before === "string") return { is: "refused", sentence: before };
  const after = other === null ? held.index.plan : await issuedState(site, held, other);
  if (typeof after === "string") return { is: "refused", sentence: after };
  const compared = await planWorker().compare(before, after, held.index.today);
  return { is: "compared", before, compared };
}

/** What is otherwise in the plan as it is now, or in another sheet, than in one that was issued. */
export function useCompared(sheet: IssuedSheet, sheets: readonly IssuedSheet[], other: string): State {
  const site = usePlan((state) => state.site);
  const held = useHeld();
  const to = sheets.find(({ issue }) => issue.id === other) ?? null;
  const [known, setKnown] = useState<{ readonly of: unknown; readonly state: State } | null>(null);
  const { index, revision } = held;
  const key = `${sheet.issue.id} ${other} ${revision}`;
  useEffect(() => {
    let isCurrent = true;
    void compare(site, held, sheet, to)
      .catch((): State => ({ is: "refused", sentence: NO_WORKER }))
      .then((state) => {
        if (isCurrent) setKnown({ of: key, state });
      });
    return () => {
      isCurrent = false;
    };
    // The sheets of a record are made anew whenever anything comes to it: what they say is in the key.
    // eslint-disable-next-line react-hooks/exhaustive-deps -- see above
  }, [site, key, index]);
  return known?.of === key ? known.state : { is: "working" };
}
