import { COLLECTION_KINDS, type CollectionKind, type EntityOf, type Kind } from "./schema/kinds";
import type { Site } from "./schema/site";

/** Everything planned for one site: an immutable value. */
export type Plan = { readonly site: Site } & {
  readonly [K in CollectionKind]: ReadonlyMap<string, EntityOf<K>>;
};

export function emptyPlan(site: Site): Plan {
  const collections = Object.fromEntries(COLLECTION_KINDS.map((kind) => [kind, new Map()]));
  return { site, ...collections } as unknown as Plan;
}

/** The entity, or undefined. The site answers to its own id only. */
export function entityOf<K extends Kind>(plan: Plan, kind: K, id: string): EntityOf<K> | undefined {
  if (kind === "site") return (plan.site.id === id ? plan.site : undefined) as EntityOf<K> | undefined;
  return (plan[kind as CollectionKind] as ReadonlyMap<string, EntityOf<K>>).get(id);
}

export const entityCount = (plan: Plan): number =>
  COLLECTION_KINDS.reduce((sum, kind) => sum + plan[kind].size, 1);
