"use client";

import { useEffect, useState } from "react";
import { formatLease } from "@/core/planners";

const TICK_MS = 500;

/** "1:05": minutes and seconds that are left. */
const leftText = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;

/** Counts a wait down on screen: what it is for, and how long it takes. Goes by the clock, not by its ticks. */
export function WaitTimer({ seconds, what }: { seconds: number; what: string }) {
  const [until, setUntil] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (until === null) return;
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, [until]);
  const left = until === null ? seconds : Math.max(0, Math.ceil((until - now) / 1000));
  const start = () => {
    const begins = Date.now();
    setNow(begins);
    setUntil(begins + seconds * 1000);
  };
  return (
    <p className="flex flex-wrap items-center gap-3 border-t border-hair px-4 py-2 text-15">
      <button type="button" className="button tall" onClick={start}>
        {until === null ? `Start the ${formatLease(seconds)}` : "From the start again"}
      </button>
      <span role="timer" className="mono text-18 font-semibold">
        {leftText(left)}
      </span>
      <span role="status" className={left === 0 ? "font-semibold text-sound" : "text-13 text-ink2"}>
        {left === 0 ? `✓ ${what} should be over: look whether it is.` : what}
      </span>
    </p>
  );
}
