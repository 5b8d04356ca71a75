import { COLLECTION_KINDS, PlanIndex, type Draft, type Plan } from "../plan";

/**
 * The plan as a draft has it so far: what the next step of the same batch looks at. Integrity is checked when
 * the batch is applied.
 */
export function planOf(draft: Draft): Plan {
  const collections = Object.fromEntries(
    COLLECTION_KINDS.map((kind) => [kind, new Map(draft.all(kind).map((entity) => [entity.id, entity]))]),
  );
  return {
    ...collections,
    site: draft.get("site", draft.plan.site.id) ?? draft.plan.site,
  } as unknown as Plan;
}

export const indexOf = (draft: Draft): PlanIndex => PlanIndex.of(planOf(draft));
