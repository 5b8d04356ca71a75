// Small files that other starts read: written whole or not at all, and a broken one is no reason to stop.
import { existsSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { say } from "./stage.mjs";

/** Writes beside it and renames: a reader finds the old one or the new one, never half. */
export function writeState(file, value) {
  const beside = `${file}.${process.pid}.new`;
  writeFileSync(beside, JSON.stringify(value), { mode: 0o600 });
  renameSync(beside, file);
}

/** The object in the file, or null where there is none, or none of ours: then it says what becomes of it. */
export function readState(file, keys, consequence) {
  if (!existsSync(file)) return null;
  try {
    const value = JSON.parse(readFileSync(file, "utf8"));
    if (
      typeof value === "object" &&
      value !== null &&
      keys.every((key) => ["string", "number"].includes(typeof value[key]))
    )
      return value;
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
  }
  say(`  ${file} is empty or not one of ours; ${consequence}`);
  return null;
}
