// The production server of the built application, on loopback.
import { spawn } from "node:child_process";
import { closeSync, existsSync, openSync, readFileSync, renameSync, statSync } from "node:fs";
import { createServer } from "node:net";
import { setTimeout as wait } from "node:timers/promises";
import { stopPid } from "./processes.mjs";
import { lastLines } from "./run-program.mjs";
import { Problem } from "./stage.mjs";

/** Whether a program listens on the port already. */
export function isPortTaken(port) {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once("error", (error) => {
      if (error.code === "EADDRINUSE") return resolve(true);
      if (error.code === "EACCES")
        return reject(new Problem(`Port ${port} is kept for root. Choose one above 1023 with --port.`));
      return reject(error);
    });
    probe.listen(port, "127.0.0.1", () => probe.close(() => resolve(false)));
  });
}

/**
 * Whether browsers refuse the port by their list of ports that belong to other protocols (Fetch standard,
 * "port blocking").
 */
export async function isPortRefused(port) {
  try {
    await fetch(`http://127.0.0.1:${port}/`, { method: "HEAD", signal: AbortSignal.timeout(2000) });
    return false;
  } catch (error) {
    return error.cause?.message === "bad port";
  }
}

/** The log of the server, begun anew when it has grown large; the one before is kept beside it. */
function openLog(file) {
  if (existsSync(file) && statSync(file).size > MOST_LOG_BYTES) renameSync(file, `${file}.1`);
  return openSync(file, "a");
}
const MOST_LOG_BYTES = 5_000_000;

/** What tells the server where to listen beyond loopback; empty where it does not. */
const listenEnvironment = (beyond) => ({
  LISTEN_HOST: beyond?.host ?? "",
  LISTEN_TLS_PORT: beyond === null ? "" : String(beyond.port),
  LISTEN_AT: beyond?.urls.join(",") ?? "",
  LISTEN_CERTIFICATE: beyond?.certFile ?? "",
  LISTEN_KEY: beyond?.keyFile ?? "",
  LISTEN_FINGERPRINT: beyond?.fingerprint ?? "",
});

/** Starts the server, which writes into a file: it needs nobody who reads what it says. */
export async function startServer(root, { port, url, dev, logFile, standInDevices, beyond }) {
  const log = openLog(logFile);
  const child = spawn(process.execPath, ["scripts/serve.mjs"], {
    cwd: root,
    detached: true,
    stdio: ["ignore", dev ? "inherit" : log, dev ? "inherit" : log],
    env: {
      ...process.env,
      NODE_ENV: dev ? "development" : "production",
      NEXT_TELEMETRY_DISABLED: "1",
      DATABASE_URL: url,
      LISTEN_PORT: String(port),
      STAND_IN_DEVICES: standInDevices ?? "",
      ...listenEnvironment(beyond),
    },
  });
  closeSync(log);
  const said = () => lastLines(readFileSync(logFile, "utf8"), 12);
  for (let tries = 0; tries < 600; tries += 1) {
    if (child.exitCode !== null || child.signalCode !== null)
      throw new Problem(`The server did not start. The end of its log, ${logFile}:\n${said()}`);
    try {
      await fetch(`http://127.0.0.1:${port}/enter`, { signal: AbortSignal.timeout(5000) });
      return child;
    } catch (error) {
      if (error.name !== "TypeError" && error.name !== "TimeoutError") throw error;
      await wait(50);
    }
  }
  await stopPid(child.pid);
  throw new Problem(
    `The server did not answer on port ${port} within 30 s. The end of its log, ${logFile}:\n${said()}`,
  );
}
