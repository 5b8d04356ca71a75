import { expose } from "comlink";
import { PlanIndex, type Plan } from "@/core/plan";
import { provenRunbook, type Runbook } from "@/core/runbook";

/** Looks for an order of work off the page's thread; tells how many operations have found their place. */
function workOut(plan: Plan, before: Plan | null, tell: (done: number, all: number) => void): Runbook | null {
  return provenRunbook(PlanIndex.of(plan), before, tell)?.runbook ?? null;
}

const api = { workOut };
export type RunbookWorker = typeof api;

expose(api);
