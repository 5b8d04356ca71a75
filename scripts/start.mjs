// Starts the application: what bin/demo and bin/start call, and the browser tests.
//   --demo           load the made-up sites once
//   --reset          throw this folder's data away first (demo and tests only)
//   --port N         another port than 4100
//   --dir D          another data folder than .data/<profile>
//   --profile P      start, demo, test or dev
//   --link-file F    also write the one-time link, or where one signs in, into a file
//   --listen A       also over TLS at an address of this machine, or at all with 0.0.0.0
//   --certificate F, --key F   the certificate for that; one is made without
//   --stop           stop what runs on the folder, and everything it started
import { createHash } from "node:crypto";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { parseArgs } from "node:util";
import { ensureBuild } from "./setup/build.mjs";
import { connectTo } from "./setup/connection.mjs";
import { copyAside } from "./setup/copy-aside.mjs";
import { placesOf, runningPid, startDatabase, urlOfRunning } from "./setup/database.mjs";
import { DATABASE_PROGRAMS, ensurePrograms } from "./setup/debian.mjs";
import { makeDemoLink, makeFirstLink } from "./setup/entry-link.mjs";
import { ensureFolder, lockFolder } from "./setup/folder-lock.mjs";
import { keepUp } from "./setup/keep-up.mjs";
import { listening } from "./setup/listen.mjs";
import { loadDemo } from "./setup/load-demo.mjs";
import { migrate, pendingMigrations } from "./setup/migrate.mjs";
import { ensurePackages } from "./setup/packages.mjs";
import { isUp, procFile, stopPid } from "./setup/processes.mjs";
import { isPortRefused, isPortTaken, startServer } from "./setup/server.mjs";
import { readRunning, runningFile } from "./setup/running.mjs";
import { Problem, runOrExplain, say, stage } from "./setup/stage.mjs";
import { standInDevicesFile, standInFile, startStandIn } from "./setup/stand-in.mjs";
import { writeState } from "./setup/state-file.mjs";

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const DEFAULT_PORT = 4100;

function readOptions() {
  try {
    const { values } = parseArgs({
      options: {
        profile: { type: "string", default: "start" },
        demo: { type: "boolean", default: false },
        reset: { type: "boolean", default: false },
        stop: { type: "boolean", default: false },
        port: { type: "string" },
        dir: { type: "string" },
        "link-file": { type: "string" },
        listen: { type: "string" },
        certificate: { type: "string" },
        key: { type: "string" },
      },
    });
    const port = Number(values.port ?? DEFAULT_PORT);
    if (values.reset && values.profile === "start")
      throw new Problem("--reset throws all data away, so it is for the demo only: bin/demo --reset.");
    if (!Number.isInteger(port) || port < 1 || port > 65535)
      throw new Problem(`"${values.port}" is not a port; write --port and a number from 1024 to 65535.`);
    const given = values.profile === "start" ? (process.env.DATABASE_URL ?? "") : "";
    return {
      ...values,
      port,
      askedPort: values.port ?? null,
      given,
      dir: resolve(ROOT, values.dir ?? join(".data", values.profile)),
    };
  } catch (error) {
    if (error.code?.startsWith("ERR_PARSE_ARGS"))
      throw new Problem(
        `${error.message}. Known: --port N, --stop, --reset (with the demo), --dir folder, --listen address.`,
      );
    throw error;
  }
}

/** Tells databases apart without writing down how one gets in. */
const markOf = (url) => createHash("sha256").update(url).digest("hex").slice(0, 16);

/**
 * The database of this start: one given by DATABASE_URL, or the folder's own, which is kept up and copied
 * aside before a migration.
 */
async function openDatabase(options) {
  if (options.given !== "") {
    await (await connectTo(options.given)).end();
    return {
      url: options.given,
      stop: async () => {},
      keepUp: () => null,
      copyAside: async () =>
        say("    DATABASE_URL names a database that is not ours to copy; its keeper makes the copies."),
    };
  }
  await ensurePrograms(DATABASE_PROGRAMS);
  if (options.reset) {
    const pid = runningPid(placesOf(options.dir));
    if (pid !== null) await stopPid(pid);
    for (const part of ["db", "files", "copies", "state.json"])
      rmSync(join(options.dir, part), { recursive: true, force: true });
  }
  const start = () =>
    startDatabase(options.dir, { durable: options.profile !== "test" || process.env.TEST_DURABLE === "1" });
  let database = await stage("starting the database", start);
  return {
    url: database.url,
    stop: () => database.stop(),
    keepUp: (onBug) =>
      keepUp({
        title: "The database",
        isUp: () => isUp(database.pid),
        start: async () => {
          database = await start();
        },
        onBug,
      }),
    copyAside: async (migration) => {
      await database.stop();
      await copyAside(options.dir, migration, new Date());
      database = await start();
    },
  };
}

