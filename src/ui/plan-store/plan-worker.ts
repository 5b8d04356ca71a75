import { wrap } from "comlink";
import type { PlanWorker } from "@/workers/plan.worker";

let worker: ReturnType<typeof wrap<PlanWorker>> | null = null;

/** The one worker that reads and judges plans beside the page. */
export const planWorker = () =>
  (worker ??= wrap<PlanWorker>(
    new Worker(new URL("../../workers/plan.worker.ts", import.meta.url), { type: "module" }),
  ));
