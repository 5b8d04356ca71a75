import { useDeferredValue, useMemo, useState } from "react";
import { byNaturalText } from "@/core/kernel";
import type { Column } from "./column";

export interface Sort<C extends string> { readonly column: C; readonly up: boolean }

function textOf<R, C extends string>(texts: Map<R, string>, columns: readonly Column<R, C>[], row: R): string {
  const known = texts.get(row) ?? columns.map((one) => one.text(row)).join(" ").toLowerCase();
  texts.set(row, known);
  return known;
}

/** The rows as one wants to see them: those with all the words, in the order of a column. Sorting by a column again turns it round, then ends it. */
export function useOrder<R, C extends string>(all: readonly R[], columns: readonly Column<R, C>[], filter: string) {
  const [sort, setSort] = useState<Sort<C> | null>(null);
  const wanted = useDeferredValue(filter.trim().toLowerCase());
  const column = sort === null ? undefined : columns.find((one) => one.id === sort.column);
  // A row's words are put together when they are first looked for; the rows are new ones whenever the plan is.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const texts = useMemo(() => new Map<R, string>(), [all]);
  const rows = useMemo(() => {
    const words = wanted.split(/\s+/).filter((word) => word !== "");
    const kept = words.length === 0 ? all : all.filter((row) => { const text = textOf(texts, columns, row); return words.every((word) => text.includes(word)); });
    if (column === undefined || sort === null) return kept;
    const keyed = kept.map((row, i) => ({ row, text: column.text(row), i }));
    // Empty cells come last either way: one sorts to see what is there.
    keyed.sort((a, b) => Number(a.text === "") - Number(b.text === "") || (sort.up ? 1 : -1) * byNaturalText(a.text, b.text) || a.i - b.i);
    return keyed.map(({ row }) => row);
  // The columns are made anew at every render; what they say changes with the rows.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [all, texts, wanted, sort, column?.id]);
  const sortBy = (id: C) => setSort((now) => (now?.column !== id ? { column: id, up: true } : now.up ? { column: id, up: false } : null));
  return { rows, sort, sortBy };
}
