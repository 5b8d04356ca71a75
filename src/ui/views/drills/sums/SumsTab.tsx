"use client";

import { useState } from "react";
import { v7 } from "uuid";
import { makeSum, MOST_MISTAKES, ROUND, SUM_KINDS, type Sum, type SumKind } from "@/core/drills";
import { keptRound, type KeptRound } from "../../../drill-store/forms";
import { readKept, writeKept } from "../../../drill-store/kept";
import { addTry } from "../../../drill-store/tries";
import { Choose } from "../../../kit/Choose";

const KINDS: readonly (readonly [string, string])[] = [["any", "Any kind"], ...Object.entries(SUM_KINDS)];
const isKind = (text: string): text is SumKind => Object.hasOwn(SUM_KINDS, text);

const KEY = "dianome:sums";
const newRound = (kind: string): KeptRound => ({
  version: 1,
  kind,
  seed: (crypto.getRandomValues(new Uint32Array(1))[0] ?? 0) % 1_000_000_000,
  id: v7(),
  answers: [],
});

interface Answered {
  readonly sum: Sum;
  readonly text: string;
  readonly isRight: boolean;
}
const sumAt = ({ kind, seed }: KeptRound, at: number): Sum => makeSum(isKind(kind) ? kind : null, seed + at);
function answeredAt(round: KeptRound, at: number): Answered {
  const [sum, text] = [sumAt(round, at), round.answers[at] ?? ""];
  return { sum, text, isRight: sum.isRight(text) === true };
}

/** Sums of the trade without end, ten to a round, each with its working. */
export function SumsTab({ onOver }: { onOver: () => void }) {
  const [round, setRound] = useState<KeptRound>(() => readKept(KEY, keptRound) ?? newRound("any"));
  const answered = round.answers.map((_, at) => answeredAt(round, at));
  const last = answered.at(-1);
  const isOver = answered.length >= ROUND;
  const wrong = answered.filter(({ isRight }) => !isRight).length;
  const write = (next: KeptRound) => {
    setRound(next);
    writeKept(KEY, next);
  };
  const answer = (text: string) => {
    const next = { ...round, answers: [...round.answers, text] };
    write(next);
    if (next.answers.length < ROUND) return;
    const score = next.answers.filter((_, at) => !answeredAt(next, at).isRight).length;
    const isSolved = score <= MOST_MISTAKES;
    void addTry({ id: round.id, what: "sums", number: 0, isSolved, score }).then(onOver);
  };
  return (
    <section aria-label="Sums" className="py-3">
      <div className="flex flex-wrap items-center gap-3">
        <Choose
          label="Kind of sum"
          value={round.kind}
          choices={KINDS}
          onChoose={(kind) => write(newRound(kind))}
        />
        <span className="px-4 text-13 text-ink2">
          {answered.length} of {ROUND} in this round, {wrong} wrong; a round is passed with at most{" "}
          {MOST_MISTAKES}
        </span>
      </div>
      {last === undefined ? null : <Working answered={last} />}
      {isOver ? (
        <div className="mt-4 px-4">
          <p
            role="status"
            className={`text-18 font-semibold ${wrong > MOST_MISTAKES ? "text-stop" : "text-sound"}`}
          >
            {wrong > MOST_MISTAKES ? "✕ Not passed" : "✓ Passed"}: {ROUND - wrong} of {ROUND} right
          </p>
          <button type="button" className="button go mt-2" onClick={() => write(newRound(round.kind))}>
            Another round
          </button>
        </div>
      ) : (
        <AnswerForm key={answered.length} sum={sumAt(round, answered.length)} onAnswer={answer} />
      )}
    </section>
  );
}

/** How the last one is worked out. */
function Working({ answered: { sum, text, isRight } }: { answered: Answered }) {
  return (
    <div role="status" className="mx-4 mt-3 max-w-[72ch] border-l-4 border-hair bg-panel p-3">
      <p className="text-13 text-ink2">{sum.question}</p>
      <p className={`text-15 font-semibold ${isRight ? "text-sound" : "text-stop"}`}>
        {isRight ? `✓ ${sum.answer} is right` : `✕ ${text} is wrong: it is ${sum.answer}`}
      </p>
      <ol className="mt-1 ml-5 list-decimal text-15">
        {sum.working.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ol>
    </div>
  );
}

function AnswerForm({ sum, onAnswer }: { sum: Sum; onAnswer: (text: string) => void }) {
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const send = () => {
    const isRight = sum.isRight(text);
    if (isRight === null) setProblem(`“${text}” is not what is asked for; write ${sum.asks}.`);
    else onAnswer(text.trim());
  };
  return (
    <form
      className="mt-4 px-4"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      <label className="block max-w-[72ch] text-18 leading-snug">
        {sum.question}
        <input
          className={`field mono mt-2 block w-72 max-w-full ${problem === null ? "" : "wrong"}`}
          value={text}
          autoFocus
          autoComplete="off"
          spellCheck={false}
          aria-invalid={problem !== null}
          placeholder={sum.asks}
          onChange={(event) => {
            setText(event.target.value);
            setProblem(null);
          }}
        />
      </label>
      {problem === null ? null : (
        <p role="alert" className="mt-1 text-13 text-stop">
          {problem}
        </p>
      )}
      <button type="submit" className="button go mt-2" disabled={text.trim() === ""}>
        Check it
      </button>
    </form>
  );
}