/** Who draws in the demo. */
const DEMO_PERSON = "Ruth";

/** How one comes in: by a link of the demo, by the one that makes the owner's account, or by signing in. */
async function wayIn(url, address, demo) {
  if (demo) {
    const link = await makeDemoLink(url, address, DEMO_PERSON);
    return {
      link,
      words:
        `This is the demo. The link signs you in as ${DEMO_PERSON}, ` +
        "who owns everything in it; it works one time:",
    };
  }
  const link = await makeFirstLink(url, address);
  if (link !== null)
    return { link, words: "Open this link once: it makes the account of the owner, who lets others in:" };
  return {
    link: address,
    words: "Sign in there. Who has lost the password gets a link by bin/let-in NAME on this machine:",
  };
}

/** Another start has the folder: it gets a new link, or a sentence why not. */
async function linkFromRunning({ dir, reset, askedPort, given, demo }) {
  const running = readRunning(dir);
  if (running === null || !isUp(running.pid))
    throw new Problem(
      `Another start of ${dir} is under way. Wait until it ` +
        "is ready, then run this again for a link of your own.",
    );
  const { pid, address, database } = running;
  const stopIt = `Stop it first, with Ctrl-C where it was started or with --stop`;
  if (reset) throw new Problem(`It runs already, at ${address} (process ${pid}). ${stopIt}, then reset.`);
  if (askedPort !== null && !address.endsWith(`:${askedPort}`))
    throw new Problem(
      `It runs already, at ${address} (process ${pid}), and its port stays as ` +
        `it is while it runs. ${stopIt}, then start with --port ${askedPort}.`,
    );
  if (given !== "" && markOf(given) !== database)
    throw new Problem(
      `It runs already, at ${address} (process ${pid}), on another database than ` +
        `DATABASE_URL names now. ${stopIt}, or name another folder with --dir.`,
    );
  const url = given !== "" ? given : await urlOfRunning(dir);
  if (url === null)
    throw new Problem(
      `It runs already, at ${address} (process ${pid}); its database ` +
        "is just being started again. Run this again in a few seconds.",
    );
  const { link, words } = await wayIn(url, address, demo);
  say(`\nIt runs already, at ${address} (process ${pid}). ${words}\n\n    ${link}\n`);
}

/** Stops the start that has the folder, and makes sure that it is gone. */
async function stopRunning({ dir }) {
  const running = readRunning(dir);
  if (running === null || !procFile(running.pid, "cmdline").includes("start.mjs"))
    throw new Problem(`Nothing that was started on ${dir} runs.`);
  await stage(`stopping process ${running.pid} at ${running.address}`, () =>
    stopPid(running.pid, { graceMs: 45_000 }),
  );
}

/**
 * A start that was killed may have left its server: that is stopped, if it is still the one that serves this
 * folder.
 */
async function stopLeftServer(dir) {
  const { serverPid, standInPid } = readRunning(dir) ?? {};
  const isOurs = (pid) =>
    pid !== undefined && procFile(pid, "environ").includes(encodeURIComponent(placesOf(dir).socket));
  for (const pid of [serverPid, standInPid].filter(isOurs)) {
    say(`  the start before was killed and left its server (process ${pid}); stopping that`);
    await stopPid(pid);
  }
}

async function checkPort(port) {
  if (await isPortRefused(port))
    throw new Problem(
      `Browsers refuse port ${port}: it belongs to another protocol. Start with another, such as --port 4100.`,
    );
  if (await isPortTaken(port))
    throw new Problem(
      `Port ${port} is in use by another program. Stop that, or start with --port ${port + 1}.`,
    );
}

/** The database in its newest form, with a copy of what it was before; the demo sites where wanted. */
async function bringUp(options, database) {
  const { hasData, fresh } = await pendingMigrations(ROOT, database.url);
  if (hasData && fresh.length > 0) await database.copyAside(fresh[0]);
  const applied = await stage("bringing the database to the newest form", () => migrate(ROOT, database.url));
  if (applied.length > 0) say(`    ${applied.length} migrations applied`);
  if (options.demo) await loadDemo(ROOT, database.url);
}

