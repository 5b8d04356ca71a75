"use client";

import { useEffect, useState } from "react";
import type { TestSheet } from "@/core/commissioning";
import { counted } from "@/core/repairs";
import { Segmented } from "../../kit/Segmented";
import { useIndex } from "../../plan-store/use-plan";
import { SentState } from "../../record-store/SentState";
import { useRecord, useRecordNews } from "../../record-store/use-record";
import { SheetTab } from "./SheetTab";
import { cancelTestSheet, startTestSheet, useTestSheet } from "./use-test-sheet";
import { WhatIsWrong } from "./wrong/WhatIsWrong";

type Tab = "sheet" | "wrong";

/** The readings that prove the site, what came of them, and what is proven so far. */
export function TestsView() {
  const index = useIndex();
  useRecordNews();
  const { plan, sheet, of, isWorking, done, all, fault } = useTestSheet(index.plan.site.id);
  const { isReady } = useRecord();
  const [tab, setTab] = useState<Tab>("sheet");
  const isEmpty = index.plan.device.size === 0;
  const isOld = plan !== index.plan;
  useEffect(() => {
    if (!isEmpty && isOld) startTestSheet(index);
  }, [index, isEmpty, isOld]);
  return (
    <main className="sheet print-whole fills">
      <div className="head">
        <h1>{tab === "sheet" ? "Tests" : "What is wrong?"}</h1>
        <p>{sheet === null || tab === "wrong" ? "" : summary(sheet)}</p>
        <span className="push" />
        {isEmpty ? null : (
          <Segmented
            label="Tests or what is wrong"
            value={tab}
            choices={[
              ["sheet", "Sheet"],
              ["wrong", "What is wrong?"],
            ]}
            onChoose={setTab}
          />
        )}
      </div>
      {isEmpty ? (
        <p className="max-w-[60ch] p-4 text-15">
          Here stand the readings that prove the site: where to plug in, what to look at, what has to be read.
          Add the gear on Hardware first.
        </p>
      ) : null}
      {fault === null ? null : (
        <p role="alert" className="p-4 text-stop">
          {fault}
        </p>
      )}
      {isWorking ? (
        <p role="status" className="flex items-center gap-3 border-b border-hair px-4 py-2 text-13">
          <progress aria-label="Working the readings out" value={done} max={all === 0 ? 1 : all} />
          Working out what proves the site …
          <button type="button" className="button" onClick={cancelTestSheet}>
            Stop
          </button>
        </p>
      ) : null}
      {isWorking || isEmpty || fault !== null || of === index.plan ? null : (
        <p role="status" className="flex items-center gap-3 border-b border-hair px-4 py-2 text-13 text-warn">
          {sheet === null ? "Called off." : "The plan has changed since these readings were worked out."}
          <button type="button" className="button" onClick={() => startTestSheet(index)}>
            Work them out
          </button>
        </p>
      )}
      {isEmpty || isReady ? null : <p className="p-4 text-13 text-ink2">Reading what this browser keeps …</p>}
      {isEmpty || !isReady ? null : <SentState />}
      {isEmpty || !isReady || tab === "wrong" || sheet === null ? null : (
        <SheetTab index={index} sheet={sheet} />
      )}
      {isEmpty || !isReady || tab === "sheet" ? null : <WhatIsWrong index={index} sheet={sheet} />}
    </main>
  );
}

function summary({ tests, facts, unproven, atLeast }: TestSheet): string {
  const proven = facts.length - unproven.length;
  const fewest = atLeast === tests.length ? "no fewer could" : `fewer than ${atLeast} could not`;
  return (
    `${counted(tests.length, "reading proves", "readings prove")} ${proven} of ` +
    `${counted(facts.length, "fact", "facts")}; ${fewest}`
  );
}
