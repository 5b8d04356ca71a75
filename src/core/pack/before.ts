import type { IssuedSheet } from "../records";

/** The sheet that stood before another one, or before the plan as it is; undefined for the first. */
export function sheetBefore(
  sheets: readonly IssuedSheet[],
  sheet: IssuedSheet | null,
): IssuedSheet | undefined {
  const at = sheet === null ? sheets.length : sheets.findIndex(({ issue }) => issue.id === sheet.issue.id);
  return sheets.slice(0, at).findLast(({ isWithdrawn }) => !isWithdrawn);
}
