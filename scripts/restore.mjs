// Makes a database of a backup, in an empty folder or an empty database: what bin/restore calls.
//   FILE             the backup
//   --dir D          another data folder than .data/start
//   --profile P      start, demo, test or dev
import { dirname, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { readFileOptions, withDatabase } from "./setup/own-database.mjs";
import { ensurePackages } from "./setup/packages.mjs";
import { restore } from "./setup/restore.mjs";
import { runOrExplain, say, stage } from "./setup/stage.mjs";

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), "..");

await runOrExplain(async () => {
  const options = readFileOptions(ROOT, "Name the backup: bin/restore plans.backup.gz [--dir folder]");
  await ensurePackages(ROOT);
  const tables = await withDatabase(options, { mayRun: false }, (url) =>
    stage("restoring", () => restore(ROOT, url, options.file)),
  );
  for (const [table, rows] of tables) say(`    ${table}: ${rows}`);
  say("\nEvery table is as the backup has it. Nobody is signed in: start it, and come in by its link.");
});
