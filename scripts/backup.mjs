// Writes everything that the database holds into one file, while people work: what bin/backup calls.
//   FILE             where to; it must not be there yet
//   --dir D          another data folder than .data/start
//   --profile P      start, demo, test or dev
import { dirname, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { backUp } from "./setup/backup.mjs";
import { readFileOptions, withDatabase } from "./setup/own-database.mjs";
import { ensurePackages } from "./setup/packages.mjs";
import { runOrExplain, say, stage } from "./setup/stage.mjs";

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), "..");

await runOrExplain(async () => {
  const options = readFileOptions(ROOT, "Name the file to write: bin/backup plans.backup.gz [--dir folder]");
  await ensurePackages(ROOT);
  const { tables, sha256 } = await withDatabase(options, { mayRun: true }, (url) =>
    stage("backing up", () => backUp(url, options.file)),
  );
  for (const [table, rows] of tables) say(`    ${table}: ${rows}`);
  say(`\n${options.file} is written. Its SHA-256 is\n    ${sha256}`);
});
