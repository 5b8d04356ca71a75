import { useDeferredValue, useMemo } from "react";
import type { Column } from "./column";
import { cellsOf, type CellContent } from "./GridRow";

/** What some columns say of rows: asked once of each. */
interface Said<R> {
  /** Of which columns, by their ids. */
  readonly ids: string;
  readonly known: Map<R, readonly CellContent[]>;
  readonly ask: (row: R) => readonly CellContent[];
}

function saidBy<R, C extends string>(columns: readonly Column<R, C>[]): Said<R> {
  const known = new Map<R, readonly CellContent[]>();
  const ask = (row: R) => {
    const cells = known.get(row) ?? cellsOf(row, columns, undefined);
    known.set(row, cells);
    return cells;
  };
  return { ids: columns.map(({ id }) => id).join(" "), known, ask };
}

/**
 * What rows say, asked when the columns are made anew and not at every key or turn of the wheel. A row that
 * is the very same as before says what it said for one more frame: what an edit changed is on the screen
 * before the others are asked what it means for them.
 */
export function useSaid<R, C extends string>(
  columns: readonly Column<R, C>[],
): (row: R) => readonly CellContent[] {
  const now = useMemo(() => saidBy(columns), [columns]);
  const late = useDeferredValue(now);
  return (row) => (late.ids === now.ids && late.known.has(row) ? late : now).ask(row);
}
