"use client";

import { useState } from "react";
import { LOG_AT_ONCE, type LogAnswer } from "@/http/contracts/answers";
import { FormRefusal } from "../../kit/FormField";
import { call } from "../../plan-store/api";
import { hereText } from "../sites/here-text";
import { DEED_WORDS } from "./words";

/** Who did it where nobody was signed in. */
const NOBODY: Partial<Record<LogAnswer[number]["what"], string>> = {
  "link-opened": "somebody with a link",
  fetched: "a machine",
};

/** Who did what, the newest first; nobody can change it. */
export function LogTable({ first }: { first: LogAnswer }) {
  const [older, setOlder] = useState<LogAnswer>([]);
  const [isOver, setOver] = useState(first.length < LOG_AT_ONCE);
  const [refusal, setRefusal] = useState<string | null>(null);
  const lines = [...first, ...older.filter(({ number }) => number < (first.at(-1)?.number ?? Infinity))];
  const more = async () => {
    const answer = await call<LogAnswer>(`/api/log?before=${lines.at(-1)?.number ?? 1}`);
    setRefusal(answer.ok ? null : answer.refused.sentence);
    if (!answer.ok) return;
    setOlder([...older, ...answer.value]);
    setOver(answer.value.length < LOG_AT_ONCE);
  };
  return (
    <div className="overflow-x-auto">
      <table className="table lead" aria-label="Log">
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">Who</th>
            <th scope="col">Did</th>
            <th scope="col">What about</th>
          </tr>
        </thead>
        <tbody>
          {lines.map(({ number, at, by, what, subject, about }) => (
            <tr key={number}>
              <td className="whitespace-nowrap" suppressHydrationWarning>
                {hereText(at)}
              </td>
              <td className="font-semibold">{by ?? NOBODY[what] ?? "a stranger"}</td>
              <td className={what === "refused" ? "font-semibold text-warn" : ""}>{DEED_WORDS[what]}</td>
              <td className="[overflow-wrap:anywhere]">{[subject, about].filter(Boolean).join(": ")}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="p-4">
        <FormRefusal sentence={refusal} />
        {lines.length === 0 ? <p>Nothing was done yet.</p> : null}
        {isOver ? null : (
          <button type="button" className="button" onClick={() => void more()}>
            Older
          </button>
        )}
      </div>
    </div>
  );
}
