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
import { openPlan, readPlanFile, type FileFault } from "@/core/formats";
import type { Result } from "@/core/kernel";
import { PlanIndex, type Plan } from "@/core/plan";

/** A plan as it came from the server, read off the page's own thread. */
export interface Loaded {
  /** Names this loading when its findings are asked for. */
  readonly token: number;
  readonly revision: number;
  readonly plan: Plan;
  readonly today: string;
  readonly steps: {
    readonly undo: string | null;
    readonly redo: string | null;
    readonly undoIsImport: boolean;
  };
}
export interface LoadFault {
  readonly status: number;
  readonly sentence: string;
}

/** What the server answered to the question for a plan: its status, its head with the steps, its body. */
export interface PlanResponse {
  readonly isOk: boolean;
  readonly status: number;
  readonly steps: string | null;
  readonly body: ArrayBuffer;
}

function load({ isOk, status, steps: stepsText, body }: PlanResponse): Result<Loaded, LoadFault> {
  const answer = JSON.parse(new TextDecoder().decode(body)) as {
    revision: number;
    plan: unknown;
    sentence?: string;
  };
  if (!isOk)
    return { ok: false, error: { status, sentence: answer.sentence ?? "The plan could not be loaded." } };
  const read = openPlan(answer.plan);
  if (!read.ok)
    return {
      ok: false,
      error: { status: 500, sentence: read.error[0]?.sentence ?? "The plan could not be read." },
    };
  const steps = JSON.parse(
    decodeURIComponent(
      stepsText ?? encodeURIComponent(JSON.stringify({ undo: null, redo: null, undoIsImport: false })),
    ),
  ) as Loaded["steps"];
  const today = new Date().toISOString().slice(0, 10);
  const token = (last?.token ?? 0) + 1;
  last = { token, plan: read.value, today };
  return { ok: true, value: { token, revision: answer.revision, plan: read.value, today, steps } };
}

/** The plan that was loaded last. */
let last: { readonly token: number; readonly plan: Plan; readonly today: string } | null = null;

/** What the checks find in the plan of a loading, which is on the screen by then; null when another came. */
const judge = (token: number): FindingsByCode | null =>
  last?.token === token ? runChecks(PlanIndex.of(last.plan, last.today)) : null;

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
  load,
  judge,
  compare,
  inTables,
  check,
  readFile: (text: string): Result<Plan, readonly FileFault[]> => readPlanFile(text),
};
export type PlanWorker = typeof api;

expose(api);
