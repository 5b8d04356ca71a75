// The tests that judge one folder of the core when its lines are changed on purpose: its own.
import { base } from "./jest.config.mjs";

const folder = process.env.MUTATE_FOLDER ?? "";

const config = {
  ...base,
  rootDir: ".",
  testTimeout: 60_000,
  testMatch: [`<rootDir>/src/core/${folder}/**/*.test.ts`],
};

export default config;
