import { toast } from "sonner";
import type { Finding, Severity } from "@/core/checks";
import type { Refusal } from "@/core/planners";
import type { CellId, GridActions } from "./column";

/**
 * The worst severity of what is found about a cell, by "id column"; `cellOf` says which cell a check is about.
 */
export function cellSeverities<C extends string>(
  list: readonly Finding[],
  cellOf: Readonly<Record<string, C>>,
): ReadonlyMap<string, Severity> {
  const severities = new Map<string, Severity>();
  for (const finding of [...list].reverse()) {
    const column = cellOf[finding.code];
    if (column !== undefined)
      for (const { id } of finding.subjects) severities.set(`${id} ${column}`, finding.severity);
  }
  return severities;
}

interface TextTable<C extends string> {
  readonly edit: (row: string | null, column: C, text: string) => Refusal;
  readonly paste: (rows: readonly (readonly string[])[], from: C, onto: readonly string[]) => Refusal;
  readonly remove: (rows: readonly string[]) => Refusal;
  readonly select: (row: string, column: C) => void;
}

/** What a table of texts does with keys and mouse; clearing empties the cells of the first chosen column. */
export const textActions = <C extends string>({
  edit,
  paste,
  remove,
  select,
}: TextTable<C>): GridActions<C> => ({
  edit,
  paste,
  clear: (cells: readonly CellId<C>[]) => {
    const [first] = cells;
    if (first === undefined) return null;
    const own = cells.filter(({ column }) => column === first.column);
    return paste(
      own.map(() => [""]),
      first.column,
      own.map(({ row }) => row),
    );
  },
  remove: (rows) => {
    const refusal = remove(rows);
    if (refusal !== null) toast.error(refusal);
  },
  select: (row, column) => {
    if (row !== null) select(row, column);
  },
});
