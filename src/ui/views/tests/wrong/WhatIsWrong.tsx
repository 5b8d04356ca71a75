"use client";

import { useEffect, useMemo, useState } from "react";
import type { TestSheet } from "@/core/commissioning";
import type { Answer } from "@/core/diagnosis";
import type { PlanIndex } from "@/core/plan";
import { countingEntries, faultsNamed, laidBeside, namedKinds, readingsOf } from "@/core/records";
import { counted } from "@/core/repairs";
import { Progress } from "../../../kit/Progress";
import { useRecord } from "../../../record-store/use-record";
import { Explanations } from "./Explanations";
import { FourQuestions } from "./FourQuestions";
import { NamedFaults } from "./NamedFaults";
import { NewReading } from "./NewReading";
import { NextReading } from "./NextReading";
import { OpenFault } from "./OpenFault";
import { ReadingTable, type Standing } from "./ReadingTable";
import { cancelDiagnosis, startDiagnosis, useDiagnosis } from "./use-diagnosis";

/** As long as more readings are as planned, the last of them stand in the table. */
const MOST_RIGHT = 4;

/** What was read otherwise than planned, what explains it, and what to read next. */
export function WhatIsWrong({ index, sheet }: { index: PlanIndex; sheet: TestSheet | null }) {
  const { record } = useRecord();
  const { plan } = index;
  const taken = useMemo(() => readingsOf(index, sheet, record), [index, sheet, record]);
  const named = useMemo(() => namedKinds(record), [record]);
  const faults = useMemo(() => faultsNamed(record), [record]);
  const done = useMemo(() => countingEntries(record.map(({ entry }) => entry)), [record]);
  const standing = useMemo(() => laidBeside(taken), [taken]);
  const readings = useMemo(() => standing.map(({ reading }) => reading), [standing]);
  const [byPairs, setByPairs] = useState(false);
  const work = useDiagnosis(plan.site.id);
  const hasWrong = standing.some(({ taken: { came } }) => came === "otherwise");
  useEffect(() => {
    if (hasWrong) startDiagnosis({ plan, readings, named, done, byPairs });
  }, [plan, readings, named, done, byPairs, hasWrong]);
  // An answer to other readings than there are now is not laid beside them.
  const answer = hasWrong && work.of?.plan === plan && work.of.readings === readings ? work.answer : null;
  return (
    <div className="min-h-0 flex-1 overflow-auto print:overflow-visible">
      <NamedFaults index={index} faults={faults} toRepeat={taken.filter(({ isToRepeat }) => isToRepeat)} />
      {hasWrong ? null : <Nothing hasReadings={taken.length > 0} />}
      <Working {...work} onCancel={cancelDiagnosis} />
      {answer === null ? null : (
        <Answered index={index} answer={answer} standing={standing} byPairs={byPairs} onPairs={setByPairs} />
      )}
      <NewReading index={index} isFirst={!hasWrong} />
    </div>
  );
}

/** What the readings come to: beside each fault, the next reading, the fault that is looked at. */
function Answered({
  index,
  answer,
  standing,
  byPairs,
  onPairs,
}: {
  index: PlanIndex;
  answer: Answer;
  standing: Standing;
  byPairs: boolean;
  onPairs: (byPairs: boolean) => void;
}) {
  const [chosen, setChosen] = useState<string | null>(null);
  const shown = shownReadings(answer);
  const [first] = answer.candidates;
  const open = answer.candidates.find(({ suspect }) => suspect.id === chosen) ?? first;
  return (
    <>
      <ReadingTable index={index} answer={answer} standing={standing} shown={shown} />
      <Unexplainable answer={answer} standing={standing} />
      <NextReading index={index} answer={answer} />
      <Explanations
        answer={answer}
        shown={shown}
        chosen={open?.suspect.id ?? null}
        byPairs={byPairs}
        onChoose={setChosen}
        onPairs={onPairs}
      />
      {open === undefined ? null : (
        <div className="grid border-b border-ink min-[700px]:grid-cols-2">
          <OpenFault
            index={index}
            candidate={open}
            readings={standing.map(({ taken }, at) => (answer.isAsPlanned[at] === true ? null : taken.id))}
            isFirst={open === first}
            isPair={byPairs}
          />
          <FourQuestions why={answer.why} />
        </div>
      )}
    </>
  );
}

/** What is otherwise and no setting makes so, such as a loop: what to do says the reading. */
function Unexplainable({ answer, standing }: { answer: Answer; standing: Standing }) {
  const own = standing.filter(
    ({ taken }, at) => taken.came === "otherwise" && taken.says !== "" && answer.isAsPlanned[at] === true,
  );
  if (own.length === 0) return null;
  return (
    <section aria-label="No fault of the plan" className="border-b border-hair px-4 py-2 text-13">
      <p className="text-ink2">No setting makes this so; it is to be seen to on site:</p>
      <ul>
        {own.map(({ taken }) => (
          <li key={taken.id} className="[overflow-wrap:anywhere]">
            <b className="font-semibold">{taken.test.at}</b>: {taken.says}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The places of the readings that stand in the table: all that are otherwise, and the last of the others. */
function shownReadings({ isAsPlanned }: Answer): number[] {
  const places = isAsPlanned.map((_, at) => at);
  const right = places.filter((at) => isAsPlanned[at] === true).slice(-MOST_RIGHT);
  return places.filter((at) => isAsPlanned[at] === false || right.includes(at));
}

const Nothing = ({ hasReadings }: { hasReadings: boolean }) => (
  <p role="status" className="max-w-[64ch] p-4 text-15">
    {hasReadings ? "Nothing was read otherwise than planned. " : "Nothing was read yet. "}
    Where something does not work, say below what was seen: every single fault of the plan is tried against
    it, and what explains it is listed, with the reading that tells most next.
  </p>
);

function Working({
  isWorking,
  done,
  all,
  fault,
  onCancel,
}: {
  isWorking: boolean;
  done: number;
  all: number;
  fault: string | null;
  onCancel: () => void;
}) {
  if (fault !== null)
    return (
      <p role="alert" className="p-4 text-stop">
        {fault}
      </p>
    );
  if (!isWorking) return null;
  return (
    <Progress label="Trying faults" done={done} all={all} onStop={onCancel}>
      Trying {all === 0 ? "faults" : counted(all, "fault", "faults")} against what was read …
    </Progress>
  );
}
