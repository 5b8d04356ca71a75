import type { DisjointSet } from "../kernel";

/** The pairs of so many that one of two joins, and the other does not. */
export function heldOtherwise(count: number, first: DisjointSet, other: DisjointSet): [number, number][] {
  const pairs = Array.from({ length: count }, (_, a) =>
    Array.from({ length: a }, (__, b): [number, number] => [a, b]),
  ).flat();
  return pairs.filter(
    ([a, b]) => (first.rootOf(a) === first.rootOf(b)) !== (other.rootOf(a) === other.rootOf(b)),
  );
}
