import { openPlan, type FileFault } from "@/core/formats";
import type { Result } from "@/core/kernel";
import type { Plan } from "@/core/plan";

/** What the server answers to the question for a plan. */
interface PlanAnswer {
  readonly revision: number;
  readonly plan: unknown;
  /** Why there is none. */
  readonly sentence?: string;
}

/** The answer in the body as it came; throws where it is no JSON. */
export const answerIn = (body: ArrayBuffer): PlanAnswer =>
  JSON.parse(new TextDecoder().decode(body)) as PlanAnswer;

/** The plan in an answer, or what does not fit in it. */
export const planIn = ({ plan }: PlanAnswer): Result<Plan, readonly FileFault[]> => openPlan(plan);
