import { CHECKS, splitAccepted, type Severity } from "@/core/checks";
import { err, ok, type Result } from "@/core/kernel";
import { entityCount, PlanIndex, type Plan } from "@/core/plan";
import { NO_SUCH_SITE, type AppError } from "./errors";
import { pause } from "./in-slices";
import type { PlanStore } from "./stores";

/** How many findings of each severity a plan has. */
export type FindingCounts = Readonly<Record<Severity, number>>;
/** Null where a plan is too large to be checked beside other people's requests: whoever opens it sees. */
export interface Soundness {
  readonly revision: number;
  readonly findings: FindingCounts | null;
}

/** Entities up to which a plan is checked on the server, beside other people's requests. */
export const MOST_ENTITIES = 20_000;

/** By the plan, which never changes, and the day, on which support dates are judged. */
const KNOWN = new WeakMap<Plan, { readonly today: string; readonly counts: FindingCounts }>();

/** What is found wrong in a site as it stands. Others are answered between two checks. */
export async function soundness(
  store: PlanStore,
  site: string,
  today: string,
): Promise<Result<Soundness, AppError>> {
  const found = await store.snapshot(site);
  if (found === null) return err(NO_SUCH_SITE);
  const { plan, revision } = found;
  if (entityCount(plan) > MOST_ENTITIES) return ok({ revision, findings: null });
  const known = KNOWN.get(plan);
  if (known?.today === today) return ok({ revision, findings: known.counts });
  const index = PlanIndex.of(plan, today);
  const counts = { stop: 0, warn: 0, note: 0 };
  for (const check of CHECKS) {
    for (const { severity } of splitAccepted(index, check.run(index)).open) counts[severity] += 1;
    await pause();
  }
  KNOWN.set(plan, { today, counts });
  return ok({ revision, findings: counts });
}
