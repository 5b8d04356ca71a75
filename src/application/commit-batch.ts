import { integrityFault } from "@/core/formats";
import { err, ok, type Result } from "@/core/kernel";
import { applyChanges, nameOf, PlanIndex, entityOf, KINDS, type ChangeBatch, type Plan } from "@/core/plan";
import { NO_SUCH_SITE, type AppError } from "./errors";
import type { Person, PlanStore, PlanTx } from "./stores";

export interface Commit { readonly site: string; readonly revision: number; readonly batch: ChangeBatch; readonly by: Person }
export interface Committed { readonly revision: number }

/** What a person calls the entity with that id; the id itself when the plan has none. */
function namer(plan: Plan): (id: string) => string {
  const index = PlanIndex.of(plan);
  return (id) => {
    const kind = KINDS.find((k) => entityOf(plan, k, id) !== undefined);
    return kind === undefined ? id : nameOf(index, kind, id);
  };
}

/** Applies, writes and logs a batch on the locked site; the caller has compared the revisions. */
export async function writeBatch(
  tx: PlanTx, site: string, revision: number, batch: ChangeBatch, by: Person, source: { undoes: string | null; redoes: string | null },
): Promise<Result<Committed, AppError>> {
  const plan = await tx.planAt(site, revision);
  const applied = applyChanges(plan, batch.changes);
  if (!applied.ok) {
    const { place, sentence } = integrityFault(applied.error, namer(plan));
    return err({ code: "broken-plan", place, sentence });
  }
  await tx.write(site, { revision: revision + 1, batch, by, ...source }, applied.value);
  return ok({ revision: revision + 1 });
}

/**
 * Commits a batch made on `revision`. A batch that is in the log already answers as it did the first time. On another
 * revision nothing is written, and what came between is answered for a rebase.
 */
export const commitBatch = (store: PlanStore, { site, revision, batch, by }: Commit): Promise<Result<Committed, AppError>> =>
  store.transaction(async (tx): Promise<Result<Committed, AppError>> => {
    const current = await tx.lockSite(site);
    if (current === null) return err(NO_SUCH_SITE);
    const known = await tx.findEntry(site, batch.id);
    if (known !== null) return ok({ revision: known.revision });
    if (revision > current) return err({ code: "revision-ahead", sentence: `The plan is at revision ${current}, but this change was made on ${revision}. Load the plan again.` });
    if (revision < current) {
      const between = await tx.entriesAfter(site, revision);
      return err({ code: "stale-revision", sentence: "The plan has changed since you opened it.", revision: current, between });
    }
    return writeBatch(tx, site, current, batch, by, { undoes: null, redoes: null });
  });
