"use client";

import { useMemo } from "react";
import { v7 } from "uuid";
import type { PlanIndex, ProbeQuestion } from "@/core/plan";
import { probe, tryRepairs, type Outcome, type Tried } from "@/core/probe";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";

/** The question on screen; null as long as nothing is plugged in. */
function useQuestion(): ProbeQuestion | null {
  const asked = useUi((state) => state.probe);
  return useMemo(
    () =>
      asked.from === null
        ? null
        : { from: asked.from, as: asked.as, family: asked.family, goal: asked.goal, mac: null },
    [asked],
  );
}

/** The plan at the minute of the week at which the question on screen is asked. */
function useProbeIndex(): PlanIndex {
  const index = useIndex();
  const minute = useUi((state) => state.probe.minute ?? null);
  return useMemo(() => (minute === null ? index : index.atMinute(minute)), [index, minute]);
}

/** The journey of a question, on the plan as it is now. */
export function useOutcome(question: ProbeQuestion | null): Outcome | null {
  const index = useProbeIndex();
  return useMemo(() => (question === null ? null : probe(index, question, v7)), [index, question]);
}

/** The journey that the question on screen asks for; null as long as nothing is plugged in. */
export const useProbe = (): Outcome | null => useOutcome(useQuestion());

/** The repairs that the journey on screen offers, each tried. */
export function useTried(outcome: Outcome | null): readonly Tried[] {
  const index = useProbeIndex();
  return useMemo(() => (outcome === null ? [] : tryRepairs(index, outcome, v7)), [index, outcome]);
}
