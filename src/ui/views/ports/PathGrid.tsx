"use client";

import { clsx } from "clsx";
import { setCrossing } from "@/core/commands";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useRef, useState, type KeyboardEvent, type RefObject } from "react";
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

interface Place {
  readonly row: number;
  readonly column: number;
}

/** Where one is on the grid, and what a key and a click do there. */
interface Crossings {
  readonly here: Place;
  readonly press: (at: Place, way: CrossingWay | "next") => void;
  readonly onKeyDown: (event: KeyboardEvent) => void;
}

function useCrossings(
  rows: readonly Row[],
  tapes: readonly Tape[],
  { scroller, show }: { scroller: RefObject<HTMLDivElement | null>; show: (row: number) => void },
): Crossings {
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const places = rows.flatMap((row, i) => (row.kind === "port" ? [i] : []));
  const [at, setAt] = useState<Place>({ row: places[0] ?? 0, column: 0 });
  const here: Place = {
    row: places.includes(at.row) ? at.row : (places[0] ?? 0),
    column: Math.min(at.column, Math.max(0, tapes.length - 1)),
  };
  const write = (place: Place, way: CrossingWay | "next") => {
    const row = rows[place.row];
    const tape = tapes[place.column];
    const vid = tape === undefined ? null : asVid(tape.vid);
    if (row?.kind !== "port" || tape === undefined || vid === null) return;
    const { port } = row.row;
    const turned = crossingOf(port, vid) === "none" ? "tagged" : "none";
    const refusal = edit(setCrossing({ port: port.id, vid, way: way === "next" ? turned : way }));
    if (refusal !== null) toast.error(refusal);
    select({ what: "ports", device: row.device.id, ids: [port.id] });
  };
  const go = (place: Place) => {
    setAt(place);
    show(place.row);
    requestAnimationFrame(() =>
      scroller.current
        ?.querySelector<HTMLElement>(`[data-at="${place.row} ${place.column}"]`)
        ?.focus({ preventScroll: true }),
    );
  };
  return {
    here,
    press: (place, way) => {
      setAt(place);
      write(place, way);
    },
    onKeyDown: (event) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const to = targetOf(event.key, here, { places, columns: tapes.length });
      if (to !== null) go(to);
      else if (event.key === " " || event.key === "Enter") write(here, "next");
      else if (event.key.toLowerCase() === "u") write(here, "untagged");
      else if (event.key === "Delete") write(here, "none");
      else return;
      event.preventDefault();
      event.stopPropagation();
    },
  };
}

/** Where a key leads from a place, past the rows that only name a device; null for a key that leads nowhere. */
function targetOf(
  key: string,
  { row, column }: Place,
  { places, columns }: { readonly places: readonly number[]; readonly columns: number },
): Place | null {
  const down = (by: number): Place => ({
    row: places[Math.max(0, Math.min(places.length - 1, places.indexOf(row) + by))] ?? row,
    column,
  });
  const across = (to: number): Place => ({ row, column: Math.max(0, Math.min(columns - 1, to)) });
  const to: Readonly<Record<string, Place>> = {
    ArrowDown: down(1),
    ArrowUp: down(-1),
    PageDown: down(PAGE),
    PageUp: down(-PAGE),
    ArrowLeft: across(column - 1),
    ArrowRight: across(column + 1),
    Home: across(0),
    End: across(columns - 1),
  };
  return to[key] ?? null;
}

/** Ports down, VLANs across; each crossing is tape or nothing, and a click or a key sets it. */
export function PathGrid({ paths, tapes, chosen, choose, counts }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const rows = paths.devices.flatMap(({ device, rows: own }): Row[] => [
    { kind: "device", device },
    ...own.map((row): Row => ({ kind: "port", device, row })),
  ]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: OVERSCAN,
  });
  const crossings = useCrossings(rows, tapes, { scroller, show: (row) => virtual.scrollToIndex(row) });
  const drawn = virtual.getVirtualItems();
  const [first, last] = [drawn[0]?.index ?? 0, drawn.at(-1)?.index ?? -1];
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto" tabIndex={-1}>
      <table
        role="grid"
        aria-label="VLANs across, ports down"
        aria-rowcount={rows.length + 1}
        className="table still close !w-auto"
        onKeyDown={crossings.onKeyDown}
      >
        <thead>
          <tr>
            <th scope="col" className="right">
              Case
            </th>
            <th scope="col" className="min-w-52">
              Plugged in
            </th>
            {tapes.map((tape) => (
              <TapeHead
                key={tape.vid}
                tape={tape}
                wrong={counts.get(tape.vid)}
                isChosen={chosen === tape.vid}
                choose={choose}
              />
            ))}
          </tr>
        </thead>
        <tbody>
          <Spacer rows={first} across={tapes.length + 2} />
          {rows
            .slice(first, last + 1)
            .map((row, i) =>
              row.kind === "device" ? (
                <DeviceRow
                  key={row.device.id}
                  device={row.device}
                  number={first + i}
                  across={tapes.length + 2}
                />
              ) : (
                <PortRow
                  key={row.row.port.id}
                  row={row}
                  number={first + i}
                  tapes={tapes}
                  chosen={chosen}
                  crossings={crossings}
                />
              ),
            )}
          <Spacer rows={rows.length - 1 - last} across={tapes.length + 2} />
        </tbody>
      </table>
    </div>
  );
}

