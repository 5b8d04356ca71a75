import { transfer, wrap } from "comlink";
import { STEPS_HEADER } from "@/http/contracts/answers";
import type { Result } from "@/core/kernel";
import { planOf } from "@/service-worker/kept";
import type { Loaded, LoadFault, PlanWorker } from "@/workers/plan.worker";

let worker: ReturnType<typeof wrap<PlanWorker>> | null = null;

/** The one worker that reads and judges plans beside the page. */
export const planWorker = () =>
  (worker ??= wrap<PlanWorker>(
    new Worker(new URL("../../workers/plan.worker.ts", import.meta.url), { type: "module" }),
  ));

/**
 * The site's plan as the server has it, or why there is none. It is asked for while the worker that reads it is
 * still starting: that takes as long as the answer does. Throws a TypeError where the server does not answer.
 */
export async function loadPlan(site: string): Promise<Result<Loaded, LoadFault>> {
  const worker = planWorker();
  const response = await fetch(planOf(site));
  const body = await response.arrayBuffer();
  const steps = response.headers.get(STEPS_HEADER);
  return worker.load(transfer({ isOk: response.ok, status: response.status, steps, body }, [body]));
}
