// The tests that judge one folder of the core when its lines are changed on purpose: its own, and what
// scripts/mutate.mjs names beside.
import { base } from "./jest.config.mjs";

const folder = process.env.MUTATE_FOLDER ?? "";
const beside = (process.env.MUTATE_BESIDE ?? "").split(" ").filter((name) => name !== "");

const config = {
  ...base,
  rootDir: ".",
  testTimeout: 60_000,
  testMatch: [`<rootDir>/src/core/${folder}/**/*.test.ts`, ...beside.map((name) => `<rootDir>/${name}`)],
};

export default config;
