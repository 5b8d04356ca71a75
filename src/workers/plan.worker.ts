import { expose } from "comlink";
import { runChecks, type FindingsByCode } from "@/core/checks";
import {
  compareStates,
  findingsApart,
  stateText,
  tablesApart,
  type ComparedGroup,
  type FindingsApart,
  type TableApart,
} from "@/core/comparison";
import { readPlanFile, type FileFault } from "@/core/formats";
import type { Result } from "@/core/kernel";
import { PlanIndex, type Plan } from "@/core/plan";
import { answerIn, planIn } from "./plan-answer";

/** What the checks find in the plan of an answer, which the page reads, too; null where it can't be read. */
function judge(body: ArrayBuffer, today: string): FindingsByCode | null {
  const read = planIn(answerIn(body));
  return read.ok ? runChecks(PlanIndex.of(read.value, today)) : null;
}

/** Two states beside one another: what differs, and what the later one does to what is found wrong. */
function compare(before: Plan, after: Plan, today: string | null): Compared {
  const [was, is] = [before, after].map((plan) => PlanIndex.of(plan, today)) as [PlanIndex, PlanIndex];
  return { groups: compareStates(was, is), findings: findingsApart(was, is) };
}
/** The site's own tables of two states laid together: those that differ. */
const inTables = (before: Plan, after: Plan, today: string | null): TableApart[] =>
  tablesApart(PlanIndex.of(before, today), PlanIndex.of(after, today));
/** What two states come to beside one another. */
export interface Compared {
  readonly groups: readonly ComparedGroup[];
  readonly findings: FindingsApart;
}

/** The check value of a state: SHA-256 of its text, in hexadecimal digits. */
async function check(plan: Plan): Promise<string> {
  const sum = await crypto.subtle.digest("SHA-256", new TextEncoder().encode(stateText(plan)));
  return [...new Uint8Array(sum)].map((octet) => octet.toString(16).padStart(2, "0")).join("");
}

const api = {
  judge,
  compare,
  inTables,
  check,
  readFile: (text: string): Result<Plan, readonly FileFault[]> => readPlanFile(text),
};
export type PlanWorker = typeof api;

expose(api);
