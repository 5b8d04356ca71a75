import { expose } from "comlink";
import { PlanIndex, type Plan } from "@/core/plan";
import { remaining, type Recorded } from "@/core/records";
import { provenRunbook, type Progress, type Runbook } from "@/core/runbook";

/** What is on the devices: what an earlier plan says, null for gear out of the box; or what the record says. */
type OnDevices = { readonly before: Plan | null } | { readonly record: readonly Recorded[] };

/**
 * Looks for an order of work off the page's thread; tells how far it is, and what comes first. `now` is the
 * time on the clock at the site.
 */
function workOut(plan: Plan, found: OnDevices, now: string | null, tell: Progress): Runbook | null {
  const index = PlanIndex.of(plan);
  const asked = { tell, now };
  const proven =
    "record" in found ? remaining(index, found.record, asked) : provenRunbook(index, found.before, asked);
  return proven?.runbook ?? null;
}

const api = { workOut };
export type RunbookWorker = typeof api;

expose(api);
