"use client";

import { useMemo, type ReactNode, type RefObject } from "react";
import { byNaturalText } from "@/core/kernel";
import { useUi } from "../frame/use-ui";
import { usePlan } from "../plan-store/use-plan";
import type { Column } from "./column";
import { EditGrid } from "./EditGrid";
import { Judged } from "./Judged";
import { cellSeverities, textActions } from "./text-table";

interface Named {
  readonly id: string;
  readonly name: string;
}

interface Props<T extends Named, C extends string> {
  readonly label: string;
  /** What stands in it, in few words beside the head. */
  readonly about: string;
  readonly rows: ReadonlyMap<string, T>;
  readonly columns: readonly (readonly [C, string])[];
  readonly text: (row: T, column: C) => string;
  readonly actions: Parameters<typeof textActions<C>>[0];
  /** What kind of selection a row is. */
  readonly what: string;
  readonly scroller: RefObject<HTMLDivElement | null>;
  readonly newRow: { readonly [K in C]?: string };
  /** Which cell a finding is about: there its sign stands. */
  readonly cellOf?: Readonly<Record<string, C>>;
  readonly mono?: ReadonlySet<C>;
  readonly offers?: { readonly [K in C]?: readonly string[] };
  /** What stands at the left of the head in place of the label. */
  readonly head?: ReactNode;
  /** What stands before a cell's text. */
  readonly before?: (row: T, column: C) => ReactNode;
  /** What a new one is added by, at the right of the head. */
  readonly add?: ReactNode;
  /** Whether the table goes while there is nothing in it. */
  readonly isHiddenEmpty?: boolean;
}

const NOTHING = {};
const NO_CELLS: ReadonlySet<string> = new Set();

/** A table of texts, a row each, in the order of their names; written, pasted and removed in place. */
export function TextTable<T extends Named, C extends string>(props: Props<T, C>) {
  const { label, about, rows, columns, text, actions, scroller, newRow, add } = props;
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const inOrder = useMemo(
    () => [...rows.values()].sort((a, b) => byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id)),
    [rows],
  );
  const severities = cellSeverities(list, props.cellOf ?? (NOTHING as Record<string, C>));
  const mono: ReadonlySet<string> = props.mono ?? NO_CELLS;
  const drawn = columns.map(([id, head]): Column<T, C> => ({
    id,
    head,
    mono: mono.has(id),
    text: (row) => text(row, id),
    offers: () => props.offers?.[id] ?? [],
    show: (row) => (
      <Judged severity={severities.get(`${row.id} ${id}`)}>
        {props.before?.(row, id)}
        {text(row, id)}
      </Judged>
    ),
  }));
  return (
    <section aria-label={label} className="border-t border-ink">
      <div className="flex min-h-10 flex-wrap items-center gap-2 px-4 py-1">
        {props.head ?? <h2 className="text-15">{label}</h2>}
        <span className="text-13 text-ink2">{about}</span>
        <span className="flex-1" />
        {add}
      </div>
      {inOrder.length === 0 && props.isHiddenEmpty === true ? null : (
        <div className="overflow-x-auto">
          <EditGrid<T, C>
            label={label}
            rows={inOrder}
            idOf={(row) => row.id}
            columns={drawn}
            actions={textActions(actions)}
            scroller={scroller}
            selected={selection?.what === props.what && "id" in selection ? selection.id : null}
            newRow={newRow}
          />
        </div>
      )}
    </section>
  );
}
