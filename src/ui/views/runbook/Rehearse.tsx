"use client";

import { useMemo, useState } from "react";
import type { PlanIndex } from "@/core/plan";
import { Rehearsal, type Move } from "@/core/runbook";
import { RehearsalBoard } from "./RehearsalBoard";
import { foundIndex, type Found } from "./use-runbook";

/** The same work by hand: choose what is done next and where the laptop is, and see what would come of it. */
export function Rehearse({ index, found }: { index: PlanIndex; found: Found }) {
  const rehearsal = useMemo(() => Rehearsal.of(index, foundIndex(index, found)), [index, found]);
  const ports = useMemo(() => rehearsal?.ports() ?? [], [rehearsal]);
  const [moves, setMoves] = useState<readonly Move[]>([]);
  const now = useMemo(() => rehearsal?.after(moves) ?? null, [rehearsal, moves]);
  if (now === null) return null;
  return (
    <div className="min-h-0 flex-1 overflow-auto print:hidden">
      <RehearsalBoard
        ports={ports}
        now={now}
        onMove={(move) => setMoves([...moves, move])}
        onBack={(count) => setMoves(moves.slice(0, moves.length - count))}
      >
        <p className="max-w-[64ch] p-4 text-15">
          Try an order of your own: say where the laptop is plugged in and what you do next. You see whether
          the device still answers, and what you have locked yourself out of, before it happens on a ladder.
        </p>
      </RehearsalBoard>
      {now.isDone ? (
        <p role="status" className="p-4 text-15 text-sound">
          ✓ Everything is on the devices as planned.
        </p>
      ) : null}
    </div>
  );
}
