// Starts again what ends by itself, with growing pauses, until it is told to stop.
import { setTimeout as wait } from "node:timers/promises";
import { Problem, say } from "./stage.mjs";

const LOOK_EVERY_MS = 300;
const FIRST_PAUSE_MS = 500;
const LONGEST_PAUSE_MS = 5000;
/** Up for so long, it counts as well again. */
const WELL_AFTER_MS = 20_000;

/**
 * Watches over something: `isUp` says whether it runs, `start` starts it anew. Problems (a full disk) are
 * said once and tried again; anything else is a bug and ends the watch by `onBug`.
 */
export function keepUp({ title, isUp, start, onBug }) {
  const ending = new AbortController();
  const pause = (ms) => wait(ms, undefined, { signal: ending.signal }).catch(() => {});
  const watch = async () => {
    let [pauseMs, startedAt, said] = [FIRST_PAUSE_MS, Date.now(), ""];
    while (!ending.signal.aborted) {
      await pause(LOOK_EVERY_MS);
      if (ending.signal.aborted || isUp()) continue;
      if (Date.now() - startedAt > WELL_AFTER_MS) pauseMs = FIRST_PAUSE_MS;
      if (said === "") say(`${title} ended by itself; it is started again.`);
      await pause(pauseMs);
      pauseMs = Math.min(pauseMs * 2, LONGEST_PAUSE_MS);
      if (ending.signal.aborted) break;
      try {
        await start();
        startedAt = Date.now();
        said = "";
        say(`${title} runs again.`);
      } catch (error) {
        if (!(error instanceof Problem)) throw error;
        if (said !== error.message)
          say(`${title} could not be started: ${error.message}\nIt is tried again.`);
        said = error.message;
      }
    }
  };
  const watching = watch().catch(onBug);
  return {
    stop: async () => {
      ending.abort();
      await watching;
    },
  };
}
