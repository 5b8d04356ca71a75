"use client";

import { addException, pasteExceptions, removeExceptions, writeException } from "@/core/commands";
import { useMemo, useState, type FormEvent, type RefObject } from "react";
import { toast } from "sonner";
import type { Finding } from "@/core/checks";
import { byNaturalText } from "@/core/kernel";
import type { Exception, PlanIndex } from "@/core/plan";
import { EXCEPTION_COLUMNS, exceptionCellText, type ExceptionColumn } from "@/core/planners";
import { useUi } from "../../frame/use-ui";
import type { Column } from "../../grid/column";
import { EditGrid } from "../../grid/EditGrid";
import { Judged } from "../../grid/Judged";
import { cellSeverities, textActions } from "../../grid/text-table";
import { useIndex, usePlan } from "../../plan-store/use-plan";

/** Which cell a finding is about: there its sign stands. */
const CELL_OF: Readonly<Record<string, ExceptionColumn>> = {
  "exception-over": "last",
  "exception-host-moves": "from",
  "exception-needless": "services",
  "vendor-stays": "hours",
};
const MONO: ReadonlySet<ExceptionColumn> = new Set(["hours", "first", "last"]);

function columnsOf(index: PlanIndex, list: readonly Finding[]): Column<Exception, ExceptionColumn>[] {
  const severities = cellSeverities(list, CELL_OF);
  const ends = [
    ...[...index.plan.segment.values()].map(({ name }) => name),
    ...[...index.plan.host.values()].filter(({ ipv4 }) => ipv4 !== null).map(({ name }) => name),
  ];
  const offers: Partial<Record<ExceptionColumn, readonly string[]>> = {
    from: ends,
    to: ends,
    services: ["any", "https", "ssh"],
    hours: ["always", "Mon-Fri 08:00-17:00"],
  };
  return EXCEPTION_COLUMNS.map(([id, head]) => ({
    id,
    head,
    mono: MONO.has(id),
    text: (exception) => exceptionCellText(index, exception, id),
    offers: () => offers[id] ?? [],
    show: (exception) => (
      <Judged severity={severities.get(`${exception.id} ${id}`)}>
        {exceptionCellText(index, exception, id)}
      </Judged>
    ),
  }));
}

/** What passes beside the walls: narrower than a zone, with somebody who answers for it, and for a time. */
export function ExceptionTable({ scroller }: { scroller: RefObject<HTMLDivElement | null> }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const exceptions = useMemo(
    () =>
      [...index.plan.exception.values()].sort(
        (a, b) => byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id),
      ),
    [index],
  );
  const actions = textActions<ExceptionColumn>({
    edit: (id, column, text) =>
      edit(
        id === null
          ? pasteExceptions({ rows: [[text]], from: column, onto: [] })
          : writeException({ exception: id, column, text }),
      ),
    paste: (rows, from, onto) => edit(pasteExceptions({ rows, from, onto })),
    remove: (ids) => edit(removeExceptions({ exceptions: ids })),
    select: (id) => select({ what: "exception", id }),
  });
  return (
    <section aria-label="Exceptions" className="border-t border-ink">
      <div className="flex min-h-10 flex-wrap items-center gap-2 px-4 py-1">
        <h2 className="text-15">Exceptions</h2>
        <span className="text-13 text-ink2">beside the walls, for one segment or device, for a time</span>
        <span className="flex-1" />
        <AddException />
      </div>
      {exceptions.length === 0 ? null : (
        <div className="overflow-x-auto">
          <EditGrid<Exception, ExceptionColumn>
            label="Exceptions"
            rows={exceptions}
            idOf={(exception) => exception.id}
            columns={columnsOf(index, list)}
            actions={actions}
            scroller={scroller}
            selected={selection?.what === "exception" ? selection.id : null}
            newRow={{ name: "paste rows here" }}
          />
        </div>
      )}
    </section>
  );
}

const FIELDS = [
  ["from", "From", "from"],
  ["to", "To", "to"],
  ["services", "Lets through", "lets through"],
] as const;
const EMPTY = { from: "", to: "", services: "" };

/** A new exception from its two ends. */
function AddException() {
  const edit = usePlan((state) => state.edit);
  const [texts, setTexts] = useState(EMPTY);
  const add = (event: FormEvent) => {
    event.preventDefault();
    const refusal = edit(addException(texts));
    if (refusal === null) setTexts(EMPTY);
    else toast.error(refusal);
  };
  return (
    <form className="flex flex-wrap items-center gap-2" onSubmit={add}>
      {FIELDS.map(([field, label, hint]) => (
        <input
          key={field}
          aria-label={label}
          className="field h-7 w-32"
          placeholder={hint}
          value={texts[field]}
          onChange={(event) => setTexts({ ...texts, [field]: event.target.value })}
        />
      ))}
      <button type="submit" className="button !min-h-7">
        Add an exception
      </button>
    </form>
  );
}
