import type { Plan } from "@/core/plan";

/** The last plans asked for, by site and revision. A revision never changes its plan, so nothing here can be stale. */
export interface PlanCache {
  readonly get: (site: string, revision: number) => Plan | null;
  readonly put: (site: string, revision: number, plan: Plan) => void;
}

/** Keeps the newest revision of at most `most` sites; the one not used for longest goes first. */
export function planCache(most: number): PlanCache {
  const kept = new Map<string, { revision: number; plan: Plan }>();
  return {
    get: (site, revision) => {
      const found = kept.get(site);
      if (found?.revision !== revision) return null;
      kept.delete(site);
      kept.set(site, found);
      return found.plan;
    },
    put: (site, revision, plan) => {
      if ((kept.get(site)?.revision ?? -1) > revision) return;
      kept.delete(site);
      kept.set(site, { revision, plan });
      const oldest = kept.keys().next().value;
      if (kept.size > most && oldest !== undefined) kept.delete(oldest);
    },
  };
}
