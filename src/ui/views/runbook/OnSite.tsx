"use client";

import { useEffect, useMemo, useState } from "react";
import { v7 } from "uuid";
import type { PlanIndex } from "@/core/plan";
import {
  changesOf,
  changesOfFound,
  follow,
  isOutdated,
  latestVisit,
  recordTable,
  siteAsIs,
  tickedStep,
  type Recorded,
  type RecordEntry,
  type Tick,
  type TickCame,
  type Visit,
} from "@/core/records";
import { counted } from "@/core/repairs";
import type { Runbook, Step } from "@/core/runbook";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { whenText } from "../../kit/when-text";
import { useRecord } from "../../record-store/use-record";
import { DoneList, LeftBehind } from "./DoneList";
import { NowStep, type Said } from "./NowStep";
import { SentState } from "../../record-store/SentState";
import { startRunbook, useRunbook, type Found } from "./use-runbook";

const now = (): { readonly id: string; readonly at: string } => ({ id: v7(), at: new Date().toISOString() });

interface Shown {
  readonly index: PlanIndex;
  readonly found: Found;
  readonly runbook: Runbook;
}

/** The work itself: a visit is begun, each step ticked as it came out, and ended; or what the last one left. */
export function OnSite(shown: Shown) {
  const { record, isReady } = useRecord();
  const visit = latestVisit(record);
  if (!isReady) return <p className="p-4 text-13 text-ink2">Reading what this browser keeps …</p>;
  return (
    <div className="min-h-0 flex-1 overflow-auto print:hidden">
      <SentState />
      {visit === null || visit.ended !== null ? (
        <Begin {...shown} last={visit} />
      ) : (
        <GoesOn {...shown} visit={visit} />
      )}
    </div>
  );
}

const NO_STATE = "What is found does not fit this plan. Choose anew what is on the devices, above.";

/** What a visit begins from, as an entry; null where what is found is no state of the plan. */
function startOf(index: PlanIndex, found: Found): RecordEntry | null {
  if (found.from === "box") return { ...now(), do: "start", from: "box", name: "", changes: [] };
  if (found.from === "record") return { ...now(), do: "start", from: "last", name: "", changes: [] };
  const changes = changesOfFound(index, found.plan);
  return changes === null
    ? null
    : { ...now(), do: "start", from: "plan", name: found.name.slice(0, 200), changes };
}

const FOUND_WORDS: Readonly<Record<Found["from"], string>> = {
  box: "with gear as it comes out of the box",
  plan: "with what the plan file says",
  record: "with what the record says",
};

function Begin({ index, found, runbook, last }: Shown & { last: Visit | null }) {
  const { record, add } = useRecord();
  const [fault, setFault] = useState<string | null>(null);
  const isOld = found.from === "record" && found.record.length !== record.length;
  useEffect(() => {
    if (isOld) startRunbook(index, { from: "record", record });
  }, [isOld, index, record]);
  const begin = () => {
    const entry = startOf(index, found);
    if (entry === null) return setFault(NO_STATE);
    add(entry);
    startRunbook(index, { from: "record", record: [...record, { by: "", entry }] });
  };
  const left = last?.ticks.filter(({ tick }) => tick.came === "cannot").length ?? 0;
  return (
    <div className="max-w-[64ch] p-4 text-15">
      <p>
        On site you tick each step as it came out, and what is on the devices is known from then on: to you,
        to whoever works beside you, and to the next visit. Without a connection the ticks are kept in this
        browser and sent later.
      </p>
      {last === null ? null : (
        <p className="mt-3 text-13 text-ink2">
          The last visit, of {last.by}, ended{" "}
          {whenText(last.ended ?? last.start.at, index.plan.site.timeZone)}:{" "}
          {counted(last.ticks.length, "step", "steps")} ticked
          {left === 0 ? "" : `, ${left} of them as not to be done`}.
        </p>
      )}
      {fault === null ? null : (
        <p role="alert" className="mt-3 text-stop">
          {fault}
        </p>
      )}
      <p className="mt-4 flex flex-wrap gap-2">
        <button
          type="button"
          className="button go tall max-w-full !whitespace-normal"
          disabled={runbook.steps.length === 0}
          onClick={begin}
        >
          Begin a visit {FOUND_WORDS[found.from]}
        </button>
        {record.length === 0 ? null : <SaveRecord index={index} record={record} />}
      </p>
      {runbook.steps.length === 0 ? (
        <p className="mt-3 text-13 text-ink2">There is nothing to do: the devices are as planned.</p>
      ) : null}
    </div>
  );
}

const SaveRecord = ({ index, record }: { index: PlanIndex; record: readonly Recorded[] }) => (
  <button
    type="button"
    className="button tall"
    onClick={() =>
      download(fileName(index.plan.site.name, "record.csv"), CSV_TYPE, csv(recordTable(index, record)))
    }
  >
    Save the record as CSV
  </button>
);

