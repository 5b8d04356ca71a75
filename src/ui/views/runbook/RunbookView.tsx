"use client";

import { Fragment, useEffect } from "react";
import { nameOf, type PlanIndex } from "@/core/plan";
import { isOutdated, type Recorded } from "@/core/records";
import { counted, listed } from "@/core/repairs";
import {
  type Ahead,
  interruptsText,
  laptopText,
  runbookTable,
  type Runbook,
  type Step,
} from "@/core/runbook";
import { useUi } from "../../frame/use-ui";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { Progress } from "../../kit/Progress";
import { RowList, type ListRow } from "../../kit/RowList";
import { Segmented } from "../../kit/Segmented";
import { useHeld, useIndex } from "../../plan-store/use-plan";
import { useRecord, useRecordNews } from "../../record-store/use-record";
import { FoundChoice } from "./FoundChoice";
import { Drift } from "./Drift";
import { Lanes } from "./Lanes";
import { OnSite } from "./OnSite";
import { PrintedSteps } from "./PrintedSteps";
import { Rehearse } from "./Rehearse";
import { StandIns } from "./StandIns";
import { Windows } from "./Windows";
import { cancelRunbook, isLooking, startRunbook, useRunbook, type Found as OnDevices } from "./use-runbook";
import { useWay, WAYS } from "./use-way";

const ROW = 30;
const COLUMNS = "grid-cols-[32px_minmax(190px,2fr)_minmax(90px,0.9fr)_minmax(80px,0.9fr)_60px]";

const HEAD = "h-8 flex-none items-center gap-2 border-b border-hair px-4 text-12 text-ink2 print:hidden";

/** What the order comes to, in a few words. */
function summary({ steps, moves, pulled, consoles }: Runbook): string {
  const parts = [
    `${counted(steps.length, "step", "steps")} from what is on the devices to the plan`,
    `the laptop is plugged in ${counted(moves, "time", "times")}`,
    ...(pulled === 0 ? [] : [`${counted(pulled, "cable is", "cables are")} pulled for it`]),
    ...(consoles === 0 ? [] : [`${counted(consoles, "step needs", "steps need")} a console cable`]),
  ];
  return parts.join("; ");
}

/** The order of work, proven step by step: what to do, where the laptop is, who is cut off meanwhile. */
export function RunbookView() {
  const index = useIndex();
  const { plan, found, runbook, fault } = useRunbook(index.plan.site.id);
  useRecordNews();
  const { isReady, record } = useRecord();
  const { isOnSite } = useWay();
  const isEmpty = index.plan.device.size === 0;
  const isElse = plan !== index.plan || (found.from === "record" && isOutdated(found.record, record));
  const isOld = !isLooking(index.plan.site.id) && runbook !== null && isElse;
  useEffect(() => {
    if (isReady && !isEmpty && runbook === null && !isLooking(index.plan.site.id) && fault === null)
      startRunbook(index, record.length === 0 ? { from: "box" } : { from: "record", record });
  }, [index, runbook, isEmpty, fault, isReady, record]);
  return (
    <main className={isOnSite ? "sheet print-whole fills" : "sheet print-whole"}>
      <div className="head">
        <h1>Runbook</h1>
        <p>{runbook === null ? "" : summary(runbook)}</p>
        <span className="push" />
        {runbook === null ? null : <Tools index={index} runbook={runbook} />}
        {isOld ? (
          <button
            type="button"
            className="button go print:hidden"
            onClick={() => startRunbook(index, found.from === "record" ? { from: "record", record } : found)}
          >
            Look again
          </button>
        ) : null}
      </div>
      {isEmpty ? (
        <p className="max-w-[60ch] p-4 text-15">
          Here stands the order of work: what is done on which device, from where, so that nobody is locked
          out. Add the gear on Hardware first.
        </p>
      ) : (
        <Found index={index} isOld={isOld} record={record} />
      )}
    </main>
  );
}

