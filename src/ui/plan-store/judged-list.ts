import { listFindings, splitAccepted } from "@/core/checks";
import type { Judged } from "./held";
import type { PlanState } from "./plan-state";

/**
 * What is found, parted into what is open and what is accepted; until it is judged nothing is said to be gone.
 */
export function judgedList(judged: Judged | null): Pick<PlanState, "list" | "accepted" | "acceptedGone"> {
  if (judged === null) return { list: [], accepted: [], acceptedGone: [] };
  const { open, accepted, gone } = splitAccepted(judged.index, listFindings(judged.findings));
  return { list: open, accepted, acceptedGone: gone };
}
