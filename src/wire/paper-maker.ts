import "server-only";
import { spawn } from "node:child_process";
import type { PaperJob, PaperMaker } from "@/application/paper-exports";

const PROGRAM = ["--import", "tsx", "scripts/papers.mts"];
const MOST_MS = 120_000;
const MOST_BYTES = 100_000_000;
/** One is set at a time; so many wait, and whoever comes then is told so. */
const MOST_WAITING = 5;

/** Runs the program with a job on its input; its output, or null where it failed or took too long. */
function run(job: PaperJob): Promise<Uint8Array<ArrayBuffer> | null> {
  return new Promise((done) => {
    // It needs nothing of what the server knows: no database, no key.
    const env = { PATH: process.env.PATH ?? "", NODE_ENV: "production" as const };
    const child = spawn(process.execPath, PROGRAM, {
      ...{ env, timeout: MOST_MS, killSignal: "SIGKILL" },
      // What went wrong there stands in the server's own log.
      stdio: ["pipe", "pipe", "inherit"],
    });
    const pieces: Buffer[] = [];
    let size = 0;
    child.stdout.on("data", (piece: Buffer) => {
      pieces.push(piece);
      size += piece.length;
      if (size > MOST_BYTES) child.kill("SIGKILL");
    });
    child.on("error", () => done(null));
    child.on("close", (code) => done(code === 0 ? new Uint8Array(Buffer.concat(pieces)) : null));
    // It may have ended before it read all.
    child.stdin.on("error", () => undefined);
    child.stdin.end(JSON.stringify(job));
  });
}

let waiting = 0;
let last: Promise<unknown> = Promise.resolve();

/** Sets papers beside the server, one after another. */
export const paperMaker: PaperMaker = {
  make: (job) => {
    if (waiting >= MOST_WAITING) return Promise.resolve(null);
    waiting += 1;
    const own = last
      .then(() => run(job))
      .finally(() => {
        waiting -= 1;
      });
    last = own;
    return own;
  },
};
