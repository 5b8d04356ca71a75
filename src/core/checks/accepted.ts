import { putInto } from "../kernel";
import type { Acceptance, PlanIndex } from "../plan";
import type { Finding } from "./check";
import { sentenceOf } from "./registry";

/** A finding that somebody has decided to live with. */
export interface Accepted {
  readonly finding: Finding;
  readonly acceptance: Acceptance;
}

/** The findings that are open, and those that are accepted as they are. */
export interface Split {
  readonly open: readonly Finding[];
  readonly accepted: readonly Accepted[];
  /** Accepted findings that are found no more. */
  readonly gone: readonly Acceptance[];
}

const MOST = 2000;
/** How an acceptance names a finding, and what it remembers of its sentence: as much as is kept. */
export const acceptedAs = (
  index: PlanIndex,
  finding: Finding,
): { readonly finding: string; readonly says: string } => ({
  finding: finding.key.slice(0, MOST),
  says: sentenceOf(finding, index).normalize("NFC").slice(0, MOST),
});

/** Why an acceptance of a finding does not hold any more; null while it does. */
function whyAwake(
  { today }: PlanIndex,
  { says, until }: Acceptance,
  now: { readonly says: string },
): string | null {
  if (until !== null && today !== null && until < today) return `It was accepted until ${until}.`;
  return says === now.says ? null : `What was accepted said: ${says}`;
}

function byFinding({ plan }: PlanIndex): Map<string, Acceptance[]> {
  const all = new Map<string, Acceptance[]>();
  for (const acceptance of plan.acceptance.values()) putInto(all, acceptance.finding, acceptance);
  return all;
}

/** Acceptances of a finding that do not hold for it as it is now, each with the reason. */
export function wokenBy(
  index: PlanIndex,
  finding: Finding,
): { readonly acceptance: Acceptance; readonly why: string }[] {
  const now = acceptedAs(index, finding);
  return (byFinding(index).get(now.finding) ?? []).flatMap((acceptance) => {
    const why = whyAwake(index, acceptance, now);
    return why === null ? [] : [{ acceptance, why }];
  });
}

/** Parts findings into those that are open and those that somebody has accepted as they are now. */
export function splitAccepted(index: PlanIndex, findings: readonly Finding[]): Split {
  if (index.plan.acceptance.size === 0) return { open: findings, accepted: [], gone: [] };
  const known = byFinding(index);
  const seen = new Set<string>();
  const open: Finding[] = [];
  const accepted: Accepted[] = [];
  for (const finding of findings) {
    const of = known.get(finding.key.slice(0, MOST));
    const now = of === undefined ? null : acceptedAs(index, finding);
    if (now !== null) seen.add(now.finding);
    const acceptance =
      now === null ? undefined : of?.find((acceptance) => whyAwake(index, acceptance, now) === null);
    if (acceptance === undefined) open.push(finding);
    else accepted.push({ finding, acceptance });
  }
  return {
    open,
    accepted,
    gone: [...index.plan.acceptance.values()].filter(({ finding }) => !seen.has(finding)),
  };
}
