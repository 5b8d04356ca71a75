"use client";

import { pasteForwards, removeForwards, writeForward } from "@/core/commands";
import { useMemo, type RefObject } from "react";
import type { Finding } from "@/core/checks";
import { byNaturalText } from "@/core/kernel";
import type { Forward, PlanIndex } from "@/core/plan";
import { FORWARD_COLUMNS, forwardCellText, type ForwardColumn } from "@/core/planners";
import { useUi } from "../../frame/use-ui";
import type { Column } from "../../grid/column";
import { EditGrid } from "../../grid/EditGrid";
import { Judged } from "../../grid/Judged";
import { cellSeverities, textActions } from "../../grid/text-table";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";

/** Which cell a finding is about: there its sign stands. */
const CELL_OF: Readonly<Record<string, ForwardColumn>> = {
  "forward-behind-carrier": "line",
  "forward-host-moves": "to",
  "forward-ports-clash": "outside",
  "forward-exposes": "from",
  "forward-over": "until",
};
const MONO: ReadonlySet<ForwardColumn> = new Set(["outside", "port", "from", "until"]);

function columnsOf(index: PlanIndex, list: readonly Finding[]): Column<Forward, ForwardColumn>[] {
  const severities = cellSeverities(list, CELL_OF);
  const offers: Partial<Record<ForwardColumn, readonly string[]>> = {
    line: [...index.plan.line.values()].map(({ name }) => name),
    to: [...index.plan.host.values()].filter(({ ipv4 }) => ipv4 !== null).map(({ name }) => name),
    hairpin: ["yes", "no"],
    from: ["anybody"],
    until: ["always"],
    port: ["same"],
  };
  const home = (forward: Forward) => index.plan.segment.get(index.plan.host.get(forward.host)?.segment ?? "");
  return FORWARD_COLUMNS.map(([id, head]): Column<Forward, ForwardColumn> => ({
    id,
    head,
    mono: MONO.has(id),
    text: (forward) => forwardCellText(index, forward, id),
    offers: () => offers[id] ?? [],
    show: (forward) => {
      const segment = id === "to" ? home(forward) : undefined;
      return (
        <Judged severity={severities.get(`${forward.id} ${id}`)}>
          {segment === undefined ? null : (
            <span className="mr-1">
              <SegmentChip segment={segment} height={16} />
            </span>
          )}
          {forwardCellText(index, forward, id)}
        </Judged>
      );
    },
  }));
}

/** What comes in from outside and is sent on to one host inside, edited in place. */
export function ForwardTable({ scroller }: { scroller: RefObject<HTMLDivElement | null> }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const forwards = useMemo(
    () =>
      [...index.plan.forward.values()].sort(
        (a, b) => byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id),
      ),
    [index],
  );
  const actions = textActions<ForwardColumn>({
    edit: (id, column, text) => edit(writeForward({ forward: id, column, text })),
    paste: (rows, from, onto) => edit(pasteForwards({ rows, from, onto })),
    remove: (forwards) => edit(removeForwards({ forwards })),
    select: (id) => select({ what: "forward", id }),
  });
  return (
    <section aria-label="Forwards">
      <h2 className="flex min-h-10 items-center gap-2 px-4 text-15">
        Forwards <span className="text-13 font-normal text-ink2">from outside to one host inside</span>
      </h2>
      <EditGrid<Forward, ForwardColumn>
        label="Forwards"
        rows={forwards}
        idOf={(forward) => forward.id}
        columns={columnsOf(index, list)}
        actions={actions}
        scroller={scroller}
        selected={selection?.what === "forward" ? selection.id : null}
        newRow={{ name: "New forward", to: "a device with a fixed address" }}
      />
    </section>
  );
}
