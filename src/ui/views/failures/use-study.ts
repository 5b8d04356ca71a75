"use client";

import { proxy, wrap } from "comlink";
import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
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
const store = createStore<Study>()(() => IDLE);
let worker: Worker | null = null;

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
  const losses = store.getState().site === site ? store.getState().losses : null;
  store.setState({ site, plan, done: 0, all: 0, losses, fault: null });
  const own = new Worker(new URL("../../../workers/failure.worker.ts", import.meta.url), { type: "module" });
  worker = own;
  const finish = (losses: readonly Loss[]) => {
    if (worker !== own) return;
    stop();
    store.setState({
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
    store.setState({
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
        if (worker === own) store.setState({ done, all });
      }),
    )
    .then(finish, fail);
}

/** Calls the running study off. */
export function cancelStudy(): void {
  stop();
  store.setState({ plan: null, done: 0, all: 0 });
}

/** Whether the failures of a site are tried just now. */
export const isRunning = (site: string): boolean => worker !== null && store.getState().site === site;

/** How far the study of a site is; that of another site is not its. */
export const useStudy = (site: string): Study => {
  const now = useStore(store);
  return now.site === null || now.site === site ? now : IDLE;
};
