"use client";

import { useState } from "react";
import type { PlanIndex } from "@/core/plan";
import type { LogLineAnswer } from "@/http/contracts/answers";
import { Modal } from "../../kit/Modal";
import { whenText } from "../../kit/when-text";
import { call } from "../../plan-store/api";
import { planAt } from "../../plan-store/plan-at";
import { useHeld, usePlan } from "../../plan-store/use-plan";
import { startRunbook } from "./use-runbook";

/** The server answers as many lines of the log at once. */
const PAGE = 200;
const NOT_SAVED = "Your last changes are not saved yet. Take the revision again in a moment.";

/** Takes an earlier revision of this plan as what is on the devices: the one that was set up last. */
export function EarlierRevision({
  index,
  refuse,
}: {
  index: PlanIndex;
  refuse: (sentence: string | null) => void;
}) {
  const site = usePlan((state) => state.site);
  const held = useHeld();
  const [lines, setLines] = useState<readonly LogLineAnswer[] | null>(null);
  const [isTaking, setTaking] = useState(false);
  if (held.revision < 2) return null;
  const more = async (before: number, known: readonly LogLineAnswer[]) => {
    refuse(null);
    const answer = await call<LogLineAnswer[]>(`/api/sites/${site}/history?before=${before}`);
    if (answer.ok) setLines([...known, ...answer.value]);
    else refuse(answer.refused.sentence);
  };
  const take = async (revision: number) => {
    setTaking(true);
    const plan = held.pending.length > 0 ? NOT_SAVED : await planAt(site, held, revision);
    setTaking(false);
    setLines(null);
    if (typeof plan === "string") refuse(plan);
    else startRunbook(index, { from: "plan", name: `revision ${revision}`, plan });
  };
  return (
    <>
      <button type="button" className="button" onClick={() => void more(held.revision, [])}>
        or an earlier revision …
      </button>
      <Modal
        open={lines !== null}
        onOpenChange={() => setLines(null)}
        title="What is on the devices: an earlier revision"
        description="Take the one that was set up last. What has changed since is what is left to do."
        wide
      >
        <Lines
          lines={lines ?? []}
          timeZone={index.plan.site.timeZone}
          isTaking={isTaking}
          take={(revision) => void take(revision)}
          more={(before) => void more(before, lines ?? [])}
        />
      </Modal>
    </>
  );
}

function Lines({
  lines,
  timeZone,
  isTaking,
  take,
  more,
}: {
  lines: readonly LogLineAnswer[];
  timeZone: string;
  isTaking: boolean;
  take: (revision: number) => void;
  more: (before: number) => void;
}) {
  const last = lines.at(-1)?.revision ?? 1;
  return (
    <>
      <ol className="text-13" aria-label="Earlier revisions">
        {lines.map(({ id, revision, madeAt, authorName, summary }) => (
          <li key={id} className="flex items-center gap-3 border-t border-hair py-1">
            <span className="min-w-0 flex-1">
              <b className="font-semibold">Revision {revision}</b>, {authorName},{" "}
              <span className="text-ink2">{whenText(madeAt, timeZone)}</span>: {summary}
            </span>
            <button
              type="button"
              className="button"
              aria-label={`Take revision ${revision}`}
              disabled={isTaking}
              onClick={() => take(revision)}
            >
              Take it
            </button>
          </li>
        ))}
      </ol>
      {last > 1 && lines.length > 0 && lines.length % PAGE === 0 ? (
        <button type="button" className="button mt-3" onClick={() => more(last)}>
          Older ones
        </button>
      ) : null}
    </>
  );
}
