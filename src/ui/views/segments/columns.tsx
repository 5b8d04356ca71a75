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

type Worst = (segment: Segment, column: GridColumnId) => Severity | null;

/** The worst finding about each cell. */
function worstOf(list: readonly Finding[]): Worst {
  const worst = new Map<string, Severity>();
  for (const { code, severity, subjects } of list) {
    const column = CELL_OF[code];
    if (column === undefined) continue;
    for (const { id } of subjects) {
      const known = worst.get(`${id} ${column}`);
      if (known === undefined || RANK[severity] < RANK[known]) worst.set(`${id} ${column}`, severity);
    }
  }
  const at = (id: string | null, column: GridColumnId) =>
    id === null ? null : (worst.get(`${id} ${column}`) ?? null);
  return (segment, column) => {
    const [own, vlan] = [at(segment.id, column), at(segment.vlan, column)];
    if (own === null || vlan === null) return own ?? vlan;
    return RANK[own] <= RANK[vlan] ? own : vlan;
  };
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
  const worst = worstOf(list);
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
    show: (segment) => signed(worst(segment, id), segmentCellText(index, segment, id)),
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
    show: (segment) => signed(worst(segment, id), of(segment) ?? "–"),
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
          worst(segment, "prefix"),
          <QuietAddress text={segmentCellText(index, segment, "prefix")} quiet={quiet} />,
        ),
    }),
    own("gateway", "Gate", {
      align: "right",
      mono: true,
      show: (segment) => signed(worst(segment, "gateway"), segmentCellText(index, segment, "gateway") || "–"),
    }),
    own("pool", "Pool", {
      bar: true,
      align: "centre",
      mono: true,
      show: (segment) =>
        signed(
          worst(segment, "pool"),
          segmentCellText(index, segment, "pool") || <span className="font-sans text-ink2">static</span>,
        ),
    }),
    figure("count", "Count", (segment) => segmentFigures(index, segment).offered),
    own("lease", "Lease", {
      align: "right",
      show: (segment) => signed(worst(segment, "lease"), segmentCellText(index, segment, "lease") || "–"),
    }),
    own("dns", "DNS", {
      mono: true,
      show: (segment) => signed(worst(segment, "dns"), segmentCellText(index, segment, "dns") || "–"),
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