function keepLink(file, link) {
  mkdirSync(dirname(file), { recursive: true });
  writeFileSync(file, link, { mode: 0o600 });
}

const sayReady = (began, address, { link, words }, logFile) =>
  say(
    `\nReady in ${((performance.now() - began) / 1000).toFixed(1)} s at ${address}\n\n${words}` +
      `\n\n    ${link}\n\nCtrl-C stops everything ` +
      `that was started here. What the server has to say is in ${logFile}.`,
  );

const sayListening = ({ urls, fingerprint }) =>
  say(
    `\nIt listens beyond this machine, too, over TLS: ${urls.join(", ")}. Let another browser in from a page ` +
      `that is open already. Its certificate has the SHA-256 fingerprint\n    ${fingerprint}`,
  );

// eslint-disable-next-line max-lines-per-function -- from top to bottom; each step is a function of its own
async function start() {
  const began = performance.now();
  const options = readOptions();
  const { dir, port } = options;
  // A name, since no passkey belongs to an address in numbers; it is reached by this one only all the same.
  const address = `http://localhost:${port}`;
  if (options.stop) return stopRunning(options);
  ensureFolder(dir);
  say(`Starting in ${ROOT}`);
  await ensurePackages(ROOT);
  if (!lockFolder(dir)) return linkFromRunning(options);
  await stopLeftServer(dir);
  const linkFile = options["link-file"] === undefined ? null : resolve(ROOT, options["link-file"]);
  // Whoever waits for it must not find one of before.
  if (linkFile !== null) rmSync(linkFile, { force: true });
  await checkPort(port);
  const beyond = await listening(dir, options);
  if (beyond !== null) await checkPort(beyond.port);
  const dev = options.profile === "dev";
  if (!dev) await ensureBuild(ROOT);
  const database = await openDatabase(options);
  const note = (more) =>
    writeState(runningFile(dir), { pid: process.pid, address, database: markOf(database.url), ...more });
  note({});
  const watches = [];
  let server = null;
  let standIn = null;
  let ending = false;
  const takeDown = async () => {
    await Promise.all(watches.map((watch) => watch?.stop()));
    for (const child of [server, standIn]) if (child !== null) await stopPid(child.pid);
    await database.stop();
    rmSync(runningFile(dir), { force: true });
  };
  const end = async (code) => {
    if (ending) return;
    ending = true;
    await takeDown();
    process.exit(code);
  };
  const endBy = (words) => () => {
    if (words !== "") say(words);
    void end(0).catch(explainAndGo);
  };
  const explainAndGo = (error) => {
    process.stderr.write(`${error instanceof Problem ? error.message : error?.stack}\n`);
    process.exit(1);
  };
  process.on("SIGINT", endBy("\nStopping."));
  process.on("SIGTERM", endBy(""));
  // A closed terminal ends nothing: people are at work in their browsers. --stop ends it.
  process.on("SIGHUP", () => say("The terminal was closed; it goes on. --stop ends it."));
  try {
    await bringUp(options, database);
    const serve = async () => {
      server = await startServer(ROOT, {
        port,
        url: database.url,
        dev,
        logFile: join(dir, "server.log"),
        standInDevices: options.demo ? standInDevicesFile(dir) : null,
        beyond,
      });
      note({ serverPid: server.pid, ...(standIn === null ? {} : { standInPid: standIn.pid }) });
    };
    await stage("starting the server", serve);
    if (options.demo) {
      standIn = startStandIn(ROOT, dir, database.url);
      note({ serverPid: server.pid, standInPid: standIn.pid });
    }
    const onBug = (error) => {
      process.stderr.write(`${error?.stack ?? error}\n`);
      void end(1);
    };
    watches.push(
      database.keepUp(onBug),
      keepUp({ title: "The server", isUp: () => isUp(server.pid), start: serve, onBug }),
    );
    const way = await wayIn(database.url, address, options.demo);
    if (linkFile !== null) keepLink(linkFile, way.link);
    sayReady(began, address, way, join(dir, "server.log"));
    if (beyond !== null) sayListening(beyond);
    if (standIn !== null)
      say(
        `An authentication server stands in on 127.0.0.1; its ports and its secret are in ` +
          `${standInFile(dir)}. The planned devices stand in, too: Runbook, On stand-ins.`,
      );
  } catch (error) {
    ending = true;
    await takeDown();
    throw error;
  }
}

await runOrExplain(start);
