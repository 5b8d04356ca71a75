"use client";

import { useMemo, useState } from "react";
import { issuedSheets, issuedTable } from "@/core/records";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { Segmented } from "../../kit/Segmented";
import { useHeld } from "../../plan-store/use-plan";
import { SentState } from "../../record-store/SentState";
import { useRecord, useRecordNews } from "../../record-store/use-record";
import { OpenFormats } from "../export/OpenFormats";
import { Diary } from "./Diary";
import { FallsDue } from "./FallsDue";
import { IssueSheet } from "./IssueSheet";
import { Labels } from "./papers/Labels";
import { Papers } from "./papers/Papers";
import { SheetDetails } from "./SheetDetails";
import { SheetTable } from "./SheetTable";

type Tab = "sheets" | "papers" | "labels" | "formats" | "diary" | "due";
const TABS: readonly (readonly [Tab, string])[] = [
  ["sheets", "Sheets"],
  ["papers", "Papers"],
  ["labels", "Labels"],
  ["formats", "Open formats"],
  ["diary", "Diary"],
  ["due", "What falls due"],
];

/** The states of the plan that were issued, who signed them, and what has changed since. */
export function HandOverView() {
  useRecordNews();
  const held = useHeld();
  const { index } = held;
  const { record } = useRecord();
  const sheets = useMemo(() => issuedSheets(record), [record]);
  const [chosen, setChosen] = useState<string | null>(null);
  const [isIssuing, setIssuing] = useState(false);
  const [tab, setTab] = useState<Tab>("sheets");
  const standing = sheets.filter(({ isWithdrawn }) => !isWithdrawn);
  const open = sheets.find(({ issue }) => issue.id === chosen) ?? standing.at(-1) ?? sheets.at(-1);
  const save = () =>
    download(fileName(index.plan.site.name, "sheets.csv"), CSV_TYPE, csv(issuedTable(sheets)));
  return (
    <main className="sheet">
      <div className="head">
        <h1>Hand-over</h1>
        <span className="push" />
        <Segmented label="Hand-over" value={tab} choices={TABS} onChoose={setTab} />
        <button type="button" className="button go" onClick={() => setIssuing(true)}>
          Issue this state
        </button>
      </div>
      <SentState />
      <div className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
        {tab === "due" ? <FallsDue index={index} /> : null}
        {tab === "diary" ? <Diary index={index} /> : null}
        {tab === "labels" ? <Labels index={index} /> : null}
        {tab === "formats" ? <OpenFormats /> : null}
        {tab === "papers" ? <Papers sheets={sheets} /> : null}
        {tab === "sheets" && open === undefined ? <Nothing /> : null}
        {tab === "sheets" && open !== undefined ? (
          <>
            <SheetTable
              index={index}
              revision={held.revision}
              sheets={sheets}
              open={open.issue.id}
              onOpen={setChosen}
            />
            <p className="border-b border-hair px-4 py-2 text-right print:hidden">
              <button type="button" className="button" onClick={save}>
                Save all sheets as CSV
              </button>
            </p>
            <SheetDetails key={open.issue.id} sheet={open} sheets={sheets} />
          </>
        ) : null}
      </div>
      <IssueSheet isOpen={isIssuing} onClose={() => setIssuing(false)} />
    </main>
  );
}

const Nothing = () => (
  <p className="max-w-[64ch] p-4 text-15">
    Nothing was issued yet. A sheet is the plan as it stands at one moment, with a letter and a name: an
    offer, what is to be built, what was built. It is checked and accepted by name, it stays as it was, and
    what has changed since is always told from it.
  </p>
);
