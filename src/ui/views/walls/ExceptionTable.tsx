"use client";

import { addException, pasteExceptions, removeExceptions, writeException } from "@/core/commands";
import { useState, type FormEvent, type ReactNode, type RefObject } from "react";
import { toast } from "sonner";
import { catalogueOf } from "@/core/policy";
import type { Exception } from "@/core/plan";
import { EXCEPTION_COLUMNS, exceptionCellText, type ExceptionColumn } from "@/core/planners";
import { useUi } from "../../frame/use-ui";
import { TextTable } from "../../grid/TextTable";
import { useIndex, usePlan } from "../../plan-store/use-plan";

/** Which cell a finding is about: there its sign stands. */
const CELL_OF: Readonly<Record<string, ExceptionColumn>> = {
  "exception-over": "last",
  "exception-host-moves": "from",
  "exception-needless": "services",
  "service-differs": "services",
  "vendor-stays": "hours",
};
const MONO: ReadonlySet<ExceptionColumn> = new Set(["hours", "first", "last"]);

/** What passes beside the walls: narrower than a zone, with somebody who answers for it, and for a time. */
export function ExceptionTable({
  scroller,
  head,
}: {
  scroller: RefObject<HTMLDivElement | null>;
  head: ReactNode;
}) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const { plan } = index;
  const ends = [
    ...[...plan.segment.values()].map(({ name }) => name),
    ...[...plan.host.values()].filter(({ ipv4 }) => ipv4 !== null).map(({ name }) => name),
  ];
  return (
    <TextTable<Exception, ExceptionColumn>
      label="Exceptions"
      about="for one segment or device, for a time"
      what="exception"
      rows={plan.exception}
      columns={EXCEPTION_COLUMNS}
      text={(exception, column) => exceptionCellText(index, exception, column)}
      cellOf={CELL_OF}
      mono={MONO}
      offers={{
        from: ends,
        to: ends,
        services: ["any", ...new Set(catalogueOf(plan).map(({ name }) => name))],
        hours: ["always", "Mon-Fri 08:00-17:00"],
        conduit: ["none", ...[...plan.conduit.values()].map(({ name }) => name)],
      }}
      actions={{
        edit: (id, column, text) =>
          edit(
            id === null
              ? pasteExceptions({ rows: [[text]], from: column, onto: [] })
              : writeException({ exception: id, column, text }),
          ),
        paste: (rows, from, onto) => edit(pasteExceptions({ rows, from, onto })),
        remove: (ids) => edit(removeExceptions({ exceptions: ids })),
        select: (id) => select({ what: "exception", id }),
      }}
      scroller={scroller}
      head={head}
      newRow={{ name: "paste rows here" }}
      add={<AddException />}
      isHiddenEmpty
    />
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
