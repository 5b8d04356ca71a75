"use client";

import { setCrossing } from "@/core/commands";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useRef, useState, type KeyboardEvent } from "react";
import { toast } from "sonner";
import { vid as asVid, type Device } from "@/core/plan";
import { crossingOf, type CrossingWay } from "@/core/planners";
import type { PathCell, PathDevice, Tape, VlanPaths } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { usePlan } from "../../plan-store/use-plan";
import { Chip } from "../../tape/Chip";
import { PathMark } from "./PathMark";

type Row =
  | { readonly kind: "device"; readonly device: Device }
  | { readonly kind: "port"; readonly device: Device; readonly row: PathDevice["rows"][number] };
const ROW_PX = 24;
const OVERSCAN = 16;
const PAGE = 10;
const HINT: Readonly<Record<PathCell["state"], string>> = {
  right: "",
  missing: ", missing here",
  needless: ", nobody needs it here",
};
const HAS: Readonly<Record<PathCell["has"], string>> = {
  tip: "untagged",
  band: "tagged",
  none: "not carried",
};

interface Props {
  readonly paths: VlanPaths;
  /** The columns that are shown. */
  readonly tapes: readonly Tape[];
  readonly chosen: number | null;
  readonly choose: (vid: number) => void;
  readonly counts: ReadonlyMap<number, { readonly missing: number; readonly needless: number }>;
}

function lookOf(chosen: number | null, vid: number): string {
  if (chosen === null) return "";
  return chosen === vid ? "bg-act-wash" : "opacity-40";
}

