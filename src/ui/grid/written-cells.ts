import type { CellId } from "./column";

/** Those of the cells whose column can be written; the others are only worked out. */
export const writtenCells = <C extends string, W extends C>(
  cells: readonly CellId<C>[],
  isWritten: (column: C) => column is W,
): readonly CellId<W>[] => cells.flatMap(({ row, column }) => (isWritten(column) ? [{ row, column }] : []));
