"use client";

import { clsx } from "clsx";
import { Fragment, useState } from "react";
import { counted } from "@/core/repairs";
import { deviceExports, HISTORY_FILE, SITE_EXPORTS, writePlanFile, type SiteExport } from "@/core/formats";
import type { PlanIndex } from "@/core/plan";
import { photosToFile, recordsToFile } from "@/core/records";
import { exportText } from "@/http/contracts/csv-text";
import type { RefusedAnswer } from "@/http/contracts/answers";
import { download, downloadBlob, fileName, handOver } from "../../kit/download";
import { useHeld } from "../../plan-store/use-plan";
import { useWholeRecord, type WholeRecord } from "../../record-store/use-record";
import { ImportPlan } from "./ImportPlan";
import { NameUpdates, NameZones } from "./NameFiles";

/** What is said of a file: how it was written, or why it was not. */
type Said = string | { readonly refusal: string };

/** An export of the plan, or the plan file itself, which what was done on site goes with. */
interface File extends Omit<SiteExport, "make"> {
  /** The text of the file, or why there is none. */
  readonly make: (index: PlanIndex, done: WholeRecord) => Said;
}

const PLAN_FILE = "plan.json";
const FILES: readonly File[] = [
  {
    what: "Plan file",
    file: PLAN_FILE,
    type: "application/json",
    about:
      "Everything in the plan, and what was done on site with its photos, to keep, to pass on, or to begin a " +
      "new site with. It holds no secret, as long as no photo shows one.",
    make: (index, { record, photos }) =>
      writePlanFile(index.plan, { records: recordsToFile(record), photos: photosToFile(photos) }),
  },
  ...SITE_EXPORTS.map((siteExport): File => ({
    ...siteExport,
    make: (index) => exportText(siteExport.make(index)),
  })),
];

const HISTORY_TOO = {
  what: "Plan file with its history",
  about:
    "The plan file, and every change that made it: who made it and when, each value before and after. A site " +
    "that begins with it has that history.",
};

const NOTHING_DONE: WholeRecord = { record: [], photos: [], missing: 0 };

const missingWords = ({ missing }: WholeRecord): string =>
  missing === 0
    ? ""
    : ` ${counted(missing, "photo is", "photos are")} not in it: not sent by its phone yet, or no connection.`;

/** What leaves the plan in open formats, all in one place, and what comes in. */
export function OpenFormats() {
  const { index, pending } = useHeld();
  const [said, setSaid] = useState<Said>("");
  const isRefused = typeof said !== "string";
  const wholeRecord = useWholeRecord();
  const save = async (file: File): Promise<Said> => {
    const name = fileName(index.plan.site.name, file.file);
    const done = file.file === PLAN_FILE ? await wholeRecord() : NOTHING_DONE;
    const text = file.make(index, done);
    if (typeof text !== "string") return text;
    download(name, file.type, text);
    const lines = counted(text.trimEnd().split("\n").length, "line", "lines");
    const unsaved = pending.length > 0 ? "; it holds changes that are not saved yet" : "";
    return `${name} is written: ${lines}, ${Math.ceil(text.length / 1000)} kB${unsaved}.${missingWords(done)}`;
  };
  const saveWithHistory = async (): Promise<Said> => {
    setSaid("The server puts the history together …");
    const file = await withHistory(index.plan.site.id);
    if ("refusal" in file) return file;
    const name = fileName(index.plan.site.name, HISTORY_FILE);
    handOver(name, file);
    const lacks = pending.length > 0 ? "; it lacks the changes that are not saved yet" : "";
    return `${name} is written: ${Math.ceil(file.size / 1000)} kB${lacks}.`;
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
        className={clsx(
          "sticky top-0 z-10 border-b border-hair bg-panel px-4 py-2 text-13 empty:border-0",
          "empty:p-0",
          isRefused ? "text-stop" : "text-sound",
        )}
      >
        {isRefused ? said.refusal : said}
      </p>
      <ul>
        {FILES.map((file) => (
          <Fragment key={file.file}>
            <li>
              <Saved
                {...file}
                isFirst={file.file === PLAN_FILE}
                onSave={() => void save(file).then(setSaid)}
              />
            </li>
            {file.file === PLAN_FILE ? (
              <li>
                <Saved {...HISTORY_TOO} onSave={() => void saveWithHistory().then(setSaid)} />
              </li>
            ) : null}
          </Fragment>
        ))}
      </ul>
      <Saved {...ALL_SHEETS} onSave={() => void saveSheets().then(setSaid)} />
      <NameZones say={setSaid} />
      <NameUpdates say={setSaid} />
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
  deviceExports(index).flatMap(({ file, make }) => {
    const text = exportText(make(index));
    return typeof text === "string" ? [[file, new TextEncoder().encode(text)] as const] : [];
  });

/** The file, or why the server gives none. */
async function withHistory(site: string): Promise<Blob | { readonly refusal: string }> {
  const answer = await fetch(`/api/sites/${site}/exports/${HISTORY_FILE}`).catch(() => null);
  if (answer === null)
    return {
      refusal:
        "The server does not answer; the history lies there. The plan file without it can be saved here.",
    };
  if (answer.ok) return answer.blob();
  const refused = (await answer.json().catch(() => null)) as RefusedAnswer | null;
  return {
    refusal: refused?.sentence ?? `The server's answer (${answer.status}) could not be read. Try again.`,
  };
}

const ALL_SHEETS = {
  what: "Sheets of all devices",
  about:
    "What is entered on each device, in one ZIP: as a table, as JSON, and as YANG data (RFC 7951 by the " +
    "models of RFC 8343, 8344, 8519 and of bridges).",
};

/** "Plan file" as "plan file"; "DHCP scopes" as it is. */
const inSentence = (what: string): string =>
  /^[A-Z][a-z]/.test(what) ? `${what.slice(0, 1).toLowerCase()}${what.slice(1)}` : what;

interface SavedProps {
  readonly what: string;
  readonly about: string;
  readonly isFirst?: boolean;
  readonly onSave: () => void;
}
function Saved({ what, about, isFirst = false, onSave }: SavedProps) {
  return (
    <div className="flex items-center gap-4 border-b border-hair p-4">
      <div className="flex-1">
        <h2 className="text-15">{what}</h2>
        <p className="text-13 text-ink2">{about}</p>
      </div>
      <button type="button" className={isFirst ? "button go" : "button"} onClick={onSave}>
        Save {inSentence(what)}
      </button>
    </div>
  );
}
