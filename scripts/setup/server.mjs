// The production server of the built application, on loopback.
import { spawn } from "node:child_process";
import { createServer } from "node:net";
import { setTimeout as wait } from "node:timers/promises";
import { Problem } from "./stage.mjs";

/** Whether a program listens on the port already. */
export function isPortTaken(port) {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once("error", (error) => (error.code === "EADDRINUSE" ? resolve(true) : error.code === "EACCES" ? reject(new Problem(`Port ${port} is kept for root. Choose one above 1023 with --port.`)) : reject(error)));
    probe.listen(port, "127.0.0.1", () => probe.close(() => resolve(false)));
  });
}

/** Whether browsers refuse the port by their list of ports that belong to other protocols (Fetch standard, "port blocking"). */
export async function isPortRefused(port) {
  try {
    await fetch(`http://127.0.0.1:${port}/`, { method: "HEAD", signal: AbortSignal.timeout(2000) });
    return false;
  } catch (error) {
    return error.cause?.message === "bad port";
  }
}

export async function startServer(root, { port, url, dev }) {
  const child = spawn(process.execPath, ["node_modules/next/dist/bin/next", dev ? "dev" : "start", "-H", "127.0.0.1", "-p", String(port)], {
    cwd: root, detached: true, stdio: ["ignore", "pipe", "pipe"],
    env: { ...process.env, NODE_ENV: dev ? "development" : "production", NEXT_TELEMETRY_DISABLED: "1", DATABASE_URL: url, LISTEN_PORT: String(port) },
  });
  let output = "";
  for (const stream of [child.stdout, child.stderr]) {
    stream.on("data", (data) => {
      output = `${output}${data}`.slice(-4000);
      if (dev || /error|warn/i.test(String(data))) process.stderr.write(data);
    });
  }
  for (let tries = 0; tries < 600; tries += 1) {
    if (child.exitCode !== null) throw new Problem(`The server did not start:\n${output}`);
    try {
      await fetch(`http://127.0.0.1:${port}/enter`, { signal: AbortSignal.timeout(5000) });
      return child;
    } catch (error) {
      if (error.name !== "TypeError" && error.name !== "TimeoutError") throw error;
      await wait(50);
    }
  }
  await stopServer(child);
  throw new Problem(`The server did not answer on port ${port} within 30 s:\n${output}`);
}

/** Stops a server by its pid and waits until it is gone. */
export async function stopServer(child) {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((resolve) => child.once("exit", resolve));
  child.kill("SIGTERM");
  await Promise.race([gone, wait(5000)]);
  if (child.exitCode === null && child.signalCode === null) {
    child.kill("SIGKILL");
    await gone;
  }
}
