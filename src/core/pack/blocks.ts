import type { Block, Cell } from "./model";

/** What stays in the office: notes that somebody made for themselves. */
const OURS: ReadonlySet<string> = new Set(["Note", "Notes", "note", "notes"]);

const isEmpty = (cell: Cell | undefined): boolean =>
  cell === undefined ||
  cell === "" ||
  (typeof cell === "object" && cell.text === "" && cell.tapes.length === 0);

/**
 * A table, heads first, as a block: notes of our own stay away, and so do columns in which nothing stands. No
 * block for a table without rows; `only` keeps these columns, in the table's own order.
 */
export function tableBlock(table: readonly (readonly Cell[])[], only?: readonly string[]): Block[] {
  const [heads = [], ...rows] = table;
  const kept = heads.flatMap((head, at) =>
    typeof head === "string" &&
    !OURS.has(head) &&
    (only === undefined || only.includes(head)) &&
    rows.some((row) => !isEmpty(row[at]))
      ? [{ head, at }]
      : [],
  );
  return rows.length === 0 || kept.length === 0
    ? []
    : [
        {
          is: "table",
          heads: kept.map(({ head }) => head),
          rows: rows.map((row) => kept.map(({ at }) => row[at] ?? "")),
        },
      ];
}

export const text = (words: string): Block => ({ is: "text", text: words, tone: "plain" });
export const quiet = (words: string): Block => ({ is: "text", text: words, tone: "quiet" });
export const caution = (words: string): Block => ({ is: "text", text: words, tone: "caution" });

/** Blocks under a heading of their own; nothing where there are none. */
export const under = (heading: string, blocks: readonly Block[]): Block[] =>
  blocks.length === 0 ? [] : [{ is: "heading", text: heading }, ...blocks];
