import { expose } from "comlink";
import { runChecks, type FindingsByCode } from "@/core/checks";
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

async function load(address: string): Promise<Result<Loaded, LoadFault>> {
  const response = await fetch(address);
  const answer = (await response.json()) as { revision: number; plan: unknown; sentence?: string };
  if (!response.ok)
    return {
      ok: false,
      error: { status: response.status, sentence: answer.sentence ?? "The plan could not be loaded." },
    };
  const read = openPlan(answer.plan);
  if (!read.ok)
    return {
      ok: false,
      error: { status: 500, sentence: read.error[0]?.sentence ?? "The plan could not be read." },
    };
  const steps = JSON.parse(
    decodeURIComponent(
      response.headers.get("x-steps") ??
        encodeURIComponent(JSON.stringify({ undo: null, redo: null, undoIsImport: false })),
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

const api = {
  load,
  judge,
  readFile: (text: string): Result<Plan, readonly FileFault[]> => readPlanFile(text),
};
export type PlanWorker = typeof api;

expose(api);
