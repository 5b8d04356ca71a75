"use client";

import { useMemo, useState } from "react";
import { expectedText, type Expected } from "@/core/commissioning";
import { askKey, onPlan, type Asked } from "@/core/diagnosis";
import type { PlanIndex } from "@/core/plan";
import { MOST_READ, recordedAs } from "@/core/records";
import { useRecord } from "../../../record-store/use-record";
import { judgedRead } from "../judged";
import { takenEntry } from "./take";

const AN_ADDRESS = "an address, “none”, “no link”, or all that the laptop prints";
const AN_ANSWER = "“an answer” or “nothing”";
const ASKED: Readonly<Record<Expected["is"], string>> = {
  lease: AN_ADDRESS,
  "no lease": AN_ADDRESS,
  "no link": AN_ADDRESS,
  answer: AN_ANSWER,
  silence: AN_ANSWER,
  measured: "a figure",
  shown: "a line for each thing that differs, as “port 7: off”, or a switch’s table pasted whole",
};

/** What was read, typed or pasted, beside what has to be read. */
export function TypedReading({ index, asked }: { index: PlanIndex; asked: Asked }) {
  const { add } = useRecord();
  const [text, setText] = useState("");
  const { expected } = useMemo(() => onPlan(index, asked.ask), [index, asked.ask]);
  const planned = recordedAs(index, expected);
  const read = text.trim();
  const { judged, differs } = useMemo(
    () => judgedRead(index, askKey(asked.ask), expected, read),
    [index, asked.ask, expected, read],
  );
  const take = (came: "expected" | "otherwise") => {
    // Of a page that was pasted whole what differs is laid beside faults.
    add(takenEntry(asked, planned, { came, read: differs ?? read, says: judged?.words ?? "" }), []);
    setText("");
  };
  return (
    <div className="flex flex-col gap-2 text-13">
      <label className="block">
        <span className="text-ink2">What is read, where it is otherwise: {ASKED[expected.is]}</span>
        <textarea
          className="field mt-1 block w-full"
          rows={2}
          maxLength={MOST_READ}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <p role="status">
        {judged === null ? null : (
          <span className={judged.isRight ? "text-sound" : "text-stop"}>
            {judged.isRight ? "✓" : "✕"} {judged.words}
          </span>
        )}
      </p>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="button tall"
          disabled={judged?.isRight === false}
          onClick={() => take("expected")}
        >
          As planned: {expected.is === "shown" ? "nothing differs" : expectedText(index, expected)}
        </button>
        <button
          type="button"
          className={judged?.isRight === false ? "button go tall" : "button tall"}
          disabled={read === "" || judged?.isRight === true}
          onClick={() => take("otherwise")}
        >
          Otherwise
        </button>
      </div>
    </div>
  );
}
