import { listFindings, splitAccepted } from "@/core/checks";
import type { Held } from "./held";
import type { PlanState } from "./plan-state";

/**
 * What is found, parted into what is open and what is accepted; until it is judged nothing is said to be gone.
 */
export function judgedList({
  findings,
  index,
}: Pick<Held, "findings" | "index">): Pick<PlanState, "list" | "accepted" | "acceptedGone"> {
  if (findings === null) return { list: [], accepted: [], acceptedGone: [] };
  const { open, accepted, gone } = splitAccepted(index, listFindings(findings));
  return { list: open, accepted, acceptedGone: gone };
}
