"use client";

import { proxy, wrap } from "comlink";
import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import type { TestSheet } from "@/core/commissioning";
import type { Plan, PlanIndex } from "@/core/plan";
import type { TestsWorker } from "@/workers/tests.worker";

/** What the sheet has come to: for which plan, how far it is, what it is. */
interface Work {
  readonly plan: Plan | null;
  readonly done: number;
  readonly all: number;
  readonly sheet: TestSheet | null;
  /** The plan that the sheet is of: an earlier one as long as the new one is worked out, or was called off. */
  readonly of: Plan | null;
  readonly isWorking: boolean;
  readonly fault: string | null;
}

const IDLE: Work = { plan: null, done: 0, all: 0, sheet: null, of: null, isWorking: false, fault: null };
const NO_WORKER = "The readings could not be worked out in this browser; reload the page and try again.";
const store = createStore<Work>()(() => IDLE);
let worker: Worker | null = null;

function stop(): void {
  worker?.terminate();
  worker = null;
}

/** Works the readings out in a worker of its own; one that works already is stopped. */
export function startTestSheet({ plan }: PlanIndex): void {
  stop();
  const { sheet, of } = store.getState();
  const kept = of?.site.id === plan.site.id ? { sheet, of } : {};
  store.setState({ ...IDLE, ...kept, plan, isWorking: true });
  const own = new Worker(new URL("../../../workers/tests.worker.ts", import.meta.url), { type: "module" });
  worker = own;
  const end = (change: Partial<Work>) => {
    if (worker !== own) return;
    stop();
    store.setState({ isWorking: false, ...change });
  };
  void wrap<TestsWorker>(own)
    .workOut(
      plan,
      proxy((done, all) => {
        if (worker === own) store.setState({ done, all });
      }),
    )
    .then(
      (found) => end({ sheet: found, of: plan }),
      () => end({ fault: NO_WORKER }),
    );
}

/** Calls it off; what was there before stays. */
export function cancelTestSheet(): void {
  stop();
  store.setState({ isWorking: false });
}

/** The readings of a site, as far as they are worked out; those of another site are not its. */
export const useTestSheet = (site: string): Work => {
  const now = useStore(store);
  return now.plan?.site.id === site ? now : IDLE;
};
