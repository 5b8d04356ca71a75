"use client";

import { pasteTunnels, removeTunnels, writeTunnel } from "@/core/commands";
import { useMemo, type RefObject } from "react";
import type { PlanIndex, Segment } from "@/core/plan";
import { TUNNEL_COLUMNS, tunnelCellText, type TunnelColumn } from "@/core/planners";
import { segmentsInOrder } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import type { Column } from "../../grid/column";
import { EditGrid } from "../../grid/EditGrid";
import { textActions } from "../../grid/text-table";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";

const MONO: ReadonlySet<TunnelColumn> = new Set(["subnet", "answers"]);

const columnsOf = (index: PlanIndex): Column<Segment, TunnelColumn>[] => {
  const offers: Partial<Record<TunnelColumn, readonly string[]>> = {
    kind: ["people", "another site"],
    line: ["any", ...[...index.plan.line.values()].map(({ name }) => name)],
  };
  return TUNNEL_COLUMNS.map(([id, head]) => ({
    id,
    head,
    mono: MONO.has(id),
    text: (segment) => tunnelCellText(index, segment, id),
    offers: () => offers[id] ?? [],
    show: (segment) =>
      id === "name" ? (
        <>
          <span className="mr-1">
            <SegmentChip segment={segment} height={16} />
          </span>
          {segment.name}
        </>
      ) : (
        tunnelCellText(index, segment, id)
      ),
  }));
};

/** Who comes in by a tunnel, and where it is answered; each is a zone of its own on Walls. */
export function TunnelTable({ scroller }: { scroller: RefObject<HTMLDivElement | null> }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const tunnels = useMemo(() => segmentsInOrder(index).filter(({ tunnel }) => tunnel !== null), [index]);
  const actions = textActions<TunnelColumn>({
    edit: (segment, column, text) => edit(writeTunnel({ segment, column, text })),
    paste: (rows, from, onto) => edit(pasteTunnels({ rows, from, onto })),
    remove: (segments) => edit(removeTunnels({ segments })),
    select: (id) => select({ what: "segment", id }),
  });
  return (
    <section aria-label="Tunnels">
      <h2 className="flex min-h-10 items-center gap-2 px-4 text-15">
        Tunnels <span className="text-13 font-normal text-ink2">VPN users and far ends, a zone each</span>
      </h2>
      <EditGrid<Segment, TunnelColumn>
        label="Tunnels"
        rows={tunnels}
        idOf={(segment) => segment.id}
        columns={columnsOf(index)}
        actions={actions}
        scroller={scroller}
        selected={selection?.what === "segment" ? selection.id : null}
        newRow={{ name: "New tunnel" }}
      />
    </section>
  );
}
