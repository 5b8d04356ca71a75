// Runs every check from a clean clone: set-up, types, lint with the import walls, Jest, the build, the
// browser tests.
import { existsSync, readFileSync, rmSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { ensureBuild } from "./setup/build.mjs";
import {
  BROWSER_PROGRAMS,
  CAPTURE_PROGRAMS,
  DATABASE_PROGRAMS,
  ensurePrograms,
  PAPER_PROGRAMS,
  YANG_PROGRAMS,
  ZONE_PROGRAMS,
} from "./setup/debian.mjs";
import { ensurePackages } from "./setup/packages.mjs";
import { runProgram } from "./setup/run-program.mjs";
import { runOrExplain, say } from "./setup/stage.mjs";

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const TALLY = /^(?:Jest|Playwright): (\d+) passed, (\d+) failed/m;

/**
 * Runs a check and shows its output; answers how many passed and failed. One without a count of its own
 * counts as one.
 */
async function check(title, command, args) {
  say(`\n== ${title}`);
  const began = performance.now();
  const { code, output } = await runProgram(command, args, {
    cwd: ROOT,
    show: true,
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" },
  });
  say(
    `== ${title}: ${code === 0 ? "passed" : `FAILED (${code})`} ` +
      `in ${((performance.now() - began) / 1000).toFixed(1)} s`,
  );
  const tally = TALLY.exec(output);
  if (tally === null) return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
  const failed = Number(tally[2]);
  // A runner that breaks off without a failed test has failed all the same.
  return { passed: Number(tally[1]), failed: code !== 0 && failed === 0 ? 1 : failed };
}

await runOrExplain(async () => {
  await ensurePrograms({
    ...DATABASE_PROGRAMS,
    ...BROWSER_PROGRAMS,
    ...ZONE_PROGRAMS,
    ...YANG_PROGRAMS,
    ...PAPER_PROGRAMS,
    ...CAPTURE_PROGRAMS,
  });
  await ensurePackages(ROOT);
  rmSync(join(ROOT, ".data", "e2e"), { recursive: true, force: true });
  const node = process.execPath;
  const results = [
    await check("types", node, ["scripts/typecheck.mjs"]),
    await check("format", "npm", ["run", "-s", "format:check"]),
    await check("lint", "npm", ["run", "-s", "lint"]),
    await check("Jest: core and components", node, [
      "node_modules/jest/bin/jest.js",
      "--selectProjects",
      "unit",
      "ui",
      "--maxWorkers",
      "100%",
    ]),
  ];
  say("\n== build");
  await ensureBuild(ROOT);
  // One after another: some of these count the rows of the whole database.
  results.push(
    await check("Jest: storage on a real MariaDB", node, [
      "node_modules/jest/bin/jest.js",
      "--selectProjects",
      "db",
      "--runInBand",
    ]),
  );
  results.push(
    await check("Playwright: journeys on the production build", node, [
      "node_modules/@playwright/test/cli.js",
      "test",
    ]),
  );
  const sum = (field) => results.reduce((total, result) => total + result[field], 0);
  const log = join(ROOT, ".data", "e2e", "db.log");
  if (sum("failed") > 0 && existsSync(log))
    say(
      `\nThe end of the test database's log:\n${readFileSync(log, "utf8").split("\n").slice(-5).join("\n")}`,
    );
  say(`\n${sum("passed")} passed, ${sum("failed")} failed`);
  process.exit(sum("failed") === 0 ? 0 : 1);
});
