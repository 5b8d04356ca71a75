import { defineConfig } from "@playwright/test";
import { readdirSync } from "node:fs";
import { join } from "node:path";
import { E2E_DIR, LINK_FILE, SESSION } from "./tests/e2e/places";

const CHROMIUM = process.env.CHROMIUM ?? "/usr/bin/chromium";

/** One half of the journeys; the other is all that are not in it, so that none is ever left out. */
const ONE = [
  "access",
  "drills",
  "gateway",
  "guards",
  "handover",
  "papers",
  "people",
  "simulation",
  "strangers",
  "survey",
  "tests",
  "walls",
  "weight",
].map((name) => `${name}.spec.ts`);
const ALL = readdirSync(join(__dirname, "tests", "e2e")).filter((name) => name.endsWith(".spec.ts"));

/**
 * The journeys in two halves that take about as long as each other: each with an application and a database of
 * its own they run beside one another. Without E2E_HALF all of them run, one after the other.
 */
const HALVES: Readonly<Record<string, { readonly port: number; readonly files: readonly string[] }>> = {
  "": { port: 4187, files: ALL },
  one: { port: 4187, files: ONE },
  two: { port: 4197, files: ALL.filter((name) => !ONE.includes(name)) },
};
const half = process.env.E2E_HALF ?? "";
const { port, files } = HALVES[half] ?? { port: 4187, files: ALL };
const address = `http://localhost:${port}`;

export default defineConfig({
  testDir: "tests/e2e",
  outputDir: join("test-results", half),
  workers: 1,
  fullyParallel: false,
  forbidOnly: true,
  // Long enough for a machine that others take three quarters of; nothing here is waited for that would come
  // late otherwise.
  timeout: 300_000,
  expect: { timeout: 30_000 },
  reporter: [["list"], ["./tests/reporters/playwright-line.ts"]],
  use: {
    actionTimeout: 30_000,
    baseURL: address,
    viewport: { width: 1280, height: 800 },
    // A record of every step takes as long as the steps; E2E_TRACE=1 keeps one where something fails.
    trace: process.env.E2E_TRACE === undefined ? "off" : "retain-on-failure",
    screenshot: "only-on-failure",
    storageState: SESSION,
    // Pages come from the server as they are now; the journey without a connection lets it in.
    serviceWorkers: "block",
    colorScheme: "light",
    launchOptions: {
      executablePath: CHROMIUM,
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  projects: [
    { name: "door", testMatch: "door.setup.ts", use: { storageState: { cookies: [], origins: [] } } },
    { name: "journeys", testMatch: [...files], dependencies: ["door"] },
  ],
  webServer: {
    command:
      "node scripts/start.mjs --profile test --demo --reset " +
      `--port ${port} --dir ${E2E_DIR} --link-file ${LINK_FILE}`,
    url: `${address}/enter`,
    timeout: 480_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: "SIGTERM", timeout: 15_000 },
  },
});
