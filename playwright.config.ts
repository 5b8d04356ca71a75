import { defineConfig } from "@playwright/test";

const CHROMIUM = process.env.CHROMIUM ?? "/usr/bin/chromium";
const ADDRESS = "http://127.0.0.1:4187";

export default defineConfig({
  testDir: "tests/e2e",
  outputDir: "test-results",
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
    baseURL: ADDRESS,
    viewport: { width: 1280, height: 800 },
    trace: "retain-on-failure",
    storageState: ".data/e2e/session.json",
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
    { name: "journeys", testMatch: "*.spec.ts", dependencies: ["door"] },
  ],
  webServer: {
    command:
      "node scripts/start.mjs --profile test --demo --reset " +
      "--port 4187 --dir .data/e2e --link-file .data/e2e/link.txt",
    url: `${ADDRESS}/enter`,
    timeout: 480_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: "SIGTERM", timeout: 15_000 },
  },
});