/** The order on screen laid beside what was ticked since it was found; found anew where it no longer holds. */
function useFollowed({ index, found, runbook }: Shown, visit: Visit) {
  const { record } = useRecord();
  const { plan } = useRunbook(index.plan.site.id);
  const of = found.from === "record" ? found.record : null;
  const followed = useMemo(() => {
    if (of === null) return null;
    const then = new Set(of.map(({ entry }) => entry.id));
    const begun = then.has(visit.start.id);
    const since = visit.ticks.flatMap(({ tick }) => (then.has(tick.id) ? [] : [tick]));
    const { ticks, holds } = follow(runbook.steps, since);
    return { ticks, holds: holds && begun && !isOutdated(of, record) };
  }, [of, runbook, visit, record]);
  const holds = followed?.holds === true && plan === index.plan;
  useEffect(() => {
    if (!holds) startRunbook(index, { from: "record", record });
  }, [holds, index, record]);
  return holds ? followed : null;
}

function GoesOn({ visit, ...shown }: Shown & { visit: Visit }) {
  const { index, runbook } = shown;
  const { record, add } = useRecord();
  const followed = useFollowed(shown, visit);
  const [fault, setFault] = useState<string | null>(null);
  const [goesOn, setGoesOn] = useState(false);
  if (followed === null) return null;
  const at = followed.ticks.findIndex((tick) => tick === null);
  const step = runbook.steps[at];
  const left = followed.ticks.filter((tick) => tick === null).length;
  const takeOut = (photo: string) => add({ ...now(), do: "takeOut", photo });
  const end = () => add({ ...now(), do: "end", note: "" });
  const tick = (came: TickCame, said: Said, parts: ReadonlySet<number> | null) => {
    const entry = step === undefined ? null : tickOf(index, record, { step, came, said, parts });
    setFault(entry === null ? APART : null);
    if (entry !== null) {
      add(entry, said.photos);
      setGoesOn(true);
    }
    return entry !== null;
  };
  return (
    <>
      <VisitHead index={index} visit={visit} left={left} />
      {fault === null ? null : (
        <p role="alert" className="border-b border-hair px-4 py-2 text-13 text-stop">
          {fault}
        </p>
      )}
      {step === undefined ? (
        <p role="status" className="p-4 text-15 text-sound">
          ✓ Everything that can be done is done. End the visit.
        </p>
      ) : (
        <NowStep
          key={`${at} ${step.title}`}
          index={index}
          record={record}
          step={step}
          number={visit.ticks.length + 1}
          all={visit.ticks.length + left}
          goesOn={goesOn}
          onTick={tick}
        />
      )}
      <Next steps={runbook.steps} ticks={followed.ticks} at={at} number={visit.ticks.length + 1} />
      <DoneList
        index={index}
        visit={visit}
        onTakeBack={(id) => add({ ...now(), do: "takeBack", tick: id })}
        onTakeOut={takeOut}
      />
      <LeftBehind record={record} onTakeOut={takeOut} />
      <p className="flex flex-wrap gap-2 border-t border-hair p-4">
        <button type="button" className={left === 0 ? "button go tall" : "button tall"} onClick={end}>
          End the visit
        </button>
        <SaveRecord index={index} record={record} />
      </p>
    </>
  );
}

const APART =
  "Only these can't be so: one of them needs another that is not chosen. Choose what really is on the device.";

interface Ticking {
  readonly step: Step;
  readonly came: TickCame;
  readonly said: Said;
  readonly parts: ReadonlySet<number> | null;
}

/** A tick with what it makes different on the devices; null where only some of its parts can't be so. */
function tickOf(
  index: PlanIndex,
  record: readonly Recorded[],
  { step, came, said, parts }: Ticking,
): Tick | null {
  const entries = record.map(({ entry }) => entry);
  const asIs = step.operation === null || came === "cannot" ? null : siteAsIs(index, entries);
  const changes = asIs === null || step.operation === null ? [] : changesOf(asIs, step.operation, parts);
  const after = latestVisit(record)?.ticks.at(-1)?.tick.id ?? null;
  const photos = said.photos.map(({ id }) => id);
  return changes === null
    ? null
    : { ...now(), do: "tick", after, step: tickedStep(step), came, ...said, photos, changes };
}

function VisitHead({ index, visit, left }: { index: PlanIndex; visit: Visit; left: number }) {
  return (
    <p className="border-b border-hair px-4 py-2 text-13 text-ink2">
      Visit of {visit.by}, since {whenText(visit.start.at, index.plan.site.timeZone)}:{" "}
      {counted(visit.ticks.length, "step", "steps")} ticked, {left} to go.
    </p>
  );
}

/** What comes after the step that is open. */
function Next({
  steps,
  ticks,
  at,
  number,
}: {
  steps: readonly Step[];
  ticks: readonly (Tick | null)[];
  at: number;
  number: number;
}) {
  const next = steps.filter((_, number) => number > at && ticks[number] === null);
  if (at < 0 || next.length === 0) return null;
  return (
    <section className="border-t border-hair px-4 py-3 text-13">
      <h3 className="mb-1 font-semibold">Then</h3>
      <ol aria-label="Then">
        {next.slice(0, 3).map(({ title }, after) => (
          <li key={`${after} ${title}`} className="py-[2px] text-ink2">
            <span className="mono">{number + after + 1}</span> {title}
          </li>
        ))}
      </ol>
    </section>
  );
}
