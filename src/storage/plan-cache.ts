import type { Plan } from "@/core/plan";

export interface CachedPlan {
  readonly revision: number;
  readonly plan: Plan;
}

/**
 * The last plans asked for, by `cacheKey` and revision. A revision never changes its plan, so nothing here
 * can be stale.
 */
export interface PlanCache {
  readonly get: (key: string, revision: number) => Plan | null;
  readonly put: (key: string, revision: number, plan: Plan) => void;
}

/**
 * A site by its id and when it was made: one that was deleted and made anew, on whatever instance, counts its
 * revisions from 0 again.
 */
export const cacheKey = (site: string, made: string): string => `${site} ${made}`;

/** Keeps the newest revision of at most `most` sites; the one not used for longest goes first. */
export function planCache(most: number): PlanCache {
  const kept = new Map<string, CachedPlan>();
  return {
    get: (key, revision) => {
      const found = kept.get(key);
      if (found?.revision !== revision) return null;
      kept.delete(key);
      kept.set(key, found);
      return found.plan;
    },
    put: (key, revision, plan) => {
      if ((kept.get(key)?.revision ?? -1) > revision) return;
      kept.delete(key);
      kept.set(key, { revision, plan });
      const oldest = kept.keys().next().value;
      if (kept.size > most && oldest !== undefined) kept.delete(oldest);
    },
  };
}
