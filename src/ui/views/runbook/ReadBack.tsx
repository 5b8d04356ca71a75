"use client";

import { useMemo, useState } from "react";
import { v7 } from "uuid";
import type { Device, PlanIndex } from "@/core/plan";
import {
  driftBetween,
  keepReading,
  knowledgeOf,
  missingVlans,
  readDevice,
  readWords,
  seenIn,
  type DriftRow,
  type Known,
  type Reading,
} from "@/core/readback";
import type { Read } from "@/core/records";
import { counted, listed } from "@/core/repairs";
import { setUpDevices } from "@/core/runbook";
import { Combo } from "../../kit/Combo";
import { tooLarge } from "../../kit/table-text";
import { useRecord } from "../../record-store/use-record";
import { AskDevice } from "./AskDevice";
import { startRunbook } from "./use-runbook";

/** The text of a device, and whether it came from the device itself. */
interface Heard {
  readonly text: string;
  readonly from: "paste" | "device";
}
const NOTHING: Heard = { text: "", from: "paste" };

interface Props {
  readonly index: PlanIndex;
  readonly known: Known;
  readonly close: () => void;
  /** The device that is read first; null for the first of all. */
  readonly first?: string | null;
}

/** What a device shows is read, laid beside the plan, and noted as what is on it. */
export function ReadBack({ index, known, close, first = null }: Props) {
  const devices = useMemo(() => setUpDevices(index), [index]);
  const [id, setId] = useState(first ?? devices[0]?.id ?? "");
  const [heard, setHeard] = useState<Heard>(NOTHING);
  const [refusal, setRefusal] = useState<string | null>(null);
  const device = devices.find((device) => device.id === id);
  const open = async (file: File | undefined) => {
    if (file === undefined) return;
    const why = tooLarge(file);
    setRefusal(why);
    if (why === null) setHeard({ text: await file.text(), from: "paste" });
  };
  return (
    <section aria-label="Read a device" className="border-b border-hair bg-paper text-13 print:hidden">
      <div className="flex flex-wrap items-center gap-3 px-4 py-2">
        <h2 className="text-15 font-semibold">Read a device</h2>
        <Combo
          label="Device"
          value={id}
          choices={devices.map(({ id: value, name, model }) => ({ value, label: name, detail: model }))}
          onChoose={(next) => {
            setId(next);
            setHeard(NOTHING);
          }}
          empty="no device"
        />
        <input
          type="file"
          aria-label="File with what the device shows"
          accept=".json,.csv,.txt,application/json,text/csv,text/plain"
          onChange={(event) => {
            void open(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
        <span className="push flex-1" />
        <button type="button" className="button" onClick={close}>
          Close
        </button>
      </div>
      <div className="grid gap-3 px-4 pb-3 min-[900px]:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <div className="flex min-w-0 flex-col gap-2">
          <label className="flex flex-col gap-1 text-ink2">
            Paste its table of ports, of VLANs or of addresses with their heads, or its configuration as JSON
            (RFC 7951)
            <textarea
              className="field mono h-36 p-2 text-12 text-ink"
              spellCheck={false}
              value={heard.text}
              onChange={(event) => setHeard({ text: event.target.value, from: "paste" })}
            />
          </label>
          {device === undefined ? null : (
            <AskDevice
              key={device.id}
              index={index}
              device={device}
              onHeard={(text) => {
                setRefusal(null);
                setHeard({ text, from: "device" });
              }}
            />
          )}
        </div>
        <div className="min-w-0" aria-live="polite">
          {refusal === null ? null : (
            <p role="alert" className="text-stop">
              {refusal}
            </p>
          )}
          {device === undefined || heard.text.trim() === "" ? (
            <p className="text-ink2">
              Nothing is changed on the device. What is read counts as on it from then on: the order of work
              begins there, and what differs from the plan is listed.
            </p>
          ) : (
            <Beside index={index} known={known} device={device} heard={heard} close={close} />
          )}
        </div>
      </div>
    </section>
  );
}

/** A reading as an entry of the record. */
const readEntry = (device: Device, { from }: Heard, reading: Reading, changes: Read["changes"]): Read => ({
  id: v7(),
  at: new Date().toISOString(),
  do: "read",
  device: device.id,
  from,
  saw: seenIn(reading),
  changes,
});

const NO_STATE = "What was read does not fit together with the rest of the site, so nothing is noted.";
/** As many differences are shown before they are noted. */
const FIRST_SHOWN = 8;

interface BesideProps {
  readonly index: PlanIndex;
  readonly known: Known;
  readonly device: Device;
  readonly heard: Heard;
  readonly close: () => void;
}

/** What was read, beside the plan; it is noted by a button. */
function Beside({ index, known, device, heard, close }: BesideProps) {
  const { add, record } = useRecord();
  const read = useMemo(() => readDevice(index, device, heard.text), [index, device, heard.text]);
  const kept = useMemo(
    () => (read.ok ? keepReading({ index, device, ids: v7 }, known, read.value) : null),
    [read, index, device, known],
  );
  const entry = useMemo(
    () => (read.ok && kept !== null ? readEntry(device, heard, read.value, kept.changes) : null),
    [read, kept, device, heard],
  );
  const rows = useMemo(() => {
    if (entry === null || kept === null) return [];
    const told = knowledgeOf(
      [...known.record, { by: "", entry }],
      known.record.length === 0 && known.before !== null,
    );
    return driftBetween(kept.asIs, index, told).filter((row) => row.device.id === device.id);
  }, [entry, kept, known, index, device]);
  if (!read.ok)
    return (
      <p role="alert" className="text-stop">
        {read.error}
      </p>
    );
  if (kept === null || entry === null)
    return (
      <p role="alert" className="text-stop">
        {NO_STATE}
      </p>
    );
  const vids = missingVlans(index, device, read.value);
  const note = () => {
    add(entry);
    startRunbook(index, { from: "record", record: [...record, { by: "", entry }] });
    close();
  };
  return (
    <>
      <p>
        Read: <b className="font-semibold">{readWords(read.value)}</b>.{" "}
        {rows.length === 0
          ? "All of it is as planned."
          : `${counted(rows.length, "thing is", "things are")} on ${device.name} otherwise than planned.`}
      </p>
      {vids.length === 0 ? null : (
        <p className="text-warn">
          Not on it yet, to be created before any port: {vids.length === 1 ? "VLAN" : "VLANs"}{" "}
          {listed(vids.map(String))}.
        </p>
      )}
      {kept.missed.map((sentence) => (
        <p key={sentence} className="text-warn">
          {sentence}
        </p>
      ))}
      <ul className="my-1">
        {rows.slice(0, FIRST_SHOWN).map((row) => (
          <li key={row.change.id} className="truncate">
            {row.said.name}: {differsText(row)}
          </li>
        ))}
        {rows.length <= FIRST_SHOWN ? null : (
          <li className="text-ink2">and {rows.length - FIRST_SHOWN} more</li>
        )}
      </ul>
      <button type="button" className="button go" onClick={note}>
        Note it as what is on {device.name}
      </button>
    </>
  );
}

/** How a thing differs, in a few words. */
export function differsText({ said }: DriftRow): string {
  if (said.what === "new") return "not on the device";
  if (said.what === "removed") return "on the device, not planned";
  return said.fields.map(({ field, before, after }) => `${field} ${before}, planned ${after}`).join("; ");
}
