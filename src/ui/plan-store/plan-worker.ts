import { transfer, wrap } from "comlink";
import type { FindingsByCode } from "@/core/checks";
import { STEPS_HEADER } from "@/http/contracts/answers";
import { ok, type Result } from "@/core/kernel";
import type { Plan } from "@/core/plan";
import { planOf } from "@/service-worker/kept";
import { answerIn, planIn } from "@/workers/plan-answer";
import type { PlanWorker } from "@/workers/plan.worker";
import type { PlanState } from "./plan-state";

/** A plan as it came from the server. */
export interface Loaded {
  readonly revision: number;
  readonly plan: Plan;
  /** The day on which it is judged. */
  readonly today: string;
  readonly steps: PlanState["steps"];
  /** What the checks find in it, worked out beside the page; null where the worker broke off. */
  readonly findings: Promise<FindingsByCode | null>;
}
export interface LoadFault {
  readonly status: number;
  readonly sentence: string;
}

let worker: ReturnType<typeof wrap<PlanWorker>> | null = null;

/** The one worker that reads and judges plans beside the page. */
export const planWorker = () =>
  (worker ??= wrap<PlanWorker>(
    new Worker(new URL("../../workers/plan.worker.ts", import.meta.url), { type: "module" }),
  ));

const NO_STEPS: Loaded["steps"] = { undo: null, redo: null, undoIsImport: false };
const stepsIn = (text: string | null): Loaded["steps"] =>
  text === null ? NO_STEPS : (JSON.parse(decodeURIComponent(text)) as Loaded["steps"]);

/**
 * The site's plan as the server has it, or why there is none. It is asked for while the worker that judges it
 * is still starting. Page and worker read the same answer, both at the same time: handing a large plan over
 * from one to the other takes longer than reading it. Throws a TypeError where the server does not answer.
 */
export async function loadPlan(site: string): Promise<Result<Loaded, LoadFault>> {
  const worker = planWorker();
  const response = await fetch(planOf(site));
  const body = await response.arrayBuffer();
  const refused = (status: number, sentence: string) => ({ ok: false, error: { status, sentence } }) as const;
  if (!response.ok)
    return refused(response.status, answerIn(body).sentence ?? "The plan could not be loaded.");
  const today = new Date().toISOString().slice(0, 10);
  const copy = body.slice(0);
  const findings = worker.judge(transfer(copy, [copy]), today).catch(() => null);
  const answer = answerIn(body);
  const read = planIn(answer);
  if (!read.ok) return refused(500, read.error[0]?.sentence ?? "The plan could not be read.");
  const steps = stepsIn(response.headers.get(STEPS_HEADER));
  return ok({ revision: answer.revision, plan: read.value, today, steps, findings });
}