/** Ports down, VLANs across; each crossing is tape or nothing, and a click or a key sets it. */
// eslint-disable-next-line max-lines-per-function -- one grid with its keys
export function PathGrid({ paths, tapes, chosen, choose, counts }: Props) {
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const scroller = useRef<HTMLDivElement>(null);
  const rows = paths.devices.flatMap(({ device, rows: own }): Row[] => [
    { kind: "device", device },
    ...own.map((row): Row => ({ kind: "port", device, row })),
  ]);
  const places = rows.flatMap((row, i) => (row.kind === "port" ? [i] : []));
  const [at, setAt] = useState({ row: places[0] ?? 0, column: 0 });
  const here = {
    row: places.includes(at.row) ? at.row : (places[0] ?? 0),
    column: Math.min(at.column, Math.max(0, tapes.length - 1)),
  };
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: OVERSCAN,
  });
  const drawn = virtual.getVirtualItems();
  const [first, last] = [drawn[0]?.index ?? 0, drawn.at(-1)?.index ?? -1];
  const focus = (row: number, column: number) => {
    setAt({ row, column });
    virtual.scrollToIndex(row);
    requestAnimationFrame(() =>
      scroller.current
        ?.querySelector<HTMLElement>(`[data-at="${row} ${column}"]`)
        ?.focus({ preventScroll: true }),
    );
  };
  const write = (rowAt: number, columnAt: number, way: CrossingWay | "next") => {
    const row = rows[rowAt];
    const tape = tapes[columnAt];
    const vid = tape === undefined ? null : asVid(tape.vid);
    if (row?.kind !== "port" || tape === undefined || vid === null) return;
    const { port } = row.row;
    const turned = crossingOf(port, vid) === "none" ? "tagged" : "none";
    const wanted = way === "next" ? turned : way;
    const refusal = edit(setCrossing({ port: port.id, vid, way: wanted }));
    if (refusal !== null) toast.error(refusal);
    select({ what: "ports", device: row.device.id, ids: [port.id] });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const down = (by: number) =>
      places[Math.max(0, Math.min(places.length - 1, places.indexOf(here.row) + by))] ?? here.row;
    const across = (to: number) => Math.max(0, Math.min(tapes.length - 1, to));
    const to: Readonly<Record<string, readonly [number, number]>> = {
      ArrowDown: [down(1), here.column],
      ArrowUp: [down(-1), here.column],
      PageDown: [down(PAGE), here.column],
      PageUp: [down(-PAGE), here.column],
      ArrowLeft: [here.row, across(here.column - 1)],
      ArrowRight: [here.row, across(here.column + 1)],
      Home: [here.row, 0],
      End: [here.row, tapes.length - 1],
    };
    const target = to[event.key];
    if (target !== undefined) focus(target[0], target[1]);
    else if (event.key === " " || event.key === "Enter") write(here.row, here.column, "next");
    else if (event.key.toLowerCase() === "u") write(here.row, here.column, "untagged");
    else if (event.key === "Delete") write(here.row, here.column, "none");
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto" tabIndex={-1}>
      <table
        role="grid"
        aria-label="VLANs across, ports down"
        aria-rowcount={rows.length + 1}
        className="table still close !w-auto"
        onKeyDown={onKeyDown}
      >
        <thead>
          <tr>
            <th scope="col" className="right">
              Case
            </th>
            <th scope="col" className="min-w-52">
              Plugged in
            </th>
            {tapes.map((tape) => {
              const wrong = counts.get(tape.vid);
              return (
                <th
                  key={tape.vid}
                  scope="col"
                  className={`!px-[2px] text-center align-bottom ${chosen === tape.vid ? "bg-act-wash" : ""}`}
                >
                  <button
                    type="button"
                    aria-pressed={chosen === tape.vid}
                    aria-label={
                      `${tape.name} ` +
                      `(${tape.vid})` +
                      (wrong === undefined || wrong.missing + wrong.needless === 0
                        ? ""
                        : `, ${wrong.missing} missing, ${wrong.needless} needless`)
                    }
                    title={`${tape.name} (${tape.vid})`}
                    className="flex w-9 flex-col items-center gap-[2px] py-1 hover:text-ink"
                    onClick={() => choose(tape.vid)}
                  >
                    {wrong === undefined || wrong.missing + wrong.needless === 0 ? (
                      <span className="h-3 text-sound" aria-hidden>
                        ✓
                      </span>
                    ) : (
                      <span
                        className={`mono h-3 text-12 leading-3 font-semibold ${wrong.missing > 0 ? "text-stop" : "text-warn"}`}
                      >
                        {wrong.missing > 0 ? `−${wrong.missing}` : `+${wrong.needless}`}
                      </span>
                    )}
                    <Chip tape={tape} name={tape.name} height={16} />
                    <span className="mono">{tape.vid}</span>
                  </button>
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {first > 0 ? (
            <tr aria-hidden style={{ height: first * ROW_PX }}>
              <td colSpan={tapes.length + 2} className="!border-0" />
            </tr>
          ) : null}
          {rows.slice(first, last + 1).map((row, i) => {
            const number = first + i;
            if (row.kind === "device")
              return (
                <tr key={row.device.id} aria-rowindex={number + 2}>
                  <th
                    scope="rowgroup"
                    colSpan={tapes.length + 2}
                    className="!h-6 border-t border-ink bg-paper !text-13 !text-ink"
                  >
                    <button
                      type="button"
                      className="font-semibold hover:underline"
                      onClick={() => select({ what: "device", id: row.device.id })}
                    >
                      {row.device.name}
                    </button>
                  </th>
                </tr>
              );
            return (
              <tr key={row.row.port.id} aria-rowindex={number + 2}>
                <th scope="row" className="mono right !text-13 !text-ink">
                  {row.row.port.label}
                </th>
                <td className="max-w-52 truncate" title={row.row.pluggedIn}>
                  {row.row.pluggedIn || <span className="text-ink2">empty</span>}
                </td>
                {tapes.map((tape, column) => {
                  const cell =
                    row.row.cells.find((pathCell) => pathCell.vid === tape.vid) ??
                    ({ vid: tape.vid, has: "none", state: "right" } as const);
                  const isHere = number === here.row && column === here.column;
                  return (
                    <td
                      key={tape.vid}
                      role="gridcell"
                      data-at={`${number} ${column}`}
                      tabIndex={isHere ? 0 : -1}
                      title={`${tape.name} (${tape.vid}): ${HAS[cell.has]}${HINT[cell.state]}`}
                      aria-label={
                        `${row.device.name} port ${row.row.port.label}, ${tape.name} ` +
                        `(${tape.vid}): ${HAS[cell.has]}${HINT[cell.state]}`
                      }
                      className={`cursor-pointer !px-[2px] text-center focus:outline-2 focus:-outline-offset-2 focus:outline-act ${lookOf(chosen, tape.vid)}`}
                      onClick={(event) => {
                        setAt({ row: number, column });
                        event.currentTarget.focus();
                        write(number, column, event.shiftKey ? "untagged" : "next");
                      }}
                    >
                      <PathMark tape={tape} cell={cell} />
                    </td>
                  );
                })}
              </tr>
            );
          })}
          {last < rows.length - 1 ? (
            <tr aria-hidden style={{ height: (rows.length - 1 - last) * ROW_PX }}>
              <td colSpan={tapes.length + 2} className="!border-0" />
            </tr>
          ) : null}
        </tbody>
      </table>
    </div>
  );
}
