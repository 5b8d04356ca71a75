import type { Refusal } from "@/core/planners";
import type { CellId } from "./column";

/** Writes cells one after another; the first refusal is the answer, and then nothing of it is kept. */
export function eachCell<C extends string>(
  cells: readonly CellId<C>[],
  write: (row: string, column: C) => Refusal | void,
): Refusal {
  for (const { row, column } of cells) {
    const refusal = write(row, column) ?? null;
    if (refusal !== null) return refusal;
  }
  return null;
}
