"use client";

import { useEffect } from "react";
import type { TestSheet } from "@/core/commissioning";
import type { PlanIndex } from "@/core/plan";
import { counted } from "@/core/repairs";
import type { TestsTab as Tab } from "../../frame/ui-state";
import { useUi } from "../../frame/use-ui";
import { Progress } from "../../kit/Progress";
import { Segmented } from "../../kit/Segmented";
import { useIndex } from "../../plan-store/use-plan";
import { SentState } from "../../record-store/SentState";
import { useRecord, useRecordNews } from "../../record-store/use-record";
import { Acceptance } from "./Acceptance";
import { Captures } from "./captures/Captures";
import { startCapture } from "./captures/use-capture";
import { useDropped } from "./captures/use-dropped";
import { SheetTab } from "./SheetTab";
import { cancelTestSheet, startTestSheet, useTestSheet } from "./use-test-sheet";
import { WhatIsWrong } from "./wrong/WhatIsWrong";

const HEADS: Readonly<Record<Tab, string>> = {
  sheet: "Tests",
  captures: "What was heard",
  wrong: "What is wrong?",
  acceptance: "Before hand-over",
};
const TABS: readonly (readonly [Tab, string])[] = [
  ["sheet", "Sheet"],
  ["captures", "Captures"],
  ["wrong", "What is wrong?"],
  ["acceptance", "Acceptance"],
];

/** The readings that prove the site, what came of them, and what is proven so far; and what is wrong. */
export function TestsView() {
  const index = useIndex();
  useRecordNews();
  const { plan, sheet } = useTestSheet(index.plan.site.id);
  const { isReady } = useRecord();
  const tab = useUi((state) => state.testsTab);
  const setUi = useUi((state) => state.set);
  const setTab = (testsTab: Tab) => setUi({ testsTab });
  const dropped = useDropped((file) => {
    startCapture(index.plan.site.id, file);
    setTab("captures");
  });
  const isEmpty = index.plan.device.size === 0;
  const isOld = plan !== index.plan;
  useEffect(() => {
    if (!isEmpty && isOld) startTestSheet(index);
  }, [index, isEmpty, isOld]);
  if (isEmpty) return <Empty />;
  return (
    <main className={`sheet print-whole fills ${dropped.isOver ? "bg-act-wash" : ""}`} {...dropped.handlers}>
      <div className="head">
        <h1>{HEADS[tab]}</h1>
        <p>{sheet === null || tab !== "sheet" ? "" : summary(sheet)}</p>
        <span className="push" />
        <Segmented label="Tests" value={tab} choices={TABS} onChoose={setTab} />
      </div>
      <SheetWork index={index} />
      {isReady ? (
        <>
          <SentState />
          <Tabbed index={index} sheet={sheet} tab={tab} onTab={setTab} />
        </>
      ) : (
        <p className="p-4 text-13 text-ink2">Reading what this browser keeps …</p>
      )}
    </main>
  );
}

interface TabbedProps {
  readonly index: PlanIndex;
  readonly sheet: TestSheet | null;
  readonly tab: Tab;
  readonly onTab: (tab: Tab) => void;
}

/** What is looked at; without the sheet only what is wrong can be. */
function Tabbed({ index, sheet, tab, onTab }: TabbedProps) {
  if (tab === "wrong") return <WhatIsWrong index={index} sheet={sheet} />;
  if (tab === "captures") return <Captures index={index} onWrong={() => onTab("wrong")} />;
  if (sheet === null) return null;
  return tab === "sheet" ? (
    <SheetTab index={index} sheet={sheet} onWrong={() => onTab("wrong")} />
  ) : (
    <Acceptance index={index} sheet={sheet} onTab={onTab} />
  );
}

const Empty = () => (
  <main className="sheet print-whole fills">
    <div className="head">
      <h1>Tests</h1>
    </div>
    <p className="max-w-[60ch] p-4 text-15">
      Here stand the readings that prove the site: where to plug in, what to look at, what has to be read. Add
      the gear on Hardware first.
    </p>
  </main>
);

/** How far the sheet is, where it is not that of the plan as it is now. */
function SheetWork({ index }: { index: PlanIndex }) {
  const { sheet, of, isWorking, done, all, fault } = useTestSheet(index.plan.site.id);
  if (fault !== null)
    return (
      <p role="alert" className="p-4 text-stop">
        {fault}
      </p>
    );
  if (isWorking)
    return (
      <Progress label="Working the readings out" done={done} all={all} onStop={cancelTestSheet}>
        Working out what proves the site …
      </Progress>
    );
  if (of === index.plan) return null;
  return (
    <p role="status" className="flex items-center gap-3 border-b border-hair px-4 py-2 text-13 text-warn">
      {sheet === null ? "Called off." : "The plan has changed since these readings were worked out."}
      <button type="button" className="button" onClick={() => startTestSheet(index)}>
        Work them out
      </button>
    </p>
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
