"use client";

import { clsx } from "clsx";
import { useRef, type KeyboardEvent } from "react";
import type { Outcome, Step } from "@/core/probe";
import { tapeOf, type Tape } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { SeveritySign } from "../../kit/signs";
import { useIndex } from "../../plan-store/use-plan";
import { Chip } from "../../tape/Chip";

/** The frame as it is on the wire: addresses, the tag if it has one, what it carries. */
function Frame({ tape }: { tape: Tape | null }) {
  const box = "h-[14px] border border-rule";
  return (
    <span className="flex items-center gap-[2px]" aria-hidden>
      <span className={`${box} w-3`} />
      <span className={`${box} w-3`} />
      {tape === null ? null : <Chip tape={tape} name={tape.name} height={16} />}
      <span className={`${box} flex-1`} />
    </span>
  );
}

/** The tape of a step's tag: in the domain of the device it is at, else in the first that knows the number. */
function useTagTape(step: Step): Tape | null {
  const index = useIndex();
  if (step.tag === undefined || step.tag === null) return null;
  const domain =
    index.plan.device.get(step.device ?? "")?.domain ??
    [...index.plan.vlan.values()].find((vlan) => vlan.vid === step.tag)?.domain ??
    null;
  return tapeOf(index, domain, step.tag);
}

/** The journey as a strip of steps; the arrow keys go along it. */
export function StepStrip({
  outcome,
  differsAt = null,
}: {
  outcome: Outcome;
  /** Laid beside another one: where they part. Its steps are only looked at. */ differsAt?: number | null;
}) {
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const strip = useRef<HTMLOListElement>(null);
  const aside = differsAt !== null;
  const last = outcome.stopsAt ?? outcome.steps.length;
  const chosen = differsAt ?? (selection?.what === "step" ? selection.number : last);
  const onKeyDown = (event: KeyboardEvent) => {
    const to = { ArrowRight: chosen + 1, ArrowLeft: chosen - 1, Home: 1, End: outcome.steps.length }[
      event.key
    ];
    if (to === undefined || to < 1 || to > outcome.steps.length) return;
    select({ what: "step", number: to });
    strip.current?.querySelectorAll("button")[to - 1]?.focus();
    event.preventDefault();
  };
  return (
    <ol
      ref={strip}
      aria-label={aside ? "Steps of the other" : "Steps"}
      className="flex overflow-x-auto border-b border-ink"
      onKeyDown={onKeyDown}
    >
      {outcome.steps.map((step, i) => (
        <StepCard
          key={i}
          step={step}
          number={i + 1}
          chosen={i + 1 === chosen}
          choose={() => select({ what: "step", number: i + 1 })}
        />
      ))}
    </ol>
  );
}

function StepCard({
  step,
  number,
  chosen,
  choose,
}: {
  step: Step;
  number: number;
  chosen: boolean;
  choose: () => void;
}) {
  const tape = useTagTape(step);
  return (
    <li
      className={clsx(
        "min-w-[128px] flex-1 border-r border-hair last:border-r-0",
        step.passed ? "border-t-[3px] border-t-act" : "border-t-[3px] border-t-stop bg-stop-wash",
      )}
    >
      <button
        type="button"
        aria-pressed={chosen}
        tabIndex={chosen ? 0 : -1}
        className={clsx(
          "flex h-full w-full flex-col p-3 text-left text-13",
          chosen ? "bg-act-wash" : "hover:bg-hover",
          !step.passed && chosen ? "!bg-stop-wash outline-2 -outline-offset-2 outline-stop" : "",
        )}
        onClick={choose}
      >
        <span className={`flex items-center font-semibold ${step.passed ? "text-act" : "text-stop"}`}>
          {number}
          <span className="ml-auto">
            {step.passed ? "✓" : <SeveritySign severity="stop" />}
            <span className="sr-only">{step.passed ? " passed" : " stops here"}</span>
          </span>
        </span>
        <b className="text-14 font-semibold">{step.title}</b>
        <span className="mb-2 text-ink2">{step.place}</span>
        <span className="mb-2">{step.says}</span>
        {step.tag === undefined ? null : (
          <span className="mt-auto">
            <span className="mb-1 block text-12 text-ink2">
              {step.tag === null ? "untagged" : `tag ${step.tag}`}
            </span>
            <Frame tape={tape} />
          </span>
        )}
      </button>
    </li>
  );
}
