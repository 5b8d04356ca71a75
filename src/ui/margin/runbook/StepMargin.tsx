"use client";

import type { RunbookWay } from "../../frame/ui-state";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { useRunbook } from "../../views/runbook/use-runbook";
import { useWay, WAYS } from "../../views/runbook/use-way";
import { MarginHead } from "../parts";
import { StepParts } from "./StepParts";

/** What the margin says where no step is chosen, by how the runbook is looked at. */
const ABOUT: Readonly<Record<RunbookWay, string>> = {
  order:
    "Choose a step: what is entered, where the laptop is plugged in and with which address, and how the " +
    "step is taken back.",
  windows:
    "When work may stop somebody. The steps that stop somebody fall into the first window that is long " +
    "enough for them; choose a window to see whom it is for and who agrees.",
  visit:
    "The step to do now stands in the sheet. Every tick says who did it and when; one can be taken back, and " +
    "the order goes on from what is really on the devices.",
  rehearse:
    "Nothing is written down here. Take the operations in an order of your own: it says when one would have " +
    "locked you out, and why.",
  standIns:
    "Every operation goes to the device over the network, from where the laptop is. What is not saved is " +
    "gone at a power cut, as on the real one.",
  differences:
    "What is on the devices otherwise than planned, as far as it is known. Read a device to know; take over " +
    "what is there, or leave it to the order of work.",
};

/** One step of the runbook in full: what to enter, where the laptop is, why here, and the way back. */
export function StepMargin() {
  const index = useIndex();
  const { runbook } = useRunbook(index.plan.site.id);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const { way } = useWay();
  const steps = runbook?.steps ?? [];
  const number = selection?.what === "step" ? selection.number : null;
  const step = number === null ? undefined : steps[number];
  if (step === undefined || number === null)
    return (
      <>
        <MarginHead kick="Runbook">
          {way === "order" ? "Which step?" : WAYS.find(([key]) => key === way)?.[1]}
        </MarginHead>
        <p className="p-4 text-ink2">{ABOUT[way]}</p>
        {steps.length === 0 || way !== "order" ? null : (
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
