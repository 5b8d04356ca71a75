import { MOST } from "../../plan";
import type { EditContext, Refusal } from "../planner";
import { readDate } from "./survey-text";

/** A finding that is to be accepted: how it is named and what it says, why, by whom, and until when. */
export interface Accepting {
  readonly finding: string;
  readonly says: string;
  readonly reason: string;
  readonly by: string;
  readonly until: string;
}

/** Accepts a finding as it is; one that was accepted before is accepted anew. */
export function acceptFinding(
  { edits, ids }: Pick<EditContext, "edits" | "ids">,
  { finding, says, reason: typed, by, until }: Accepting,
): Refusal {
  const reason = typed.trim();
  if (reason === "") return "Say why it is accepted: whoever comes next has to understand it.";
  if (reason.length > 120) return "A reason has at most 120 characters.";
  const day = readDate(/^(always|)$/i.test(until.trim()) ? "" : until);
  if (day.refusal !== null) return day.refusal;
  const known = edits.all("acceptance").find((acceptance) => acceptance.finding === finding);
  if (known === undefined && edits.all("acceptance").length >= MOST.acceptance)
    return `At most ${MOST.acceptance} findings can be accepted; wake some first.`;
  edits.put("acceptance", {
    id: known?.id ?? ids(),
    finding,
    says,
    reason,
    by: by.slice(0, 120),
    until: day.value,
  });
  return null;
}
