"use client";

import { useRef, useState } from "react";
import { counted } from "@/core/repairs";
import type { PlanIndex } from "@/core/plan";
import { doorsInOrder, wallCell, wallEnds } from "@/core/policy";
import { filteringDevices } from "@/core/walls";
import { useIndex } from "../../plan-store/use-plan";
import { BesideWalls } from "./BesideWalls";
import { ReadRules } from "./ReadRules";
import { RulesPanel } from "./RulesPanel";
import { WallGrid } from "./WallGrid";

/** What may start talking to what, the rules that follow from it, and the proof. */
export function WallsView() {
  const index = useIndex();
  const scroller = useRef<HTMLDivElement>(null);
  const devices = filteringDevices(index);
  const [reading, setReading] = useState(false);
  const [wanted, setDevice] = useState<string | null>(null);
  const device = devices.find(({ id }) => id === wanted) ?? devices[0];
  return (
    <main className="sheet">
      <div className="head">
        <h1>Walls</h1>
        <p>the firewall rules in words: what may start talking to what; answers always return</p>
        <span className="push" />
        {device === undefined ? null : (
          <button type="button" className="button" onClick={() => setReading(true)}>
            Read a rule list
          </button>
        )}
      </div>
      {index.plan.zone.size === 0 ? (
        <p className="max-w-[60ch] p-4 text-15">
          Walls stand between zones, and a zone comes with its first segment. Begin with the segments; until a
          door is opened, everything between zones stays closed.
        </p>
      ) : (
        <div ref={scroller} className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
          <WallGrid />
          <Legend index={index} />
          <BesideWalls scroller={scroller} />
          {device === undefined ? (
            <p className="max-w-[60ch] border-t border-ink p-4 text-15">
              Nothing filters yet: add a gateway or a firewall on Hardware, and the rules that it needs for
              these walls stand here, with the proof that they are enough.
            </p>
          ) : (
            <RulesPanel
              key={device.id}
              device={device}
              devices={devices}
              choose={setDevice}
              scroller={scroller}
            />
          )}
        </div>
      )}
      {reading && device !== undefined ? <ReadRules device={device} close={() => setReading(false)} /> : null}
    </main>
  );
}

function Legend({ index }: { index: PlanIndex }) {
  const ends = wallEnds(index);
  const closed = ends
    .flatMap((from) => ends.map((to) => wallCell(index, from, to)))
    .filter((cell) => cell.kind === "wall" && cell.door === "closed").length;
  return (
    <p className="flex h-8 items-center gap-5 px-4 text-12 text-ink2">
      <span className="inline-flex items-center gap-[6px]">
        <span className="hatched h-[14px] w-[26px] border border-hair" />
        closed, {counted(closed, "pair", "pairs")}
      </span>
      <span className="inline-flex items-center gap-[6px]">
        <span className="h-[14px] w-[26px] border border-hair" />a door,{" "}
        {counted(doorsInOrder(index).length, "pair", "pairs")}: “open” or its services
      </span>
      <span className="inline-flex items-center gap-[6px]">
        <span className="h-[14px] w-[26px] border border-hair bg-hair" />
        within one zone
      </span>
    </p>
  );
}
