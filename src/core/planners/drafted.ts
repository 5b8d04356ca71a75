import { COLLECTION_KINDS, PlanIndex, type PlanEdits, type Plan } from "../plan";

/**
 * The plan as the edits have it so far: what the next step of the same batch looks at. Integrity is checked
 * when the batch is applied.
 */
export function planOf(edits: PlanEdits): Plan {
  const collections = Object.fromEntries(
    COLLECTION_KINDS.map((kind) => [kind, new Map(edits.all(kind).map((entity) => [entity.id, entity]))]),
  );
  return {
    ...collections,
    site: edits.get("site", edits.plan.site.id) ?? edits.plan.site,
  } as unknown as Plan;
}

export const indexOf = (edits: PlanEdits): PlanIndex => PlanIndex.of(planOf(edits));
