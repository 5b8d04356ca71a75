import { wrap, type Remote } from "comlink";
import type { DrillWorker } from "@/workers/drill.worker";

let own: Remote<DrillWorker> | null = null;
let worker: Worker | null = null;

/** The worker in which drills are made and played; begun when it is first asked for. */
export function drillRoom(): Remote<DrillWorker> {
  if (own !== null) return own;
  worker = new Worker(new URL("../../workers/drill.worker.ts", import.meta.url), { type: "module" });
  own = wrap<DrillWorker>(worker);
  return own;
}

/** Stops what it is at; the next that asks gets a new one. */
export function stopDrillRoom(): void {
  worker?.terminate();
  worker = null;
  own = null;
}
