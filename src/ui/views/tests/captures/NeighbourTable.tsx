"use client";

import { useMemo, useState } from "react";
import { byNaturalText } from "@/core/kernel";
import type { PlanIndex } from "@/core/plan";
import { readNeighbours } from "@/core/readback";
import { MOST_READ } from "@/core/records";
import { Combo } from "../../../kit/Combo";
import { LaidList } from "./LaidLines";
import { TakeHeard } from "./TakeHeard";

/** A device's own table of neighbours, pasted: whose cable is in which port. */
export function NeighbourTable({ index, onWrong }: { index: PlanIndex; onWrong: () => void }) {
  const [id, setId] = useState("");
  const [text, setText] = useState("");
  const [taken, setTaken] = useState("");
  const device = index.plan.device.get(id);
  const devices = useMemo(
    () =>
      [...index.plan.device.values()]
        .sort((a, b) => byNaturalText(a.name, b.name))
        .map(({ id: value, name, place }) => ({ value, label: name, detail: place })),
    [index],
  );
  const read = useMemo(
    () => (device === undefined || text.trim() === "" ? null : readNeighbours(index, device, text)),
    [index, device, text],
  );
  return (
    <section aria-label="Table of neighbours" className="print:hidden">
      <div className="flex flex-wrap items-center gap-2 px-4 py-3 text-15">
        <h2 className="font-semibold">A table of neighbours of</h2>
        <Combo label="Device" value={id} empty="which device?" choices={devices} onChoose={setId} />
      </div>
      {device === undefined ? null : (
        <label className="block px-4 pb-2 text-13">
          <span className="text-ink2">
            What {device.name} shows of its neighbours (LLDP), with its heads, columns in any order
          </span>
          <textarea
            className="field mono mt-1 block w-full"
            rows={5}
            maxLength={MOST_READ}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
      )}
      {read?.ok === false ? (
        <p role="alert" className="px-4 pb-2 text-13 text-stop">
          {read.error}
        </p>
      ) : null}
      {read?.ok === true ? (
        <>
          {read.value.missed.map((words) => (
            <p key={words} className="px-4 pb-1 text-13 text-warn">
              {words}
            </p>
          ))}
          <TakeHeard
            readings={read.value.readings}
            lines={read.value.lines}
            isTaken={taken === `${id} ${text}`}
            onTaken={() => setTaken(`${id} ${text}`)}
            onWrong={onWrong}
          />
          <LaidList lines={read.value.lines} />
        </>
      ) : null}
    </section>
  );
}
