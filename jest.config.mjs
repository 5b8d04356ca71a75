const swc = (tsx) => ({
  jsc: {
    parser: { syntax: "typescript", tsx },
    target: "es2023",
    transform: { react: { runtime: "automatic" } },
  },
  sourceMaps: "inline",
});

export const base = {
  testEnvironment: "node",
  transform: {
    "/src/core/.+\\.ts$": ["<rootDir>/tests/support/core-transform.mjs", swc(false)],
    "^.+\\.tsx$": ["@swc/jest", swc(true)],
    "^.+\\.(ts|mts|js|mjs)$": ["@swc/jest", swc(false)],
  },
  transformIgnorePatterns: ["/node_modules/(?!(uuid|comlink|nanoid|@tanstack)/)"],
  moduleNameMapper: {
    "^@/(.*)$": "<rootDir>/src/$1",
    "^server-only$": "<rootDir>/node_modules/server-only/empty.js",
  },
  modulePathIgnorePatterns: ["<rootDir>/.next", "<rootDir>/.data"],
};

const config = {
  // For a machine of which others take three quarters: nothing is waited for that would come late otherwise.
  testTimeout: 240_000,
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
      setupFilesAfterEnv: ["<rootDir>/tests/support/patience.ts"],
    },
    {
      ...base,
      displayName: "db",
      testMatch: ["<rootDir>/src/**/*.db.test.ts", "<rootDir>/tests/**/*.db.test.ts"],
      globalSetup: "<rootDir>/tests/database/up.mjs",
      globalTeardown: "<rootDir>/tests/database/down.mjs",
    },
  ],
  reporters: ["default", "<rootDir>/tests/reporters/jest-line.mjs"],
};

export default config;
