"use client";

import { clsx } from "clsx";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useMemo, useRef, useState, type KeyboardEvent, type RefObject } from "react";
import { counted } from "@/core/repairs";
import {
  differenceAt,
  reachAt,
  reachMatrix,
  reachTable,
  type Reach,
  type ReachColumn,
  type ReachMatrix,
} from "@/core/reach";
import { useUi } from "../../frame/use-ui";
import { Combo } from "../../kit/Combo";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { SeveritySign } from "../../kit/signs";
import { useIndex } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";
import { HostReachList } from "./HostReachList";

const CELL = 38;
const HEAD = { width: 190, height: 62 } as const;
const LOOKS: Readonly<Record<Reach, { readonly sign: string; readonly look: string }>> = {
  itself: { sign: "", look: "bg-hair" },
  nothing: { sign: "–", look: "text-ink2" },
  closed: { sign: "", look: "hatched" },
  services: { sign: "some", look: "text-12" },
  open: { sign: "open", look: "text-12" },
  "past the walls": { sign: "past", look: "text-12 font-semibold" },
  "one network": { sign: "one", look: "text-12 font-semibold" },
};
const LEGEND: readonly (readonly [Reach, string])[] = [
  ["services", "some: services only"],
  ["open", "open"],
  ["nothing", "–: no way"],
  ["past the walls", "past: routed without a filter"],
  ["one network", "one: one network"],
];
const nameOf = (column: ReachColumn): string => {
  if (column === "internet") return "the internet";
  if (column === "gateway") return "the gateway’s pages";
  return column.name;
};

/** Every segment against every other, grouped by zone; what differs from the walls is marked. */
export function ReachPanel() {
  const index = useIndex();
  const matrix = useMemo(() => reachMatrix(index), [index]);
  const [host, setHost] = useState("");
  if (matrix.rows.length === 0)
    return (
      <p className="max-w-[60ch] p-4 text-15">
        Here every segment stands against every other, the internet and the gateway’s pages. Begin with the
        segments.
      </p>
    );
  return (
    <>
      <ReachHead matrix={matrix} host={host} setHost={setHost} />
      {host === "" ? <Matrix matrix={matrix} /> : <HostReachList host={host} />}
    </>
  );
}

/** How many pairs differ, what the signs mean, and the ways to look otherwise or take it along. */
function ReachHead({
  matrix,
  host,
  setHost,
}: {
  matrix: ReachMatrix;
  host: string;
  setHost: (host: string) => void;
}) {
  const index = useIndex();
  const differing = useMemo(
    () =>
      matrix.rows.reduce(
        (sum, _, i) => sum + matrix.columns.filter((_c, j) => differenceAt(matrix, i, j) !== null).length,
        0,
      ),
    [matrix],
  );
  const there = useMemo(
    () => new Set(matrix.rows.flatMap((_, i) => matrix.columns.map((_c, j) => reachAt(matrix, i, j)))),
    [matrix],
  );
  const hosts = [...index.plan.host.values()].map(({ id, name, place }) => ({
    value: id,
    label: name,
    detail: place,
    group: "one device to everything",
  }));
  return (
    <div className="flex flex-wrap items-center gap-4 border-b border-hair px-4 py-2 text-12 text-ink2">
      <span
        role="status"
        className={clsx(
          "flex items-center gap-1 text-13 font-semibold",
          differing === 0 ? "text-sound" : "text-stop",
        )}
      >
        {differing === 0 ? (
          "✓ as the walls intend"
        ) : (
          <>
            <SeveritySign severity="stop" />
            {counted(differing, "pair differs", "pairs differ")} from the walls
          </>
        )}
      </span>
      <span className="inline-flex items-center gap-[6px]">
        <span className="hatched h-[14px] w-[26px] border border-hair" />
        closed
      </span>
      {LEGEND.filter(([reach]) => there.has(reach)).map(([reach, words]) => (
        <span key={reach}>{words}</span>
      ))}
      <span className="flex-1" />
      <Combo
        label="From one device"
        value={host}
        empty="one device to everything"
        choices={[{ value: "", label: "every segment" }, ...hosts]}
        onChoose={setHost}
      />
      <button
        type="button"
        className="button"
        onClick={() =>
          download(fileName(index.plan.site.name, "reach.csv"), CSV_TYPE, csv(reachTable(matrix)))
        }
      >
        Save CSV
      </button>
    </div>
  );
}

