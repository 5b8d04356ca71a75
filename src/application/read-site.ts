import { err, ok, type Result } from "@/core/kernel";
import { undoStacks, type Plan } from "@/core/plan";
import { NO_SUCH_SITE, type AppError } from "./errors";
import type { LogEntry, LogLine, Person, PlanStore } from "./stores";

/** What the author's next undo and redo would be, in words; null when there is none. */
export interface Steps { readonly undo: string | null; readonly redo: string | null }
export interface Opened { readonly plan: Plan; readonly revision: number; readonly steps: Steps }

function stepsOf(lines: readonly LogLine[], author: string): Steps {
  const stacks = undoStacks(lines, author);
  const summary = (id: string | undefined) => lines.find((line) => line.id === id)?.summary ?? null;
  return { undo: summary(stacks.undo.at(-1)), redo: summary(stacks.redo.at(-1)) };
}

export async function openSite(store: PlanStore, site: string, by: Person): Promise<Result<Opened, AppError>> {
  const found = await store.snapshot(site);
  if (found === null) return err(NO_SUCH_SITE);
  const lines = await store.transaction((tx) => tx.logLines(site));
  return ok({ ...found, steps: stepsOf(lines, by.id) });
}

export interface News { readonly revision: number; readonly entries: readonly LogEntry[]; readonly steps: Steps }

/** What others (or the same person elsewhere) have changed since a revision. */
export const newsSince = (store: PlanStore, site: string, revision: number, by: Person): Promise<Result<News, AppError>> =>
  store.transaction(async (tx): Promise<Result<News, AppError>> => {
    const current = await tx.lockSite(site);
    if (current === null) return err(NO_SUCH_SITE);
    const entries = current > revision ? await tx.entriesAfter(site, revision) : [];
    return ok({ revision: current, entries, steps: stepsOf(await tx.logLines(site), by.id) });
  });

/** A page of the history, newest first; of one entity when `about` names it. */
export const history = async (store: PlanStore, site: string, before: number, about: string | null): Promise<Result<readonly LogLine[], AppError>> =>
  ok(await store.history(site, before, about, 200));