/** What is on the devices, and the order that leads on from there, as far as it is found. */
function Found({ index, isOld, record }: { index: PlanIndex; isOld: boolean; record: readonly Recorded[] }) {
  const { found, done, all, ahead, runbook, fault } = useRunbook(index.plan.site.id);
  const looking = isLooking(index.plan.site.id);
  const { isOnSite } = useWay();
  const isCalledOff = !looking && runbook === null && fault === null;
  return (
    <>
      {isOnSite && !isCalledOff ? null : <FoundChoice index={index} found={found} record={record} />}
      {fault === null ? null : (
        <p role="alert" className="p-4 text-stop">
          {fault}
        </p>
      )}
      {looking ? (
        <Progress label="Operations in their place" done={done} all={all} onStop={cancelRunbook}>
          {all === 0 ? "getting ready" : `${done} of ${all} operations have their place`}
        </Progress>
      ) : null}
      {looking && ahead !== null ? <AheadOfAll ahead={ahead} /> : null}
      {isOld && !isOnSite ? (
        <p role="status" className="border-b border-hair px-4 py-2 text-13 text-warn">
          The plan, or what is known of the devices, has changed since this order was found.
        </p>
      ) : null}
      {isCalledOff ? (
        <p className="p-4 text-13 text-ink2">Called off. Choose what is on the devices to start anew.</p>
      ) : null}
      {looking || runbook === null ? null : <Shown index={index} runbook={runbook} found={found} />}
    </>
  );
}

/** The order that was found, or one's own, tried step by step. */
function Shown({ index, runbook, found }: { index: PlanIndex; runbook: Runbook; found: OnDevices }) {
  const set = useUi((state) => state.set);
  const { way } = useWay();
  const { revision, pending } = useHeld();
  return (
    <>
      <div className="flex-none border-b border-hair px-4 py-2 print:hidden">
        <Segmented
          label="Runbook"
          value={way}
          choices={WAYS}
          onChoose={(runbookWay) => set({ runbookWay })}
        />
      </div>
      {way === "order" ? <Order index={index} runbook={runbook} /> : null}
      {way === "windows" ? <Windows index={index} runbook={runbook} /> : null}
      {way === "visit" ? <OnSite index={index} found={found} runbook={runbook} /> : null}
      {way === "rehearse" ? (
        <Rehearse
          key={found.from === "plan" ? `plan ${found.name}` : found.from}
          index={index}
          found={found}
        />
      ) : null}
      {way === "standIns" ? (
        <StandIns
          index={index}
          revision={pending.length === 0 ? revision : null}
          found={found}
          runbook={runbook}
        />
      ) : null}
      {way === "differences" ? <Drift index={index} found={found} /> : null}
      {way === "order" ? null : <PrintedSteps index={index} steps={runbook.steps} />}
    </>
  );
}

/** The next operation, to be read while the rest of the order is looked for. */
function AheadOfAll({ ahead: { device, title, values, laptop } }: { ahead: Ahead }) {
  return (
    <section aria-label="Comes next" className="px-4 py-3">
      <p className="text-12 text-ink2">Comes next, as far as the order is found</p>
      <h2 className="text-22">
        {device}: {title}
      </h2>
      <dl className="mt-2 grid grid-cols-[minmax(90px,auto)_minmax(0,1fr)] gap-x-4 text-13">
        {values.map(([name, value]) => (
          <Fragment key={name}>
            <dt className="text-ink2">{name}</dt>
            <dd>{value}</dd>
          </Fragment>
        ))}
      </dl>
      {laptop === "" ? null : <p className="mt-2 text-13">{laptop}</p>}
    </section>
  );
}

