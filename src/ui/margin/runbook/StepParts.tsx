"use client";

import { formatAddress } from "@/core/address";
import { nameOf, type PlanIndex } from "@/core/plan";
import { interruptsText, laptopText, minutesText, opensText, type Step } from "@/core/runbook";
import { Caution, Fact, Section } from "../parts";

/** Everything that is said of a step: where, what is entered, from where, why here, and the way back. */
export function StepParts({ index, step }: { index: PlanIndex; step: Step }) {
  return (
    <>
      <dl className="facts">
        {step.device === null ? null : <Fact name="Device">{placed(index, step.device)}</Fact>}
        {step.minutes === 0 ? null : <Fact name="Takes">about {minutesText(step.minutes)}</Fact>}
        {step.values.map(([name, value], at) => (
          <Fact key={`${at} ${name}`} name={name}>
            {value}
          </Fact>
        ))}
      </dl>
      <Laptop index={index} step={step} />
      <Texts step={step} />
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
