"use client";

import { clearCables, editCable, labelCables, layCable, pasteCables, removeLinks } from "@/core/commands";
import { useMemo, useRef, useState } from "react";
import { toast } from "sonner";
import { CABLE_SHORT, cablesFor, MEDIUM_WORDS, opticsFor } from "@/core/cabling";
import type { Finding, Severity } from "@/core/checks";
import { PlanEdits, type PlanIndex } from "@/core/plan";
import { CABLE_COLUMNS, cableCellText, siteFieldText, type CableColumn } from "@/core/planners";
import { cableScheduleTable, cablesInOrder, type CableRow } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import type { Column, GridActions } from "../../grid/column";
import { writtenCells } from "../../grid/written-cells";
import { EditGrid } from "../../grid/EditGrid";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { Filter } from "../../kit/Filter";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Judged } from "@/ui/grid/Judged";

type ColumnId = CableColumn | "speed" | "reach";
const HEADS: readonly (readonly [ColumnId, string, string])[] = [
  ["label", "Label", "label"],
  ["from", "From", "from"],
  ["fromOptic", "Optic", "optic at its first end"],
  ["to", "To", "to"],
  ["toOptic", "Optic", "optic at its second end"],
  ["medium", "Medium", "medium"],
  ["cable", "Cable", "kind of cable"],
  ["length", "m", "length in metres"],
  ["reach", "of", "metres it may reach"],
  ["speed", "Mbit/s", "speed"],
  ["panel", "Panel", "patch panel"],
  ["socket", "Socket", "socket"],
];
const isWritten = (column: ColumnId): column is CableColumn =>
  (CABLE_COLUMNS as readonly string[]).includes(column);

function columnsOf(index: PlanIndex, list: readonly Finding[]): Column<CableRow, ColumnId>[] {
  const edits = new PlanEdits(index.plan);
  const worst = new Map<string, Severity>();
  for (const finding of [...list].reverse())
    for (const subject of finding.subjects)
      if (subject.kind === "link") worst.set(subject.id, finding.severity);
  const offers = (id: ColumnId, row: CableRow | null): readonly string[] => {
    if (id === "medium") return Object.values(MEDIUM_WORDS);
    if (id === "cable")
      return row === null
        ? []
        : cablesFor(row.link.medium)
            .filter((cable) => cable !== "unknown")
            .map((cable) => CABLE_SHORT[cable]);
    if (id === "fromOptic" || id === "toOptic")
      return row === null
        ? []
        : opticsFor(id === "fromOptic" ? row.fromPort : row.toPort).filter((optic) => optic !== "none");
    return [];
  };
  const text = (row: CableRow, id: ColumnId): string => {
    if (id === "speed") return String(row.mbps);
    if (id === "reach") {
      if (row.reachM === null) return "";
      return String(row.reachM);
    }
    return cableCellText(edits, row.link, id);
  };
  return HEADS.map(([id, head, title]): Column<CableRow, ColumnId> => ({
    id,
    head,
    title,
    text: (row) => text(row, id),
    derived: !isWritten(id),
    readOnly: () => !isWritten(id),
    offers: (row) => offers(id, row),
    mono: ["label", "length", "reach", "speed"].includes(id),
    ...(["length", "reach", "speed"].includes(id) ? { align: "right" as const } : {}),
    show: (row) => {
      const severity = id === "label" ? worst.get(row.link.id) : undefined;
      const quiet = text(row, id) === "" || id === "reach" || id === "speed";
      return (
        <Judged severity={severity}>
          {quiet ? <span className="text-ink2">{text(row, id) || "–"}</span> : text(row, id)}
        </Judged>
      );
    },
  }));
}

/** The cable schedule, edited in place like a spreadsheet. */
export function CablesPanel() {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const scroller = useRef<HTMLDivElement>(null);
  const [filter, setFilter] = useState("");
  const rows = useMemo(() => cablesInOrder(index), [index]);
  const columns = useMemo(() => columnsOf(index, list), [index, list]);
  const say = (refusal: string | null) => {
    if (refusal !== null) toast.error(refusal);
  };
  const actions: GridActions<ColumnId> = {
    edit: (id, column, text) => {
      if (!isWritten(column)) return null;
      if (id === null)
        return column === "from" || column === "label"
          ? edit(layCable({ text }))
          : "Begin a new cable with both its ends in From: Upper switch 20 to Switch B 3.";
      return edit(editCable({ link: id, column, text }));
    },
    paste: (texts, from, onto) =>
      isWritten(from)
        ? edit(pasteCables({ rows: texts, from, onto }))
        : "Begin with a column that can be written.",
    clear: (cells) => edit(clearCables({ cells: writtenCells(cells, isWritten) })),
    remove: (ids) => say(edit(removeLinks({ links: ids }))),
    select: (id) => {
      if (id !== null) select({ what: "link", id });
    },
  };
  return (
    <>
      <h2 className="mb-2 hidden border-b-2 border-ink text-18 print:block">
        Cable schedule: {index.plan.site.name}
        {index.today === null ? "" : `, as planned on ${index.today}`}
      </h2>
      <div className="flex flex-wrap items-center gap-2 px-4 py-2 text-13 print:hidden">
        <Filter label="Filter the cables" value={filter} onChange={setFilter} />
        <span className="text-ink2">
          labels by <span className="mono text-ink">{siteFieldText(index.plan.site, "cablePattern")}</span>
        </span>
        <span className="flex-1" />
        <button type="button" className="button" onClick={() => say(edit(labelCables({ link: null })))}>
          Label all by the pattern
        </button>
        <button
          type="button"
          className="button"
          onClick={() =>
            download(fileName(index.plan.site.name, "cables.csv"), CSV_TYPE, csv(cableScheduleTable(index)))
          }
        >
          Save CSV
        </button>
        <button type="button" className="button" onClick={() => window.print()}>
          Print
        </button>
      </div>
      <div ref={scroller} className="print-whole min-h-0 flex-1 overflow-auto" tabIndex={-1}>
        <EditGrid<CableRow, ColumnId>
          label="Cables"
          rows={rows}
          filter={filter}
          idOf={(row) => row.link.id}
          columns={columns}
          actions={actions}
          scroller={scroller}
          selected={selection?.what === "link" ? selection.id : null}
          newRow={{ from: "New cable: one end to the other", to: "or paste rows" }}
        />
      </div>
    </>
  );
}
