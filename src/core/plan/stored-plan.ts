import { isBehindItself, linkFault } from "./change";
import type { Plan } from "./plan";
import { allThere } from "./references";
import { COLLECTION_KINDS, LIST_NAMES, type CollectionKind, type EntityOf } from "./schema/kinds";
import { decodeStored } from "./schema/stored";
import { MISFIT } from "./schema/stored-parts";

type Rows<K extends CollectionKind> = Map<string, EntityOf<K>>;

/** One list as a map by id; null where a row does not fit or an id stands twice. */
function rowsOf<K extends CollectionKind>(kind: K, list: unknown): Rows<K> | null {
  if (!Array.isArray(list)) return null;
  const rows: Rows<K> = new Map();
  for (let i = 0; i < list.length; i += 1) {
    const entity = decodeStored(kind, list[i]);
    if (entity === MISFIT) return null;
    rows.set(entity.id, entity);
  }
  return rows.size === list.length ? rows : null;
}

/** Whether everything that is referred to is there and every cable has two ends of its own. */
function isWhole(plan: Plan): boolean {
  const there = COLLECTION_KINDS.every((kind) =>
    allThere(kind, plan[kind].values(), (to, id) => to !== "site" && plan[to].has(id)),
  );
  return (
    there && linkFault(plan) === null && ![...plan.host.values()].some((host) => isBehindItself(plan, host))
  );
}

/**
 * The plan in a file's lists as our own server sends them, which had every row and batch checked before it was
 * written; null where anything does not fit, and the strict way then says what. That an id stands once among
 * all kinds is not asked again.
 */
export function storedPlan(file: Readonly<Record<string, unknown>>): Plan | null {
  const site = decodeStored("site", file.site);
  if (site === MISFIT) return null;
  const collections: Partial<Record<CollectionKind, unknown>> = {};
  for (const kind of COLLECTION_KINDS) {
    const rows = rowsOf(kind, file[LIST_NAMES[kind]]);
    if (rows === null) return null;
    collections[kind] = rows;
  }
  const plan = { site, ...collections } as unknown as Plan;
  return isWhole(plan) ? plan : null;
}
