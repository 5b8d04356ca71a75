import Papa from "papaparse";
import { useState, type ClipboardEvent, type KeyboardEvent } from "react";
import { seriesFrom } from "@/core/register";
import { blockOf, type Block, type Column, type GridActions, type Place } from "./column";

export interface Editing { readonly text: string; readonly refusal: string | null }

interface Shape<R, C extends string> {
  readonly rows: readonly R[];
  readonly idOf: (row: R) => string;
  readonly columns: readonly Column<R, C>[];
  readonly actions: GridActions<C>;
  readonly hasNewRow: boolean;
  readonly sortBy: (column: C) => void;
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

const PAGE = 15;

/** Where a key leads from a place, or null when it is no moving key. */
function moved({ row, column }: Place, key: string, last: Place, far: boolean): Place | null {
  switch (key) {
    case "ArrowUp": return { row: far ? 0 : row - 1, column };
    case "ArrowDown": return { row: far ? last.row : row + 1, column };
    case "ArrowLeft": return { row, column: far ? 0 : column - 1 };
    case "ArrowRight": return { row, column: far ? last.column : column + 1 };
    case "PageUp": return { row: row - PAGE, column };
    case "PageDown": return { row: row + PAGE, column };
    case "Home": return { row: far ? 0 : row, column: 0 };
    case "End": return { row: far ? last.row : row, column: last.column };
    default: return null;
  }
}

/** The behaviour of a spreadsheet: one cell is where you are, a block may be chosen, keys and clipboard work on it. */
export function useGrid<R, C extends string>({ rows, idOf, columns, actions, hasNewRow, sortBy }: Shape<R, C>): Grid {
  const last: Place = { row: rows.length - (hasNewRow ? 0 : 1), column: columns.length - 1 };
  const [wanted, setWanted] = useState<{ at: Place; anchor: Place }>({ at: { row: 0, column: 0 }, anchor: { row: 0, column: 0 } });
  const [editing, setEditing] = useState<Editing | null>(null);
  const [notice, setNotice] = useState<string | null>(null);
  const within = ({ row, column }: Place): Place => ({ row: Math.max(0, Math.min(row, last.row)), column: Math.max(0, Math.min(column, last.column)) });
  const at = within(wanted.at);
  const block = blockOf(at, within(wanted.anchor));
  const rowAt = (row: number): R | null => rows[row] ?? null;
  const columnAt = (column: number) => columns[column];
  const textAt = (row: number, column: number): string => {
    const found = rowAt(row);
    return found === null ? "" : (columnAt(column)?.text(found) ?? "");
  };

  /** The texts of a row's cells within the block, those that are only worked out left out. */
  const rowTexts = (row: number): string[] =>
    columns.flatMap((column, i) => (i < block.left || i > block.right || column.derived === true ? [] : [textAt(row, i)]));

  const go = (to: Place, extend: boolean) => {
    // Not held back at the end of the table: a row that was just written at its end stands there a moment later.
    const place: Place = { row: Math.max(0, to.row), column: Math.max(0, Math.min(to.column, last.column)) };
    setNotice(null);
    setWanted((now) => ({ at: place, anchor: extend ? now.anchor : place }));
    const row = rowAt(place.row);
    const column = columnAt(place.column);
    if (column !== undefined) actions.select(row === null ? null : idOf(row), column.id);
  };

  const begin = (text: string) => {
    const row = rowAt(at.row);
    if (columnAt(at.column)?.derived === true || (row !== null && columnAt(at.column)?.readOnly?.(row) === true)) {
      setNotice("This is worked out from the rest of the plan; change it where it comes from.");
      return;
    }
    setNotice(null);
    setEditing({ text, refusal: null });
  };

  const finish = (then: Place | null): boolean => {
    if (editing === null) return true;
    const row = rowAt(at.row);
    const column = columnAt(at.column);
    if (column !== undefined && editing.text.trim() !== textAt(at.row, at.column).trim()) {
      const refusal = actions.edit(row === null ? null : idOf(row), column.id, editing.text);
      if (refusal !== null) {
        setEditing({ ...editing, refusal });
        return false;
      }
    }
    setEditing(null);
    if (then !== null) go(then, false);
    return true;
  };

  const writeBlock = (texts: readonly (readonly string[])[], top: number, left: number) => {
    const from = columnAt(left);
    if (from === undefined || texts.length === 0) return;
    if (from.derived === true) {
      setNotice(`${from.title ?? from.head} is worked out from the rest; begin the paste in another column.`);
      return;
    }
    const onto = rows.slice(top, top + texts.length).map(idOf);
    if (onto.length < texts.length && !hasNewRow) {
      setNotice(`${texts.length} rows don't fit: only ${onto.length} are left from here. Paste further up.`);
      return;
    }
    setNotice(actions.paste(texts, from.id, onto));
  };

  const fillDown = () => {
    const height = block.bottom - block.top;
    if (height === 0) return;
    const first = rowTexts(block.top);
    writeBlock(Array.from({ length: Math.min(height, rows.length - block.top - 1) }, () => first), block.top + 1, block.left);
  };

  /** A series down the block, column by column: from its first row, in the step to its second when that is filled and the block goes on. */
  const fillSeries = () => {
    const height = Math.min(block.bottom, rows.length - 1) - block.top + 1;
    if (height < 2) return;
    const [first, second] = [rowTexts(block.top), rowTexts(block.top + 1)];
    const columnsOfTexts = first.map((text, i) => seriesFrom(text, height > 2 && (second[i] ?? "") !== "" ? (second[i] ?? null) : null, height));
    writeBlock(Array.from({ length: height - 1 }, (_, r) => columnsOfTexts.map((texts) => texts[r + 1] ?? "")), block.top + 1, block.left);
  };

  const clear = () => {
    for (let row = block.top; row <= block.bottom; row += 1) {
      for (let column = block.left; column <= block.right; column += 1) {
        const [found, of] = [rowAt(row), columnAt(column)];
        const refusal = found === null || of === undefined || of.derived === true || of.readOnly?.(found) === true ? null : actions.edit(idOf(found), of.id, "");
        if (refusal !== null) return setNotice(refusal);
      }
    }
  };

  const onEditingKey = (event: KeyboardEvent) => {
    if (event.key === "Escape") {
      setEditing(null);
      event.preventDefault();
    } else if (event.key === "Enter") {
      finish({ row: at.row + (event.shiftKey ? -1 : 1), column: at.column });
      event.preventDefault();
    } else if (event.key === "Tab" && finish({ row: at.row, column: at.column + (event.shiftKey ? -1 : 1) })) {
      event.preventDefault();
    }
    event.stopPropagation();
  };

  const onKeyDown = (event: KeyboardEvent) => {
    if (editing !== null) return onEditingKey(event);
    const command = event.ctrlKey || event.metaKey;
    const to = moved(at, event.key, last, command);
    const printable = event.key.length === 1 && !command && !event.altKey;
    if (to !== null) go(to, event.shiftKey);
    else if (event.key === "Enter" || event.key === "F2") begin(textAt(at.row, at.column));
    else if ((event.key === "Delete" || event.key === "Backspace") && command && actions.remove !== undefined) {
      const ids = rows.slice(block.top, block.bottom + 1).map(idOf);
      if (ids.length > 0) actions.remove(ids);
    } else if (event.key === "Delete" || event.key === "Backspace") clear();
    else if (command && event.key.toLowerCase() === "d") (event.shiftKey ? fillSeries : fillDown)();
    else if (event.altKey && event.key.toLowerCase() === "s") { const column = columnAt(at.column); if (column !== undefined) sortBy(column.id); }
    else if (printable) begin(event.key);
    else return;
    event.preventDefault();
    if (printable) event.stopPropagation();
  };

  const onCopy = (event: ClipboardEvent) => {
    if (editing !== null) return;
    const texts = Array.from({ length: block.bottom - block.top + 1 }, (_, r) => rowTexts(block.top + r));
    event.clipboardData.setData("text/plain", Papa.unparse(texts, { delimiter: "\t", newline: "\n" }));
    event.preventDefault();
  };

  const onPaste = (event: ClipboardEvent) => {
    if (editing !== null) return;
    const text = event.clipboardData.getData("text/plain").replace(/\r?\n$/, "");
    if (text === "") return;
    const texts = Papa.parse<string[]>(text, { delimiter: "\t" }).data;
    const [only] = texts;
    const one = texts.length === 1 && only?.length === 1 ? (only[0] ?? "") : null;
    const whole = one === null ? texts : Array.from({ length: block.bottom - block.top + 1 }, () => rowTexts(block.top).map(() => one));
    writeBlock(whole, block.top, block.left);
    event.preventDefault();
  };

  return {
    at, block, editing, notice, go, begin, finish, onKeyDown, onCopy, onPaste, cancel: () => setEditing(null),
    type: (text) => setEditing((now) => (now === null ? now : { text, refusal: null })),
  };
}
