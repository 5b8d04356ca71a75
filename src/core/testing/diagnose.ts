import { must } from "../kernel";
import { type PlanIndex, type ProbeQuestion } from "../plan";
import { asClient } from "../probe";
import { onPlan, type Ask, type Candidate, type Reading, type Study } from "../diagnosis";
import { follow as followed, readingOf, type Followed, type Following } from "../drills";
import type { Dice, Fault } from "./plants";

// Faults that are written apart from those that diagnosis tries, found by following what it asks for.

/** A reading of something that is asked, at a site that is otherwise than planned. */
export const readAt = (study: Study, truth: PlanIndex, ask: Ask): Reading =>
  readingOf(study, ask, onPlan(truth, ask));

const asksOf = (host: string): ProbeQuestion[] => {
  const from = { at: "host" as const, host };
  return [
    asClient(from, { to: "address" }),
    asClient(from, { to: "gateway", service: null }),
    asClient(from, { to: "internet", service: null }),
  ];
};
const TRIES = 60;

/** What somebody complains of who notices a fault: an address, its gateway, the internet; null for nothing. */
export function complaintOf(
  study: Study,
  truth: PlanIndex,
  notice: readonly string[],
  roll: Dice,
): Reading | null {
  const asks = notice.filter((id) => study.index.plan.host.has(id)).flatMap(asksOf);
  for (let tries = 0; tries < TRIES && asks.length > 0; tries += 1) {
    const ask: Ask = { what: "try", question: must(asks[roll(asks.length)], "a question") };
    const reading = readAt(study, truth, ask);
    if (!study.isAsPlanned(reading)) return reading;
  }
  return null;
}

/** Takes the readings that are suggested, as they come out at a site that is otherwise than planned. */
export const follow = (
  study: Study,
  truth: PlanIndex,
  first: readonly Reading[],
  { isSure, ask }: { readonly isSure: boolean; readonly ask: Following["explain"] },
): Followed => followed(study, first, { read: (asked) => onPlan(truth, asked), explain: ask, isSure });

export const names = ({ suspect }: Candidate, { blame }: Pick<Fault, "blame">): boolean =>
  suspect.subjects.some(({ id }) => blame.includes(id));

/** The place of the first fault that names what was done; those that nothing parts count as one. */
export function rankOf({ diagnosed, left }: Followed, fault: Fault): number {
  const explainsAll = left[0]?.explains.every(Boolean) === true;
  if (explainsAll && left.some((candidate) => names(candidate, fault))) return 0;
  return diagnosed.candidates.findIndex((candidate) => names(candidate, fault));
}
