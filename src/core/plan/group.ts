import { byText } from "../kernel";
import type { Change } from "./change";
import type { CollectionKind, EntityOf } from "./schema/kinds";

/**
 * Entities of one kind by a key (or several, or none) of each: a look-up that follows changes without a
 * rebuild.
 */
export interface Grouping<K extends CollectionKind> {
  readonly kind: K;
  readonly keysOf: (entity: EntityOf<K>) => readonly (string | number | bigint)[];
}
export type Groups<K extends CollectionKind> = ReadonlyMap<string | number | bigint, readonly EntityOf<K>[]>;

export function buildGroups<K extends CollectionKind>(
  grouping: Grouping<K>,
  collection: ReadonlyMap<string, EntityOf<K>>,
): Groups<K> {
  const groups = new Map<string | number | bigint, EntityOf<K>[]>();
  for (const entity of collection.values()) {
    for (const key of grouping.keysOf(entity)) {
      const group = groups.get(key);
      if (group === undefined) groups.set(key, [entity]);
      // Once, however often it has the key.
      else if (group.at(-1) !== entity) group.push(entity);
    }
  }
  return groups;
}

/** The groups after `changes`; groups that none of them touches stay the same arrays. */
export function deriveGroups<K extends CollectionKind>(
  grouping: Grouping<K>,
  previous: Groups<K>,
  changes: readonly Change[],
): Groups<K> {
  const groups = new Map(previous);
  for (const change of changes) {
    if (change.kind !== grouping.kind) continue;
    const before = change.before as EntityOf<K> | null;
    const after = change.after as EntityOf<K> | null;
    const oldKeys = before === null ? [] : grouping.keysOf(before);
    const newKeys = after === null ? [] : grouping.keysOf(after);
    for (const key of oldKeys) {
      if (newKeys.includes(key)) continue;
      const rest = (groups.get(key) ?? []).filter((entity) => entity.id !== change.id);
      if (rest.length > 0) groups.set(key, rest);
      else groups.delete(key);
    }
    if (after === null) continue;
    for (const key of newKeys) {
      const group = groups.get(key) ?? [];
      const known = group.some((entity) => entity.id === change.id);
      groups.set(
        key,
        known
          ? group.map((entity) => (entity.id === change.id ? after : entity))
          : [...group, after].sort((a, b) => byText(a.id, b.id)),
      );
    }
  }
  return groups;
}
