import { useLayoutEffect, useMemo, useRef } from "react";
import type { Grid } from "./use-grid";

/** What a pointer does in a cell. */
export interface Hands {
  /** Goes to a place; false where an open cell can't be left. */
  readonly press: (row: number, column: number, extend: boolean) => boolean;
  readonly open: (text: string) => void;
}

/** What a pointer does, as handlers that stay the same while the table behind them changes. */
export function useHands(grid: Grid): Hands {
  const latest = useRef(grid);
  useLayoutEffect(() => {
    latest.current = grid;
  });
  return useMemo(
    () => ({
      press: (row, column, extend) => {
        const { editing, finish, go } = latest.current;
        if (editing !== null && !finish(null)) return false;
        go({ row, column }, extend);
        return true;
      },
      open: (text) => latest.current.begin(text),
    }),
    [],
  );
}