/** Stands for rows that are out of sight. */
const Spacer = ({ rows, across }: { rows: number; across: number }) =>
  rows <= 0 ? null : (
    <tr aria-hidden style={{ height: rows * ROW_PX }}>
      <td colSpan={across} className="!border-0" />
    </tr>
  );

type Wrong = { readonly missing: number; readonly needless: number } | undefined;
const isSound = (wrong: Wrong): boolean => wrong === undefined || wrong.missing + wrong.needless === 0;

/** A VLAN's column: its tape, and how many ports lack it or have it in vain. */
function TapeHead({
  tape,
  wrong,
  isChosen,
  choose,
}: {
  tape: Tape;
  wrong: Wrong;
  isChosen: boolean;
  choose: (vid: number) => void;
}) {
  const name = `${tape.name} (${tape.vid})`;
  const missing = wrong?.missing ?? 0;
  const needless = wrong?.needless ?? 0;
  return (
    <th scope="col" className={`!px-[2px] text-center align-bottom ${isChosen ? "bg-act-wash" : ""}`}>
      <button
        type="button"
        aria-pressed={isChosen}
        aria-label={isSound(wrong) ? name : `${name}, ${missing} missing, ${needless} needless`}
        title={name}
        className="flex w-9 flex-col items-center gap-[2px] py-1 hover:text-ink"
        onClick={() => choose(tape.vid)}
      >
        {isSound(wrong) ? (
          <span className="h-3 text-sound" aria-hidden>
            ✓
          </span>
        ) : (
          <span
            className={`mono h-3 text-12 leading-3 font-semibold ${missing > 0 ? "text-stop" : "text-warn"}`}
          >
            {missing > 0 ? `−${missing}` : `+${needless}`}
          </span>
        )}
        <Chip tape={tape} name={tape.name} height={16} />
        <span className="mono">{tape.vid}</span>
      </button>
    </th>
  );
}

function DeviceRow({ device, number, across }: { device: Device; number: number; across: number }) {
  const select = useUi((state) => state.select);
  return (
    <tr aria-rowindex={number + 2}>
      <th scope="rowgroup" colSpan={across} className="!h-6 border-t border-ink bg-paper !text-13 !text-ink">
        <button
          type="button"
          className="font-semibold hover:underline"
          onClick={() => select({ what: "device", id: device.id })}
        >
          {device.name}
        </button>
      </th>
    </tr>
  );
}

function PortRow({
  row: { device, row },
  number,
  tapes,
  chosen,
  crossings,
}: {
  row: Extract<Row, { kind: "port" }>;
  number: number;
  tapes: readonly Tape[];
  chosen: number | null;
  crossings: Crossings;
}) {
  const { here, press } = crossings;
  return (
    <tr aria-rowindex={number + 2} data-id={row.port.id}>
      <th scope="row" className="mono right !text-13 !text-ink">
        {row.port.label}
      </th>
      <td className="max-w-52 truncate" title={row.pluggedIn}>
        {row.pluggedIn || <span className="text-ink2">empty</span>}
      </td>
      {tapes.map((tape, column) => {
        const cell =
          row.cells.find((pathCell) => pathCell.vid === tape.vid) ??
          ({ vid: tape.vid, has: "none", state: "right" } as const);
        const says = `${tape.name} (${tape.vid}): ${HAS[cell.has]}${HINT[cell.state]}`;
        return (
          <td
            key={tape.vid}
            role="gridcell"
            data-at={`${number} ${column}`}
            tabIndex={number === here.row && column === here.column ? 0 : -1}
            title={says}
            aria-label={`${device.name} port ${row.port.label}, ${says}`}
            className={clsx(
              "cursor-pointer !px-[2px] text-center focus:outline-2 focus:-outline-offset-2",
              "focus:outline-act",
              lookOf(chosen, tape.vid),
            )}
            onClick={(event) => {
              event.currentTarget.focus();
              press({ row: number, column }, event.shiftKey ? "untagged" : "next");
            }}
          >
            <PathMark tape={tape} cell={cell} />
          </td>
        );
      })}
    </tr>
  );
}
