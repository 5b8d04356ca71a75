import { err, ok, type Result } from "@/core/kernel";
import type { Plan } from "@/core/plan";
import { NO_SUCH_SITE, type AppError } from "./errors";
import { stepsOf, type Steps } from "./next-steps";
import type { HistoryAsked, LogEntry, LogLine, Person, PlanStore, TouchedAsked } from "./stores";

export interface Opened {
  readonly plan: Plan;
  readonly revision: number;
  readonly steps: Steps;
}

export async function openSite(
  store: PlanStore,
  site: string,
  by: Person,
): Promise<Result<Opened, AppError>> {
  const found = await store.snapshot(site);
  if (found === null) return err(NO_SUCH_SITE);
  return ok({ ...found, steps: await stepsOf(store.ownLines, site, by) });
}

export interface News {
  readonly revision: number;
  readonly entries: readonly LogEntry[];
  readonly steps: Steps;
}

/** What others (or the same person elsewhere) have changed since a revision. */
export async function newsSince(
  store: PlanStore,
  site: string,
  after: number,
  by: Person,
): Promise<Result<News, AppError>> {
  const news = await store.news(site, after);
  if (news === null) return err(NO_SUCH_SITE);
  return ok({ ...news, steps: await stepsOf(store.ownLines, site, by) });
}

/** What touched some entities, and what it did to them; newest first, so many at once. */
export async function touched(
  store: PlanStore,
  site: string,
  asked: TouchedAsked & { readonly most: number },
): Promise<Result<readonly LogEntry[], AppError>> {
  const entries = await store.touched(site, asked, asked.most);
  return entries === null ? err(NO_SUCH_SITE) : ok(entries);
}

/** A page of the history, newest first. */
export async function history(
  store: PlanStore,
  site: string,
  asked: HistoryAsked,
): Promise<Result<readonly LogLine[], AppError>> {
  const lines = await store.history(site, asked, 200);
  return lines === null ? err(NO_SUCH_SITE) : ok(lines);
}
