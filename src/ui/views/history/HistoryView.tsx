"use client";

import { useEffect, useState } from "react";
import { toast } from "sonner";
import { byNaturalText } from "@/core/kernel";
import type { LogLineAnswer } from "@/http/contracts/answers";
import { whenText } from "../../kit/when-text";
import { call } from "../../plan-store/api";
import { useHeld, usePlan } from "../../plan-store/use-plan";
import { CompareRevisions } from "./CompareRevisions";
import { ANY, HistoryFilter, isAny, queryOf, type Wanted } from "./HistoryFilter";
import { Visits } from "./Visits";

const NEWEST = 4_000_000_000;

/** Every change that was made, newest first: who, when, what was meant. */
// eslint-disable-next-line max-lines-per-function, complexity -- one table with its tools
export function HistoryView() {
  const site = usePlan((state) => state.site);
  const steps = usePlan((state) => state.steps);
  const undo = usePlan((state) => state.undo);
  const redo = usePlan((state) => state.redo);
  const { revision, index } = useHeld();
  const [lines, setLines] = useState<readonly LogLineAnswer[] | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const [older, setOlder] = useState<readonly LogLineAnswer[]>([]);
  const [wanted, setWanted] = useState(ANY);
  const [people, setPeople] = useState<readonly string[]>([]);
  const query = queryOf(index, wanted);
  useEffect(() => {
    let isCurrent = true;
    void call<LogLineAnswer[]>(`/api/sites/${site}/history?before=${NEWEST}${query}`).then((answer) => {
      if (!isCurrent) return;
      if (!answer.ok) return setRefusal(answer.refused.sentence);
      setRefusal(null);
      setLines(answer.value);
      setPeople((known) =>
        [...new Set([...known, ...answer.value.map(({ authorName }) => authorName)])].sort(byNaturalText),
      );
    });
    return () => {
      isCurrent = false;
    };
  }, [site, revision, query]);
  const choose = (next: Wanted) => {
    setOlder([]);
    setWanted(next);
  };
  const all = [
    ...(lines ?? []),
    ...older.filter((line) => !(lines ?? []).some((known) => known.id === line.id)),
  ];
  const last = all.at(-1)?.revision ?? 1;
  const more = async () => {
    const answer = await call<LogLineAnswer[]>(`/api/sites/${site}/history?before=${last}${query}`);
    if (answer.ok) setOlder([...older, ...answer.value]);
    else setRefusal(answer.refused.sentence);
  };
  const undone = new Set(all.flatMap((line) => (line.undoes === null ? [] : [line.undoes])));
  for (const line of all) if (line.redoes !== null) undone.delete(line.redoes);
  const told = async (step: Promise<string | null>) => {
    const said = await step;
    if (said !== null) toast.error(said);
  };
  return (
    <main className="sheet">
      <div className="head">
        <h1>History</h1>
        <p>{lines === null ? "" : `revision ${revision}; undo takes back your own changes only`}</p>
        <span className="push" />
        <button
          type="button"
          className="button"
          disabled={steps.undo === null}
          onClick={() => void told(undo())}
        >
          {steps.undo === null ? "Nothing to undo" : "Undo my last"}
        </button>
        <button
          type="button"
          className="button"
          disabled={steps.redo === null}
          onClick={() => void told(redo())}
        >
          {steps.redo === null ? "Nothing to bring back" : "Bring back"}
        </button>
      </div>
      <div className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
        {refusal === null ? null : (
          <p role="alert" className="p-4 text-stop">
            {refusal}
          </p>
        )}
        {lines === null ? (
          <p role="status" className="p-4 text-ink2">
            Loading …
          </p>
        ) : null}
        <CompareRevisions />
        <Visits index={index} />
        <HistoryFilter index={index} people={people} wanted={wanted} onWanted={choose} />
        {lines !== null && all.length === 0 ? (
          <p className="p-4 text-15">
            {isAny(wanted) ? "Nothing has been changed yet." : "Nothing of that was changed."}
          </p>
        ) : null}
        {all.length === 0 ? null : (
          <table className="table" aria-label="History">
            <thead>
              <tr>
                <th scope="col" className="right">
                  Rev
                </th>
                <th scope="col">When</th>
                <th scope="col">Who</th>
                <th scope="col">What</th>
                <th scope="col" className="right">
                  Changes
                </th>
              </tr>
            </thead>
            <tbody>
              {all.map((line) => (
                <tr
                  key={line.id}
                  className={undone.has(line.id) ? "text-ink2 line-through decoration-rule" : ""}
                >
                  <td className="mono right">{line.revision}</td>
                  <td className="text-ink2">{whenText(line.madeAt, index.plan.site.timeZone)}</td>
                  <td className="whitespace-nowrap">
                    {line.authorName}
                    {line.isFromFile ? <span className="text-ink2"> (from the plan file)</span> : null}
                  </td>
                  <td className="w-full !whitespace-normal">{line.summary}</td>
                  <td className="mono right">{line.changeCount}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {last > 1 && all.length >= 200 ? (
          <button type="button" className="button m-4" onClick={() => void more()}>
            Older ones
          </button>
        ) : null}
      </div>
    </main>
  );
}
