// Starts the application: what bin/demo and bin/start call, and the browser tests.
//   --demo           load the made-up sites once        --reset   throw this folder's data away first (demo and tests only)
//   --port N         another port than 4100             --dir D   another data folder than .data/<profile>
//   --profile P      start, demo, test or dev           --link-file F   also write the one-time link into a file
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { parseArgs } from "node:util";
import { ensureBuild } from "./setup/build.mjs";
import { connectTo } from "./setup/connection.mjs";
import { placesOf, runningPid, startDatabase, stopPid } from "./setup/database.mjs";
import { DATABASE_PROGRAMS, ensurePrograms } from "./setup/debian.mjs";
import { makeEntryLink } from "./setup/entry-link.mjs";
import { loadDemo } from "./setup/load-demo.mjs";
import { migrate } from "./setup/migrate.mjs";
import { ensurePackages } from "./setup/packages.mjs";
import { isPortRefused, isPortTaken, startServer, stopServer } from "./setup/server.mjs";
import { Problem, runOrExplain, say, stage } from "./setup/stage.mjs";

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), "..");

function readOptions() {
  try {
    const { values } = parseArgs({
      options: {
        profile: { type: "string", default: "start" }, demo: { type: "boolean", default: false }, reset: { type: "boolean", default: false },
        port: { type: "string", default: "4100" }, dir: { type: "string" }, "link-file": { type: "string" },
      },
    });
    const port = Number(values.port);
    if (values.reset && values.profile === "start") throw new Problem("--reset throws all data away, so it is for the demo only: bin/demo --reset.");
    if (!Number.isInteger(port) || port < 1 || port > 65535) throw new Problem(`"${values.port}" is not a port; write --port and a number from 1024 to 65535.`);
    return { ...values, port, dir: resolve(ROOT, values.dir ?? join(".data", values.profile)) };
  } catch (error) {
    if (error.code?.startsWith("ERR_PARSE_ARGS")) throw new Problem(`${error.message}. Known: --port N, --reset (with the demo), --dir folder.`);
    throw error;
  }
}

async function openDatabase(options) {
  const given = process.env.DATABASE_URL;
  if (options.profile === "start" && given !== undefined && given !== "") {
    await (await connectTo(given)).end();
    return { url: given, stop: async () => {} };
  }
  await ensurePrograms(DATABASE_PROGRAMS);
  if (options.reset) {
    const pid = runningPid(placesOf(options.dir));
    if (pid !== null) await stopPid(pid);
    rmSync(options.dir, { recursive: true, force: true });
  }
  return stage("starting the database", () => startDatabase(options.dir, { durable: options.profile !== "test" || process.env.TEST_DURABLE === "1" }));
}

/** What the system says of a process; empty for one that is gone, or dead and not yet fetched by its parent. */
function procFile(pid, name) {
  try {
    return readFileSync(`/proc/${pid}/${name}`, "utf8");
  } catch (error) {
    if (error.code === "ENOENT" || error.code === "ESRCH") return "";
    throw error;
  }
}

/**
 * A start of the same data folder that still runs gets a new link instead of a second server. One that was killed may have left
 * its server behind: that is stopped, if it is still the one that serves this folder.
 */
async function linkForRunning({ dir, reset }) {
  const file = join(dir, "running.json");
  if (!existsSync(file)) return false;
  const { pid, address, serverPid } = JSON.parse(readFileSync(file, "utf8"));
  if (!procFile(pid, "cmdline").includes("start.mjs")) {
    if (serverPid !== undefined && procFile(serverPid, "environ").includes(encodeURIComponent(placesOf(dir).socket))) {
      say(`  the start before was killed and left its server (process ${serverPid}); stopping that`);
      await stopPid(serverPid);
    }
    return false;
  }
  if (reset) throw new Problem(`It runs already, at ${address} (process ${pid}). Stop it with Ctrl-C first, then reset.`);
  const { url } = await startDatabase(dir, { durable: true });
  say(`\nIt runs already, at ${address} (process ${pid}). A new link, for one use:\n\n    ${await makeEntryLink(url, address)}\n`);
  return true;
}

async function start() {
  const began = performance.now();
  const options = readOptions();
  const address = `http://127.0.0.1:${options.port}`;
  say(`Starting in ${ROOT}`);
  await ensurePackages(ROOT);
  if (await linkForRunning(options)) return;
  if (await isPortRefused(options.port)) throw new Problem(`Browsers refuse port ${options.port}: it belongs to another protocol. Start with another, such as --port 4100.`);
  if (await isPortTaken(options.port)) {
    throw new Problem(`Port ${options.port} is in use by another program. Stop that, or start with --port ${options.port + 1}.`);
  }
  if (options.profile !== "dev") await ensureBuild(ROOT);
  const database = await openDatabase(options);
  const running = join(options.dir, "running.json");
  mkdirSync(options.dir, { recursive: true, mode: 0o700 });
  writeFileSync(running, JSON.stringify({ pid: process.pid, address }));
  let server = null;
  let ending = false;
  const end = async (code) => {
    if (ending) return;
    ending = true;
    if (server !== null) await stopServer(server);
    await database.stop();
    rmSync(running, { force: true });
    process.exit(code);
  };
  process.on("SIGINT", () => { say("\nStopping."); void end(0); });
  process.on("SIGTERM", () => void end(0));
  try {
    const applied = await stage("bringing the database to the newest form", () => migrate(ROOT, database.url));
    if (applied.length > 0) say(`    ${applied.length} migrations applied`);
    if (options.demo) await loadDemo(ROOT, database.url);
    server = await stage("starting the server", () => startServer(ROOT, { port: options.port, url: database.url, dev: options.profile === "dev" }));
    writeFileSync(running, JSON.stringify({ pid: process.pid, address, serverPid: server.pid }));
    const link = await makeEntryLink(database.url, address);
    if (options["link-file"] !== undefined) {
      const file = resolve(ROOT, options["link-file"]);
      if (!existsSync(dirname(file))) mkdirSync(dirname(file), { recursive: true });
      writeFileSync(file, link, { mode: 0o600 });
    }
    say(`\nReady in ${((performance.now() - began) / 1000).toFixed(1)} s at ${address}\n\nOpen this link once to come in; it works one time:\n\n    ${link}\n\nCtrl-C stops everything that was started here.`);
    server.once("exit", (code) => {
      if (!ending) process.stderr.write(`The server ended by itself (${code}).\n`);
      void end(1);
    });
  } catch (error) {
    ending = true;
    if (server !== null) await stopServer(server);
    await database.stop();
    rmSync(running, { force: true });
    throw error;
  }
}

await runOrExplain(start);
