import { relative } from "node:path";
import { stripVTControlCharacters } from "node:util";

/** A failed test in a few lines that are found again in a long output: where it stands, and why it failed. */
export const failure = (file, name, message) =>
  [
    `Failed: ${relative(process.cwd(), file)}: ${name}`,
    ...stripVTControlCharacters(message)
      .split("\n")
      .filter((line) => line.trim() !== "" && !/^\s+at .*node_modules/.test(line))
      .slice(0, 12)
      .map((line) => `Failed|   ${line}`),
  ].join("\n");
