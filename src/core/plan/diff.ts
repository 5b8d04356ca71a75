import { equal } from "../kernel";
import type { Change } from "./change";
import type { Plan } from "./plan";
import { COLLECTION_KINDS, type EntityOf } from "./schema/kinds";

/**
 * The changes that lead from one plan to the other, in the order of the kinds; empty when they say the same.
 */
export function diff(from: Plan, to: Plan): Change[] {
  const changes: Change[] = [];
  if (!equal(from.site, to.site))
    changes.push({ kind: "site", id: to.site.id, before: from.site, after: to.site });
  for (const kind of COLLECTION_KINDS) {
    const left = from[kind] as ReadonlyMap<string, EntityOf<typeof kind>>;
    const right = to[kind] as ReadonlyMap<string, EntityOf<typeof kind>>;
    if (left === right) continue;
    for (const [id, before] of left) {
      const after = right.get(id) ?? null;
      if (before !== after && !equal(before, after)) changes.push({ kind, id, before, after } as Change);
    }
    for (const [id, after] of right)
      if (!left.has(id)) changes.push({ kind, id, before: null, after } as Change);
  }
  return changes;
}
