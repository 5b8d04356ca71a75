"use client";

import Papa from "papaparse";
import { useState } from "react";
import { counted } from "@/core/checks";
import { writePlanFile } from "@/core/formats";
import type { PlanIndex } from "@/core/plan";
import { addressRegisterTable, portScheduleTable } from "@/core/sheets";
import { useHeld } from "../../plan-store/use-plan";
import { ImportPlan } from "./ImportPlan";

/** Hands the browser a file to keep. */
function download(name: string, type: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type }));
  const anchor = document.createElement("a");
  anchor.href = address;
  anchor.download = name;
  anchor.click();
  URL.revokeObjectURL(address);
}

const fileName = (site: string, what: string): string => `${site.toLowerCase().replace(/[^a-z0-9]+/g, "-").replace(/^-|-$/g, "")}-${what}`;

/** RFC 4180, with a first line of heads; a text that a spreadsheet would run as a formula is written as a text. */
const csv = (table: string[][]): string => `${Papa.unparse(table, { newline: "\r\n", escapeFormulae: true })}\r\n`;

interface File { readonly what: string; readonly name: string; readonly type: string; readonly about: string; readonly make: (index: PlanIndex) => string }

const FILES: readonly File[] = [
  { what: "Plan file", name: "plan.json", type: "application/json", about: "Everything in the plan, to keep, to pass on, or to begin a new site with. It holds no secret.", make: (index) => writePlanFile(index.plan) },
  { what: "Address register", name: "addresses.csv", type: "text/csv;charset=utf-8", about: "Every device with its address, how it gets it, its MAC and where it is plugged in.", make: (index) => csv(addressRegisterTable(index)) },
  { what: "Port schedule", name: "ports.csv", type: "text/csv;charset=utf-8", about: "Every port of every device: what is plugged in, its VLANs, power and guards.", make: (index) => csv(portScheduleTable(index)) },
];

export function ExportView() {
  const { index, pending } = useHeld();
  const [made, setMade] = useState<string | null>(null);
  const site = index.plan.site.name;
  return (
    <main className="sheet">
      <div className="head"><h1>Export</h1><p>what leaves the plan, and what comes in</p></div>
      <div className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
        <ul>
          {FILES.map((file) => (
            <li key={file.name} className="flex items-center gap-4 border-b border-hair p-4">
              <div className="flex-1"><h2 className="text-15">{file.what}</h2><p className="text-13 text-ink2">{file.about}</p></div>
              <button type="button" className={file.name === "plan.json" ? "button go" : "button"} onClick={() => {
                const name = fileName(site, file.name);
                const text = file.make(index);
                download(name, file.type, text);
                setMade(`${name} is written: ${counted(text.trimEnd().split("\n").length, "line", "lines")}, ${Math.ceil(text.length / 1000)} kB${pending.length > 0 ? "; it holds changes that are not saved yet" : ""}.`);
              }}>Save {file.what.toLowerCase()}</button>
            </li>
          ))}
        </ul>
        <p role="status" className="px-4 pt-3 text-13 text-sound">{made}</p>
        <ImportPlan />
      </div>
    </main>
  );
}
