import { useState } from "react";
import type { Block, Column, Place } from "./column";
import type { Rows } from "./use-rows";

/**
 * A cell by its row's id and its column's, so that it stays what it is when rows come and go; the row is null
 * for the one that is not there yet. `near`: where it was last seen, for when its row is gone.
 */
export interface Spot<C extends string> {
  readonly row: string | null;
  readonly column: C | undefined;
  readonly near: number;
}

/** What a table is made of, as the hooks of the grid need it. */
export interface Shape<R, C extends string> {
  readonly shown: Rows<R, C>;
  readonly idOf: (row: R) => string;
  readonly columns: readonly Column<R, C>[];
  readonly hasNewRow: boolean;
}

type Chosen = Pick<Block, "rows" | "hasNew">;

/** The table as places and spots. */
export interface Board<C extends string> {
  readonly last: Place;
  readonly spotAt: (place: Place) => Spot<C>;
  readonly placeOf: (spot: Spot<C>) => Place;
  /** The ids of the rows between two places, and whether the row that is not there yet is among them. */
  readonly between: (a: number, b: number) => Chosen;
}

function boardOf<R, C extends string>({ shown, idOf, columns, hasNewRow }: Shape<R, C>): Board<C> {
  const { rows, positions } = shown;
  const last: Place = { row: rows.length - (hasNewRow ? 0 : 1), column: columns.length - 1 };
  const rowOf = ({ row, near }: Spot<C>): number => {
    if (row === null) return hasNewRow ? last.row : near;
    return positions.get(row) ?? near;
  };
  return {
    last,
    spotAt: ({ row, column }) => {
      const found = rows[row];
      return { row: found === undefined ? null : idOf(found), column: columns[column]?.id, near: row };
    },
    placeOf: (spot) => ({
      row: Math.max(0, Math.min(rowOf(spot), last.row)),
      column: Math.max(
        0,
        columns.findIndex(({ id }) => id === spot.column),
      ),
    }),
    between: (a, b) => ({
      rows: rows.slice(Math.min(a, b), Math.max(a, b) + 1).map(idOf),
      hasNew: Math.max(a, b) >= rows.length,
    }),
  };
}

interface Wanted<C extends string> {
  readonly at: Spot<C>;
  readonly anchor: Spot<C>;
  readonly chosen: Chosen;
}

/** Where one is in a table and what is chosen; `open`: the cell that is written in, which holds the place. */
export interface Where<C extends string> {
  readonly at: Place;
  readonly block: Block;
  readonly go: (to: Place, extend: boolean) => void;
  /** Goes on in the row that comes next: one was written at the end. Given the rows there were before. */
  readonly followNewRow: (before: ReadonlySet<string>) => void;
  readonly board: Board<C>;
}

export function useSpot<R, C extends string>(
  shape: Shape<R, C>,
  open: Spot<C> | null,
  onGo: (spot: Spot<C>) => void,
): Where<C> {
  const { shown, idOf, hasNewRow } = shape;
  const { rows, positions } = shown;
  const board = boardOf(shape);
  const { last, spotAt, placeOf, between } = board;
  const [wanted, setWanted] = useState<Wanted<C>>(() => {
    const first = spotAt({ row: 0, column: 0 });
    return { at: first, anchor: first, chosen: between(0, 0) };
  });
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
  const at = placeOf(open ?? wanted.at);
  const anchorColumn = open === null ? placeOf(wanted.anchor).column : at.column;
  // Rows that have gone since are chosen no more; one that has come in between is not chosen.
  const kept = wanted.chosen.rows
    .filter((id) => positions.has(id))
    .sort((a, b) => (positions.get(a) ?? 0) - (positions.get(b) ?? 0));
  const isLost = kept.length === 0 && !wanted.chosen.hasNew;
  const chosen: Chosen =
    open !== null || isLost
      ? between(at.row, at.row)
      : { rows: kept, hasNew: wanted.chosen.hasNew && hasNewRow };
  const go = (to: Place, extend: boolean) => {
    const place: Place = {
      row: Math.max(0, Math.min(to.row, last.row)),
      column: Math.max(0, Math.min(to.column, last.column)),
    };
    const spot = spotAt(place);
    setBefore(null);
    setWanted((now) => ({
      at: spot,
      anchor: extend ? now.anchor : spot,
      chosen: between(place.row, extend ? placeOf(now.anchor).row : place.row),
    }));
    onGo(spot);
  };
  return {
    at,
    block: { ...chosen, left: Math.min(at.column, anchorColumn), right: Math.max(at.column, anchorColumn) },
    go,
    followNewRow: setBefore,
    board,
  };
}
