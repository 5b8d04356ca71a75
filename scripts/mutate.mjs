// Changes one folder of the core on purpose, line by line, and tells which changes no test notices:
// `npm run mutate -- FOLDER`. Incremental: what was judged before and has not changed is not judged again.
import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";

const folder = process.argv[2];
if (folder === undefined || !existsSync(new URL(`../src/core/${folder}/`, import.meta.url))) {
  console.error("Name one folder of src/core, as in: npm run mutate -- routing");
  process.exit(2);
}
const run = spawnSync("npx", ["stryker", "run", ...process.argv.slice(3)], {
  stdio: "inherit",
  env: { ...process.env, MUTATE_FOLDER: folder },
});
process.exit(run.status ?? 1);
