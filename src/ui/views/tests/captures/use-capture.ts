"use client";

import { proxy, wrap } from "comlink";
import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import type { CaptureWorker } from "@/workers/capture.worker";
import { IDLE, type CaptureWork } from "./capture-work";

/** A capture of an afternoon; what is longer is cut in pieces first. */
const MOST_OCTETS = 209_715_200;
const NO_WORKER = "The file could not be read in this browser: choose it again, or reload the page.";
const store = createStore<CaptureWork>()(() => IDLE);
let worker: Worker | null = null;

function stop(): void {
  worker?.terminate();
  worker = null;
}

const megabytes = (octets: number): string => (octets / 1_048_576).toFixed(0);

/** Reads a capture in a worker of its own; one that is read already is given up. */
export function startCapture(site: string, file: File): void {
  stop();
  const { name, size } = file;
  if (size > MOST_OCTETS) {
    const fault =
      `${name} has ${megabytes(size)} MB; up to ${megabytes(MOST_OCTETS)} MB are read. ` +
      "Capture a shorter time, or cut the file.";
    store.setState({ ...IDLE, site, fault });
    return;
  }
  store.setState({ ...IDLE, site, name, size, isWorking: true });
  const own = new Worker(new URL("../../../../workers/capture.worker.ts", import.meta.url), {
    type: "module",
  });
  worker = own;
  const end = (change: Partial<CaptureWork>) => {
    if (worker !== own) return;
    stop();
    store.setState({ isWorking: false, ...change });
  };
  void wrap<CaptureWorker>(own)
    .read(
      file,
      proxy((done) => {
        if (worker === own) store.setState({ done });
      }),
    )
    .then(
      (heard) => end({ heard }),
      () => end({ fault: NO_WORKER }),
    );
}

/** Says where it was taken. */
export const sayWhere = (where: Partial<Pick<CaptureWork, "port" | "tap">>): void =>
  store.setState({ ...where, isTaken: false });

/** It was written down: another tab and back does not ask for it again. */
export const sayTaken = (): void => store.setState({ isTaken: true });

/** Calls it off: nothing of the file is kept. */
export function cancelCapture(): void {
  stop();
  store.setState(IDLE);
}

/** The capture of a site, as far as it is read; that of another site is not its. */
export const useCapture = (site: string): CaptureWork => {
  const now = useStore(store);
  return now.site === site ? now : IDLE;
};
