import type { Refusal } from "./planner";

/** Cells of one row of a table, by column. */
export type RowCells<C extends string> = readonly (readonly [C, string])[];

/**
 * Writes a block of texts into a table row by row: `from` is the column of the first text, `onto` the rows that
 * are there; rows beyond them are new (null). Of several rows the first refusal says which row it is about.
 */
export function pasteInto<C extends string>(
  columns: readonly (readonly [C, string])[],
  {
    rows,
    from,
    onto,
  }: {
    readonly rows: readonly (readonly string[])[];
    readonly from: C;
    readonly onto: readonly string[];
  },
  write: (id: string | null, cells: RowCells<C>) => Refusal,
): Refusal {
  const start = columns.findIndex(([column]) => column === from);
  for (const [i, row] of rows.entries()) {
    const cells = row.flatMap((text, at): [C, string][] => {
      const column = columns[start + at]?.[0];
      return column === undefined ? [] : [[column, text]];
    });
    const refusal = write(onto[i] ?? null, cells);
    if (refusal !== null) return rows.length === 1 ? refusal : `Row ${i + 1}: ${refusal}`;
  }
  return null;
}

/**
 * The cells of a row as fields; of a new row those that say something. A sentence where one can't be read.
 */
export function readCells<C extends string, F extends object>(
  cells: RowCells<C>,
  isNew: boolean,
  read: (column: C, text: string) => Partial<F> | string,
): Partial<F> | string {
  let fields: Partial<F> = {};
  for (const [column, typed] of cells) {
    const text = typed.trim();
    if (isNew && text === "") continue;
    const reading = read(column, text);
    if (typeof reading === "string") return reading;
    fields = { ...fields, ...reading };
  }
  return fields;
}
