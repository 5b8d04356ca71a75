import { useState } from "react";
import type { GridActions, Place } from "./column";
import { isLocked } from "./filling";
import { useSpot, type Shape, type Spot, type Where } from "./use-spot";

export interface Editing {
  readonly text: string;
  readonly refusal: string | null;
}

/** An open cell; `was`: the text it had when what is typed was begun. */
interface Open<C extends string> extends Spot<C>, Editing {
  readonly was: string;
}

/** Where one is, and the cell that is written in. */
export interface Writing<C extends string> extends Where<C> {
  readonly editing: Editing | null;
  /** A refusal of something that was not typed into an open cell: a paste, a fill, a clear. */
  readonly notice: string | null;
  readonly setNotice: (words: string | null) => void;
  readonly begin: (text: string) => void;
  readonly type: (text: string) => void;
  /** Writes what was typed and goes on at `then`; false when it is refused, and the cell stays open. */
  readonly finish: (then: Place | null) => boolean;
  readonly cancel: () => void;
}

const DERIVED = "This is worked out from the rest of the plan; change it where it comes from.";
const orphaned = (text: string) =>
  `Somebody removed the row that you were writing in, so nothing was written. You had typed: ${text}`;
const overtaken = (now: string) =>
  `Somebody has changed this to "${now}" while you were writing. ` +
  "Press Enter again to write yours, or Escape to leave theirs.";

export function useWriting<R, C extends string>(shape: Shape<R, C>, actions: GridActions<C>): Writing<C> {
  const { shown, idOf, columns } = shape;
  const { rows, positions, isThere } = shown;
  const [open, setOpen] = useState<Open<C> | null>(null);
  const [notice, setNotice] = useState<string | null>(null);
  const where = useSpot(shape, open, (spot) => {
    setNotice(null);
    if (spot.column !== undefined) actions.select(spot.row, spot.column);
  });
  const { at, board, go } = where;

  /** The row of the open cell was removed by somebody: what was typed is said, and written nowhere. */
  const isOrphaned = open !== null && open.row !== null && !isThere(open.row);
  if (open !== null && isOrphaned) {
    setOpen(null);
    setNotice(orphaned(open.text));
  }

  /** The text that a cell has by now; null for a row that is not to be seen. */
  const textNow = ({ row, column }: Spot<C>): string | null => {
    const found = row === null ? undefined : rows[positions.get(row) ?? -1];
    return found === undefined ? null : (columns.find(({ id }) => id === column)?.text(found) ?? null);
  };

  const begin = (text: string) => {
    const spot = board.spotAt(at);
    if (isLocked(rows[at.row] ?? null, columns[at.column])) {
      setNotice(DERIVED);
      return;
    }
    setNotice(null);
    setOpen({ ...spot, text, refusal: null, was: textNow(spot) ?? "" });
  };

  /** Writes what was typed; the sentence why not, or null. */
  const write = (cell: Open<C>): { readonly refusal: string | null; readonly was: string } => {
    const now = textNow(cell) ?? cell.was;
    const [was, is, typed] = [cell.was.trim(), now.trim(), cell.text.trim()];
    if (cell.column === undefined || isOrphaned || typed === was) return { refusal: null, was: now };
    if (is !== was && is !== typed) return { refusal: overtaken(now), was: now };
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
    if (known !== null && then?.row === board.placeOf(open).row) where.followNewRow(known);
    return true;
  };

  return {
    ...where,
    editing: open,
    notice,
    setNotice,
    begin,
    finish,
    cancel: () => setOpen(null),
    type: (text) => setOpen((now) => (now === null ? now : { ...now, text, refusal: null })),
  };
}
