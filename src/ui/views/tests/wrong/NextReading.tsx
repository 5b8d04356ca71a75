"use client";

import { clsx } from "clsx";
import { useState } from "react";
import { askKey, onPlan, type Answer, type ShownNext } from "@/core/diagnosis";
import type { PlanIndex } from "@/core/plan";
import { recordedAs } from "@/core/records";
import { counted } from "@/core/repairs";
import { useRecord } from "../../../record-store/use-record";
import { takenEntry } from "./take";
import { TypedReading } from "./TypedReading";

const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** The reading that tells most next, with what each outcome would mean: a tap on it writes it down. */
export function NextReading({ index, answer }: { index: PlanIndex; answer: Answer }) {
  const [passed, setPassed] = useState<ReadonlySet<string>>(new Set());
  const sure = answer.sure === null ? [] : [answer.sure];
  const all = answer.next.length > 0 ? answer.next : sure;
  const [next] = all.filter(({ ask }) => !passed.has(askKey(ask)));
  if (next === undefined) return <NoNext answer={answer} isPassed={all.length > 0} />;
  const isToBeSure = answer.next.length === 0;
  return (
    <section aria-label="Best next reading" className="border-b border-ink bg-act-wash px-4 py-3">
      <p className="text-12 text-ink2">{isToBeSure ? "To be sure" : "Best next reading"}</p>
      <h2 className="text-18">{next.at}</h2>
      <p className="text-15">{next.does}</p>
      <p className="text-13 text-ink2">
        {next.place === "" ? "" : `${next.place}; `}
        {next.minutes} min
        {isToBeSure ? "" : `; tells ${next.bits.toFixed(1)} bits of what is still unknown`}
      </p>
      <Outcomes key={askKey(next.ask)} index={index} next={next} />
      <details className="mt-2">
        <summary className="cursor-pointer text-13">Something else was read</summary>
        <TypedReading index={index} asked={next} />
      </details>
      {all.length - passed.size < 2 ? null : (
        <button
          type="button"
          className="button mt-2"
          onClick={() => setPassed(new Set([...passed, askKey(next.ask)]))}
        >
          That can’t be read: another one
        </button>
      )}
    </section>
  );
}

function NoNext({ answer, isPassed }: { answer: Answer; isPassed: boolean }) {
  if (answer.candidates.length === 0) return null;
  const words =
    answer.explainAll > 1 && !isPassed
      ? "No reading tells those apart that explain all: mend the most likely one and read again."
      : "Nothing is left to read that would tell more.";
  return (
    <p role="status" className="border-b border-ink px-4 py-3 text-13 text-ink2">
      {words}
    </p>
  );
}

/** As many outcomes have a button of their own: the rest is typed. */
const MOST_OUTCOMES = 8;

function Outcomes({ index, next }: { index: PlanIndex; next: ShownNext }) {
  const { add } = useRecord();
  const planned = recordedAs(index, onPlan(index, next.ask).expected);
  return (
    <ul className="mt-2 grid gap-2 min-[700px]:grid-cols-2">
      {next.branches.slice(0, MOST_OUTCOMES).map(({ words, isAsPlanned, share, count, left }) => (
        <li key={words}>
          <button
            type="button"
            className={clsx(
              "block w-full rounded border border-rule bg-panel px-3 py-2 text-left text-13",
              "hover:bg-hover",
            )}
            onClick={() =>
              add(
                takenEntry(next, planned, {
                  came: isAsPlanned ? "expected" : "otherwise",
                  read: isAsPlanned ? "" : words,
                  says: "",
                }),
                [],
              )
            }
          >
            <b
              className={clsx(
                "block whitespace-pre-wrap font-semibold [overflow-wrap:anywhere]",
                isAsPlanned ? "" : "text-stop",
              )}
            >
              {isAsPlanned ? "As planned" : words}
              {isAsPlanned && words !== "as planned" ? `: ${words}` : ""}
            </b>
            <span className="text-ink2">
              {percent(share)}: {left.join("; ")}
              {count > left.length ? `; and ${counted(count - left.length, "other", "others")}` : ""}
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}
