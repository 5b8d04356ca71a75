import Papa from "papaparse";
import { seriesFrom } from "@/core/register";
import type { Block, CellId, Column, GridActions } from "./column";
import type { Shape } from "./use-spot";

/** What is done to the block that is chosen: copied, filled, pasted onto, emptied. */
export interface Filling {
  readonly copied: () => string;
  readonly paste: (text: string) => void;
  readonly fillDown: () => void;
  readonly fillSeries: () => void;
  readonly clear: () => void;
}

/** Whether a cell is only worked out, or not to be written in this row. */
export const isLocked = <R, C extends string>(row: R | null, column: Column<R, C> | undefined): boolean =>
  column?.derived === true || (row !== null && column?.readOnly?.(row) === true);

// eslint-disable-next-line max-lines-per-function -- the five things done to a block, which share its cells
export function fillingOf<R, C extends string>(
  { shown, idOf, columns, hasNewRow }: Shape<R, C>,
  block: Block,
  actions: GridActions<C>,
  notify: (words: string | null) => void,
): Filling {
  const { rows, positions } = shown;
  const rowOf = (id: string): R | null => rows[positions.get(id) ?? -1] ?? null;

  /** The texts of a row's cells within the block, those that are only worked out left out. */
  const rowTexts = (id: string): string[] => {
    const row = rowOf(id);
    return columns
      .slice(block.left, block.right + 1)
      .filter((column) => column.derived !== true)
      .map((column) => (row === null ? "" : column.text(row)));
  };

  const write = (texts: readonly (readonly string[])[], onto: readonly string[]) => {
    const from = columns[block.left];
    if (from === undefined || texts.length === 0) return;
    if (from.derived === true) {
      notify(`${from.title ?? from.head} is worked out from the rest; begin the paste in another column.`);
      return;
    }
    if (onto.length < texts.length && !hasNewRow) {
      notify(`${texts.length} rows don't fit: only ${onto.length} are left from here. Paste further up.`);
      return;
    }
    notify(actions.paste(texts, from.id, onto));
  };

  return {
    copied: () => Papa.unparse(block.rows.map(rowTexts), { delimiter: "\t", newline: "\n" }),
    fillDown: () => {
      const [first, ...rest] = block.rows;
      if (first === undefined || rest.length === 0) return;
      write(
        rest.map(() => rowTexts(first)),
        rest,
      );
    },
    /**
     * A series down the block, column by column: from its first row, in the step to its second when that is
     * filled and the block goes on.
     */
    fillSeries: () => {
      const [one, two, ...more] = block.rows;
      if (one === undefined || two === undefined) return;
      const height = more.length + 2;
      const [first, second] = [rowTexts(one), rowTexts(two)];
      const series = first.map((text, i) => seriesFrom(text, (height > 2 && second[i]) || null, height));
      write(
        Array.from({ length: height - 1 }, (_, r) => series.map((texts) => texts[r + 1] ?? "")),
        [two, ...more],
      );
    },
    paste: (text) => {
      const texts = Papa.parse<string[]>(text, { delimiter: "\t" }).data;
      const [first] = block.rows;
      const isOne = texts.length === 1 && texts[0]?.length === 1;
      // One text fills all that is chosen; several rows go down from the first, whatever is chosen below it.
      if (isOne && first !== undefined) {
        const filled = [...block.rows, ...(block.hasNew ? [""] : [])];
        return write(
          filled.map(() => rowTexts(first).map(() => texts[0]?.[0] ?? "")),
          block.rows,
        );
      }
      const top = first === undefined ? rows.length : (positions.get(first) ?? rows.length);
      write(texts, rows.slice(top, top + texts.length).map(idOf));
    },
    clear: () => {
      const cells = block.rows.flatMap((id) =>
        columns
          .slice(block.left, block.right + 1)
          .filter((column) => !isLocked(rowOf(id), column))
          .map((column): CellId<C> => ({ row: id, column: column.id })),
      );
      notify(cells.length === 0 ? null : actions.clear(cells));
    },
  };
}
