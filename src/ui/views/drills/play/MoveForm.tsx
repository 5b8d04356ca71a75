"use client";

import { useMemo, useState } from "react";
import { MOVE_MINUTES } from "@/core/drills";
import type { PlanIndex } from "@/core/plan";
import { act } from "../../../drill-store/store";
import { Combo } from "../../../kit/Combo";
import { portChoices } from "./TryForm";

/** A cable goes from one port into another, until it is put back. */
export function MoveForm({
  index,
  isMoved,
  isWorking,
}: {
  index: PlanIndex;
  isMoved: boolean;
  isWorking: boolean;
}) {
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const ports = useMemo(() => portChoices(index), [index]);
  return (
    <div className="flex flex-wrap items-center gap-2 text-15">
      <span>The cable that is in</span>
      <Combo label="From" value={from} empty="which port?" choices={ports} onChoose={setFrom} />
      <span>goes into</span>
      <Combo label="To" value={to} empty="which port?" choices={ports} onChoose={setTo} />
      <button
        type="button"
        className="button go"
        disabled={from === "" || to === "" || from === to || isWorking}
        onClick={() => act({ act: "move", from, to })}
      >
        Move it
      </button>
      <button
        type="button"
        className="button"
        disabled={!isMoved || isWorking}
        onClick={() => act({ act: "putBack" })}
      >
        Put every cable back
      </button>
      <span className="text-13 text-ink2">{MOVE_MINUTES} min, and the walk where it is in another place</span>
    </div>
  );
}
