"use client";

import { useMemo } from "react";
import { v7 } from "uuid";
import { probe, type Outcome } from "@/core/probe";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";

/** The journey that the question on screen asks for, on the plan as it is now; null as long as nothing is plugged in. */
export function useProbe(): Outcome | null {
  const index = useIndex();
  const question = useUi((state) => state.probe);
  return useMemo(() => (question.from === null ? null : probe(index, { ...question, from: question.from, mac: null }, v7)), [index, question]);
}
