import type { ReactNode } from "react";
import type { Refusal } from "@/core/planners";

/** A column of an editable table. `text` is what an editor starts with, a copy takes and a paste reads back. */
export interface Column<R, C extends string> {
  readonly id: C;
  readonly head: string;
  readonly title?: string;
  readonly align?: "right" | "centre";
  /** A line at the left: a new group begins. */
  readonly bar?: boolean;
  readonly mono?: boolean;
  /**
   * Says who the row is about: stays in sight when the table is scrolled sideways. The column of names does
   * so unasked.
   */
  readonly held?: boolean;
  readonly width?: string;
  readonly text: (row: R) => string;
  readonly show?: (row: R) => ReactNode;
  readonly readOnly?: (row: R) => boolean;
  /**
   * Worked out from the rest: never edited, and left out of what is copied, so that what is copied can be
   * pasted again.
   */
  readonly derived?: boolean;
  /** What stands below the open cell while one types: how the text is understood. */
  readonly reading?: (row: R | null, text: string) => ReactNode;
  /** Values on offer while typing. */
  readonly offers?: (row: R | null) => readonly string[];
}

export const isHeld = ({ id, held }: { readonly id: string; readonly held?: boolean }): boolean =>
  held ?? id === "name";

/** A cell by what it is, wherever it stands. */
export interface CellId<C extends string> {
  readonly row: string;
  readonly column: C;
}

export interface GridActions<C extends string> {
  /** Writes one cell; `row` is null for the row at the end that is not there yet. */
  readonly edit: (row: string | null, column: C, text: string) => Refusal;
  /** Writes a block of texts onto rows; rows beyond `onto` are new. */
  readonly paste: (rows: readonly (readonly string[])[], from: C, onto: readonly string[]) => Refusal;
  /** Empties cells, all of them in one step. */
  readonly clear: (cells: readonly CellId<C>[]) => Refusal;
  readonly remove?: (rows: readonly string[]) => void;
  readonly select: (row: string | null, column: C) => void;
}

/** A place in the table: row and column numbers. The row behind the last is the one not there yet. */
export interface Place {
  readonly row: number;
  readonly column: number;
}
/**
 * What is chosen: rows by their ids, in the order in which they stand, and a run of columns. The row that is
 * not there yet is in it or not.
 */
export interface Block {
  readonly rows: readonly string[];
  readonly hasNew: boolean;
  readonly left: number;
  readonly right: number;
}

/** How many cells a block has: one is a place and not a choice. */
export const cellsIn = ({ rows, hasNew, left, right }: Block): number =>
  (rows.length + (hasNew ? 1 : 0)) * (right - left + 1);
