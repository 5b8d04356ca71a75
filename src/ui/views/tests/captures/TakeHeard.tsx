"use client";

import type { LaidLine } from "@/core/listening";
import type { CapturedReading } from "@/core/records";
import { counted } from "@/core/repairs";
import { useRecord } from "../../../record-store/use-record";
import { takenEntry } from "../wrong/take";

interface Props {
  readonly readings: readonly CapturedReading[];
  readonly lines: readonly LaidLine[];
  /** Whether they were written down already. */
  readonly isTaken: boolean;
  readonly onTaken: () => void;
  readonly onWrong: () => void;
}

/** Writes down what was heard: each difference is a reading. */
export function TakeHeard({ readings, lines, isTaken, onTaken, onWrong }: Props) {
  const { add } = useRecord();
  const wrong = lines.filter(({ verdict }) => verdict === "otherwise").length;
  const take = () => {
    for (const { asked, planned, ...came } of readings) add(takenEntry(asked, planned, came), []);
    onTaken();
  };
  const words = counted(readings.length, "reading", "readings");
  return (
    <div className="flex flex-wrap items-center gap-3 border-b border-hair px-4 py-2">
      <p role="status" className={`text-15 ${wrong === 0 ? "text-sound" : "text-stop"}`}>
        {wrong === 0 ? "✓ What was heard is as planned" : `✕ ${counted(wrong, "difference", "differences")}`}
      </p>
      {isTaken ? (
        <p role="status" className="text-13">
          Written down as {words}.
        </p>
      ) : null}
      {isTaken || readings.length === 0 ? null : (
        <button type="button" className="button go" onClick={take}>
          Write down as {words}
        </button>
      )}
      {isTaken && wrong > 0 ? (
        <button type="button" className="button" onClick={onWrong}>
          What is wrong?
        </button>
      ) : null}
    </div>
  );
}
