import { addressAt, type AddressRange } from "../../address";
import type { EditContext, Refusal } from "../planner";

/**
 * Sets the pool of a segment by offsets in its first subnet, both ends included; for a ruler whose edges are
 * dragged.
 */
export function movePool({ edits }: EditContext, segmentId: string, first: number, last: number): Refusal {
  const segment = edits.need("segment", segmentId);
  const prefix = segment.prefixes4[0];
  const scope = edits.all("scope").find((s) => s.segment === segmentId && s.family === 4);
  if (prefix === undefined || scope === undefined) return `${segment.name} has no pool to move.`;
  const ends = [addressAt(prefix, first), addressAt(prefix, last)];
  const [from, to] = ends;
  if (from === null || from === undefined || to === null || to === undefined || first > last)
    return `A pool of ${segment.name} has to lie inside its subnet, first address before last.`;
  const pool: AddressRange = { first: from, last: to };
  edits.patch("scope", scope.id, { pools: [pool, ...scope.pools.slice(1)] });
  return null;
}
