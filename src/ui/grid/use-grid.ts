import type { ClipboardEvent, KeyboardEvent } from "react";
import type { Block, GridActions, Place } from "./column";
import { fillingOf, type Filling } from "./filling";
import { moved } from "./moved";
import type { Shape } from "./use-spot";
import { useWriting, type Editing, type Writing } from "./use-writing";

export interface Grid {
  readonly at: Place;
  readonly block: Block;
  readonly editing: Editing | null;
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

interface GridShape<R, C extends string> extends Shape<R, C> {
  readonly actions: GridActions<C>;
}

/** A key while a cell is open: it belongs to the cell, whatever it does elsewhere. */
function onWritingKey<C extends string>(event: KeyboardEvent, { at, cancel, finish }: Writing<C>): void {
  const back = event.shiftKey ? -1 : 1;
  if (event.key === "Escape") {
    cancel();
    event.preventDefault();
  } else if (event.key === "Enter") {
    finish({ row: at.row + back, column: at.column });
    event.preventDefault();
  } else if (event.key === "Tab" && finish({ row: at.row, column: at.column + back })) {
    event.preventDefault();
  }
  event.stopPropagation();
}

/** A key with Ctrl or ⌘; false when it is none of the table's. */
function onCommandKey<C extends string>(
  event: KeyboardEvent,
  block: Block,
  remove: GridActions<C>["remove"],
  { fillDown, fillSeries }: Filling,
): boolean {
  const key = event.key.toLowerCase();
  if (key === "d") {
    if (event.shiftKey) fillSeries();
    else fillDown();
    return true;
  }
  if ((key !== "delete" && key !== "backspace") || remove === undefined) return false;
  if (block.rows.length > 0) remove(block.rows);
  return true;
}

/**
 * The behaviour of a spreadsheet: one cell is where you are, a block may be chosen, keys and clipboard work
 * on it.
 */
export function useGrid<R, C extends string>(shape: GridShape<R, C>): Grid {
  const { shown, columns, actions } = shape;
  const writing = useWriting(shape, actions);
  const { at, block, editing, board, go, begin } = writing;
  const filling = fillingOf(shape, block, actions, writing.setNotice);
  const textHere = () => {
    const row = shown.rows[at.row];
    return row === undefined ? "" : (columns[at.column]?.text(row) ?? "");
  };

  /** A key that neither moves nor commands; false when it is none of the table's. */
  const onPlainKey = (event: KeyboardEvent, isTyped: boolean): boolean => {
    const column = columns[at.column];
    if (event.key === "Enter" || event.key === "F2") begin(textHere());
    else if (event.key === "Delete" || event.key === "Backspace") filling.clear();
    else if (event.altKey && event.key.toLowerCase() === "s" && column !== undefined) shown.sortBy(column.id);
    else if (isTyped) begin(event.key);
    else return false;
    return true;
  };

  const onKeyDown = (event: KeyboardEvent) => {
    if (editing !== null) return onWritingKey(event, writing);
    const command = event.ctrlKey || event.metaKey;
    const isTyped = event.key.length === 1 && !command && !event.altKey;
    const to = moved(at, event.key, board.last, command);
    if (to !== null) go(to, event.shiftKey);
    else if (!(command && onCommandKey(event, block, actions.remove, filling)) && !onPlainKey(event, isTyped))
      return;
    event.preventDefault();
    if (isTyped) event.stopPropagation();
  };

  return {
    at,
    block,
    editing,
    notice: writing.notice,
    go,
    begin,
    type: writing.type,
    finish: writing.finish,
    cancel: writing.cancel,
    onKeyDown,
    onCopy: (event) => {
      if (editing !== null) return;
      event.clipboardData.setData("text/plain", filling.copied());
      event.preventDefault();
    },
    onPaste: (event) => {
      if (editing !== null) return;
      const text = event.clipboardData.getData("text/plain").replace(/\r?\n$/, "");
      if (text === "") return;
      filling.paste(text);
      event.preventDefault();
    },
  };
}
