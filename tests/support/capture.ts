import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import { Listener } from "@/core/heard";
import { IDLE, type CaptureWork } from "@/ui/views/tests/captures/capture-work";

const store = createStore<CaptureWork>()(() => IDLE);

/** In place of the worker that reads captures: the octets that a test gives, read here and at once. */
export const captureModule = {
  startCapture: (_: string, file: File) => {
    const listener = new Listener();
    listener.push(captures.get(file.name) ?? new Uint8Array());
    store.setState({ ...IDLE, name: file.name, heard: listener.end() });
  },
  cancelCapture: () => store.setState(IDLE),
  sayWhere: (where: Partial<CaptureWork>) => store.setState({ ...where, isTaken: false }),
  sayTaken: () => store.setState({ isTaken: true }),
  useCapture: () => useStore(store),
};
/** By the name of a file, what is in it. */
export const captures = new Map<string, Uint8Array>();
