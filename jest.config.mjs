const swc = (tsx) => [
  "@swc/jest",
  {
    jsc: {
      parser: { syntax: "typescript", tsx },
      target: "es2023",
      transform: { react: { runtime: "automatic" } },
    },
    sourceMaps: "inline",
  },
];

/**
 * Built-ins that modules get handed as arguments. Looked up as globals of a test's own context they cost a hook
 * each time, a quarter to a half of the core's time. Not what a test may replace: no clock, no timer, no fetch.
 */
const BUILT_INS = [
  ...[
    "Array",
    "ArrayBuffer",
    "BigInt",
    "Boolean",
    "DataView",
    "Error",
    "Float64Array",
    "Infinity",
    "Int32Array",
  ],
  ...["Intl", "JSON", "Map", "Math", "Number", "Object", "Promise", "Proxy", "RangeError", "Reflect"],
  ...[
    "RegExp",
    "Set",
    "String",
    "Symbol",
    "TextDecoder",
    "TextEncoder",
    "TypeError",
    "Uint16Array",
    "Uint32Array",
  ],
  ...["Uint8Array", "WeakMap", "WeakRef", "WeakSet", "isNaN", "parseFloat", "parseInt"],
];

export const base = {
  sandboxInjectedGlobals: BUILT_INS,
  testEnvironment: "node",
  transform: { "^.+\\.tsx$": swc(true), "^.+\\.(ts|mts|js|mjs)$": swc(false) },
  transformIgnorePatterns: ["/node_modules/(?!(uuid|comlink|nanoid|@tanstack)/)"],
  moduleNameMapper: {
    "^@/(.*)$": "<rootDir>/src/$1",
    "^server-only$": "<rootDir>/node_modules/server-only/empty.js",
  },
  modulePathIgnorePatterns: ["<rootDir>/.next", "<rootDir>/.data"],
};

const config = {
  // For a machine that others use, too: the tests with a database wait on the disk.
  testTimeout: 60_000,
  projects: [
    {
      ...base,
      displayName: "unit",
      testMatch: ["<rootDir>/src/**/*.test.ts", "<rootDir>/tests/*.test.ts"],
      testPathIgnorePatterns: ["\\.db\\.test\\.ts$"],
    },
    {
      ...base,
      displayName: "ui",
      testMatch: ["<rootDir>/src/**/*.test.tsx"],
      testEnvironment: "<rootDir>/tests/support/jsdom.mjs",
    },
    {
      ...base,
      displayName: "db",
      testMatch: ["<rootDir>/src/**/*.db.test.ts", "<rootDir>/tests/**/*.db.test.ts"],
      globalSetup: "<rootDir>/tests/database/up.mjs",
      globalTeardown: "<rootDir>/tests/database/down.mjs",
    },
  ],
  reporters: ["default", "<rootDir>/tests/reporters/jest-line.cjs"],
};

export default config;
