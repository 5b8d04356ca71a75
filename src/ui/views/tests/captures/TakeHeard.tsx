"use client";

import type { Laid } from "@/core/listening";
import type { PlanIndex } from "@/core/plan";
import { capturedReadings } from "@/core/records";
import { counted } from "@/core/repairs";
import { useRecord } from "../../../record-store/use-record";
import { takenEntry } from "../wrong/take";
import { sayTaken, useCapture } from "./use-capture";

interface Props {
  readonly index: PlanIndex;
  readonly port: string;
  readonly laid: Laid;
  readonly onWrong: () => void;
}

/** Writes down what was heard: each difference is a reading. */
export function TakeHeard({ index, port, laid, onWrong }: Props) {
  const { add } = useRecord();
  const { isTaken } = useCapture(index.plan.site.id);
  const wrong = laid.lines.filter(({ verdict }) => verdict === "otherwise").length;
  const readings = capturedReadings(index, port, laid);
  const take = () => {
    for (const { asked, planned, ...came } of readings) add(takenEntry(asked, planned, came), []);
    sayTaken();
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
      ) : (
        <button type="button" className="button go" disabled={readings.length === 0} onClick={take}>
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
