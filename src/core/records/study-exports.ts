import { FailureStudy, failureTable, ranked, singleFailures } from "../failure";
import { CSV_TYPE, type ExportContent, type SiteExport } from "../formats";
import type { PlanIndex } from "../plan";
import { reachMatrix, reachTable } from "../reach";
import { runbookTable } from "../runbook";
import type { Recorded } from "./entry";
import { remaining } from "./remaining";

function failures(index: PlanIndex): ExportContent {
  const work = new FailureStudy(index);
  const losses = singleFailures(index).map((failure) => work.fail([failure]));
  return { is: "table", rows: failureTable(ranked(index, losses)) };
}

function runbook(index: PlanIndex, record: readonly Recorded[]): ExportContent {
  const proven = remaining(index, record);
  return proven === null
    ? {
        is: "refused",
        sentence:
          "What the record says of the devices does not fit this plan, so there is no order from it. " +
          "Read them anew.",
      }
    : { is: "table", rows: runbookTable(index, proven.runbook) };
}

/** Files that have to be worked out first, from a plan and its record: each takes its time. */
export const studyExports = (record: readonly Recorded[]): readonly SiteExport[] => [
  {
    what: "Reachability",
    file: "reach.csv",
    type: CSV_TYPE,
    about: "Which segment reaches which, as the walls intend and as it is.",
    make: (index) => ({ is: "table", rows: reachTable(reachMatrix(index)) }),
  },
  {
    what: "Failures",
    file: "failures.csv",
    type: CSV_TYPE,
    about: "Every device, cable, supply and line failed in turn: who loses what, what takes over.",
    make: failures,
  },
  {
    what: "Runbook",
    file: "runbook.csv",
    type: CSV_TYPE,
    about: "The order of the work that is left, step by step, with what to look at after each.",
    make: (index) => runbook(index, record),
  },
];
