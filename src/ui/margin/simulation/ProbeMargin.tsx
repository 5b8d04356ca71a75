"use client";

import { sentenceOf } from "@/core/checks";
import { nameOf } from "@/core/plan";
import { jacketOf, tapeSlots } from "@/core/sheets";
import { SeveritySign } from "../../kit/signs";
import { useUi } from "../../frame/use-ui";
import { useGoTo } from "../../frame/go-to";
import { useFoundIn, useIndex, usePlan } from "../../plan-store/use-plan";
import { Jacket } from "../../tape/Jacket";
import { useProbe, useTried } from "../../views/probe/use-probe";
import { Fact, MarginHead, Section } from "../parts";
import { RepairChoice } from "../findings/RepairChoice";

const TRIED = {
  passes: "tried, the probe passes",
  further: "tried, it gets further",
  same: "tried, it stops all the same",
} as const;

/** The chosen step of the journey with the ports it passes, and the first cause when it stops. */
// eslint-disable-next-line max-lines-per-function, complexity -- one answer: where it stops, why, what mends it
export function ProbeMargin() {
  const index = useIndex();
  const foundIn = useFoundIn();
  const outcome = useProbe();
  const selection = useUi((state) => state.selection);
  const list = usePlan((state) => state.list);
  const goTo = useGoTo();
  const tried = useTried(outcome);
  if (outcome === null)
    return (
      <>
        <MarginHead kick="Probe">Nothing plugged in yet</MarginHead>
        <p className="p-4 text-ink2">Choose above what is plugged in where, and what it asks for.</p>
      </>
    );
  const number =
    selection?.what === "step" && selection.number <= outcome.steps.length
      ? selection.number
      : (outcome.stopsAt ?? outcome.steps.length);
  const step = outcome.steps[number - 1];
  const ports = (step?.ports ?? []).flatMap((id) => index.plan.port.get(id) ?? []);
  const { cause } = outcome;
  const related =
    cause === null
      ? []
      : list
          .filter((finding) => finding.subjects.some((s) => cause.subjects.some((c) => c.id === s.id)))
          .slice(0, 3);
  return (
    <>
      <MarginHead kick="Selected step">
        <span className="mono">{number}</span>
        {step?.title}
      </MarginHead>
      {step === undefined ? null : (
        <dl className="facts">
          <Fact name="Where">{step.place}</Fact>
          <Fact name="What">{step.says}</Fact>
          {step.why === "" ? null : <Fact name="Why">{step.why}</Fact>}
        </dl>
      )}
      {ports.map((port) => (
        <div key={port.id} className="px-4 pb-2 text-13">
          <p className="mb-1">{nameOf(index, "port", port.id)}</p>
          <Jacket
            made={jacketOf(index, port)}
            slots={tapeSlots(index, index.plan.device.get(port.device)?.domain ?? null)}
            width={300}
          />
        </div>
      ))}
      {cause === null ? null : (
        <Section title="First cause">
          <article className="mx-4 border-l-[3px] border-stop pl-[11px]">
            <p className="flex items-center gap-1 text-13 font-semibold text-stop">
              <SeveritySign severity="stop" />
              stop
            </p>
            <p className="mb-2">{cause.sentence}</p>
            <RepairChoice
              repairs={tried.map(({ repair }) => repair)}
              recommend={tried[0]?.result === "passes"}
            />
            {tried.length === 0 ? null : (
              <ul aria-label="What each repair does to this probe" className="mt-1 text-12 text-ink2">
                {tried.map(({ repair, result }) => (
                  <li key={repair.label}>
                    {repair.label}: {TRIED[result]}
                  </li>
                ))}
              </ul>
            )}
            <div className="mt-[6px] flex flex-wrap gap-[6px]">
              {cause.subjects.slice(0, 2).map((subject) => (
                <button
                  key={subject.id}
                  type="button"
                  className="button wrap"
                  onClick={() => goTo.entity(subject)}
                >
                  Show {nameOf(index, subject.kind, subject.id)}
                </button>
              ))}
            </div>
          </article>
        </Section>
      )}
      {outcome.advice === null ? null : (
        <Section title="It gets through, but not from where it belongs">
          <article className="mx-4 border-l-[3px] border-warn pl-[11px]">
            <p className="flex items-center gap-1 text-13 font-semibold text-warn">
              <SeveritySign severity="warn" />
              warn
            </p>
            <p className="mb-2">{outcome.advice.sentence}</p>
            <RepairChoice repairs={outcome.advice.repairs} />
          </article>
        </Section>
      )}
      {outcome.guards.length === 0 ? null : (
        <Section title="What would keep it out">
          <div className="px-4">
            <RepairChoice repairs={outcome.guards} />
          </div>
        </Section>
      )}
      {related.length === 0 ? null : (
        <Section title="Findings nearby">
          <ul className="flex flex-col gap-1 px-4 text-13 text-ink2">
            {related.map((finding) => (
              <li key={finding.key}>{sentenceOf(finding, foundIn)}</li>
            ))}
          </ul>
        </Section>
      )}
    </>
  );
}
