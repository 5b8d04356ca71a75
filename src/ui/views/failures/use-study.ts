"use client";

import { proxy, wrap } from "comlink";
import { useSyncExternalStore } from "react";
import { ranked, type Loss, type RankedLoss } from "@/core/failure";
import type { Plan, PlanIndex } from "@/core/plan";
import type { FailureWorker } from "@/workers/failure.worker";

/** What a study has come to: for which plan, how far it is, what it found. */
interface Study {
  readonly site: string | null;
  readonly plan: Plan | null;
  readonly done: number;
  readonly all: number;
  readonly losses: readonly RankedLoss[] | null;
  readonly fault: string | null;
}

const IDLE: Study = { site: null, plan: null, done: 0, all: 0, losses: null, fault: null };
let study = IDLE;
let worker: Worker | null = null;
const listeners = new Set<() => void>();

function publish(next: Study): void {
  study = next;
  for (const listener of listeners) listener();
}

function stop(): void {
  worker?.terminate();
  worker = null;
}

/** Tries every single failure of the plan in a worker of its own; one that runs already is stopped. */
export function startStudy(index: PlanIndex): void {
  stop();
  const { plan } = index;
  // The found losses of an earlier plan stay in sight until the new ones are there.
  const site = plan.site.id;
  const losses = study.site === site ? study.losses : null;
  publish({ site, plan, done: 0, all: 0, losses, fault: null });
  const own = new Worker(new URL("../../../workers/failure.worker.ts", import.meta.url), { type: "module" });
  worker = own;
  const finish = (losses: readonly Loss[]) => {
    if (worker !== own) return;
    stop();
    publish({
      site,
      plan,
      done: losses.length,
      all: losses.length,
      losses: ranked(index, losses),
      fault: null,
    });
  };
  const fail = () => {
    if (worker !== own) return;
    stop();
    publish({
      ...IDLE,
      site,
      plan,
      fault: "The study could not be made in this browser; reload the page and try again.",
    });
  };
  void wrap<FailureWorker>(own)
    .study(
      plan,
      proxy((done, all) => {
        if (worker === own) publish({ ...study, done, all });
      }),
    )
    .then(finish, fail);
}

/** Calls the running study off. */
export function cancelStudy(): void {
  stop();
  publish({ ...study, plan: null, done: 0, all: 0 });
}

/** Whether the failures of a site are tried just now. */
export const isRunning = (site: string): boolean => worker !== null && study.site === site;

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
};

/** How far the study of a site is; that of another site is not its. */
export const useStudy = (site: string): Study => {
  const now = useSyncExternalStore(
    subscribe,
    () => study,
    () => IDLE,
  );
  return now.site === null || now.site === site ? now : IDLE;
};
