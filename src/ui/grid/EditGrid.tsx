"use client";

import type { RowData } from "@tanstack/react-table";
import { useVirtualizer } from "@tanstack/react-virtual";
import { memo, useEffect, useRef, type ReactNode, type RefObject } from "react";
import { CellEditor } from "./CellEditor";
import { cellsIn, type Column, type GridActions } from "./column";
import { useGrid, type Grid } from "./use-grid";
import { useRows } from "./use-rows";

interface Props<R, C extends string> {
  readonly label: string;
  readonly rows: readonly R[];
  readonly idOf: (row: R) => string;
  readonly columns: readonly Column<R, C>[];
  readonly actions: GridActions<C>;
  readonly selected: string | null;
  /** What stands in the row behind the last, by column; without it there is none. */
  readonly newRow?: Partial<Record<C, ReactNode>>;
  readonly groups?: readonly { readonly head: string; readonly span: number; readonly bar: boolean }[];
  readonly foot?: ReactNode;
  /** Only rows with these words somewhere are shown. */
  readonly filter?: string;
  /** Told which rows the chosen block covers. */
  readonly onBlock?: (rows: readonly string[]) => void;
  /** What scrolls: long tables draw only the rows that are seen. */
  readonly scroller: RefObject<HTMLDivElement | null>;
}

/** Above this many rows only those on screen are drawn. */
const DRAWN_WHOLE = 150;
const ROW_PX = 28;
/** Rows drawn beyond the edge, for the next turn of the wheel. */
const OVERSCAN = 12;

const ARROWS = { ascending: " ↑", descending: " ↓", none: "" };

function directionOf(sort: { readonly column: string; readonly up: boolean } | null, column: string) {
  if (sort?.column !== column) return undefined;
  return sort.up ? "ascending" : "descending";
}

/**
 * A table that is edited in place like a spreadsheet: arrows, Enter or typing, Tab, Shift for a block, copy,
 * paste, Ctrl D fills down.
 */
