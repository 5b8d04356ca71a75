import { byText } from "../kernel";
import type { Change } from "./change";
import type { CollectionKind, EntityOf } from "./schema/kinds";

/**
 * Entities of one kind by a key (or several, or none) of each: a look-up that follows changes without a
 * rebuild.
 */
export interface Grouping<K extends CollectionKind> {
  readonly kind: K;
  readonly keysOf: (entity: EntityOf<K>) => readonly GroupKey[];
  /** The same where each has one key or none (null): no list is made for every entity of a large plan. */
  readonly keyOf: ((entity: EntityOf<K>) => GroupKey | null) | null;
}
export type GroupKey = string | number | bigint;
export type Groups<K extends CollectionKind> = ReadonlyMap<GroupKey, readonly EntityOf<K>[]>;

export function buildGroups<K extends CollectionKind>(
  { keyOf, keysOf }: Grouping<K>,
  collection: ReadonlyMap<string, EntityOf<K>>,
): Groups<K> {
  const groups = new Map<GroupKey, EntityOf<K>[]>();
  const put = (key: GroupKey, entity: EntityOf<K>) => {
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [entity]);
    // Once, however often it has the key.
    else if (group.at(-1) !== entity) group.push(entity);
  };
  for (const entity of collection.values()) {
    if (keyOf === null) for (const key of keysOf(entity)) put(key, entity);
    else {
      const key = keyOf(entity);
      if (key !== null) put(key, entity);
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
