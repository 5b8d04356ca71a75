import { spawn } from "node:child_process";
import { accessSync, constants } from "node:fs";
import { join } from "node:path";

/**
 * Where a program lies, or null. The folders for administrators are searched too: not every user's PATH has
 * them.
 */
export function findProgram(name) {
  for (const folder of [...(process.env.PATH ?? "").split(":"), "/usr/sbin", "/usr/local/sbin", "/sbin"]) {
    if (folder === "") continue;
    try {
      accessSync(join(folder, name), constants.X_OK);
      return join(folder, name);
    } catch (error) {
      if (!["ENOENT", "EACCES", "ENOTDIR"].includes(error.code)) throw error;
    }
  }
  return null;
}

/** Runs a program to its end; answers its exit code and everything it printed. */
export function runProgram(command, args, { env = process.env, show = false, cwd } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { env, cwd, stdio: ["ignore", "pipe", "pipe"] });
    let output = "";
    for (const stream of [child.stdout, child.stderr]) {
      stream.on("data", (data) => {
        output += data;
        if (show) process.stdout.write(data);
      });
    }
    child.on("error", reject);
    child.on("close", (code, signal) => resolve({ code: code ?? 1, signal, output }));
  });
}

/** The last lines of a program's output, for a sentence that says why it failed. */
export const lastLines = (output, count = 8) =>
  output
    .trim()
    .split("\n")
    .slice(-count)
    .map((line) => `    ${line}`)
    .join("\n");