export function EditGrid<R extends RowData, C extends string>(props: Props<R, C>) {
  const { label, idOf, columns, actions, newRow, groups, foot, scroller } = props;
  const shown = useRows(props.rows, columns, idOf, props.filter ?? "");
  const { rows, sort, sortBy } = shown;
  const grid = useGrid({ shown, idOf, columns, actions, hasNewRow: newRow !== undefined });
  const table = useRef<HTMLTableElement>(null);
  const { onBlock } = props;
  const covered = grid.block.rows.join(" ");
  useEffect(() => {
    onBlock?.(covered === "" ? [] : covered.split(" "));
  }, [covered, onBlock]);
  return (
    <>
      <table
        ref={table}
        role="grid"
        aria-label={label}
        aria-rowcount={rows.length + (newRow === undefined ? 1 : 2)}
        className="table"
        onKeyDown={grid.onKeyDown}
        onCopy={grid.onCopy}
        onPaste={grid.onPaste}
      >
        <thead>
          {groups === undefined ? null : (
            <tr className="group">
              {groups.map((group) => (
                <th key={group.head} colSpan={group.span} scope="colgroup" className={group.bar ? "bar" : ""}>
                  {group.head}
                </th>
              ))}
            </tr>
          )}
          <tr>
            {columns.map((column) => (
              <th
                key={column.id}
                scope="col"
                title={column.title}
                style={{ width: column.width }}
                className={`${column.align ?? ""} ${column.bar === true ? "bar" : ""} ${isHeld(column) ? "held" : ""}`}
                aria-sort={directionOf(sort, column.id)}
              >
                <button
                  type="button"
                  className="hover:text-ink"
                  tabIndex={-1}
                  title={`Sort by ${column.title ?? column.head}`}
                  onClick={() => sortBy(column.id)}
                >
                  {column.head}
                  {ARROWS[directionOf(sort, column.id) ?? "none"]}
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <GridBody
          label={label}
          rows={rows}
          idOf={idOf}
          columns={columns}
          selected={props.selected}
          newRow={newRow}
          scroller={scroller}
          table={table}
          grid={grid}
        />
        {foot === undefined ? null : <tfoot>{foot}</tfoot>}
      </table>
      {grid.notice === null ? null : (
        <p role="alert" className="mx-4 mt-2 border border-stop bg-stop-wash p-2 text-13 text-stop">
          {grid.notice}
        </p>
      )}
    </>
  );
}

const isHeld = ({ id, held }: { readonly id: string; readonly held?: boolean }): boolean =>
  held ?? id === "name";

interface BodyProps<R, C extends string> extends Pick<
  Props<R, C>,
  "label" | "rows" | "idOf" | "columns" | "selected" | "scroller"
> {
  readonly newRow: Props<R, C>["newRow"] | undefined;
  readonly table: RefObject<HTMLTableElement | null>;
  readonly grid: Grid;
}

/** The rows on screen. Scrolling draws this anew and nothing above it, so a row that stays is left as it is. */
function GridBody<R, C extends string>({
  label,
  rows,
  idOf,
  columns,
  selected,
  newRow,
  scroller,
  table,
  grid,
}: BodyProps<R, C>) {
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: OVERSCAN,
    enabled: rows.length > DRAWN_WHOLE,
  });
  const drawn = rows.length > DRAWN_WHOLE ? virtual.getVirtualItems() : null;
  const first = drawn === null ? 0 : (drawn[0]?.index ?? 0);
  const last = drawn === null ? rows.length - 1 : (drawn.at(-1)?.index ?? -1);
  const { row: atRow, column: atColumn } = grid.at;
  const isEditing = grid.editing !== null;
  const chosen = new Set(grid.block.rows);
  const wasEditing = useRef(false);
  useEffect(() => {
    // The open cell's field has just gone, and the focus with it: it comes back to the place in the table.
    const isLost = wasEditing.current && document.activeElement === document.body;
    wasEditing.current = isEditing;
    if (table.current === null || isEditing || !(isLost || table.current.contains(document.activeElement)))
      return;
    if (rows.length > DRAWN_WHOLE) virtual.scrollToIndex(atRow);
    table.current
      .querySelector<HTMLElement>('td[tabindex="0"]')
      ?.focus({ preventScroll: rows.length > DRAWN_WHOLE });
    // Focus follows the place; a change of the rows alone must not pull it here.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [atRow, atColumn, isEditing]);
  const spacer = (px: number, key: string) =>
    px <= 0 ? null : (
      <tr key={key} aria-hidden style={{ height: px }}>
        <td colSpan={columns.length} style={{ height: px, border: 0 }} />
      </tr>
    );
  return (
    <tbody>
      {spacer(first * ROW_PX, "above")}
      {rows.slice(first, last + 1).map((row, i) => (
        <KeptRow
          key={idOf(row)}
          label={label}
          columns={columns}
          isSelected={idOf(row) === selected}
          isChosen={chosen.has(idOf(row))}
          grid={grid}
          row={row}
          number={first + i}
        />
      ))}
      {spacer((rows.length - 1 - last) * ROW_PX, "below")}
      {newRow === undefined ? null : (
        <NewRow label={label} rows={rows} columns={columns} newRow={newRow} grid={grid} />
      )}
    </tbody>
  );
}

interface RowProps<R, C extends string> extends Pick<Props<R, C>, "label" | "columns"> {
  readonly row: R;
  readonly number: number;
  readonly isSelected: boolean;
  readonly isChosen: boolean;
  readonly grid: Grid;
}

function GridRow<R, C extends string>({
  row,
  number,
  columns,
  isSelected,
  isChosen,
  grid,
  label,
}: RowProps<R, C>) {
  return (
    <tr className={isSelected ? "selected" : ""} aria-rowindex={number + 2}>
      {columns.map((column, c) => (
        <Cell
          key={column.id}
          grid={grid}
          row={number}
          isRowChosen={isChosen}
          column={c}
          align={column.align}
          bar={column.bar === true}
          held={isHeld(column)}
          mono={column.mono === true}
          label={`${column.title ?? column.head}, ${label} row ${number + 1}`}
          text={column.text(row)}
          offers={column.offers?.(row) ?? []}
          readOnly={column.readOnly?.(row) === true}
          reading={(text) => column.reading?.(row, text)}
        >
          {column.show === undefined ? column.text(row) : column.show(row)}
        </Cell>
      ))}
    </tr>
  );
}

const KeptRow = memo(GridRow) as typeof GridRow;

function NewRow<R, C extends string>({
  rows,
  columns,
  newRow,
  grid,
  label,
}: Pick<Props<R, C>, "label" | "rows" | "columns" | "newRow"> & { grid: Grid }) {
  return (
    <tr aria-rowindex={rows.length + 2} className="text-ink2 print:hidden">
      {columns.map((column, c) => (
        <Cell
          key={column.id}
          grid={grid}
          row={rows.length}
          isRowChosen={grid.block.hasNew}
          column={c}
          align={column.align}
          bar={column.bar === true}
          held={isHeld(column)}
          mono={column.mono === true}
          label={`${column.title ?? column.head}, new row of ${label}`}
          text=""
          offers={column.offers?.(null) ?? []}
          readOnly={false}
          reading={(text) => column.reading?.(null, text)}
        >
          {newRow?.[column.id] ?? ""}
        </Cell>
      ))}
    </tr>
  );
}

interface CellProps {
  readonly grid: Grid;
  readonly row: number;
  readonly isRowChosen: boolean;
  readonly column: number;
  readonly align: "right" | "centre" | undefined;
  readonly bar: boolean;
  readonly held: boolean;
  readonly mono: boolean;
  readonly label: string;
  readonly text: string;
  readonly offers: readonly string[];
  readonly readOnly: boolean;
  readonly reading: (text: string) => ReactNode;
  readonly children: ReactNode;
}

function Cell({
  grid,
  row,
  isRowChosen,
  column,
  align,
  bar,
  held,
  mono,
  label,
  text,
  offers,
  readOnly,
  reading,
  children,
}: CellProps) {
  const here = grid.at.row === row && grid.at.column === column;
  const chosen =
    isRowChosen && column >= grid.block.left && column <= grid.block.right && cellsIn(grid.block) > 1;
  return (
    <td
      role="gridcell"
      tabIndex={here ? 0 : -1}
      aria-selected={chosen || here}
      aria-readonly={readOnly}
      className={`${held ? "held" : "relative"} ${align ?? ""} ${bar ? "bar" : ""} ${mono ? "mono" : ""} focus:outline-2 focus:-outline-offset-2 focus:outline-act ${chosen ? "!bg-act-wash2" : ""}`}
      onMouseDown={(event) => {
        if (grid.editing !== null && !grid.finish(null)) return;
        grid.go({ row, column }, event.shiftKey);
        event.currentTarget.focus();
      }}
      onDoubleClick={() => grid.begin(text)}
    >
      {children}
      {here && grid.editing !== null ? (
        <CellEditor
          editing={grid.editing}
          grid={grid}
          label={label}
          offers={offers}
          right={align === "right"}
          reading={reading(grid.editing.text)}
        />
      ) : null}
    </td>
  );
}
