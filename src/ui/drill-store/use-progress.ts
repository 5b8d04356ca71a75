"use client";

import { useCallback, useEffect, useState } from "react";
import type { DrillKind, DrillProgress, PersonProgress } from "@/core/drills";
import type { DrillsAnswer } from "@/http/contracts/answers";
import { sendTries, waitingTries } from "./tries";
import { call } from "../plan-store/api";

/** How far everybody is, as the server has it. */
export interface Progress {
  readonly me: string;
  readonly people: readonly PersonProgress[];
  /** Why it could not be read; null where it was, or is still asked. */
  readonly refusal: string | null;
  /** So many tries wait for the server. */
  readonly waiting: number;
  readonly reload: () => void;
}

/** What the asker has done of one drill; null where it was not tried. */
export const mineOf = (
  { me, people }: Pick<Progress, "me" | "people">,
  what: DrillKind,
  number: number,
): DrillProgress | null =>
  people
    .find(({ person }) => person === me)
    ?.drills.find((drill) => drill.what === what && drill.number === number) ?? null;

/** Reads it, and again whenever `news` changes; tries that still wait are sent before. */
export function useProgress(news: string): Progress {
  const [known, setKnown] = useState<Omit<Progress, "reload">>({
    me: "",
    people: [],
    refusal: null,
    waiting: 0,
  });
  const [asked, setAsked] = useState(0);
  useEffect(() => {
    let isCurrent = true;
    void sendTries()
      .then(() => call<DrillsAnswer>("/api/drills"))
      .then((answer) => {
        if (!isCurrent) return;
        const waiting = waitingTries();
        setKnown((before) =>
          answer.ok
            ? { ...answer.value, refusal: null, waiting }
            : { ...before, refusal: answer.refused.sentence, waiting },
        );
      });
    return () => {
      isCurrent = false;
    };
  }, [news, asked]);
  const reload = useCallback(() => setAsked((times) => times + 1), []);
  return { ...known, reload };
}
