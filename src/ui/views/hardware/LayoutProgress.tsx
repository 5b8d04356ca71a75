import { useEffect, useState } from "react";
import { counted } from "@/core/repairs";
import type { Progress } from "./use-layout";

/** How far a layout is that takes its time, with a way to call it off. */
export function LayoutProgress({
  progress: { pass, most, devices, cables, cancel },
}: {
  progress: Progress;
}) {
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => setSeconds((n) => n + 1), 1000);
    return () => clearInterval(timer);
  }, []);
  return (
    <div
      role="status"
      className="absolute inset-x-0 top-1/3 z-10 mx-auto w-80 border border-ink bg-panel p-3 text-13"
    >
      <p className="mb-1 font-semibold">
        Laying out {counted(devices, "device", "devices")} and {counted(cables, "cable", "cables")}
      </p>
      <progress className="mb-2 h-2 w-full accent-act" max={most} value={pass - 0.5} aria-label="Layout" />
      <p className="flex items-center text-ink2">
        pass {pass} of at most {most}, {seconds} s so far
        <button type="button" className="button ml-auto" onClick={cancel}>
          Plain rows instead
        </button>
      </p>
    </div>
  );
}
