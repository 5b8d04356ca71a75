import { listFindings, runChecks, splitAccepted } from "../checks";
import { compareStates } from "../comparison";
import { PlanIndex, type Plan } from "../plan";
import { issuedSheets, type IssuedSheet, type Recorded } from "../records";
import type { PackStudy } from "./model";
import { withoutNotes } from "./ours";

/** What a pack is asked of: plain values, as a worker takes them. */
export interface PackOf {
  readonly plan: Plan;
  readonly revision: number;
  /** The day at the site, as YYYY-MM-DD; null where nobody knows. */
  readonly today: string | null;
  readonly record: readonly Recorded[];
  /** The id of the sheet that it was issued as; null for the plan as it is. */
  readonly sheet: string | null;
  /** The state of the sheet before, with its name; null where there is none, or it can't be had. */
  readonly before: { readonly name: string; readonly plan: Plan } | null;
  readonly made: string;
}

/** A record as it was when a sheet was issued: what came later is of later papers. */
function recordThen(record: readonly Recorded[], sheet: IssuedSheet | null): readonly Recorded[] {
  if (sheet === null) return record;
  const at = record.findIndex(({ entry }) => entry.id === sheet.issue.id);
  return at === -1 ? record : record.slice(0, at + 1);
}

/** All that a pack is made of, worked out: findings, what was accepted, what changed since the sheet before. */
export function packStudy({ plan, revision, today, record, sheet, before, made }: PackOf): PackStudy {
  const index = PlanIndex.of(withoutNotes(plan), today);
  const sheets = issuedSheets(record);
  const own = sheets.find(({ issue }) => issue.id === sheet) ?? null;
  const { open, accepted } = splitAccepted(index, listFindings(runChecks(index)));
  const compared = (was: Plan) => compareStates(PlanIndex.of(withoutNotes(was), today), index);
  return {
    index,
    revision,
    record: recordThen(record, own),
    sheet: own,
    sheets: own === null ? sheets : sheets.slice(0, sheets.indexOf(own) + 1),
    open,
    accepted,
    since: before === null ? null : { name: before.name, groups: compared(before.plan) },
    made,
  };
}
