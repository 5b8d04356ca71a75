import type { ReactNode } from "react";
import type { Finding, Severity } from "@/core/checks";
import type { PlanIndex, Segment } from "@/core/plan";
import { mainDomain, nextFreeVid, nextSubnet, SEGMENT_COLUMNS, type SegmentColumn } from "@/core/planners";
import { formatPrefix } from "@/core/address";
import { segmentCellText, segmentFigures } from "@/core/sheets";
import type { Column } from "../../grid/column";
import { QuietAddress } from "../../kit/QuietAddress";
import { SegmentChip } from "../../tape/Chip";
import { Judged } from "@/ui/grid/Judged";

export type GridColumnId = SegmentColumn | "count" | "now" | "room";
export const isWritten = (column: GridColumnId): column is SegmentColumn =>
  (SEGMENT_COLUMNS as readonly string[]).includes(column);

export const HEADS: Readonly<Record<GridColumnId, string>> = {
  mark: "mark",
  vid: "VLAN ID",
  name: "name",
  zone: "zone",
  prefix: "subnet",
  gateway: "gateway",
  pool: "pool",
  lease: "lease",
  dns: "DNS",
  planned: "planned",
  count: "addresses in the pool",
  now: "in the register",
  room: "room",
};

/** Which cell a finding is about: there its sign stands. */
const CELL_OF: Readonly<Record<string, GridColumnId>> = {
  "subnets-overlap": "prefix",
  "subnet-meets-kept-clear": "prefix",
  "gateway-not-usable": "gateway",
  "gateway-missing": "gateway",
  "pool-outside-subnet": "pool",
  "pool-over-gateway": "pool",
  "pool-too-small": "count",
  "no-address-server": "pool",
  "two-address-servers": "pool",
  "names-behind-wall": "dns",
  "vid-twice": "vid",
  "default-vid-for-management": "vid",
  "reserved-space-inside": "prefix",
  "public-space-inside": "prefix",
  "subnet-without-room": "prefix",
  "no-room-for-growth": "room",
  "advertised-prefix-length": "prefix",
  "pool-empty": "pool",
  "lease-outlives-visit": "lease",
  "names-without-server": "dns",
};

const RANK: Readonly<Record<Severity, number>> = { stop: 0, warn: 1, note: 2 };

function worstAt(list: readonly Finding[], segment: Segment, column: GridColumnId): Severity | null {
  const own = list.filter(
    (f) => CELL_OF[f.code] === column && f.subjects.some((s) => s.id === segment.id || s.id === segment.vlan),
  );
  return own.map((f) => f.severity).sort((a, b) => RANK[a] - RANK[b])[0] ?? null;
}

/** A cell's text with the sign of the worst finding about it. */
const signed = (severity: Severity | null, shown: ReactNode): ReactNode => (
  <Judged severity={severity ?? undefined}>{shown}</Judged>
);

export function columnsOf(
  index: PlanIndex,
  list: readonly Finding[],
  quiet: string,
): Column<Segment, GridColumnId>[] {
  const zones = [...index.plan.zone.values()].map((zone) => zone.name);
  const own = (
    id: SegmentColumn,
    head: string,
    more: Partial<Column<Segment, GridColumnId>> = {},
  ): Column<Segment, GridColumnId> => ({
    id,
    head,
    title: HEADS[id],
    text: (segment) => segmentCellText(index, segment, id),
    show: (segment) => signed(worstAt(list, segment, id), segmentCellText(index, segment, id)),
    ...more,
  });
  const figure = (
    id: "count" | "now" | "room",
    head: string,
    of: (segment: Segment) => number | null,
    bar = false,
  ): Column<Segment, GridColumnId> => ({
    id,
    head,
    title: HEADS[id],
    align: "right",
    mono: true,
    derived: true,
    bar,
    text: (segment) => String(of(segment) ?? ""),
    show: (segment) => signed(worstAt(list, segment, id), of(segment) ?? "–"),
  });
  return [
    own("mark", "Tape", { show: (segment) => <SegmentChip segment={segment} />, width: "44px" }),
    own("vid", "VID", { align: "right", mono: true }),
    own("name", "Name"),
    own("zone", "Zone", {
      offers: () => zones,
      show: (segment) => <span className="text-ink2">{segmentCellText(index, segment, "zone")}</span>,
    }),
    own("prefix", "Prefix", {
      bar: true,
      mono: true,
      show: (segment) =>
        signed(
          worstAt(list, segment, "prefix"),
          <QuietAddress text={segmentCellText(index, segment, "prefix")} quiet={quiet} />,
        ),
    }),
    own("gateway", "Gate", {
      align: "right",
      mono: true,
      show: (segment) =>
        signed(worstAt(list, segment, "gateway"), segmentCellText(index, segment, "gateway") || "–"),
    }),
    own("pool", "Pool", {
      bar: true,
      align: "centre",
      mono: true,
      show: (segment) =>
        signed(
          worstAt(list, segment, "pool"),
          segmentCellText(index, segment, "pool") || <span className="font-sans text-ink2">static</span>,
        ),
    }),
    figure("count", "Count", (segment) => segmentFigures(index, segment).offered),
    own("lease", "Lease", {
      align: "right",
      show: (segment) =>
        signed(worstAt(list, segment, "lease"), segmentCellText(index, segment, "lease") || "–"),
    }),
    own("dns", "DNS", {
      mono: true,
      show: (segment) => signed(worstAt(list, segment, "dns"), segmentCellText(index, segment, "dns") || "–"),
    }),
    figure("now", "Now", (segment) => segmentFigures(index, segment).now, true),
    own("planned", "Plan", { align: "right", mono: true }),
    figure("room", "Room", (segment) => segmentFigures(index, segment).room),
  ];
}

/** What the next segment would get by the site's conventions, shown in the empty row. */
export function newRowHints(index: PlanIndex, quiet: string): Partial<Record<GridColumnId, ReactNode>> {
  const domain = mainDomain(index.plan);
  const vid = domain === null ? nextFreeVid(index.plan, "") : nextFreeVid(index.plan, domain);
  const subnet = vid === null ? null : nextSubnet(index.plan, vid);
  return {
    vid: vid ?? "",
    name: "New segment",
    prefix: subnet === null ? "" : <QuietAddress text={formatPrefix(subnet)} quiet={quiet} />,
    pool: <span className="font-sans">or paste rows</span>,
  };
}
