"use client";

import { clsx } from "clsx";
import type { RowData } from "@tanstack/react-table";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useContext, useEffect, useRef, type ReactNode, type RefObject } from "react";
import { HoldContext } from "../plan-store/shown";
import { isHeld, type Column, type GridActions } from "./column";
import { cellsOf, KeptRow, placeIn } from "./GridRow";
import { useSaid } from "./use-said";
import { useHands, type Hands } from "./use-hands";
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
  const { label, idOf, columns, newRow, groups, foot, scroller } = props;
  const actions = useTableFirst(props.actions);
  const shown = useRows(props.rows, columns, idOf, props.filter ?? "");
  const { rows, sort, sortBy } = shown;
  const grid = useGrid({ shown, idOf, columns, actions, hasNewRow: newRow !== undefined });
  const hands = useHands(grid);
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
                className={clsx(
                  column.align ?? "",
                  column.bar === true ? "bar" : "",
                  isHeld(column) ? "held" : "",
                )}
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
          hands={hands}
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

/** What is written in a cell is on the screen before what stands beside the table is drawn. */
function useTableFirst<C extends string>(actions: GridActions<C>): GridActions<C> {
  const hold = useContext(HoldContext);
  return {
    ...actions,
    edit: (...cell) => {
      hold();
      return actions.edit(...cell);
    },
  };
}

interface BodyProps<R, C extends string> extends Pick<
  Props<R, C>,
  "label" | "rows" | "idOf" | "columns" | "selected" | "scroller"
> {
  readonly newRow: Props<R, C>["newRow"] | undefined;
  readonly table: RefObject<HTMLTableElement | null>;
  readonly grid: Grid;
  readonly hands: Hands;
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
  hands,
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
  const said = useSaid(columns);
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
    // The focus itself brings a drawn row into sight; looking for it would lay out the page twice.
    const isDrawn = atRow >= first && atRow <= last;
    if (rows.length > DRAWN_WHOLE && !isDrawn && atRow < rows.length) virtual.scrollToIndex(atRow);
    table.current.querySelector<HTMLElement>('td[tabindex="0"]')?.focus({ preventScroll: !isDrawn });
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
      {rows.slice(first, last + 1).map((row, i) => {
        const id = idOf(row);
        return (
          <KeptRow
            key={id}
            entity={id}
            className={id === selected ? "selected" : ""}
            number={first + i}
            cells={said(row)}
            hands={hands}
            {...placeIn(grid, columns, { row, number: first + i, label, isChosen: chosen.has(id) })}
          />
        );
      })}
      {spacer((rows.length - 1 - last) * ROW_PX, "below")}
      {newRow === undefined ? null : (
        <KeptRow
          className="text-ink2 print:hidden"
          number={rows.length}
          cells={cellsOf(null, columns, newRow)}
          hands={hands}
          {...placeIn(grid, columns, { row: null, number: rows.length, label, isChosen: grid.block.hasNew })}
        />
      )}
    </tbody>
  );
}
