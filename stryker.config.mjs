// Mutation testing of one folder of the core: `npm run mutate -- FOLDER` (scripts/mutate.mjs says which).
const folder = process.env.MUTATE_FOLDER ?? "";

const config = {
  packageManager: "npm",
  plugins: ["@stryker-mutator/jest-runner"],
  testRunner: "jest",
  jest: { configFile: "jest.mutate.config.mjs", enableFindRelatedTests: false },
  coverageAnalysis: "perTest",
  mutate: [
    `src/core/${folder}/**/*.ts`,
    "!src/core/**/*.test.ts",
    "!src/core/**/index.ts",
    "!src/core/**/*.generated.ts",
  ],
  // A sentence on screen is no rule; the rules' own texts are compared by the tests of their readers.
  mutator: { excludedMutations: ["StringLiteral"] },
  incremental: true,
  incrementalFile: `.cache/mutate/${folder.replaceAll("/", "-")}.json`,
  reporters: ["clear-text", "progress-append-only", "json"],
  jsonReporter: { fileName: `.cache/mutate/${folder.replaceAll("/", "-")}-report.json` },
  clearTextReporter: { allowColor: false, reportTests: false, logTests: false },
  tempDirName: ".cache/stryker",
  ignorePatterns: [".next", ".data", ".cache", "docs", "test-results", "bench", "demo/*.json"],
  thresholds: { high: 90, low: 85, break: 85 },
  concurrency: Number(process.env.MUTATE_WORKERS ?? 2),
  timeoutMS: 4000,
  ignoreStatic: true,
  disableTypeChecks: false,
};

export default config;
