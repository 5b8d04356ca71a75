"use client";

import { useEffect, useState } from "react";
import type { LogLineAnswer } from "@/http/contracts/answers";
import { call } from "../plan-store/api";
import { whenText } from "../kit/when-text";
import { useHeld, usePlan } from "../plan-store/use-plan";
import { WhySo } from "./WhySo";

const MOST_SHOWN = 5;
const NEWEST = 4_000_000_000;

/** What was done, and to what: null for the whole plan. */
interface Told {
  readonly about: string | null;
  readonly lines: readonly LogLineAnswer[];
}

/**
 * What was last done, to the whole plan or to what is selected; `also` is a part of how that came to be. The
 * server tells it after the rest is drawn, so it stands last: nothing may move away from under a pointer.
 */
export function HistorySection({
  about = null,
  also = [],
}: {
  about?: string | null;
  also?: readonly string[];
}) {
  const site = usePlan((state) => state.site);
  const { revision, index } = useHeld();
  const [told, setTold] = useState<Told>({ about, lines: [] });
  useEffect(() => {
    let isCurrent = true;
    void call<LogLineAnswer[]>(
      `/api/sites/${site}/history?before=${NEWEST}${about === null ? "" : `&about=${about}`}`,
    ).then((answer) => {
      if (isCurrent && answer.ok) setTold({ about, lines: answer.value });
    });
    return () => {
      isCurrent = false;
    };
  }, [site, revision, about]);
  // Until it is told, or without an answer, what was told of something else is not its history.
  const lines = told.about === about ? told.lines : [];
  if (lines.length === 0) return null;
  return (
    <section className="section">
      <h3>History</h3>
      <ol className="px-4 text-13 leading-5">
        {lines.slice(0, MOST_SHOWN).map((line) => (
          <li key={line.id} className="grid grid-cols-[96px_1fr] gap-2 py-px">
            <span className="text-ink2">{whenText(line.madeAt, index.plan.site.timeZone)}</span>
            <span>
              {line.authorName}: {line.summary}
            </span>
          </li>
        ))}
      </ol>
      {about === null ? null : (
        <p className="px-4 pt-2">
          <WhySo about={[about, ...also]} />
        </p>
      )}
    </section>
  );
}