function Tools({ index, runbook }: { index: PlanIndex; runbook: Runbook }) {
  return (
    <span className="flex gap-2 print:hidden">
      <button
        type="button"
        className="button"
        onClick={() =>
          download(fileName(index.plan.site.name, "runbook.csv"), CSV_TYPE, csv(runbookTable(index, runbook)))
        }
      >
        Save CSV
      </button>
      <button type="button" className="button" onClick={() => window.print()}>
        Print
      </button>
    </span>
  );
}

/** What is said of the order as a whole: nothing is to be done, or there is no way without a cable. */
function Verdict({ runbook }: { runbook: Runbook }) {
  const { steps, consoles, isExhaustive, alreadySo } = runbook;
  if (steps.length === 0)
    return (
      <p className="p-4 text-15 text-sound">✓ Everything is on the devices as planned: nothing to do.</p>
    );
  return (
    <>
      {consoles === 0 ? null : (
        <p role="status" className="border-b border-hair px-4 py-2 text-13 text-warn">
          No order {isExhaustive ? "" : "that was found "}does without a console cable: bring one, or a second
          person. The steps that need it say so
          {isExhaustive ? "; every order was tried." : "."}
        </p>
      )}
      {alreadySo.length === 0 ? null : (
        <p className="border-b border-hair px-4 py-2 text-13 text-ink2">
          Already so, nothing to do: {listed(alreadySo.map(({ name }) => name))}.
        </p>
      )}
    </>
  );
}

function Order({ index, runbook }: { index: PlanIndex; runbook: Runbook }) {
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const { steps } = runbook;
  const at = selection?.what === "step" && selection.number < steps.length ? selection.number : null;
  return (
    <>
      <Verdict runbook={runbook} />
      {steps.length === 0 ? null : (
        <>
          <Lanes index={index} runbook={runbook} at={at} />
          <div aria-hidden className={`grid ${COLUMNS} ${HEAD}`}>
            <span className="text-right">step</span>
            <span>do</span>
            <span>on</span>
            <span>interrupts</span>
            <span className="text-center">proven</span>
          </div>
          <div className="flex min-h-0 flex-1 flex-col print:hidden">
            <RowList
              label="Steps of the runbook"
              count={steps.length}
              height={ROW}
              columns={COLUMNS}
              at={at}
              choose={(number) => select({ what: "step", number })}
              row={(number) => rowOf(index, steps[number], number)}
            />
          </div>
          <PrintedSteps index={index} steps={steps} />
        </>
      )}
    </>
  );
}

/** How a step is proven, in a word or two. */
function provenWords({ needsConsole, isBlind }: Step): string {
  if (needsConsole) return "console";
  return isBlind ? "with next" : "proven";
}

function rowOf(index: PlanIndex, step: Step | undefined, number: number): ListRow | null {
  if (step === undefined) return null;
  const { kind, title, device, card, needsConsole, isBlind } = step;
  const on = device === null ? "" : nameOf(index, "device", device);
  const interrupts = interruptsText(step);
  const isMove = kind === "move";
  const proven = provenWords(step);
  return {
    key: `${number}`,
    words: [`Step ${number + 1}: ${title}`, on, interrupts, proven].filter((part) => part !== "").join(", "),
    className: isMove || device === null ? "bg-paper font-semibold" : "",
    content: (
      <>
        <span className="mono text-right font-semibold">{number + 1}</span>
        <span className="truncate" title={title}>
          {title}
        </span>
        {isMove && card !== null ? (
          <span className="col-span-2 truncate font-normal text-ink2">laptop at {laptopText(card)}</span>
        ) : (
          <>
            <span className="truncate">{on}</span>
            <span
              className={`truncate ${step.cuts.length + step.stops.length > 0 ? "text-warn" : "text-ink2"}`}
              title={interrupts}
            >
              {interrupts}
            </span>
          </>
        )}
        <span className={`text-center ${needsConsole || isBlind ? "text-warn" : "text-sound"}`}>
          {proven === "proven" ? "✓" : proven}
        </span>
      </>
    ),
  };
}
