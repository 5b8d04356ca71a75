"use client";

import { proxy, wrap } from "comlink";
import { useSyncExternalStore } from "react";
import type { TestSheet } from "@/core/commissioning";
import type { Plan, PlanIndex } from "@/core/plan";
import type { TestsWorker } from "@/workers/tests.worker";

/** What the sheet has come to: for which plan, how far it is, what it is. */
interface Work {
  readonly plan: Plan | null;
  readonly done: number;
  readonly all: number;
  /** Of an earlier plan as long as the new one is worked out. */
  readonly sheet: TestSheet | null;
  readonly isWorking: boolean;
  readonly fault: string | null;
}

const IDLE: Work = { plan: null, done: 0, all: 0, sheet: null, isWorking: false, fault: null };
const NO_WORKER = "The readings could not be worked out in this browser; reload the page and try again.";
let work = IDLE;
let worker: Worker | null = null;
const listeners = new Set<() => void>();

function publish(next: Work): void {
  work = next;
  for (const listener of listeners) listener();
}

function stop(): void {
  worker?.terminate();
  worker = null;
}

/** Works the readings out in a worker of its own; one that works already is stopped. */
export function startTestSheet({ plan }: PlanIndex): void {
  stop();
  const isSame = work.plan?.site.id === plan.site.id;
  publish({ ...IDLE, plan, sheet: isSame ? work.sheet : null, isWorking: true });
  const own = new Worker(new URL("../../../workers/tests.worker.ts", import.meta.url), { type: "module" });
  worker = own;
  const end = (change: Partial<Work>) => {
    if (worker !== own) return;
    stop();
    publish({ ...work, isWorking: false, ...change });
  };
  void wrap<TestsWorker>(own)
    .workOut(
      plan,
      proxy((done, all) => {
        if (worker === own) publish({ ...work, done, all });
      }),
    )
    .then(
      (sheet) => end({ sheet }),
      () => end({ fault: NO_WORKER }),
    );
}

/** Calls it off; what was there before stays. */
export function cancelTestSheet(): void {
  stop();
  publish({ ...work, isWorking: false });
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
};

/** The readings of a site, as far as they are worked out; those of another site are not its. */
export const useTestSheet = (site: string): Work => {
  const now = useSyncExternalStore(
    subscribe,
    () => work,
    () => IDLE,
  );
  return now.plan?.site.id === site ? now : IDLE;
};
