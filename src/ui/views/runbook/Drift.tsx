"use client";

import { Fragment, useMemo, useState } from "react";
import { toast } from "sonner";
import { v7 } from "uuid";
import { takeFromDevice } from "@/core/commands";
import { grouped } from "@/core/kernel";
import { nameOf, type Device, type PlanIndex } from "@/core/plan";
import { driftBetween, driftTable, takenOf, knowledgeOf, type DriftRow, type Known } from "@/core/readback";
import { readsThatStand, type Recorded } from "@/core/records";
import { counted } from "@/core/repairs";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { whenText } from "../../kit/when-text";
import { usePlan } from "../../plan-store/use-plan";
import { useRecord } from "../../record-store/use-record";
import { differsText, ReadBack } from "./ReadBack";
import { foundIndex, type Found } from "./use-runbook";

/** What is otherwise on the devices than planned, device by device; devices are read here. */
export function Drift({ index, found }: { index: PlanIndex; found: Found }) {
  const { record } = useRecord();
  const [isReading, setReading] = useState(false);
  const known: Known = useMemo(
    () => ({ record, before: found.from === "plan" ? found.plan : null }),
    [record, found],
  );
  const asIs = useMemo(
    () => foundIndex(index, found.from === "record" ? { from: "record", record } : found),
    [index, found, record],
  );
  const rows = useMemo(
    () => (asIs === null ? [] : driftBetween(asIs, index, knowledgeOf(record, found.from === "plan"))),
    [asIs, index, record, found],
  );
  const devices = useMemo(() => [...grouped(rows, (row) => row.device.id).values()], [rows]);
  return (
    <div className="min-h-0 flex-1 overflow-auto print:hidden">
      {isReading ? <ReadBack index={index} known={known} close={() => setReading(false)} /> : null}
      <p className="flex flex-wrap items-center gap-3 border-b border-hair px-4 py-2 text-13">
        <span className="min-w-0 flex-1 basis-80">
          {summary(rows, devices.length, record.length > 0 || found.from === "plan")}
        </span>
        {isReading ? null : (
          <button type="button" className="button go" onClick={() => setReading(true)}>
            Read a device
          </button>
        )}
        {rows.length === 0 ? null : (
          <button
            type="button"
            className="button"
            onClick={() =>
              download(fileName(index.plan.site.name, "differences.csv"), CSV_TYPE, csv(driftTable(rows)))
            }
          >
            Save differences as CSV
          </button>
        )}
      </p>
      <Reads index={index} record={record} />
      {devices.map((own) => {
        const [first] = own;
        return first === undefined ? null : (
          <OfDevice key={first.device.id} device={first.device} rows={own} />
        );
      })}
    </div>
  );
}

function summary(rows: readonly DriftRow[], devices: number, isKnown: boolean): string {
  if (!isKnown)
    return (
      "Nothing is known of the devices yet: they are taken as they come out of the box. Read one, tick what " +
      "is done on site, or take a plan file above; what then differs from the plan stands here."
    );
  if (rows.length === 0) return "✓ What is known to be on the devices is as planned.";
  return (
    `${counted(rows.length, "thing is", "things are")} otherwise on ${counted(devices, "device", "devices")} ` +
    "than planned, as far as that was read, ticked or taken from a plan file. The order of work brings the " +
    "devices to the plan; or the plan takes over what is on them."
  );
}

const ROW = "grid grid-cols-[minmax(0,1fr)_minmax(0,2fr)_auto] max-[600px]:grid-cols-1";

/** As many rows of a device are shown before the rest is asked for. */
const FIRST_SHOWN = 40;

function OfDevice({ device, rows }: { device: Device; rows: readonly DriftRow[] }) {
  const edit = usePlan((state) => state.edit);
  const [isWhole, setWhole] = useState(false);
  const take = (some: readonly DriftRow[]) => {
    const taken = some.flatMap((row) => takenOf(row) ?? []);
    const refused = edit(takeFromDevice({ device: device.id, taken }));
    if (refused !== null) return toast.error(refused);
    toast(
      `${counted(taken.length, "thing is", "things are")} planned as on ${device.name}. Undo takes it back.`,
    );
  };
  const can = rows.filter((row) => takenOf(row) !== null);
  return (
    <section aria-label={device.name} className="text-13">
      <h3 className="flex flex-wrap items-center gap-3 border-b border-hair bg-paper px-4 py-1">
        <b className="font-semibold">{device.name}</b>
        <span className="text-12 text-ink2">{counted(rows.length, "difference", "differences")}</span>
        {can.length < 2 ? null : (
          <button type="button" className="button" onClick={() => take(can)}>
            Take all {can.length} into the plan
          </button>
        )}
      </h3>
      <ul>
        {(isWhole ? rows : rows.slice(0, FIRST_SHOWN)).map((row) => (
          <li
            key={`${row.change.kind} ${row.change.id}`}
            className={`${ROW} items-center gap-x-3 border-b border-hair px-4 py-[3px]`}
          >
            <span className="truncate max-[600px]:font-semibold">{row.said.name}</span>
            <Differs row={row} />
            {takenOf(row) === null ? (
              <span />
            ) : (
              <button
                type="button"
                className="button justify-self-start"
                aria-label={`Take ${row.said.name} into the plan as it is`}
                onClick={() => take([row])}
              >
                Take into the plan
              </button>
            )}
          </li>
        ))}
      </ul>
      {isWhole || rows.length <= FIRST_SHOWN ? null : (
        <p className="px-4 py-1">
          <button type="button" className="button" onClick={() => setWhole(true)}>
            Show all {rows.length}
          </button>
        </p>
      )}
    </section>
  );
}

/** Each setting with what is on the device and what is planned. */
function Differs({ row }: { row: DriftRow }) {
  if (row.said.what !== "changed") return <span className="text-ink2">{differsText(row)}</span>;
  return (
    <dl className="grid grid-cols-[minmax(0,2fr)_minmax(0,2fr)_minmax(0,2fr)] gap-x-2">
      {row.said.fields.map(({ field, before, after }) => (
        <Fragment key={field}>
          <dt className="text-ink2">{field}</dt>
          <dd className="break-words">{before}</dd>
          <dd className="break-words text-ink2">planned {after}</dd>
        </Fragment>
      ))}
    </dl>
  );
}

const FROM_WORDS = { paste: "pasted", device: "asked over the network" } as const;

/** Which devices were read, the last first; a reading can be taken back. */
function Reads({ index, record }: { index: PlanIndex; record: readonly Recorded[] }) {
  const { add } = useRecord();
  const reads = readsThatStand(record);
  if (reads.length === 0) return null;
  return (
    <ul aria-label="Read" className="border-b border-hair px-4 py-1 text-12 text-ink2">
      {reads.map(({ by, read }) => {
        const name = nameOf(index, "device", read.device);
        return (
          <li key={read.id} className="flex flex-wrap items-center gap-3 py-[2px]">
            <span>
              {name} read, {FROM_WORDS[read.from]}: {by}, {whenText(read.at, index.plan.site.timeZone)}
            </span>
            <button
              type="button"
              className="button"
              aria-label={`Take the reading of ${name} back`}
              onClick={() => add({ id: v7(), at: new Date().toISOString(), do: "takeBack", tick: read.id })}
            >
              Take back
            </button>
          </li>
        );
      })}
    </ul>
  );
}
