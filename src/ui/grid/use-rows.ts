import {
  columnFilteringFeature,
  columnVisibilityFeature,
  createFilteredRowModel,
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type RowData,
} from "@tanstack/react-table";
import { useDeferredValue, useMemo, useState } from "react";
import { byNaturalText } from "@/core/kernel";
import type { Column } from "./column";

export interface Sort<C extends string> {
  readonly column: C;
  readonly up: boolean;
}

/** The rows as one wants to see them, and where each stands by its id. */
export interface Rows<R, C extends string> {
  readonly rows: readonly R[];
  readonly positions: ReadonlyMap<string, number>;
  /** Whether there is such a row, seen or filtered out. */
  readonly isThere: (id: string) => boolean;
  readonly sort: Sort<C> | null;
  /** Sorts by a column; again turns the order round, then ends it. */
  readonly sortBy: (column: C) => void;
}

const FEATURES = tableFeatures({
  rowSortingFeature,
  columnFilteringFeature,
  columnVisibilityFeature,
  sortedRowModel: createSortedRowModel(),
  filteredRowModel: createFilteredRowModel(),
});
/** A column that is never drawn: the texts of all the others, for the filter. */
const WORDS = "all words";

function definitionsOf<R extends RowData, C extends string>(
  columns: readonly Column<R, C>[],
): ColumnDef<typeof FEATURES, R>[] {
  const words: ColumnDef<typeof FEATURES, R> = {
    id: WORDS,
    accessorFn: (row) =>
      columns
        .map((column) => column.text(row))
        .join(" ")
        .toLowerCase(),
    filterFn: (row, id, wanted: readonly string[]) => {
      const text = String(row.getValue(id));
      return wanted.every((word) => text.includes(word));
    },
  };
  return [
    words,
    ...columns.map((column): ColumnDef<typeof FEATURES, R> => ({
      // Empty cells come last either way: one sorts to see what is there.
      id: column.id,
      accessorFn: (row) => column.text(row) || undefined,
      sortUndefined: "last",
      sortFn: (a, b, id) => byNaturalText(String(a.getValue(id)), String(b.getValue(id))),
    })),
  ];
}

export function useRows<R extends RowData, C extends string>(
  all: readonly R[],
  columns: readonly Column<R, C>[],
  idOf: (row: R) => string,
  filter: string,
): Rows<R, C> {
  const [sort, setSort] = useState<Sort<C> | null>(null);
  const wanted = useDeferredValue(filter.trim().toLowerCase());
  const ids = columns.map(({ id }) => id).join(" ");
  // The columns are made anew at every render; what they say changes with the rows.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const definitions = useMemo(() => definitionsOf(columns), [all, ids]);
  const data = useMemo(() => [...all], [all]);
  const state = useMemo(
    () => ({
      sorting: sort === null ? [] : [{ id: sort.column as string, desc: !sort.up }],
      columnFilters: wanted === "" ? [] : [{ id: WORDS, value: wanted.split(/\s+/) }],
      columnVisibility: { [WORDS]: false },
    }),
    [sort, wanted],
  );
  const table = useTable({
    features: FEATURES,
    columns: definitions,
    data,
    getRowId: idOf,
    state,
    autoResetAll: false,
  });
  const model = table.getRowModel();
  const known = table.getCoreRowModel().rowsById;
  const rows = useMemo(() => model.rows.map((row) => row.original), [model]);
  const positions = useMemo(() => new Map(model.rows.map((row, i) => [row.id, i])), [model]);
  const sortBy = (id: C) =>
    setSort((now) => {
      if (now?.column !== id) return { column: id, up: true };
      if (now.up) return { column: id, up: false };
      return null;
    });
  return { rows, positions, isThere: (id) => id in known, sort, sortBy };
}
