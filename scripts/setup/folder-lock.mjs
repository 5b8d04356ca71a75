// One start for each data folder: a lock of the system's that ends with the process that has it, however that
// ends.
import { spawnSync } from "node:child_process";
import { closeSync, existsSync, mkdirSync, openSync } from "node:fs";
import { dirname, join } from "node:path";
import { findProgram } from "./run-program.mjs";
import { Problem } from "./stage.mjs";

/**
 * Step by step: where the system refuses a folder as if its parent were missing, Node's own way of making all
 * of them never ends.
 */
function makeAll(dir) {
  if (existsSync(dir)) return;
  makeAll(dirname(dir));
  mkdirSync(dir, { mode: 0o700 });
}

const WHY = {
  ENOSPC: "the disk is full",
  EROFS: "it lies on a disk that can only be read",
  ENOTDIR: "a file is in the way",
  EEXIST: "a file is in the way",
  ENOENT: "no folder can be made there",
};

/** Makes the folder, or says why it can't be one to keep data in. */
export function ensureFolder(dir) {
  try {
    makeAll(dir);
    closeSync(openSync(join(dir, "lock"), "a"));
  } catch (error) {
    if (!["EACCES", "EPERM", "EROFS", "ENOTDIR", "EEXIST", "ENOENT", "ENOSPC"].includes(error.code))
      throw error;
    const why = WHY[error.code] ?? "this account may not write there";
    throw new Problem(`Nothing can be kept in ${dir}: ${why}. Mend that, or name another folder with --dir.`);
  }
}

/** Takes the folder's lock for as long as this process lives; false when another start has it. */
export function lockFolder(dir) {
  const program = findProgram("flock");
  if (program === null)
    throw new Problem(
      "The program flock is missing; it belongs to Debian's package util-linux. " +
        "Install it with\n    apt-get install util-linux\nand start again.",
    );
  // The lock belongs to the opened file: the child takes it, this process keeps it. No other child inherits
  // the file.
  const file = openSync(join(dir, "lock"), "a");
  const { status } = spawnSync(program, ["--exclusive", "--nonblock", "3"], {
    stdio: ["ignore", "ignore", "ignore", file],
  });
  if (status === 0) return true;
  closeSync(file);
  return false;
}
