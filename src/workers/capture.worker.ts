import { expose } from "comlink";
import { Listener, type HeardFile } from "@/core/heard";

/** After so many octets it is told how far it is. */
const TOLD_EACH = 4_000_000;

/** Reads a capture piece by piece: what is kept is what was heard, not the file. */
async function read(file: Blob, tell: (done: number) => void): Promise<HeardFile> {
  const listener = new Listener();
  const reader = file.stream().getReader();
  let [done, told] = [0, 0];
  for (;;) {
    const piece = await reader.read();
    if (piece.done) return listener.end();
    listener.push(piece.value);
    done += piece.value.length;
    if (done - told < TOLD_EACH) continue;
    told = done;
    tell(done);
  }
}

const api = { read };
export type CaptureWorker = typeof api;

expose(api);
