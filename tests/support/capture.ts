import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import { Listener, type HeardFile } from "@/core/heard";
import type { Tap } from "@/core/listening";

interface Work {
  readonly name: string;
  readonly size: number;
  readonly done: number;
  readonly heard: HeardFile | null;
  readonly isWorking: boolean;
  readonly fault: string | null;
  readonly port: string | null;
  readonly tap: Tap | null;
  readonly isTaken: boolean;
}
const IDLE: Work = {
  name: "",
  size: 0,
  done: 0,
  heard: null,
  isWorking: false,
  fault: null,
  port: null,
  tap: null,
  isTaken: false,
};
const store = createStore<Work>()(() => IDLE);

/** In place of the worker that reads captures: the octets that a test gives, read here and at once. */
export const captureModule = {
  startCapture: (_: string, file: File) => {
    const listener = new Listener();
    listener.push(captures.get(file.name) ?? new Uint8Array());
    store.setState({ ...IDLE, name: file.name, heard: listener.end() });
  },
  cancelCapture: () => store.setState(IDLE),
  sayWhere: (where: Partial<Work>) => store.setState({ ...where, isTaken: false }),
  sayTaken: () => store.setState({ isTaken: true }),
  useCapture: () => useStore(store),
};
/** By the name of a file, what is in it. */
export const captures = new Map<string, Uint8Array>();
