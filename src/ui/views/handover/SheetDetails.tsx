"use client";

import { useState } from "react";
import { v7 } from "uuid";
import { shortCheck, type IssuedSheet, type RecordEntry, type Sign } from "@/core/records";
import { Modal } from "../../kit/Modal";
import { Fact } from "../../margin/parts";
import { useRecord } from "../../record-store/use-record";
import { dayText } from "../../kit/day-text";
import { HandOn } from "./HandOn";
import { SignSheet } from "./SignSheet";
import { Since } from "./Since";

const backOf = (tick: string): RecordEntry => ({
  id: v7(),
  at: new Date().toISOString(),
  do: "takeBack",
  tick,
});

/** One sheet: what it is, who signed it, and what has changed since. */
export function SheetDetails({ sheet, sheets }: { sheet: IssuedSheet; sheets: readonly IssuedSheet[] }) {
  const { add } = useRecord();
  const { letter, issue, signed, isWithdrawn } = sheet;
  const { name, recipient, stood, check } = issue.sheet;
  const takeBack = (id: string) => add(backOf(id), []);
  return (
    <div className="grid min-[1100px]:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
      <section aria-label="Sheet" className="border-hair min-[1100px]:border-r">
        <h2 className="px-4 pt-3 text-18 [overflow-wrap:anywhere]">
          {letter} {name}
        </h2>
        {isWithdrawn ? <p className="px-4 text-13 text-warn">Withdrawn.</p> : null}
        <dl className="facts">
          <Fact name="For">{recipient === "" ? "nobody named" : recipient}</Fact>
          <Fact name="Stood">{stood.join("; ")}</Fact>
          {issue.note === "" ? null : <Fact name="Remarks">{issue.note}</Fact>}
          <Fact name="Check value">
            <span className="mono">{shortCheck(check)}</span>
          </Fact>
        </dl>
        <ul className="px-4 text-13" aria-label="Signed">
          {[signed.checked, signed.accepted].map((sign) =>
            sign === null ? null : <Signed key={sign.id} sign={sign} onTakeBack={takeBack} />,
          )}
        </ul>
        {isWithdrawn ? null : (
          <SignSheet
            key={signed.checked === null ? "to check" : "to accept"}
            issue={issue}
            isChecked={signed.checked !== null}
          />
        )}
        <HandOn sheet={sheet} />
        {isWithdrawn ? null : <Withdraw letter={letter} onWithdraw={() => takeBack(issue.id)} />}
      </section>
      <Since sheet={sheet} sheets={sheets} />
    </div>
  );
}

function Signed({ sign, onTakeBack }: { sign: Sign; onTakeBack: (id: string) => void }) {
  const { as, name, day, note } = sign;
  return (
    <li className="flex flex-wrap items-center gap-2 py-1">
      <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
        <b className="font-semibold">{as === "checked" ? "Checked" : "Accepted"}</b> by {name}, {dayText(day)}
        {note === "" ? "" : `: ${note}`}
      </span>
      <button
        type="button"
        className="button"
        aria-label={`Take back: ${as} by ${name}`}
        onClick={() => onTakeBack(sign.id)}
      >
        Take back
      </button>
    </li>
  );
}

/** Takes a sheet out of use: that stays so, so it is asked for twice. */
function Withdraw({ letter, onWithdraw }: { letter: string; onWithdraw: () => void }) {
  const [isAsking, setAsking] = useState(false);
  return (
    <p className="px-4 py-3">
      <button type="button" className="button" onClick={() => setAsking(true)}>
        Withdraw {letter} …
      </button>
      <Modal
        open={isAsking}
        onOpenChange={setAsking}
        title={`Withdraw ${letter}?`}
        description={
          `Whoever has ${letter} on paper has to be told. It stays in the record and keeps its letter; ` +
          "this is not taken back."
        }
      >
        <button type="button" className="button go tall" onClick={onWithdraw}>
          Withdraw {letter}
        </button>
      </Modal>
    </p>
  );
}
