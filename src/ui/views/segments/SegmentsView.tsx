"use client";

import { addSegment, clearSegments, editSegment, pasteSegments, removeSegments } from "@/core/commands";
import { useMemo, useRef, useState } from "react";
import { toast } from "sonner";
import { formatPrefix } from "@/core/address";
import { counted } from "@/core/repairs";
import type { Segment } from "@/core/plan";
import { SEGMENT_COLUMNS, type SegmentColumn } from "@/core/planners";
import { keptClear, quietPart, segmentsInOrder, segmentTotals } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { EditGrid } from "../../grid/EditGrid";
import type { GridActions } from "../../grid/column";
import { writtenCells } from "../../grid/written-cells";
import { Filter } from "../../kit/Filter";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { BlockMap } from "./BlockMap";
import { columnsOf, HEADS, isWritten, newRowHints, type GridColumnId } from "./columns";

/** The separation and the numbering of the site in one table. */
// eslint-disable-next-line max-lines-per-function -- one sheet with its tools
export function SegmentsView() {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const scroller = useRef<HTMLDivElement>(null);
  const [filter, setFilter] = useState("");
  const segments = segmentsInOrder(index);
  const totals = segmentTotals(index);
  const quiet = quietPart(index.plan);
  const columns = useMemo(() => columnsOf(index, list, quiet), [index, list, quiet]);

  const add = (cells: Partial<Record<SegmentColumn, string>>) => {
    const name = cells.name ?? `Segment ${segments.length + 1}`;
    return edit(
      addSegment({ name, vid: cells.vid ?? "", prefix: cells.prefix ?? "", zone: cells.zone ?? "" }),
    );
  };
  const actions: GridActions<GridColumnId> = {
    edit: (id, column, text) => {
      if (!isWritten(column)) return null;
      if (id !== null) {
        return edit(editSegment({ segment: id, column, text }));
      }
      return ["name", "vid", "prefix", "zone"].includes(column)
        ? add({ [column]: text })
        : "Begin a new segment with its name, VLAN ID, zone or subnet; the rest is proposed then.";
    },
    paste: (rows, from, onto) => (!isWritten(from) ? null : edit(pasteSegments({ rows, from, onto }))),
    clear: (cells) => edit(clearSegments({ cells: writtenCells(cells, isWritten) })),
    remove: (ids) => {
      const refusal = edit(removeSegments({ segments: ids }));
      if (refusal !== null) toast.error(refusal);
    },
    select: (id, column) =>
      select(id === null ? null : { what: "segment", id, ...(isWritten(column) ? { column } : {}) }),
  };
  const facts =
    segments.length === 0 ? "none yet" : `${totals.now} in the register, ${totals.planned} planned`;
  return (
    <main className="sheet">
      <div className="head">
        <h1>Segments</h1>
        <p>{facts}</p>
        <span className="push" />
        {segments.length === 0 ? null : (
          <>
            <Filter label="Filter the segments" value={filter} onChange={setFilter} />
            <button type="button" className="button" onClick={() => select({ what: "numbering" })}>
              Numbering
            </button>
          </>
        )}
        <button
          type="button"
          className={segments.length === 0 ? "button go" : "button"}
          onClick={() => {
            const refusal = add({});
            if (refusal !== null) toast.error(refusal);
          }}
        >
          Add segment
        </button>
      </div>
      <div ref={scroller} tabIndex={-1} className="min-h-0 flex-1 overflow-auto">
        <EditGrid<Segment, GridColumnId>
          label="Segments"
          rows={segments}
          filter={filter}
          idOf={(segment) => segment.id}
          columns={columns}
          actions={actions}
          selected={selection?.what === "segment" ? selection.id : null}
          newRow={newRowHints(index, quiet)}
          scroller={scroller}
          groups={[
            { head: "VLAN", span: 4, bar: false },
            { head: "Subnet", span: 2, bar: true },
            { head: "Scope", span: 4, bar: true },
            { head: "Hosts", span: 3, bar: true },
          ]}
          foot={
            segments.length === 0 ? undefined : (
              <tr>
                <td colSpan={4}>
                  {counted(totals.segments, "segment", "segments")}, {counted(totals.zones, "zone", "zones")}
                </td>
                <td colSpan={2} className="bar">
                  {totals.usable} usable
                </td>
                <td className="bar">{counted(totals.scopes, "scope", "scopes")}</td>
                <td className="mono right">{totals.offered}</td>
                <td colSpan={2} />
                <td className="mono right bar">{totals.now}</td>
                <td className="mono right">{totals.planned}</td>
                <td className="mono right">{totals.room}</td>
              </tr>
            )
          }
        />
        {segments.length === 0 ? (
          <EmptySegments />
        ) : (
          <>
            <p className="px-4 pt-2 text-12 text-ink2">
              “.1” lies in the row’s own subnet; “60.10” lies elsewhere in{" "}
              {quiet === "" ? "the site" : quiet.slice(0, -1)}. Room = usable addresses, less the gateway,
              less the plan.
            </p>
            {index.plan.site.blocks.flatMap((block) =>
              block.family === 4 ? [<BlockMap key={formatPrefix(block)} block={block} />] : [],
            )}
            <KeptClearList />
            <div className="h-6" />
          </>
        )}
      </div>
    </main>
  );
}

const EmptySegments = () => (
  <div className="max-w-[60ch] p-4 text-15">
    <p className="mb-2">
      Here stand the groups that must not see one another: staff, guests, cameras, phones, the gear itself.
      Each gets a VLAN, a subnet and its addresses.
    </p>
    <p className="text-ink2">
      Type a name into the row above, press “Add segment”, or paste rows from a spreadsheet in the order of
      the columns: {SEGMENT_COLUMNS.map((column) => HEADS[column]).join(", ")}.
    </p>
  </div>
);

/** Ranges that no subnet may meet, each with what meets it. */
function KeptClearList() {
  const ranges = keptClear(useIndex());
  if (ranges.length === 0) return null;
  return (
    <section className="px-4 pt-4">
      <h2 className="mb-1 text-14">Kept clear of</h2>
      <ul className="text-13">
        {ranges.map(({ prefix, reason, metBy }) => (
          <li
            key={formatPrefix(prefix)}
            className="grid min-h-[26px] grid-cols-[140px_1fr_auto] items-center border-t border-hair"
          >
            <span className="mono">{formatPrefix(prefix)}</span>
            <span>{reason}</span>
            <span className={metBy === null ? "text-sound" : "font-semibold text-stop"}>
              {metBy === null ? "✓ clear" : `met by ${metBy.name}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
