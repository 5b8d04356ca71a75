// What a start says of itself in its data folder, for the starts after it.
import { join } from "node:path";
import { readState } from "./state-file.mjs";

export const runningFile = (dir) => join(dir, "running.json");
/** Null where nothing runs there, or ended as it should. */
export const readRunning = (dir) =>
  readState(runningFile(dir), ["pid", "address"], "what it says of a start is not known.");
