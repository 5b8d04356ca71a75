"use client";

import { useState } from "react";
import { counted } from "@/core/repairs";
import {
  accessListText,
  hostsFile,
  planFileJsonSchema,
  ruleListsText,
  SITE_TABLES,
  writePlanFile,
} from "@/core/formats";
import type { PlanIndex } from "@/core/plan";
import { photosToFile, recordsToFile } from "@/core/records";
import { deviceData, deviceJson, deviceTable, yangText } from "@/core/device-sheet";
import { devicesInOrder } from "@/core/sheets";
import { csv, CSV_TYPE, download, downloadBlob, fileName, type MediaType } from "../../kit/download";
import { useHeld } from "../../plan-store/use-plan";
import { useWholeRecord, type WholeRecord } from "../../record-store/use-record";
import { ImportPlan } from "./ImportPlan";
import { NameUpdates, NameZones } from "./NameFiles";

interface File {
  readonly what: string;
  readonly name: string;
  readonly type: MediaType;
  readonly about: string;
  /** The text of the file, or why there is none. */
  readonly make: (index: PlanIndex, done: WholeRecord) => string | { readonly refusal: string };
}

const accessLists = (index: PlanIndex): string | { readonly refusal: string } => {
  const written = accessListText(index);
  return "text" in written ? written.text : written;
};

const FILES: readonly File[] = [
  {
    what: "Plan file",
    name: "plan.json",
    type: "application/json",
    about:
      "Everything in the plan, and what was done on site with its photos, to keep, to pass on, or to begin a " +
      "new site with. It holds no secret, as long as no photo shows one.",
    make: (index, { record, photos }) =>
      writePlanFile(index.plan, { records: recordsToFile(record), photos: photosToFile(photos) }),
  },
  {
    what: "Schema of plan files",
    name: "plan.schema.json",
    type: "application/schema+json",
    about: "What a plan file has to look like (JSON Schema), for programs that write or check one.",
    make: () => JSON.stringify(planFileJsonSchema(), null, 2),
  },
  ...SITE_TABLES.map(({ title, file, about, make }): File => ({
    ...{ what: title, name: file, type: CSV_TYPE, about },
    make: (index) => csv(make(index)),
  })),
  {
    what: "Rules as JSON",
    name: "rules.json",
    type: "application/json",
    about: "The same lists for a program, in the words of the table. Read again in the same place.",
    make: (index) => ruleListsText(index),
  },
  {
    what: "Access lists",
    name: "access-lists.json",
    type: "application/yang-data+json",
    about:
      "The same as YANG data (RFC 8519): subnets for zones, IPv4 and IPv6 apart, what no list may stop " +
      "(RFC 4890) in front. Answers pass by the device’s own memory; rules with hours are not in it.",
    make: accessLists,
  },
  {
    what: "Hosts file",
    name: "hosts",
    type: "text/plain;charset=utf-8",
    about: "Every fixed address with its name, for a device that asks no server.",
    make: (index) => hostsFile(index),
  },
];

const NOTHING_DONE: WholeRecord = { record: [], photos: [], missing: 0 };

const missingWords = ({ missing }: WholeRecord): string =>
  missing === 0
    ? ""
    : ` ${counted(missing, "photo is", "photos are")} not in it: not sent by its phone yet, or no connection.`;

/** What leaves the plan in open formats, all in one place, and what comes in. */
export function OpenFormats() {
  const { index, pending } = useHeld();
  const [made, setMade] = useState<string | null>(null);
  const wholeRecord = useWholeRecord();
  const save = async (file: File): Promise<string> => {
    const name = fileName(index.plan.site.name, file.name);
    const done = file.name === "plan.json" ? await wholeRecord() : NOTHING_DONE;
    const text = file.make(index, done);
    if (typeof text !== "string") return text.refusal;
    download(name, file.type, text);
    const lines = counted(text.trimEnd().split("\n").length, "line", "lines");
    const unsaved = pending.length > 0 ? "; it holds changes that are not saved yet" : "";
    return `${name} is written: ${lines}, ${Math.ceil(text.length / 1000)} kB${unsaved}.${missingWords(done)}`;
  };
  const saveSheets = async (): Promise<string> => {
    const { zipOf } = await import("@/paper/zip");
    const files = sheetFiles(index);
    const name = fileName(index.plan.site.name, "device-sheets.zip");
    downloadBlob(
      name,
      new Blob([zipOf(files, new Date().toISOString()).slice()], { type: "application/zip" }),
    );
    return `${name} is written: ${counted(files.length, "file", "files")}.`;
  };
  return (
    <section aria-label="Open formats">
      {/* Always in sight: behind the list nobody who saves the first file would see it. */}
      <p
        role="status"
        className="sticky top-0 z-10 border-b border-hair bg-panel px-4 py-2 text-13 text-sound empty:border-0 empty:p-0"
      >
        {made}
      </p>
      <ul>
        {FILES.map((file) => (
          <li key={file.name} className="flex items-center gap-4 border-b border-hair p-4">
            <div className="flex-1">
              <h2 className="text-15">{file.what}</h2>
              <p className="text-13 text-ink2">{file.about}</p>
            </div>
            <button
              type="button"
              className={file.name === "plan.json" ? "button go" : "button"}
              onClick={() => void save(file).then(setMade)}
            >
              Save {file.what.toLowerCase()}
            </button>
          </li>
        ))}
      </ul>
      <SheetsOfAll onSave={() => void saveSheets().then(setMade)} />
      <NameZones say={setMade} />
      <NameUpdates say={setMade} />
      <ImportPlan />
      <p className="mx-4 mt-4 max-w-[72ch] border-t border-hair pt-3 text-13 text-ink2">
        Elsewhere, where they are made: the drawing as SVG on Hardware, captures (pcapng) on Probe under
        <i> On the wire</i>, calendars (RFC 5545) under <i>What falls due</i> and with the windows of the
        Runbook; and every table that stands on its sheet has a CSV of its own.
      </p>
    </section>
  );
}

/** What is entered on each device: its table, the same for a program, and as YANG data. */
const sheetFiles = (index: PlanIndex): (readonly [name: string, bytes: Uint8Array])[] =>
  devicesInOrder(index).flatMap((device, at) => {
    const data = deviceData(index, device);
    const name = fileName(`${at + 1} ${data.hostName || "device"}`, "sheet");
    const texts = [
      ["csv", csv(deviceTable(data))],
      ["json", deviceJson(data)],
      ["yang.json", yangText(data)],
    ] as const;
    return texts.map(([ending, text]) => [`${name}.${ending}`, new TextEncoder().encode(text)] as const);
  });

function SheetsOfAll({ onSave }: { onSave: () => void }) {
  return (
    <div className="flex items-center gap-4 border-b border-hair p-4">
      <div className="flex-1">
        <h2 className="text-15">Sheets of all devices</h2>
        <p className="text-13 text-ink2">
          What is entered on each device, in one ZIP: as a table, as JSON, and as YANG data (RFC 7951 by the
          models of RFC 8343, 8344, 8519 and of bridges).
        </p>
      </div>
      <button type="button" className="button" onClick={onSave}>
        Save sheets of all devices
      </button>
    </div>
  );
}
