// Runs every check from a clean clone: set-up, lint with the import walls, types, Jest, the build, the
// browser tests.
import { existsSync, readFileSync, rmSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { ensureBuild } from "./setup/build.mjs";
import {
  BROWSER_PROGRAMS,
  CAPTURE_PROGRAMS,
  CERTIFICATE_PROGRAMS,
  DATABASE_PROGRAMS,
  ensurePrograms,
  PAPER_PROGRAMS,
  SIGN_IN_PROGRAMS,
  YANG_PROGRAMS,
  ZONE_PROGRAMS,
} from "./setup/debian.mjs";
import { ensurePackages } from "./setup/packages.mjs";
import { runProgram } from "./setup/run-program.mjs";
import { runOrExplain, say } from "./setup/stage.mjs";

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const TALLY = /^(?:Jest|Playwright): (\d+) passed, (\d+) failed/m;
/** A failed test as our reporters tell it: where it stands, and below it why. */
const FAILURES = /^Failed[:|] .*$/gm;

/**
 * Runs a check; answers how many passed and failed, and what is said of these. One without a count of its own
 * counts as one. Its output is shown as it comes, or whole at its end where another check runs beside it.
 */
async function check(title, command, args, { beside = false, env = {} } = {}) {
  if (!beside) say(`\n== ${title}`);
  const began = performance.now();
  const { code, output } = await runProgram(command, args, {
    cwd: ROOT,
    show: !beside,
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", ...env },
  });
  if (beside) say(`\n== ${title}\n${output.trimEnd()}`);
  say(
    `== ${title}: ${code === 0 ? "passed" : `FAILED (${code})`} ` +
      `in ${((performance.now() - began) / 1000).toFixed(1)} s`,
  );
  const tally = TALLY.exec(output);
  const told = output.match(FAILURES) ?? [];
  if (tally === null)
    return code === 0
      ? { passed: 1, failed: 0, told }
      : { passed: 0, failed: 1, told: [`Failed: ${title}`, ...told] };
  const failed = Number(tally[2]);
  // A runner that breaks off without a failed test has failed all the same.
  return { passed: Number(tally[1]), failed: code !== 0 && failed === 0 ? 1 : failed, told };
}

const node = process.execPath;
const beside = { beside: true };
const npm = (script) => check(script, "npm", ["run", "-s", script], beside);
const jest = (title, args, how = {}) =>
  check(`Jest: ${title}`, node, ["node_modules/jest/bin/jest.js", ...args], how);
const journeys = (half) =>
  check(`Playwright: journeys on the production build, half ${half}`, node, [PLAYWRIGHT, "test"], {
    beside: true,
    env: { E2E_HALF: half },
  });
const PLAYWRIGHT = "node_modules/@playwright/test/cli.js";
const HALVES = ["one", "two"];

/** What needs no browser but for the core's own tests, in two lanes; the build is ready then. */
async function readings() {
  say("\n== lint, format, types, the build and the storage, beside one another");
  const built = ensureBuild(ROOT);
  const formAndTypes = async () => {
    const form = [await npm("lint"), await npm("format:check")];
    // The build writes the types of the routes anew: who reads them meanwhile misses files that were there.
    await built;
    return [...form, await check("types", node, ["scripts/typecheck.mjs"], beside)];
  };
  const storage = async () => {
    await built;
    // One after another: some of these count the rows of the whole database.
    const inTurn = ["--selectProjects", "db", "--runInBand"];
    return [await jest("storage on a real MariaDB", inTurn, beside)];
  };
  return (await Promise.all([formAndTypes(), storage()])).flat();
}

await runOrExplain(async () => {
  await ensurePrograms({
    ...DATABASE_PROGRAMS,
    ...BROWSER_PROGRAMS,
    ...ZONE_PROGRAMS,
    ...YANG_PROGRAMS,
    ...PAPER_PROGRAMS,
    ...CAPTURE_PROGRAMS,
    ...SIGN_IN_PROGRAMS,
    ...CERTIFICATE_PROGRAMS,
  });
  await ensurePackages(ROOT);
  const folders = HALVES.map((half) => join(ROOT, ".data", `e2e-${half}`));
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
  const results = [
    ...(await readings()),
    await jest("core and components", ["--selectProjects", "unit", "ui", "--maxWorkers", "100%"]),
  ];
  say("\n== the journeys, in two halves beside one another");
  results.push(...(await Promise.all(HALVES.map(journeys))));
  const sum = (field) => results.reduce((total, result) => total + result[field], 0);
  const logs = folders.map((folder) => join(folder, "db.log")).filter((log) => existsSync(log));
  for (const log of sum("failed") > 0 ? logs : [])
    say(`\nThe end of ${log}:\n${readFileSync(log, "utf8").split("\n").slice(-5).join("\n")}`);
  for (const line of results.flatMap(({ told }) => told)) say(line);
  say(`\n${sum("passed")} passed, ${sum("failed")} failed`);
  process.exit(sum("failed") === 0 ? 0 : 1);
});
