import type { Plan, PlanIndex } from "@/core/plan";
import { MOST_FILE_BYTES } from "@/core/records";
import { planWorker } from "./plan-worker";

/** The plan of a file of this site, such as one of an earlier day; a sentence where it is none. */
export async function planOfFile(index: PlanIndex, file: File): Promise<Plan | string> {
  if (file.size > MOST_FILE_BYTES)
    return `${file.name} has more than ${Math.floor(MOST_FILE_BYTES / 1_000_000)} MB; a plan file has less.`;
  const result = await planWorker().readFile(await file.text());
  if (!result.ok) return result.error.map(({ sentence }) => sentence).join(" ");
  return [...index.plan.device.keys()].some((id) => result.value.device.has(id))
    ? result.value
    : `${file.name} is of another site: it has none of this plan's devices. Take a plan file of this site.`;
}
