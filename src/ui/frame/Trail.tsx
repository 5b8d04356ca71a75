"use client";

import { useMemo, type ReactNode } from "react";
import { makeTrailing } from "../kit/trailing";
import { afterFrame, isLarge } from "../plan-store/judge";
import { HoldContext, ShownPlan } from "../plan-store/shown";
import { usePlanStore } from "../plan-store/use-plan";
import { ShownUi, useUiStore } from "./use-ui";

/** What is drawn a frame after the table in which a large plan is edited; the sheet comes first. */
export function Trail({ sheet, behind }: { sheet: ReactNode; behind: ReactNode }) {
  const plan = usePlanStore();
  const ui = useUiStore();
  // Both stay behind together: what was just made is selected now, and is not in the plan of before.
  const { hold, shown } = useMemo(() => {
    const both = { plan: makeTrailing(plan), ui: makeTrailing(ui) };
    const release = () => {
      both.plan.release();
      both.ui.release();
    };
    return {
      shown: { plan: both.plan.shown, ui: both.ui.shown },
      hold: () => {
        const { held } = plan.getState();
        if (held === null || !isLarge(held.index.plan)) return;
        both.plan.hold();
        both.ui.hold();
        void afterFrame().then(release);
      },
    };
  }, [plan, ui]);
  return (
    <>
      <HoldContext value={hold}>{sheet}</HoldContext>
      <ShownPlan value={shown.plan}>
        <ShownUi value={shown.ui}>{behind}</ShownUi>
      </ShownPlan>
    </>
  );
}
