/** Puts a value at the end of a key's list, which it makes where there is none yet. */
export function putInto<K, V>(groups: Map<K, V[]>, key: K, value: V): void {
  const group = groups.get(key);
  if (group === undefined) groups.set(key, [value]);
  else group.push(value);
}

/** The values by key, in the order in which they come; a key without a value is not in it. */
export function grouped<K, V>(values: Iterable<V>, keyOf: (value: V) => K): Map<K, V[]> {
  const groups = new Map<K, V[]>();
  for (const value of values) putInto(groups, keyOf(value), value);
  return groups;
}