/** Both ways drawn only where they are seen. */
function useTwoWays(matrix: ReachMatrix, box: RefObject<HTMLDivElement | null>) {
  // The library's object changes under the same identity on purpose; it is made to be used this way.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: matrix.rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => CELL,
    overscan: 6,
    paddingStart: HEAD.height,
  });
  const columns = useVirtualizer({
    horizontal: true,
    count: matrix.columns.length,
    getScrollElement: () => box.current,
    estimateSize: () => CELL,
    overscan: 6,
    paddingStart: HEAD.width,
  });
  return { rows, columns };
}

const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

function Matrix({ matrix }: { matrix: ReachMatrix }) {
  const index = useIndex();
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const box = useRef<HTMLDivElement>(null);
  const { rows, columns } = useTwoWays(matrix, box);
  const isChosen = selection?.what === "reach";
  const chosen = isChosen ? selection : { row: 0, column: 0 };
  const go = (row: number, column: number) => {
    const to = {
      row: Math.max(0, Math.min(matrix.rows.length - 1, row)),
      column: Math.max(0, Math.min(matrix.columns.length - 1, column)),
    };
    select({ what: "reach", ...to });
    rows.scrollToIndex(to.row);
    columns.scrollToIndex(to.column);
    requestAnimationFrame(() =>
      box.current?.querySelector<HTMLElement>(`[data-cell="${to.row}-${to.column}"]`)?.focus(),
    );
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    if (step === undefined) return;
    go(chosen.row + step[0], chosen.column + step[1]);
    event.preventDefault();
  };
  const width = columns.getTotalSize();
  return (
    <div
      ref={box}
      role="grid"
      aria-label="Reachability"
      aria-rowcount={matrix.rows.length}
      aria-colcount={matrix.columns.length}
      className="relative min-h-0 flex-1 overflow-auto"
      onKeyDown={onKeyDown}
      tabIndex={-1}
    >
      <div className="relative" style={{ height: rows.getTotalSize(), width }}>
        <div role="row" className="sticky top-0 z-20 bg-paper" style={{ height: HEAD.height, width }}>
          <span
            className={clsx(
              "sticky left-0 z-10 inline-flex h-full items-end border-r border-b border-ink",
              "bg-paper px-4 pb-1 text-12 text-ink2",
            )}
            style={{ width: HEAD.width }}
          >
            from \ to
          </span>
          {columns.getVirtualItems().map(({ index: j, start }) => (
            <ColumnHead
              key={j}
              column={matrix.columns[j]}
              start={start}
              crossed={isChosen && chosen.column === j}
              zone={zoneName(index, matrix, j)}
            />
          ))}
        </div>
        {rows.getVirtualItems().map(({ index: i, start }) => (
          <div key={i} role="row" className="absolute left-0" style={{ top: start, height: CELL, width }}>
            <RowHead matrix={matrix} row={i} crossed={isChosen && chosen.row === i} />
            {columns.getVirtualItems().map(({ index: j, start: left }) => (
              <Cell
                key={j}
                matrix={matrix}
                row={i}
                column={j}
                left={left}
                chosen={isChosen && chosen.row === i && chosen.column === j}
                tabbable={chosen.row === i && chosen.column === j}
                choose={() => go(i, j)}
              />
            ))}
          </div>
        ))}
      </div>
    </div>
  );
}

