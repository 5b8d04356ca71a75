"use client";

import { pasteLines, removeLines, writeLine } from "@/core/commands";
import { useMemo, type RefObject } from "react";
import type { Finding } from "@/core/checks";
import type { Line, PlanIndex } from "@/core/plan";
import { LINE_COLUMNS, lineCellText, type LineColumn } from "@/core/planners";
import { linesInOrder } from "@/core/routing";
import { useUi } from "../../frame/use-ui";
import type { Column } from "../../grid/column";
import { EditGrid } from "../../grid/EditGrid";
import { Judged } from "../../grid/Judged";
import { cellSeverities, textActions } from "../../grid/text-table";
import { useIndex, usePlan } from "../../plan-store/use-plan";

/** Which cell a finding is about: there its sign stands. */
const CELL_OF: Readonly<Record<string, LineColumn>> = {
  "line-shares": "share",
  "line-loss-unseen": "watch",
  "line-target-inside": "watch",
  "line-pins-clash": "pins",
  "line-pin-moves": "pins",
  "line-without-name": "follows",
};
const MONO: ReadonlySet<LineColumn> = new Set(["order", "share", "watch", "after", "back", "follows"]);

function columnsOf(index: PlanIndex, list: readonly Finding[]): Column<Line, LineColumn>[] {
  const severities = cellSeverities(list, CELL_OF);
  const offers: Partial<Record<LineColumn, readonly string[]>> = {
    watch: ["link"],
    back: ["by hand", "60 s"],
    share: ["none", "50"],
    pins: [...index.plan.segment.values()].map(({ name }) => name),
  };
  return LINE_COLUMNS.map(([id, head]): Column<Line, LineColumn> => ({
    id,
    head,
    mono: MONO.has(id),
    text: (line) => lineCellText(index, line, id),
    offers: () => offers[id] ?? [],
    show: (line) => (
      <Judged severity={severities.get(`${line.id} ${id}`)}>{lineCellText(index, line, id)}</Judged>
    ),
  }));
}

/** In which order lines carry what goes out, how a loss is noticed, and what is pinned to one. */
export function LineTable({ scroller }: { scroller: RefObject<HTMLDivElement | null> }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const lines = useMemo(() => linesInOrder(index.plan.line.values()), [index]);
  const actions = textActions<LineColumn>({
    edit: (id, column, text) => edit(writeLine({ line: id, column, text })),
    paste: (rows, from, onto) => edit(pasteLines({ rows, from, onto })),
    remove: (ids) => edit(removeLines({ lines: ids })),
    select: (id) => select({ what: "line", id }),
  });
  return (
    <section aria-label="Lines">
      <h2 className="flex min-h-10 items-center gap-2 px-4 text-15">
        Lines{" "}
        <span className="text-13 font-normal text-ink2">the first that works carries what goes out</span>
      </h2>
      <EditGrid<Line, LineColumn>
        label="Lines"
        rows={lines}
        idOf={(line) => line.id}
        columns={columnsOf(index, list)}
        actions={actions}
        scroller={scroller}
        selected={selection?.what === "line" ? selection.id : null}
        newRow={{ name: "New line" }}
      />
    </section>
  );
}
