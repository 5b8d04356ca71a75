"use client";

import { useMemo, useRef, useState } from "react";
import { copyRegion, pasteRegions, writeRegion } from "@/core/commands";
import { grouped } from "@/core/kernel";
import type { Device } from "@/core/plan";
import { regionCellText, regionColumns, withRegions, type RegionColumn } from "@/core/planners";
import { counted } from "@/core/repairs";
import { configurationDigest, regionKey } from "@/core/spanning-tree";
import { useUi } from "../../frame/use-ui";
import { TextTable } from "../../grid/TextTable";
import { useIndex, usePlan } from "../../plan-store/use-plan";

/** Where a switch has no other place in this table. */
const ELSEWHERE = "Switches are added and removed on Hardware.";
const MONO_FROM = 2;

/** What most of the switches say in a column; the first by name among equals. */
function usual(texts: readonly string[]): string {
  const counts = [...grouped(texts, (text) => text)].map(([text, all]) => ({ text, count: all.length }));
  return counts.reduce((most, count) => (count.count > most.count ? count : most), { text: "", count: 0 })
    .text;
}

const textOf = (device: Device, column: RegionColumn): string =>
  column === "digest" ? configurationDigest(device) : regionCellText(device, column);

/** Gives all switches the region of one, in one act. */
function OneRegion({ devices }: { devices: readonly Device[] }) {
  const edit = usePlan((state) => state.edit);
  const [chosen, setChosen] = useState<string | null>(null);
  const regions = grouped(devices, regionKey);
  const from = devices.find(({ id }) => id === chosen) ?? devices[0];
  if (regions.size < 2 || from === undefined) return null;
  const others = devices.filter((device) => regionKey(device) !== regionKey(from)).map(({ id }) => id);
  return (
    <span className="flex flex-wrap items-center gap-2">
      <label className="flex items-center gap-2">
        Region of
        <select className="field h-7" value={from.id} onChange={(event) => setChosen(event.target.value)}>
          {devices.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <button
        type="button"
        className="button !min-h-7"
        onClick={() => edit(copyRegion({ from: from.id, onto: others }))}
      >
        Give it to {counted(others.length, "other switch", "other switches")}
      </button>
    </span>
  );
}

/** Regions of multiple trees as one grid: what differs from most of the others is marked. */
export function RegionTable() {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const scroller = useRef<HTMLDivElement>(null);
  const devices = useMemo(() => withRegions(index), [index]);
  const columns = regionColumns(index.plan);
  const rows = useMemo(() => new Map(devices.map((device) => [device.id, device])), [devices]);
  const usually = useMemo(
    () =>
      new Map(
        regionColumns(index.plan).map(([column]) => [
          column,
          usual(devices.map((device) => textOf(device, column))),
        ]),
      ),
    [index.plan, devices],
  );
  if (devices.length === 0)
    return (
      <p className="max-w-[62ch] p-4 text-15">
        No switch runs multiple trees (MSTP) yet. Choose that kind of tree in the margin of the switches that
        shall be one region; their names, revisions and maps are then laid side by side here.
      </p>
    );
  const regions = grouped(devices, regionKey).size;
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
      <TextTable<Device, RegionColumn>
        label="Regions"
        about={
          `${counted(regions, "region", "regions")}; ` +
          "a number is the tree that carries the VLAN, 0 the common one"
        }
        what="device"
        rows={rows}
        columns={columns}
        mono={new Set(columns.slice(MONO_FROM).map(([column]) => column))}
        text={textOf}
        before={(device, column) =>
          column === "name" || textOf(device, column) === usually.get(column) ? null : (
            <span
              className="font-semibold text-stop"
              title={`Most others have ${usually.get(column) || "none"}`}
            >
              ≠{" "}
            </span>
          )
        }
        actions={{
          edit: (id, column, text) =>
            id === null ? ELSEWHERE : edit(writeRegion({ device: id, column, text })),
          paste: (pasted, from, onto) => edit(pasteRegions({ rows: pasted, from, onto })),
          remove: () => ELSEWHERE,
          select: (id) => select({ what: "device", id }),
        }}
        scroller={scroller}
        newRow={{}}
        add={<OneRegion devices={devices} />}
      />
      <p className="max-w-[70ch] px-4 pt-2 text-13 text-ink2">
        The digest (IEEE 802.1Q section 13.8) is what a switch shows of its map: lay it beside the one here.
        Where every VLAN is in the common tree it is AC36177F50283CD4B83821D8AB26DE62.
      </p>
    </div>
  );
}
