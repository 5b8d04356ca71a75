import { putInto } from "../kernel";
import { SITE_TABLES } from "../formats";
import type { PlanIndex } from "../plan";

/** A cell as it stands in both states; null where the row is not there. */
export interface CellApart {
  readonly before: string | null;
  readonly after: string | null;
}
/** A row that is otherwise in the later state. */
export interface RowApart {
  readonly what: "new" | "changed" | "gone";
  readonly cells: readonly CellApart[];
}
/**
 * A table of the site with the rows that differ: the columns that say which row it is first, then those in
 * which something differs, then the rest but for those in which no row has anything.
 */
export interface TableApart {
  readonly title: string;
  /** The end of its file's name. */
  readonly file: string;
  readonly heads: readonly string[];
  readonly rows: readonly RowApart[];
  /** Rows that are the same in both. */
  readonly alike: number;
}

type Row = readonly string[];
type Signature = (row: Row) => string | null;

const signed = (cells: Row): string => JSON.stringify(cells);

/** By what a row is known again, the surest first: all of it, its key, then its key but for one cell. */
const signatures = (key: readonly number[]): Signature[] => [
  signed,
  (row) => {
    const cells = key.map((at) => row[at] ?? "");
    return cells.every((cell) => cell === "") ? null : signed(cells);
  },
  ...key.map(
    (left): Signature =>
      (row) =>
        signed(row.filter((_, at) => at !== left)),
  ),
];

/** Which earlier row each later one was: places in `before` by places in `after`. */
function pairs(before: readonly Row[], after: readonly Row[], key: readonly number[]): Map<number, number> {
  const known = new Map<number, number>();
  const left = new Set(before.keys());
  for (const signature of signatures(key)) {
    const waiting = new Map<string, number[]>();
    for (const at of left) {
      const own = signature(before[at] ?? []);
      if (own !== null) putInto(waiting, own, at);
    }
    for (const [at, row] of after.entries()) {
      const own = known.has(at) ? null : signature(row);
      const was = own === null ? undefined : waiting.get(own)?.shift();
      if (was === undefined) continue;
      known.set(at, was);
      left.delete(was);
    }
  }
  return known;
}

const gone = (row: Row): RowApart => ({
  what: "gone",
  cells: row.map((before) => ({ before, after: null })),
});

function later(row: Row, was: Row | undefined): RowApart {
  return {
    what: was === undefined ? "new" : "changed",
    cells: row.map((after, at) => ({ before: was === undefined ? null : (was[at] ?? ""), after })),
  };
}

/** The rows that differ, in the later order; one that is gone stands behind the one that it stood behind. */
function rowsApart(before: readonly Row[], after: readonly Row[], key: readonly number[]): RowApart[] {
  const known = pairs(before, after, key);
  const nowAt = new Map([...known].map(([is, was]) => [was, is]));
  const behind = new Map<number, RowApart[]>();
  let last = -1;
  for (const [at, row] of before.entries()) {
    const is = nowAt.get(at);
    if (is === undefined) putInto(behind, last, gone(row));
    else last = is;
  }
  return [
    ...(behind.get(-1) ?? []),
    ...after.flatMap((row, at) => {
      const was = known.get(at);
      const earlier = was === undefined ? undefined : before[was];
      const isAlike = earlier !== undefined && signed(earlier) === signed(row);
      return [...(isAlike ? [] : [later(row, earlier)]), ...(behind.get(at) ?? [])];
    }),
  ];
}

/** Which row it is, then what differs in it, then the rest: a table can be wider than a screen. */
function columnsOf(width: number, key: readonly number[], rows: readonly RowApart[]): number[] {
  const isShown = (at: number) => rows.some(({ cells }) => !isEmpty(cells[at] ?? NO_CELL));
  const differs = (at: number) =>
    rows.some(({ what, cells }) => what === "changed" && cells[at]?.before !== cells[at]?.after);
  const rank = (at: number) => {
    if (key.includes(at)) return 0;
    return differs(at) ? 1 : 2;
  };
  return Array.from({ length: width }, (_, at) => at)
    .filter(isShown)
    .sort((a, b) => rank(a) - rank(b) || a - b);
}

const NO_CELL: CellApart = { before: null, after: null };
const isEmpty = ({ before, after }: CellApart): boolean => (before ?? "") === "" && (after ?? "") === "";

/** The tables of a site that differ between two states, with the rows that do. */
export function tablesApart(before: PlanIndex, after: PlanIndex): TableApart[] {
  return SITE_TABLES.flatMap(({ title, file, key, make }): TableApart[] => {
    const [, ...earlier] = make(before);
    const [heads = [], ...now] = make(after);
    const rows = rowsApart(earlier, now, key);
    if (rows.length === 0) return [];
    const columns = columnsOf(heads.length, key, rows);
    return [
      {
        ...{ title, file, alike: now.length - rows.filter(({ what }) => what !== "gone").length },
        heads: columns.map((at) => heads[at] ?? ""),
        rows: rows.map(({ what, cells }) => ({
          what,
          cells: columns.map((at) => cells[at] ?? NO_CELL),
        })),
      },
    ];
  });
}

const cellText = ({ before, after }: CellApart): string => {
  if (before === null || after === null || before === after) return after ?? before ?? "";
  return `${before} → ${after}`;
};

/** The rows of a table that differ, for a spreadsheet: what became of each, and "before → after" in a cell. */
export const tableApartTable = ({ heads, rows }: TableApart): string[][] => [
  ["became", ...heads],
  ...rows.map(({ what, cells }) => [what, ...cells.map(cellText)]),
];