function RowHead({ matrix, row, crossed }: { matrix: ReachMatrix; row: number; crossed: boolean }) {
  const segment = matrix.rows[row];
  return (
    <span
      role="rowheader"
      className={clsx(
        "sticky left-0 z-10 flex h-full items-center gap-2 truncate border-r border-ink px-4 text-13",
        crossed ? "bg-act-wash" : "bg-paper",
        startsZone(matrix, row) ? "border-t border-t-ink2" : "border-t border-t-hair",
      )}
      style={{ width: HEAD.width }}
    >
      {segment === undefined ? null : (
        <>
          <SegmentChip segment={segment} height={16} />
          <span className="truncate">{segment.name}</span>
        </>
      )}
    </span>
  );
}

const startsZone = (matrix: ReachMatrix, i: number): boolean =>
  i > 0 && matrix.rows[i]?.zone !== matrix.rows[i - 1]?.zone;
const zoneName = (index: ReturnType<typeof useIndex>, matrix: ReachMatrix, j: number): string => {
  const column = matrix.columns[j];
  return column === undefined || typeof column === "string"
    ? ""
    : (index.plan.zone.get(column.zone)?.name ?? "");
};

function ColumnHead({
  column,
  start,
  crossed,
  zone,
}: {
  column: ReachColumn | undefined;
  start: number;
  crossed: boolean;
  zone: string;
}) {
  if (column === undefined) return null;
  return (
    <span
      role="columnheader"
      aria-label={nameOf(column)}
      title={`${nameOf(column)}${zone === "" ? "" : `, zone ${zone}`}`}
      className={clsx(
        "absolute bottom-0 flex flex-col items-center justify-end border-b border-ink pb-1 text-12",
        crossed ? "bg-act-wash" : "",
      )}
      style={{ left: start, width: CELL, height: HEAD.height }}
    >
      {typeof column === "string" ? (
        <span className="[writing-mode:vertical-rl] rotate-180 text-12 leading-none">
          {column === "internet" ? "Internet" : "Gateway"}
        </span>
      ) : (
        <SegmentChip segment={column} height={16} />
      )}
    </span>
  );
}

interface CellProps {
  readonly matrix: ReachMatrix;
  readonly row: number;
  readonly column: number;
  readonly left: number;
  readonly chosen: boolean;
  readonly tabbable: boolean;
  readonly choose: () => void;
}

const DIFFERENCE_LOOKS = { more: "!bg-stop-wash text-stop", less: "text-warn", none: "" };

function Cell({ matrix, row, column, left, chosen, tabbable, choose }: CellProps) {
  const reach = reachAt(matrix, row, column);
  const difference = differenceAt(matrix, row, column);
  const { sign, look } = LOOKS[reach];
  const to = matrix.columns[column];
  const words =
    `${matrix.rows[row]?.name ?? ""} to ${to === undefined ? "" : nameOf(to)}: ` +
    `${reach}${difference === null ? "" : `, ${difference} than intended`}`;
  return (
    <button
      type="button"
      role="gridcell"
      data-cell={`${row}-${column}`}
      aria-label={words}
      title={words}
      aria-selected={chosen}
      tabIndex={tabbable ? 0 : -1}
      onClick={choose}
      style={{ left, width: CELL, height: CELL }}
      className={clsx(
        "absolute top-0 flex items-center justify-center border-r border-hair",
        startsZone(matrix, row) ? "border-t border-t-ink2" : "border-t border-t-hair",
        look,
        chosen ? "outline-2 -outline-offset-2 outline-act" : "",
        DIFFERENCE_LOOKS[difference ?? "none"],
      )}
    >
      {difference === null ? (
        sign
      ) : (
        <span className="flex flex-col items-center leading-none">
          <SeveritySign severity={difference === "more" ? "stop" : "warn"} size={12} />
          <span>{sign}</span>
        </span>
      )}
    </button>
  );
}
