"use client";

import { clsx } from "clsx";
import { memo, type ReactNode } from "react";
import { CellEditor } from "./CellEditor";
import { cellsIn, isHeld, type Column } from "./column";
import { sameNode } from "./same-node";
import type { Hands } from "./use-hands";
import type { Grid } from "./use-grid";

/** What one cell shows. */
export interface CellContent {
  readonly id: string;
  readonly look: string;
  /** What its editor begins with. */
  readonly text: string;
  readonly readOnly: boolean;
  readonly node: ReactNode;
}

interface RowProps {
  /** The id of what the row is of; a row in which something new is written has none. */
  readonly entity?: string;
  readonly className: string;
  readonly number: number;
  readonly cells: readonly CellContent[];
  /** The column one is in; -1 in every other row. */
  readonly here: number;
  /** The chosen columns; -1 where nothing of the row is chosen. */
  readonly chosenFrom: number;
  readonly chosenTo: number;
  /** The open field over the cell one is in; null while nobody writes in the row. */
  readonly editor: ReactNode;
  readonly hands: Hands;
}

const lookOf = <R, C extends string>(column: Column<R, C>): string =>
  [
    isHeld(column) ? "held" : "relative",
    column.align ?? "",
    column.bar === true ? "bar" : "",
    column.mono === true ? "mono" : "",
  ].join(" ");

/** The cells of a row; null is the row behind the last, which shows what stands in `newRow`. */
export const cellsOf = <R, C extends string>(
  row: R | null,
  columns: readonly Column<R, C>[],
  newRow: Partial<Record<C, ReactNode>> | undefined,
): CellContent[] =>
  columns.map((column) => {
    const text = row === null ? "" : column.text(row);
    return {
      id: column.id,
      look: lookOf(column),
      text,
      readOnly: row !== null && column.readOnly?.(row) === true,
      node: row === null ? (newRow?.[column.id] ?? "") : (column.show?.(row) ?? text),
    };
  });

/** Where one is in a row, what of it is chosen, and the open field. `row` is null behind the last. */
export function placeIn<R, C extends string>(
  grid: Grid,
  columns: readonly Column<R, C>[],
  { row, number, label, isChosen }: { row: R | null; number: number; label: string; isChosen: boolean },
): Pick<RowProps, "here" | "chosenFrom" | "chosenTo" | "editor"> {
  const isHere = grid.at.row === number;
  const column = columns[grid.at.column];
  const chosen = isChosen && cellsIn(grid.block) > 1;
  const where = row === null ? `new row of ${label}` : `${label} row ${number + 1}`;
  return {
    here: isHere ? grid.at.column : -1,
    chosenFrom: chosen ? grid.block.left : -1,
    chosenTo: chosen ? grid.block.right : -1,
    editor:
      isHere && grid.editing !== null && column !== undefined ? (
        <CellEditor
          editing={grid.editing}
          grid={grid}
          label={`${column.title ?? column.head}, ${where}`}
          offers={column.offers?.(row) ?? []}
          right={column.align === "right"}
          reading={column.reading?.(row, grid.editing.text)}
        />
      ) : null,
  };
}

function GridRow({ entity, className, number, cells, here, chosenFrom, chosenTo, editor, hands }: RowProps) {
  return (
    <tr className={className} aria-rowindex={number + 2} data-id={entity}>
      {cells.map(({ id, look, text, readOnly, node }, c) => {
        const chosen = c >= chosenFrom && c <= chosenTo;
        return (
          <td
            key={id}
            role="gridcell"
            tabIndex={c === here ? 0 : -1}
            aria-selected={chosen || c === here}
            aria-readonly={readOnly}
            className={clsx(
              look,
              "focus:outline-2 focus:-outline-offset-2 focus:outline-act",
              chosen ? "!bg-act-wash2" : "",
            )}
            onMouseDown={(event) => {
              if (hands.press(number, c, event.shiftKey)) event.currentTarget.focus();
            }}
            onDoubleClick={() => hands.open(text)}
          >
            {node}
            {c === here ? editor : null}
          </td>
        );
      })}
    </tr>
  );
}

const sameCell = (a: CellContent, b: CellContent | undefined): boolean =>
  b !== undefined &&
  a.id === b.id &&
  a.look === b.look &&
  a.text === b.text &&
  a.readOnly === b.readOnly &&
  sameNode(a.node, b.node);

function isSame({ cells: before, ...was }: RowProps, { cells: after, ...is }: RowProps): boolean {
  const keys = Object.keys(is) as (keyof typeof is)[];
  return (
    keys.every((key) => was[key] === is[key]) &&
    (before === after ||
      (before.length === after.length && before.every((cell, i) => sameCell(cell, after[i]))))
  );
}

/** An edit makes every row anew; drawn are those that show something else than before. */
export const KeptRow = memo(GridRow, isSame);
