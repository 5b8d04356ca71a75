"use client";

import { clsx } from "clsx";
import { useState } from "react";
import type { Choice, Move, Rehearsed, Told } from "@/core/runbook";
import { Combo } from "../../kit/Combo";

const CAME = {
  done: { sign: "✓", words: "done", colour: "text-sound" },
  unreached: { sign: "✕", words: "not done: out of reach", colour: "text-stop" },
  lockedOut: { sign: "!", words: "done, and out of reach now", colour: "text-warn" },
} as const;

/** Where the laptop is and what is done next, and what came of everything so far. */
export function RehearsalBoard({
  ports,
  now,
  onMove,
  onBack,
  children,
}: {
  ports: readonly Choice[];
  now: Rehearsed;
  onMove: (move: Move) => void;
  /** Takes so many of the last moves back; null where what was done stays done. */
  onBack: ((count: number) => void) | null;
  /** What is said as long as nothing was done. */
  children: React.ReactNode;
}) {
  const [port, setPort] = useState("");
  const [operation, setOperation] = useState("");
  const canDo = port !== "" && now.next.some(({ id }) => id === operation);
  const doIt = () => {
    onMove({ operation, port });
    setOperation("");
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-3 border-b border-hair px-4 py-3 text-13">
        <span className="self-center text-ink2">The laptop is at</span>
        <Combo
          label="The laptop is at"
          value={port}
          choices={ports.map(({ id, name }) => ({ value: id, label: name }))}
          onChoose={setPort}
          empty="no port yet"
        />
        <span className="self-center text-ink2">Do next</span>
        <Combo
          label="Do next"
          value={operation}
          choices={now.next.map(({ id, name }) => ({ value: id, label: name }))}
          onChoose={setOperation}
          empty={now.next.length === 0 ? "nothing is left" : "nothing yet"}
        />
        <button type="button" className="button go" disabled={!canDo} onClick={doIt}>
          Do it
        </button>
        {onBack === null ? null : (
          <>
            <button
              type="button"
              className="button"
              disabled={now.told.length === 0}
              onClick={() => onBack(1)}
            >
              Take it back
            </button>
            <button
              type="button"
              className="button"
              disabled={now.told.length === 0}
              onClick={() => onBack(now.told.length)}
            >
              From the start
            </button>
          </>
        )}
      </div>
      {now.told.length === 0 ? (
        children
      ) : (
        <ol aria-label="What came of it" aria-live="polite">
          {now.told.map((told, at) => (
            <ToldRow key={`${at} ${told.operation}`} number={at + 1} told={told} />
          ))}
        </ol>
      )}
    </>
  );
}

function ToldRow({ number, told }: { number: number; told: Told }) {
  const { sign, words, colour } = CAME[told.came];
  return (
    <li
      className={clsx(
        "grid grid-cols-[32px_minmax(0,1fr)_minmax(0,2fr)] gap-2 border-b border-hair px-4",
        "py-2 text-13",
      )}
    >
      <span className="mono text-right font-semibold">{number}</span>
      <span>
        {told.title}
        <b className={`block font-semibold ${colour}`}>
          {sign} {words}
        </b>
      </span>
      <span>{told.says}</span>
    </li>
  );
}
