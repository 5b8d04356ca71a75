"use client";

import { useMemo, useState } from "react";
import type { PlanIndex } from "@/core/plan";
import { Rehearsal, type Move, type Told } from "@/core/runbook";
import { Combo } from "../../kit/Combo";
import { foundIndex, type Found } from "./use-runbook";

const CAME = {
  done: { sign: "✓", words: "done", colour: "text-sound" },
  unreached: { sign: "✕", words: "not done: out of reach", colour: "text-stop" },
  lockedOut: { sign: "!", words: "done, and out of reach now", colour: "text-warn" },
} as const;

/** The same work by hand: choose what is done next and where the laptop is, and see what would come of it. */
export function Rehearse({ index, found }: { index: PlanIndex; found: Found }) {
  const rehearsal = useMemo(() => Rehearsal.of(index, foundIndex(index, found)), [index, found]);
  const ports = useMemo(() => rehearsal?.ports() ?? [], [rehearsal]);
  const [moves, setMoves] = useState<readonly Move[]>([]);
  const [port, setPort] = useState("");
  const [operation, setOperation] = useState("");
  const now = useMemo(() => rehearsal?.after(moves) ?? null, [rehearsal, moves]);
  if (now === null) return null;
  const canDo = port !== "" && now.next.some(({ id }) => id === operation);
  const doIt = () => {
    setMoves([...moves, { operation, port }]);
    setOperation("");
  };
  return (
    <div className="min-h-0 flex-1 overflow-auto print:hidden">
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
        <button
          type="button"
          className="button"
          disabled={moves.length === 0}
          onClick={() => setMoves(moves.slice(0, -1))}
        >
          Take it back
        </button>
        <button type="button" className="button" disabled={moves.length === 0} onClick={() => setMoves([])}>
          From the start
        </button>
      </div>
      {now.told.length === 0 ? (
        <p className="max-w-[64ch] p-4 text-15">
          Try an order of your own: say where the laptop is plugged in and what you do next. You see whether
          the device still answers, and what you have locked yourself out of, before it happens on a ladder.
        </p>
      ) : (
        <ol aria-label="What came of it" aria-live="polite">
          {now.told.map((told, at) => (
            <ToldRow key={`${at} ${told.operation}`} number={at + 1} told={told} />
          ))}
        </ol>
      )}
      {now.isDone ? (
        <p role="status" className="p-4 text-15 text-sound">
          ✓ Everything is on the devices as planned.
        </p>
      ) : null}
    </div>
  );
}

function ToldRow({ number, told }: { number: number; told: Told }) {
  const { sign, words, colour } = CAME[told.came];
  return (
    <li className="grid grid-cols-[32px_minmax(0,1fr)_minmax(0,2fr)] gap-2 border-b border-hair px-4 py-2 text-13">
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
