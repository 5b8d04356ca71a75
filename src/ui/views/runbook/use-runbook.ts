"use client";

import { proxy, wrap } from "comlink";
import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import type { Plan, PlanIndex } from "@/core/plan";
import { siteAsIs, type Recorded } from "@/core/records";
import { foundState, type Ahead, type Runbook } from "@/core/runbook";
import { clockAt } from "./site-clock";
import type { RunbookWorker } from "@/workers/runbook.worker";

/** What is on the devices before: nothing, what an earlier plan says, or what the record says. */
export type Found =
  | { readonly from: "box" }
  | { readonly from: "plan"; readonly name: string; readonly plan: Plan }
  | { readonly from: "record"; readonly record: readonly Recorded[] };

/** What the search has come to: for which plan, how far it is, what it found. */
interface Work {
  readonly plan: Plan | null;
  readonly found: Found;
  readonly done: number;
  readonly all: number;
  /** What comes first, as far as it is found. */
  readonly ahead: Ahead | null;
  readonly runbook: Runbook | null;
  readonly fault: string | null;
}

const IDLE: Work = {
  plan: null,
  found: { from: "box" },
  done: 0,
  all: 0,
  ahead: null,
  runbook: null,
  fault: null,
};
const store = createStore<Work>()(() => IDLE);
let worker: Worker | null = null;

function stop(): void {
  worker?.terminate();
  worker = null;
}

const NO_STATE =
  "What is found does not fit this plan: it refers to something that is gone. Take a plan file of this site.";
const NO_WORKER = "The order could not be looked for in this browser; reload the page and try again.";

/** The site as it is found; null where that is no state of the plan. */
export function foundIndex(index: PlanIndex, found: Found): PlanIndex | null {
  if (found.from === "record")
    return siteAsIs(
      index,
      found.record.map(({ entry }) => entry),
    );
  return foundState(index, found.from === "box" ? null : found.plan);
}

/** Looks for an order of work in a worker of its own; one that looks already is stopped. */
export function startRunbook({ plan }: PlanIndex, found: Found): void {
  stop();
  store.setState({ ...IDLE, plan, found });
  const own = new Worker(new URL("../../../workers/runbook.worker.ts", import.meta.url), { type: "module" });
  worker = own;
  const finish = (runbook: Runbook | null) => {
    if (worker !== own) return;
    stop();
    store.setState({ runbook, fault: runbook === null ? NO_STATE : null });
  };
  const fail = () => {
    if (worker !== own) return;
    stop();
    store.setState({ fault: NO_WORKER });
  };
  void wrap<RunbookWorker>(own)
    .workOut(
      plan,
      found.from === "record"
        ? { record: found.record }
        : { before: found.from === "box" ? null : found.plan },
      clockAt(plan.site.timeZone),
      proxy((done, all, ahead) => {
        if (worker === own) store.setState({ done, all, ahead });
      }),
    )
    .then(finish, fail);
}

/** Calls the search off. */
export function cancelRunbook(): void {
  stop();
  store.setState({ done: 0, all: 0 });
}

/** Whether an order is looked for on a site just now. */
export const isLooking = (site: string): boolean =>
  worker !== null && store.getState().plan?.site.id === site;

/** How far the search is for a site; that of another site is not its. */
export const useRunbook = (site: string): Work => {
  const now = useStore(store);
  return now.plan === null || now.plan.site.id === site ? now : IDLE;
};
