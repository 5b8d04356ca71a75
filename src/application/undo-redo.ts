import { err, ok, type Result } from "@/core/kernel";
import {
  invert,
  notesOnly,
  rebase,
  type Change,
  type ChangeBatch,
  type Choose,
  type Winner,
} from "@/core/plan";
import { writeBatch } from "./commit-batch";
import { NO_SUCH_SITE, NOT_ALLOWED, type AppError } from "./errors";
import { inTurn } from "./in-turn";
import { nextStepsOf } from "./next-steps";
import type { LogEntry, Person, PlanStore } from "./stores";

/** `settled`: what a person chose where the step met what somebody has changed since. */
export interface Step {
  readonly site: string;
  readonly batchId: string;
  readonly by: Person;
  /** False for somebody who may write notes only. */
  readonly mayPlan: boolean;
  readonly settled: readonly { readonly id: string; readonly field: string | null; readonly keep: Winner }[];
}
export interface Stepped {
  readonly revision: number;
  readonly batch: ChangeBatch;
  readonly undoes: string | null;
  readonly redoes: string | null;
}

const batchOf = (entry: LogEntry): ChangeBatch => ({
  id: entry.id,
  planner: entry.planner,
  summary: entry.summary,
  args: null,
  changes: entry.changes,
});

async function step(
  store: PlanStore,
  { site, batchId, by, mayPlan, settled }: Step,
  way: "undo" | "redo",
): Promise<Result<Stepped, AppError>> {
  return inTurn(site, () =>
    store.transaction(async (tx): Promise<Result<Stepped, AppError>> => {
      const current = await tx.lockSite(site);
      if (current === null) return err(NO_SUCH_SITE);
      const known = await tx.findEntry(site, batchId);
      if (known !== null)
        return ok({
          revision: known.revision,
          batch: batchOf(known),
          undoes: known.undoes,
          redoes: known.redoes,
        });
      const target = (await nextStepsOf(tx.ownLines, site, by))[way];
      const entry = target === null ? null : await tx.findEntry(site, target);
      if (entry === null)
        return err({
          code: "nothing-to-undo",
          sentence:
            way === "undo"
              ? "You have changed nothing that could be undone."
              : "You have undone nothing that could be brought back.",
        });
      if (!mayPlan && !notesOnly(entry.changes)) return err(NOT_ALLOWED);
      const wanted: readonly Change[] = way === "undo" ? invert(entry.changes) : entry.changes;
      const plan = await tx.planAt(site, current);
      const choices = new Map(settled.map(({ id, field, keep }) => [`${id} ${field}`, keep]));
      const choose: Choose = ({ id, field }) => choices.get(`${id} ${field}`) ?? null;
      const rebased = rebase(plan, wanted, choose);
      if (!rebased.ok) {
        const sentence =
          `"${entry.summary}" can't be ${way === "undo" ? "undone" : "brought back"}: ` +
          "somebody has changed the same since.";
        return err({ code: "clash", sentence, clashes: rebased.error });
      }
      const source = way === "undo" ? { undoes: entry.id, redoes: null } : { undoes: null, redoes: entry.id };
      const summary = `${way === "undo" ? "Undid" : "Brought back"}: ${entry.summary}`.slice(0, 120);
      const batch: ChangeBatch = {
        id: batchId,
        planner: way,
        summary,
        args: { batch: entry.id },
        changes: rebased.value,
      };
      const written = await writeBatch(tx, site, { revision: current, batch, by, source });
      return written.ok ? ok({ revision: written.value.revision, batch, ...source }) : written;
    }),
  );
}

/**
 * Takes back the author's own last batch by a new one; a clash changes nothing and names what stands in the
 * way.
 */
export const undo = (store: PlanStore, request: Step): Promise<Result<Stepped, AppError>> =>
  step(store, request, "undo");

/** Brings back what the author undid last. */
export const redo = (store: PlanStore, request: Step): Promise<Result<Stepped, AppError>> =>
  step(store, request, "redo");
