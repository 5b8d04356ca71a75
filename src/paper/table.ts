import type { Content, CustomTableLayout, TableCell } from "pdfmake/interfaces";
import type { Cell } from "@/core/pack";
import { areCrammed, CELL_PAD, needsOf, widthsOf } from "./columns";
import { HAIR, INK, QUIET_INK } from "./inks";
import { cellText, isFigures, type Setter } from "./setter";

/** The sizes of type in which a table is tried, the largest that fits is taken. */
const SIZES_TRIED = [8, 7.25, 6.5] as const;
const NUDGE = 2;

export interface Table {
  readonly heads: readonly string[];
  readonly rows: readonly (readonly Cell[])[];
}

interface Fit {
  readonly size: number;
  readonly widths: readonly number[];
}

/** So few rows of so many columns read better one below another. */
const FEW_ROWS = 2;
const MANY_HEADS = 10;

/** How a table fits into a width in points; null where it has to be told row by row. */
function fitOf({ heads, rows }: Table, width: number): Fit | null {
  if (rows.length <= FEW_ROWS && heads.length > MANY_HEADS) return null;
  const texts = rows.map((row) => row.map(cellText));
  const needs = needsOf([heads, ...texts]);
  const figures = heads.map((_, at) => texts.every((row) => row[at] === "" || isFigures(row[at] ?? "")));
  for (const size of SIZES_TRIED) {
    const widths = widthsOf(needs, { width, size, figures });
    if (widths !== null) return { size, widths: widths.map((width) => width - 2 * CELL_PAD) };
  }
  return null;
}

/** Whether a table asks for the wider side of the page, where it has room at all. */
export function wantsWide(table: Table, upright: number, wide: number): boolean {
  const needs = needsOf([table.heads, ...table.rows.map((row) => row.map(cellText))]);
  const isNarrow = areCrammed(needs, upright, SIZES_TRIED[0]) || fitOf(table, upright) === null;
  return isNarrow && fitOf(table, wide) !== null;
}

const layoutWith = (headerRows: number): CustomTableLayout => ({
  hLineWidth: (at, node) => {
    if (at === headerRows) return 0.8;
    return at < headerRows || at === node.table.body.length ? 0 : 0.4;
  },
  vLineWidth: () => 0,
  hLineColor: (at) => (at === headerRows ? INK : HAIR),
  paddingLeft: () => CELL_PAD,
  paddingRight: () => CELL_PAD,
  paddingTop: () => NUDGE,
  paddingBottom: () => NUDGE,
});

/** A table as it is set, its heads again on every page; row by row where it is too wide for the page. */
export function tableContent(setter: Setter, table: Table, width: number, above: Content | null): Content[] {
  const fit = fitOf(table, width);
  if (fit === null) return [...(above === null ? [] : [above]), ...cards(setter, table)];
  const { heads, rows } = table;
  const first: TableCell[][] =
    above === null
      ? []
      : [
          [
            {
              ...(above as object),
              colSpan: heads.length,
              border: [false, false, false, false],
            } as TableCell,
          ],
        ];
  for (const row of first) while (row.length < heads.length) row.push({});
  const headerRows = first.length + 1;
  return [
    {
      margin: [-CELL_PAD, 2, 0, 10],
      fontSize: fit.size,
      layout: layoutWith(headerRows),
      table: {
        headerRows,
        keepWithHeaderRows: 1,
        dontBreakRows: true,
        widths: [...fit.widths],
        body: [
          ...first,
          heads.map((head): TableCell => ({ ...setter.text(head), bold: true, color: QUIET_INK })),
          ...rows.map((row) => row.map((cell): TableCell => setter.cell(cell) as TableCell)),
        ],
      },
    },
  ];
}

/** A table that is too wide, row by row: each head with its value. */
function cards(setter: Setter, { heads, rows }: Table): Content[] {
  return rows.map((row): Content => {
    const [first = "", ...rest] = row;
    const told = rest.flatMap((cell, at) =>
      cellText(cell) === "" ? [] : [{ head: heads[at + 1] ?? "", cell }],
    );
    return {
      margin: [0, 2, 0, 6],
      fontSize: 8,
      text: [
        { ...(setter.cell(first) as object), bold: true },
        ...told.flatMap(({ head, cell }) => [
          { text: "  " },
          { ...setter.text(`${head}\u00a0`), color: QUIET_INK },
          setter.cell(cell),
        ]),
      ] as never,
    };
  });
}
