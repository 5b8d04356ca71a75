import { listFindings, runChecks, sentenceOf, type Finding, type Severity } from "../checks";
import type { PlanIndex } from "../plan";

/** What a later state does to what is found wrong. */
export interface FindingsApart {
  /** Found in the later state alone. */
  readonly appeared: readonly { readonly severity: Severity; readonly sentence: string }[];
  /** So many of the earlier one are found no more. */
  readonly gone: number;
}

const found = (index: PlanIndex): Finding[] => listFindings(runChecks(index));

/** What is found wrong in one of two states only. */
export function findingsApart(before: PlanIndex, after: PlanIndex): FindingsApart {
  const [was, is] = [found(before), found(after)];
  const [known, left] = [new Set(was.map(({ key }) => key)), new Set(is.map(({ key }) => key))];
  return {
    appeared: is
      .filter(({ key }) => !known.has(key))
      .map((finding) => ({ severity: finding.severity, sentence: sentenceOf(finding, after) })),
    gone: was.filter(({ key }) => !left.has(key)).length,
  };
}
