import { expose } from "comlink";
import { FailureStudy, singleFailures, type Failure, type Loss } from "@/core/failure";
import { PlanIndex, type Plan } from "@/core/plan";

/** How often progress is told, in failures tried. */
const TELL_EVERY = 8;

/** Tries every single failure of a plan, off the page's thread; tells how many of how many are done. */
function study(plan: Plan, tell: (done: number, all: number) => void): Loss[] {
  const index = PlanIndex.of(plan);
  const failures: readonly Failure[] = singleFailures(index);
  const work = new FailureStudy(index);
  return failures.map((failure, i) => {
    if (i % TELL_EVERY === 0) tell(i, failures.length);
    return work.fail([failure]);
  });
}

const api = { study };
export type FailureWorker = typeof api;

expose(api);
