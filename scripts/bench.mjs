// Measures speed: `npm run bench -- [office|campus|estate|numbering|hardware|rules|faults]`.
// What is measured is bundled first, as the application is: unbundled, every function costs its naming.
import { spawnSync } from "node:child_process";
import { build } from "esbuild";

const outfile = ".cache/bench/run.mjs";
await build({
  entryPoints: ["bench/run.ts"],
  outfile,
  bundle: true,
  platform: "node",
  format: "esm",
  logLevel: "error",
});
const run = spawnSync(process.execPath, [outfile, ...process.argv.slice(2)], { stdio: "inherit" });
process.exit(run.status ?? 1);
