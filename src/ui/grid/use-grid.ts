import Papa from "papaparse";
import { useState, type ClipboardEvent, type KeyboardEvent } from "react";
import { seriesFrom } from "@/core/register";
import type { Block, CellId, Column, GridActions, Place } from "./column";
import { moved } from "./moved";
import type { Rows } from "./use-rows";

export interface Editing {
  readonly text: string;
  readonly refusal: string | null;
}

interface Shape<R, C extends string> {
  readonly shown: Rows<R, C>;
  readonly idOf: (row: R) => string;
  readonly columns: readonly Column<R, C>[];
  readonly actions: GridActions<C>;
  readonly hasNewRow: boolean;
}

export interface Grid {
  readonly at: Place;
  readonly block: Block;
  readonly editing: Editing | null;
  /** A refusal of something that was not typed into an open cell: a paste, a fill, a clear. */
  readonly notice: string | null;
  readonly go: (to: Place, extend: boolean) => void;
  readonly begin: (text: string) => void;
  readonly type: (text: string) => void;
  readonly finish: (then: Place | null) => boolean;
  readonly cancel: () => void;
  readonly onKeyDown: (event: KeyboardEvent) => void;
  readonly onCopy: (event: ClipboardEvent) => void;
  readonly onPaste: (event: ClipboardEvent) => void;
}

/**
 * A cell by its row's id and its column's, so that it stays what it is when rows come and go; the row is null
 * for the one that is not there yet. `near`: where it was last seen, for when its row is gone.
 */
interface Spot<C extends string> {
  readonly row: string | null;
  readonly column: C | undefined;
  readonly near: number;
}
/** An open cell; `was`: the text it had when what is typed was begun. */
interface Open<C extends string> extends Spot<C>, Editing {
  readonly was: string;
}

/**
 * The behaviour of a spreadsheet: one cell is where you are, a block may be chosen, keys and clipboard work
 * on it.
 */
