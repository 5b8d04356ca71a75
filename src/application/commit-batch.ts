import { integrityFault } from "@/core/formats";
import { err, ok, type Result } from "@/core/kernel";
import {
  applyChanges,
  nameOf,
  PlanIndex,
  entityOf,
  KINDS,
  rebase,
  type ChangeBatch,
  type Plan,
} from "@/core/plan";
import { NO_SUCH_SITE, type AppError } from "./errors";
import { inTurn } from "./in-turn";
import type { LogEntry, Person, PlanStore, PlanTx } from "./stores";

export interface Commit {
  readonly site: string;
  readonly revision: number;
  readonly batch: ChangeBatch;
  readonly by: Person;
}
/**
 * `entries`: what the author does not know of, its own batch among it; empty when the batch simply is the
 * next revision.
 */
export interface Committed {
  readonly revision: number;
  readonly entries: readonly LogEntry[];
}

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
  tx: PlanTx,
  site: string,
  {
    revision,
    batch,
    by,
    source,
  }: {
    readonly revision: number;
    readonly batch: ChangeBatch;
    readonly by: Person;
    readonly source: { undoes: string | null; redoes: string | null };
  },
): Promise<Result<{ readonly revision: number }, AppError>> {
  const plan = await tx.planAt(site, revision);
  const applied = applyChanges(plan, batch.changes);
  if (!applied.ok) {
    const { place, sentence } = integrityFault(applied.error, namer(plan));
    return err({ code: "broken-plan", place, sentence });
  }
  await tx.write(site, { revision: revision + 1, batch, by, ...source }, applied.value);
  return ok({ revision: revision + 1 });
}

/** A batch made on an older plan, on top of the present one; what came between when it clashes with that. */
async function commitRebased(
  tx: PlanTx,
  { site, revision, batch, by }: Commit,
  current: number,
): Promise<Result<Committed, AppError>> {
  const rebased = rebase(await tx.planAt(site, current), batch.changes);
  const written = rebased.ok
    ? await writeBatch(tx, site, {
        revision: current,
        batch: { ...batch, changes: rebased.value },
        by,
        source: {
          undoes: null,
          redoes: null,
        },
      })
    : null;
  const between = await tx.entriesAfter(site, revision);
  if (written?.ok === true) return ok({ revision: written.value.revision, entries: between });
  return err({
    code: "stale-revision",
    sentence: "Somebody has changed the same since you opened the plan.",
    revision: current,
    between,
  });
}

/**
 * Commits a batch made on `revision`. A batch that is in the log already answers as it did the first time. On
 * another revision it is put on top of what came between, in the same transaction; where it clashes nothing
 * is written, and a person has to choose.
 */
export const commitBatch = (store: PlanStore, commit: Commit): Promise<Result<Committed, AppError>> =>
  inTurn(commit.site, () => store.transaction((tx) => commitIn(tx, commit)));

async function commitIn(tx: PlanTx, commit: Commit): Promise<Result<Committed, AppError>> {
  const { site, revision, batch, by } = commit;
  const current = await tx.lockSite(site);
  if (current === null) return err(NO_SUCH_SITE);
  const known = await tx.findEntry(site, batch.id);
  if (known !== null) return ok({ revision: known.revision, entries: await tx.entriesAfter(site, revision) });
  if (revision > current)
    return err({
      code: "revision-ahead",
      sentence:
        `The plan is at revision ${current}, but this change ` +
        `was made on ${revision}. Load the plan again.`,
    });
  if (revision < current) return commitRebased(tx, commit, current);
  const written = await writeBatch(tx, site, {
    revision: current,
    batch,
    by,
    source: { undoes: null, redoes: null },
  });
  return written.ok ? ok({ revision: written.value.revision, entries: [] }) : written;
}
