// The tests that judge one folder of the core when its lines are changed on purpose: its own, or of these the
// named ones (MUTATE_TESTS=uses,joins), where those that ask whole sites take minutes for a change.
import { base } from "./jest.config.mjs";

const folder = process.env.MUTATE_FOLDER ?? "";
const names = (process.env.MUTATE_TESTS ?? "*").split(",");

const config = {
  ...base,
  rootDir: ".",
  testTimeout: 60_000,
  testMatch: names.map((name) => `<rootDir>/src/core/${folder}/**/${name}.test.ts`),
};

export default config;
