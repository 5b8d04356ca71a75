"use client";

import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { useRunbook } from "../../views/runbook/use-runbook";
import { MarginHead } from "../parts";
import { StepParts } from "./StepParts";

/** One step of the runbook in full: what to enter, where the laptop is, why here, and the way back. */
export function StepMargin() {
  const index = useIndex();
  const { runbook } = useRunbook(index.plan.site.id);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const steps = runbook?.steps ?? [];
  const number = selection?.what === "step" ? selection.number : null;
  const step = number === null ? undefined : steps[number];
  if (step === undefined || number === null)
    return (
      <>
        <MarginHead kick="Runbook">Which step?</MarginHead>
        <p className="p-4 text-ink2">
          Choose a step: what is entered, where the laptop is plugged in and with which address, and how the
          step is taken back.
        </p>
        {steps.length === 0 ? null : (
          <p className="px-4">
            <button type="button" className="button go" onClick={() => select({ what: "step", number: 0 })}>
              First step
            </button>
          </p>
        )}
      </>
    );
  const go = (to: number) => select({ what: "step", number: to });
  return (
    <>
      <MarginHead kick={`Step ${number + 1} of ${steps.length}`}>{step.title}</MarginHead>
      <StepParts index={index} step={step} />
      <div className="mt-auto flex gap-2 border-t border-hair p-4">
        <button type="button" className="button" disabled={number === 0} onClick={() => go(number - 1)}>
          Back
        </button>
        <button
          type="button"
          className="button go flex-1"
          disabled={number === steps.length - 1}
          onClick={() => go(number + 1)}
        >
          Next step
        </button>
      </div>
    </>
  );
}
