// What the system says of processes that may not be our children.
import { readFileSync } from "node:fs";
import { setTimeout as wait } from "node:timers/promises";
import { Problem } from "./stage.mjs";

/** What the system says of a process; empty for one that is gone, or dead and not yet fetched by its parent. */
export function procFile(pid, name) {
  try {
    return readFileSync(`/proc/${pid}/${name}`, "utf8");
  } catch (error) {
    if (error.code === "ENOENT" || error.code === "ESRCH") return "";
    throw error;
  }
}

/** Whether a process runs; one that is dead and not yet fetched by its parent does not. */
export const isUp = (pid) => {
  const status = procFile(pid, "status");
  return status !== "" && !/^State:\s+[ZX]/m.test(status);
};

function signal(pid, name) {
  try {
    process.kill(pid, name);
  } catch (error) {
    if (error.code !== "ESRCH") throw error;
  }
}

async function goneWithin(pid, ms) {
  for (let left = ms; left > 0; left -= 20) {
    if (!isUp(pid)) return true;
    await wait(20);
  }
  return !isUp(pid);
}

/** Stops a process: SIGTERM, SIGKILL when it does not go, and a sentence when even that leaves it there. */
export async function stopPid(pid, { graceMs = 8000 } = {}) {
  signal(pid, "SIGTERM");
  if (await goneWithin(pid, graceMs)) return;
  signal(pid, "SIGKILL");
  if (!(await goneWithin(pid, 2000)))
    throw new Problem(
      `Process ${pid} can't be stopped, not even with SIGKILL. ` +
        `Look at it with "ps ${pid}" before you start again.`,
    );
}