export function useGrid<R, C extends string>({
  shown,
  idOf,
  columns,
  actions,
  hasNewRow,
}: Shape<R, C>): Grid {
  const { rows, positions, isThere, sortBy } = shown;
  const last: Place = { row: rows.length - (hasNewRow ? 0 : 1), column: columns.length - 1 };
  const rowAt = (row: number): R | null => rows[row] ?? null;
  const columnAt = (column: number) => columns[column];
  const spotAt = ({ row, column }: Place): Spot<C> => {
    const found = rowAt(row);
    return { row: found === null ? null : idOf(found), column: columnAt(column)?.id, near: row };
  };
  const placeOf = ({ row, column, near }: Spot<C>): Place => ({
    row: Math.max(
      0,
      Math.min(
        row === null && hasNewRow ? last.row : ((row === null ? undefined : positions.get(row)) ?? near),
        last.row,
      ),
    ),
    column: Math.max(
      0,
      columns.findIndex(({ id }) => id === column),
    ),
  });
  /** The ids of the rows between two places, and whether the row that is not there yet is among them. */
  const between = (a: number, b: number): Pick<Block, "rows" | "hasNew"> => ({
    rows: rows.slice(Math.min(a, b), Math.max(a, b) + 1).map(idOf),
    hasNew: Math.max(a, b) >= rows.length,
  });
  const [wanted, setWanted] = useState<{
    at: Spot<C>;
    anchor: Spot<C>;
    chosen: Pick<Block, "rows" | "hasNew">;
  }>(() => ({
    at: spotAt({ row: 0, column: 0 }),
    anchor: spotAt({ row: 0, column: 0 }),
    chosen: between(0, 0),
  }));
  const [open, setOpen] = useState<Open<C> | null>(null);
  const [notice, setNotice] = useState<string | null>(null);
  /** The rows there were before one was written at the end: the one that is new now is the one to go on in. */
  const [before, setBefore] = useState<ReadonlySet<string> | null>(null);
  const made = before === null ? undefined : rows.map(idOf).find((id) => !before.has(id));
  if (made !== undefined) {
    const inIt = (spot: Spot<C>): Spot<C> => ({ ...spot, row: made });
    setBefore(null);
    setWanted((now) => ({
      at: inIt(now.at),
      anchor: inIt(now.anchor),
      chosen: { rows: [made], hasNew: false },
    }));
  }
  const at = open === null ? placeOf(wanted.at) : placeOf(open);
  const anchorColumn = open === null ? placeOf(wanted.anchor).column : at.column;
  // Rows that have gone since are chosen no more; one that has come in between is not chosen.
  const kept = wanted.chosen.rows
    .filter((id) => positions.has(id))
    .sort((a, b) => (positions.get(a) ?? 0) - (positions.get(b) ?? 0));
  const isLost = kept.length === 0 && !wanted.chosen.hasNew;
  const block: Block = {
    ...(open !== null || isLost
      ? between(at.row, at.row)
      : { rows: kept, hasNew: wanted.chosen.hasNew && hasNewRow }),
    left: Math.min(at.column, anchorColumn),
    right: Math.max(at.column, anchorColumn),
  };
  const textAt = (row: number, column: number): string => {
    const found = rowAt(row);
    return found === null ? "" : (columnAt(column)?.text(found) ?? "");
  };
  const isLocked = (row: R | null, column: Column<R, C> | undefined): boolean =>
    column?.derived === true || (row !== null && column?.readOnly?.(row) === true);

  /** The row of the open cell was removed by somebody: what was typed is said, and written nowhere. */
  const isOrphaned = open !== null && open.row !== null && !isThere(open.row);
  if (open !== null && isOrphaned) {
    setOpen(null);
    setNotice(
      `Somebody removed the row that you were writing in, so nothing was written. You had typed: ${open.text}`,
    );
  }

  /** The texts of a row's cells within the block, those that are only worked out left out. */
  const rowTexts = (id: string): string[] =>
    columns.flatMap((column, i) =>
      i < block.left || i > block.right || column.derived === true
        ? []
        : [textAt(positions.get(id) ?? -1, i)],
    );

  const go = (to: Place, extend: boolean) => {
    const place: Place = {
      row: Math.max(0, Math.min(to.row, last.row)),
      column: Math.max(0, Math.min(to.column, last.column)),
    };
    const spot = spotAt(place);
    setNotice(null);
    setBefore(null);
    setWanted((now) => ({
      at: spot,
      anchor: extend ? now.anchor : spot,
      chosen: between(place.row, extend ? placeOf(now.anchor).row : place.row),
    }));
    if (spot.column !== undefined) actions.select(spot.row, spot.column);
  };

  const begin = (text: string) => {
    if (isLocked(rowAt(at.row), columnAt(at.column))) {
      setNotice("This is worked out from the rest of the plan; change it where it comes from.");
      return;
    }
    setNotice(null);
    setOpen({ ...spotAt(at), text, refusal: null, was: textAt(at.row, at.column) });
  };

  /** The text that the open cell has by now; null for a row that is not to be seen. */
  const textNow = ({ row, column }: Spot<C>): string | null => {
    const found = row === null ? undefined : rows[positions.get(row) ?? -1];
    return found === undefined ? null : (columns.find(({ id }) => id === column)?.text(found) ?? null);
  };

  /** Writes what was typed; the sentence why not, or null. */
  const write = (cell: Open<C>): { readonly refusal: string | null; readonly was: string } => {
    const now = textNow(cell) ?? cell.was;
    if (cell.column === undefined || isOrphaned || cell.text.trim() === cell.was.trim())
      return { refusal: null, was: now };
    if (now.trim() !== cell.was.trim() && now.trim() !== cell.text.trim()) {
      return {
        refusal:
          `Somebody has changed this to "${now}" while you were writing. ` +
          "Press Enter again to write yours, or Escape to leave theirs.",
        was: now,
      };
    }
    return { refusal: actions.edit(cell.row, cell.column, cell.text), was: now };
  };

  const finish = (then: Place | null): boolean => {
    if (open === null) return true;
    const known = open.row === null ? new Set(rows.map(idOf)) : null;
    const { refusal, was } = write(open);
    if (refusal !== null) {
      setOpen({ ...open, refusal, was });
      return false;
    }
    setOpen(null);
    if (then !== null) go(then, false);
    // A row was written at the end: within it one goes on in it, below it in the next new one.
    if (known !== null && then?.row === placeOf(open).row) setBefore(known);
    return true;
  };

  const writeBlock = (texts: readonly (readonly string[])[], onto: readonly string[]) => {
    const from = columnAt(block.left);
    if (from === undefined || texts.length === 0) return;
    if (from.derived === true) {
      setNotice(`${from.title ?? from.head} is worked out from the rest; begin the paste in another column.`);
      return;
    }
    if (onto.length < texts.length && !hasNewRow) {
      setNotice(`${texts.length} rows don't fit: only ${onto.length} are left from here. Paste further up.`);
      return;
    }
    setNotice(actions.paste(texts, from.id, onto));
  };

  const fillDown = () => {
    const [first, ...rest] = block.rows;
    if (first !== undefined && rest.length > 0)
      writeBlock(
        rest.map(() => rowTexts(first)),
        rest,
      );
  };

  /**
   * A series down the block, column by column: from its first row, in the step to its second when that is
   * filled and the block goes on.
   */
  const fillSeries = () => {
    const [one, two, ...more] = block.rows;
    if (one === undefined || two === undefined) return;
    const height = more.length + 2;
    const [first, second] = [rowTexts(one), rowTexts(two)];
    const columnsOfTexts = first.map((text, i) =>
      seriesFrom(text, height > 2 && (second[i] ?? "") !== "" ? (second[i] ?? null) : null, height),
    );
    writeBlock(
      Array.from({ length: height - 1 }, (_, r) => columnsOfTexts.map((texts) => texts[r + 1] ?? "")),
      [two, ...more],
    );
  };

  const clear = () => {
    const cells = block.rows.flatMap((id) =>
      columns
        .slice(block.left, block.right + 1)
        .flatMap((column): CellId<C>[] =>
          isLocked(rowAt(positions.get(id) ?? -1), column) ? [] : [{ row: id, column: column.id }],
        ),
    );
    setNotice(cells.length === 0 ? null : actions.clear(cells));
  };

  const onEditingKey = (event: KeyboardEvent) => {
    if (event.key === "Escape") {
      setOpen(null);
      event.preventDefault();
    } else if (event.key === "Enter") {
      finish({ row: at.row + (event.shiftKey ? -1 : 1), column: at.column });
      event.preventDefault();
    } else if (
      event.key === "Tab" &&
      finish({ row: at.row, column: at.column + (event.shiftKey ? -1 : 1) })
    ) {
      event.preventDefault();
    }
    event.stopPropagation();
  };

  const onCommandKey = (event: KeyboardEvent): boolean => {
    const key = event.key.toLowerCase();
    if ((key === "delete" || key === "backspace") && actions.remove !== undefined) {
      if (block.rows.length > 0) actions.remove(block.rows);
    } else if (key === "d") (event.shiftKey ? fillSeries : fillDown)();
    else return false;
    return true;
  };

  const onKeyDown = (event: KeyboardEvent) => {
    if (open !== null) return onEditingKey(event);
    const command = event.ctrlKey || event.metaKey;
    const to = moved(at, event.key, last, command);
    const column = columnAt(at.column);
    const printable = event.key.length === 1 && !command && !event.altKey;
    if (to !== null) go(to, event.shiftKey);
    else if (event.key === "Enter" || event.key === "F2") begin(textAt(at.row, at.column));
    else if (command && onCommandKey(event)) {
      /* done */
    } else if (event.key === "Delete" || event.key === "Backspace") clear();
    else if (event.altKey && event.key.toLowerCase() === "s" && column !== undefined) sortBy(column.id);
    else if (printable) begin(event.key);
    else return;
    event.preventDefault();
    if (printable) event.stopPropagation();
  };

  const onCopy = (event: ClipboardEvent) => {
    if (open !== null) return;
    const texts = block.rows.map(rowTexts);
    event.clipboardData.setData("text/plain", Papa.unparse(texts, { delimiter: "\t", newline: "\n" }));
    event.preventDefault();
  };

  const onPaste = (event: ClipboardEvent) => {
    if (open !== null) return;
    const text = event.clipboardData.getData("text/plain").replace(/\r?\n$/, "");
    if (text === "") return;
    const texts = Papa.parse<string[]>(text, { delimiter: "\t" }).data;
    const [only] = texts;
    const one = texts.length === 1 && only?.length === 1 ? (only[0] ?? "") : null;
    const first = block.rows[0];
    // One text fills all that is chosen; several rows go down from the first, whatever is chosen below it.
    if (one !== null && first !== undefined)
      writeBlock(
        [...block.rows, ...(block.hasNew ? [""] : [])].map(() => rowTexts(first).map(() => one)),
        block.rows,
      );
    else {
      const top = first === undefined ? rows.length : (positions.get(first) ?? rows.length);
      writeBlock(texts, rows.slice(top, top + texts.length).map(idOf));
    }
    event.preventDefault();
  };

  return {
    at,
    block,
    editing: open,
    notice,
    go,
    begin,
    finish,
    onKeyDown,
    onCopy,
    onPaste,
    cancel: () => setOpen(null),
    type: (text) => setOpen((now) => (now === null ? now : { ...now, text, refusal: null })),
  };
}
