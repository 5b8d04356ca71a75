import { step } from "../../address";
import type { PlanEdits } from "../../plan";

/** Sets a scope's lease and lengthens its last pool by `missing` addresses; 0 leaves the pools. */
export function sizeLeases(edits: PlanEdits, id: string, leaseSeconds: number, missing: number): void {
  const scope = edits.need("scope", id);
  const pool = scope.pools.at(-1);
  const last = pool === undefined || missing === 0 ? null : step(pool.last, missing);
  edits.patch("scope", id, {
    leaseSeconds,
    ...(pool === undefined || last === null
      ? {}
      : { pools: [...scope.pools.slice(0, -1), { first: pool.first, last }] }),
  });
}
