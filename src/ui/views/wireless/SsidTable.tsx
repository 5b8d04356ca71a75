"use client";

import { addSsid, clearSsids, editSsidText, pasteSsids, removeSsids } from "@/core/commands";
import type { RefObject, ReactNode } from "react";
import { toast } from "sonner";
import type { Finding, Severity } from "@/core/checks";
import { PlanEdits, SECURITIES, type PlanIndex, type Ssid } from "@/core/plan";
import { SECURITY_SHORT, SSID_COLUMNS, ssidCellText, type SsidColumn } from "@/core/planners";
import { useUi } from "../../frame/use-ui";
import type { Column, GridActions } from "../../grid/column";
import { EditGrid } from "../../grid/EditGrid";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";
import { Judged } from "@/ui/grid/Judged";

const HEADS: Readonly<Record<SsidColumn, readonly [head: string, title: string]>> = {
  name: ["Name", "name"],
  segment: ["Leads into", "segment"],
  more: ["or, by sign-in", "segments the sign-in may choose"],
  security: ["Security", "security"],
  profile: ["Asks", "sign-in profile"],
  hidden: ["Hidden", "hidden"],
  isolation: ["Apart", "stations kept apart"],
  bands: ["GHz", "bands"],
  at: ["Offered at", "access points"],
};
/** Which cell a finding is about: there its sign stands. */
const CELL_OF: Readonly<Record<string, SsidColumn>> = {
  "guests-not-isolated": "isolation",
  "weak-wireless-security": "security",
  "security-not-for-6-ghz": "bands",
  "wireless-name-differs": "name",
};

function shownIn(index: PlanIndex, ssid: Ssid, id: SsidColumn, text: string): ReactNode {
  const segment = index.plan.segment.get(ssid.segment);
  if (id === "segment" && segment !== undefined)
    return (
      <span className="inline-flex items-center gap-2">
        <SegmentChip segment={segment} height={16} />
        {text}
      </span>
    );
  return text === "" || text === "no" ? <span className="text-ink2">{text || "–"}</span> : text;
}

function columnsOf(index: PlanIndex, list: readonly Finding[]): Column<Ssid, SsidColumn>[] {
  const edits = new PlanEdits(index.plan);
  const severities = new Map<string, Severity>();
  for (const finding of [...list].reverse()) {
    const column = CELL_OF[finding.code];
    if (column !== undefined)
      for (const { id } of finding.subjects) severities.set(`${id} ${column}`, finding.severity);
  }
  const offers: Partial<Record<SsidColumn, readonly string[]>> = {
    segment: [...index.plan.segment.values()].map((segment) => segment.name),
    security: SECURITIES.map((security) => SECURITY_SHORT[security]),
    hidden: ["yes", "no"],
    isolation: ["yes", "no"],
    bands: ["2.4, 5", "2.4", "5", "5, 6", "2.4, 5, 6"],
    at: ["everywhere"],
  };
  return SSID_COLUMNS.map((id): Column<Ssid, SsidColumn> => ({
    id,
    head: HEADS[id][0],
    title: HEADS[id][1],
    text: (ssid) => ssidCellText(edits, ssid, id),
    offers: () => offers[id] ?? [],
    ...(id === "bands" ? { mono: true } : {}),
    show: (ssid) => {
      const text = ssidCellText(edits, ssid, id);
      const severity = severities.get(`${ssid.id} ${id}`);
      return <Judged severity={severity}>{shownIn(index, ssid, id, text)}</Judged>;
    },
  }));
}

/** The wireless names, edited in place like a spreadsheet. */
export function SsidTable({ scroller }: { scroller: RefObject<HTMLDivElement | null> }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const [first] = index.plan.segment.values();
  const actions: GridActions<SsidColumn> = {
    edit: (id, column, text) => {
      if (id !== null) return edit(editSsidText({ ssid: id, column, text }));
      return column === "name" && first !== undefined
        ? edit(addSsid({ segment: first.id, name: text }))
        : "Begin a new wireless name with the name itself.";
    },
    paste: (rows, from, onto) => edit(pasteSsids({ rows, from, onto })),
    clear: (cells) => edit(clearSsids({ cells })),
    remove: (ids) => {
      const refusal = edit(removeSsids({ ssids: ids }));
      if (refusal !== null) toast.error(refusal);
    },
    select: (id) => {
      if (id !== null) select({ what: "ssid", id });
    },
  };
  return (
    <EditGrid<Ssid, SsidColumn>
      label="Wireless names"
      rows={[...index.plan.ssid.values()]}
      idOf={(ssid) => ssid.id}
      columns={columnsOf(index, list)}
      actions={actions}
      scroller={scroller}
      selected={selection?.what === "ssid" ? selection.id : null}
      newRow={{ name: "New name", segment: "or paste rows" }}
    />
  );
}
