"use client";

import { formatAddress } from "@/core/address";
import { nameOf, type PlanIndex } from "@/core/plan";
import { interruptsText, laptopText, opensText, type Step } from "@/core/runbook";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { useRunbook } from "../../views/runbook/use-runbook";
import { Caution, Fact, MarginHead, Section } from "../parts";

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
      <dl className="facts">
        {step.device === null ? null : <Fact name="Device">{placed(index, step.device)}</Fact>}
        {step.values.map(([name, value]) => (
          <Fact key={name} name={name}>
            {value}
          </Fact>
        ))}
      </dl>
      <Laptop index={index} step={step} />
      <Texts step={step} />
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

const placed = ({ plan }: PlanIndex, id: string): string => {
  const device = plan.device.get(id);
  return device === undefined ? "" : [device.name, device.place].filter((part) => part !== "").join(", ");
};

function Laptop({ index, step }: { index: PlanIndex; step: Step }) {
  const { card } = step;
  if (card === null) return null;
  const note = index.plan.port.get(card.port)?.note ?? "";
  return (
    <Section title="The laptop">
      <dl className="facts">
        <Fact name="Plugged into">
          {nameOf(index, "port", card.port)}
          {note === "" ? "" : `, “${note}”`}
        </Fact>
        <Fact name="Address">{laptopText(card)}</Fact>
        <Fact name="Gateway">
          {card.laptop.gateway === null ? "none" : formatAddress(card.laptop.gateway)}
        </Fact>
        <Fact name="Opens">{opensText(card)}</Fact>
        <Fact name="Wireless">off</Fact>
      </dl>
    </Section>
  );
}

function Texts({ step }: { step: Step }) {
  const interrupts = interruptsText(step);
  return (
    <>
      {step.why === "" ? null : (
        <Section title="Why here">
          <p className="px-4 pb-2 text-13">{step.why}</p>
        </Section>
      )}
      {interrupts === "" ? null : (
        <Section title="Meanwhile">
          <p className="px-4 pb-2 text-13">{interrupts}.</p>
        </Section>
      )}
      {step.back === "" ? null : (
        <Section title="If it goes wrong">
          <p className="px-4 pb-2 text-13">{step.back}</p>
        </Section>
      )}
      {step.caution === "" ? null : <Caution head="Take care.">{step.caution}</Caution>}
    </>
  );
}
