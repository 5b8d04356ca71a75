"use client";

import { pasteGear, toBaseline, writeGear } from "@/core/commands";
import { useMemo, useRef, type RefObject } from "react";
import { toast } from "sonner";
import type { Finding, Severity } from "@/core/checks";
import { isAdministered, type Device, type PlanIndex } from "@/core/plan";
import {
  BASELINE_FIELDS,
  baselineText,
  beyondDevice,
  GEAR_COLUMNS,
  baselineTable,
  gearText,
  IDENTITY_FIELDS,
  offBaseline,
  SITE_ROW,
  type BaselineField,
  type GearColumn,
} from "@/core/planners";
import { counted } from "@/core/repairs";
import { devicesInOrder } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import type { Column } from "../../grid/column";
import { EditGrid } from "../../grid/EditGrid";
import { Judged } from "../../grid/Judged";
import { textActions } from "../../grid/text-table";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { useIndex, usePlan } from "../../plan-store/use-plan";

/** A device, or null for the whole site. */
interface Row {
  readonly id: string;
  readonly device: Device | null;
}
type ColumnId = GearColumn | "device";

const isWritten = (column: ColumnId): column is GearColumn => column !== "device";
const isDecided = (column: GearColumn): column is BaselineField =>
  BASELINE_FIELDS.some(([field]) => field === column);

const ADMINISTERED: readonly GearColumn[] = [...BASELINE_FIELDS.map(([field]) => field), "lacks"];
const IDENTITY: readonly GearColumn[] = IDENTITY_FIELDS.map(([field]) => field);
const MONO: readonly GearColumn[] = [
  "nameServers",
  "timeServers",
  "logTo",
  "serial",
  "softwareFound",
  "softwareWanted",
];

const OFFERS: { readonly [C in GearColumn]?: readonly string[] } = {
  waysIn: ["web over TLS, SSH", "web over TLS", "SSH", "console"],
  clock: ["site", "UTC"],
  uplinks: ["by hand", "automatic"],
  describes: ["yes", "no"],
  passwordDays: ["never", "365 days"],
};

/** Which cell a finding is about. */
const CELL_OF: Readonly<Record<string, GearColumn>> = {
  "clear-way-in": "waysIn",
  "serial-twice": "serial",
  "licence-ended": "licenceUntil",
};

function cellText(index: PlanIndex, { device }: Row, column: ColumnId): string {
  if (column === "device") return device?.name ?? SITE_ROW;
  if (device !== null) return gearText(device, column);
  return isDecided(column) ? baselineText(index.plan.site.baseline, column) : "";
}

interface CellProps {
  readonly text: string;
  /** What the whole site decided. */
  readonly wanted: string;
  readonly state: "asSite" | "differs" | "cannot";
}

/** A cell of a device: what differs from the whole site stands out, what it can't do says so. */
function Cell({ text, wanted, state }: CellProps) {
  if (state === "cannot")
    return (
      <span className="text-ink2" title={`The whole site: ${wanted}. It does not do all of that.`}>
        {text === "" ? "can’t" : text}
      </span>
    );
  if (state === "differs")
    return (
      <b className="font-semibold text-warn" title={`The whole site: ${wanted}`}>
        {text === "" ? "not set" : text}
      </b>
    );
  return <span className={wanted === text ? "text-ink2" : ""}>{text === "" ? "–" : text}</span>;
}

/** How each cell of the devices stands to what the whole site decided, by "id column". */
function statesOf(index: PlanIndex, devices: readonly Device[]): ReadonlyMap<string, CellProps["state"]> {
  const states = new Map<string, CellProps["state"]>();
  for (const device of devices) {
    for (const field of offBaseline(index, device)) states.set(`${device.id} ${field}`, "differs");
    for (const field of beyondDevice(index, device)) states.set(`${device.id} ${field}`, "cannot");
  }
  return states;
}

