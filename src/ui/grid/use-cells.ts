import { useRef, useState, type KeyboardEvent } from "react";
import type { Place } from "./column";
import { moved } from "./moved";

const between = (value: number, last: number): number => Math.max(0, Math.min(value, last));

/**
 * A table whose cells are gone through by keys: one of them is a stop for Tab, and carries
 * `data-cell="row-column"`. `chosen` is told where one arrives.
 */
export function useCells(last: Place, begin: Place, chosen: (place: Place) => void) {
  const table = useRef<HTMLTableElement>(null);
  const [wanted, setAt] = useState(begin);
  const inside = ({ row, column }: Place): Place => ({
    row: between(row, last.row),
    column: between(column, last.column),
  });
  const at = inside(wanted);
  const go = (to: Place) => {
    const place = inside(to);
    setAt(place);
    chosen(place);
    table.current?.querySelector<HTMLElement>(`[data-cell="${place.row}-${place.column}"]`)?.focus();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const next = moved(at, event.key, last, event.ctrlKey || event.metaKey);
    if (next === null) return;
    go(next);
    event.preventDefault();
  };
  return { table, at, go, enter: setAt, onKeyDown };
}
