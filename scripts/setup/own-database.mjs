// The database that a command at the terminal works on: the one that DATABASE_URL names, or a folder's own,
// which is started where it does not run.
import { join, resolve } from "node:path";
import { parseArgs } from "node:util";
import { startDatabase, urlOfRunning } from "./database.mjs";
import { DATABASE_PROGRAMS, ensurePrograms } from "./debian.mjs";
import { ensureFolder, lockFolder } from "./folder-lock.mjs";
import { Problem } from "./stage.mjs";

/** What such a command is given: a file, and which data folder. */
export function readFileOptions(root, usage) {
  try {
    const { values, positionals } = parseArgs({
      allowPositionals: true,
      options: { profile: { type: "string", default: "start" }, dir: { type: "string" } },
    });
    const [file] = positionals;
    if (file === undefined || positionals.length > 1) throw new Problem(usage);
    return {
      file: resolve(process.env.CALLED_FROM ?? ".", file),
      dir: resolve(root, values.dir ?? join(".data", values.profile)),
      given: values.dir === undefined && values.profile === "start" ? (process.env.DATABASE_URL ?? "") : "",
    };
  } catch (error) {
    if (error.code?.startsWith("ERR_PARSE_ARGS")) throw new Problem(`${error.message}. ${usage}`);
    throw error;
  }
}

/** Works on a database and leaves it as it was: running or not. `mayRun` is whether somebody may use it now. */
export async function withDatabase({ dir, given }, { mayRun }, work) {
  if (given !== "") return work(given);
  await ensurePrograms(DATABASE_PROGRAMS);
  ensureFolder(dir);
  if (lockFolder(dir)) {
    const database = await startDatabase(dir, { durable: true });
    try {
      return await work(database.url);
    } finally {
      await database.stop();
    }
  }
  if (!mayRun)
    throw new Problem(`What was started on ${dir} runs. Stop it first, with Ctrl-C there or with --stop.`);
  const url = await urlOfRunning(dir);
  if (url === null)
    throw new Problem(`The database of ${dir} is just being started. Run this again in a few seconds.`);
  return work(url);
}
