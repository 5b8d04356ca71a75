import type { Place } from "./column";

const PAGE = 15;

/** Where a key leads from a place, or null when it is no moving key. */
export function moved({ row, column }: Place, key: string, last: Place, far: boolean): Place | null {
  switch (key) {
    case "ArrowUp":
      return { row: far ? 0 : row - 1, column };
    case "ArrowDown":
      return { row: far ? last.row : row + 1, column };
    case "ArrowLeft":
      return { row, column: far ? 0 : column - 1 };
    case "ArrowRight":
      return { row, column: far ? last.column : column + 1 };
    case "PageUp":
      return { row: row - PAGE, column };
    case "PageDown":
      return { row: row + PAGE, column };
    case "Home":
      return { row: far ? 0 : row, column: 0 };
    case "End":
      return { row: far ? last.row : row, column: last.column };
    default:
      return null;
  }
}
