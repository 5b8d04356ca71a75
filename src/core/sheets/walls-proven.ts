import type { PlanIndex } from "../plan";
import { differenceAt, reachMatrix } from "../reach";
import { filteringDevices, joinedProof, PLANNED_LISTS, provePlanned, STANDING_PROOFS } from "../walls";

/**
 * Whether the walls hold: by the lists that stand on the devices, as far as they are noted, else by those
 * that they need, and by everything that could lead past them.
 */
export interface WallsProven {
  readonly proven: boolean;
  /** Pairs that a list treats otherwise than the walls mean it. */
  readonly wrong: number;
  /** Pairs of segments between which more gets through than the walls intend, whatever the reason. */
  readonly past: number;
}

/** Null where nothing filters: then there is no wall to prove. */
export function wallsProven(index: PlanIndex): WallsProven | null {
  const devices = filteringDevices(index);
  if (devices.length === 0) return null;
  const wrong = devices.reduce((sum, { id }) => {
    const planned = index.derived(PLANNED_LISTS).get(id);
    const isNoted = index.rulesOf(id).length > 0;
    const proof =
      isNoted || planned === undefined
        ? index.derived(STANDING_PROOFS).get(id)
        : joinedProof(provePlanned(index, planned));
    return sum + (proof?.pairs.filter(({ difference }) => difference !== null).length ?? 0);
  }, 0);
  const matrix = reachMatrix(index);
  let past = 0;
  for (const row of matrix.rows.keys())
    for (const column of matrix.columns.keys()) past += Number(differenceAt(matrix, row, column) === "more");
  return { proven: wrong === 0 && past === 0, wrong, past };
}