function columnsOf(
  index: PlanIndex,
  list: readonly Finding[],
  shown: readonly GearColumn[],
  devices: readonly Device[],
): Column<Row, ColumnId>[] {
  const states = statesOf(index, devices);
  const worst = new Map<string, Severity>();
  for (const { code, subjects, severity } of [...list].reverse())
    for (const { id } of subjects)
      if (CELL_OF[code] !== undefined) worst.set(`${id} ${CELL_OF[code]}`, severity);
  const name: Column<Row, ColumnId> = {
    id: "device",
    head: "Device",
    held: true,
    derived: true,
    readOnly: () => true,
    text: (row) => cellText(index, row, "device"),
    show: ({ device }) => <b className="font-semibold">{device?.name ?? SITE_ROW}</b>,
  };
  const written = shown.map((id): Column<Row, ColumnId> => ({
    id,
    head: GEAR_COLUMNS.find(([key]) => key === id)?.[1] ?? id,
    mono: MONO.includes(id),
    text: (row) => cellText(index, row, id),
    offers: () => OFFERS[id] ?? [],
    readOnly: ({ device }) => device === null && !isDecided(id),
    show: (row) =>
      row.device === null ? (
        <b className="font-semibold">{cellText(index, row, id)}</b>
      ) : (
        <Judged severity={worst.get(`${row.id} ${id}`)}>
          <Cell
            text={gearText(row.device, id)}
            wanted={isDecided(id) ? baselineText(index.plan.site.baseline, id) : ""}
            state={states.get(`${row.id} ${id}`) ?? "asSite"}
          />
        </Judged>
      ),
  }));
  return [name, ...written];
}

/** How gear is administered, the whole site first, what differs on each device, and what each is. */
export function BaselinePanel() {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const scroller = useRef<HTMLDivElement>(null);
  const devices = useMemo(() => devicesInOrder(index).filter(isAdministered), [index]);
  const off = useMemo(
    () => devices.filter((device) => offBaseline(index, device).length > 0),
    [index, devices],
  );
  const alike = () => {
    const refusal = edit(toBaseline({ devices: off.map(({ id }) => id), fields: null }));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-2 px-4 py-2 text-13">
        <span className="min-w-0 flex-1 basis-60 text-ink2">
          Written in the first row, it holds for every device that followed so far; what differs on one is its
          exception.
        </span>
        {off.length === 0 ? null : (
          <button type="button" className="button" onClick={alike}>
            Set {counted(off.length, "device", "devices")} as the whole site
          </button>
        )}
        <button
          type="button"
          className="button"
          onClick={() =>
            download(
              fileName(index.plan.site.name, "baseline.csv"),
              CSV_TYPE,
              csv(baselineTable(index, devices)),
            )
          }
        >
          Save CSV
        </button>
      </div>
      <div ref={scroller} className="min-h-0 flex-1 overflow-auto" tabIndex={-1}>
        <GearGrid label="How it is administered" shown={ADMINISTERED} devices={devices} scroller={scroller} />
        <GearGrid label="What it is and runs" shown={IDENTITY} devices={devices} scroller={scroller} />
      </div>
    </>
  );
}

interface GridProps {
  readonly label: string;
  readonly shown: readonly GearColumn[];
  readonly devices: readonly Device[];
  readonly scroller: RefObject<HTMLDivElement | null>;
}

function GearGrid({ label, shown, devices, scroller }: GridProps) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const site = index.plan.site.id;
  const rows = useMemo((): Row[] => {
    const own = devices.map((device): Row => ({ id: device.id, device }));
    return shown.some(isDecided) ? [{ id: site, device: null }, ...own] : own;
  }, [devices, shown, site]);
  const columns = useMemo(() => columnsOf(index, list, shown, devices), [index, list, shown, devices]);
  const paste = (texts: readonly (readonly string[])[], from: ColumnId, onto: readonly string[]) => {
    if (!isWritten(from)) return "Begin with a column that can be written.";
    // What is pasted beyond the last column of this table would land in another one.
    const room = shown.length - shown.indexOf(from);
    return edit(pasteGear({ rows: texts.map((row) => row.slice(0, room)), from, onto }));
  };
  const actions = textActions<ColumnId>({
    edit: (row, column, text) =>
      row === null || !isWritten(column) ? null : edit(writeGear({ row, column, text })),
    paste,
    remove: () => "Devices are removed in the margin of each, on Drawing.",
    select: (row) => select(row === site ? null : { what: "device", id: row }),
  });
  return (
    <section aria-label={label} className="border-t border-ink">
      <h2 className="px-4 py-2 text-15">{label}</h2>
      <div className="overflow-x-auto">
        <EditGrid<Row, ColumnId>
          label={label}
          rows={rows}
          idOf={(row) => row.id}
          columns={columns}
          actions={actions}
          scroller={scroller}
          selected={selection?.what === "device" ? selection.id : null}
        />
      </div>
    </section>
  );
}
