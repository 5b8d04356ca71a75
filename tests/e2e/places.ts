import { join } from "node:path";

/** Where the application of this half of the journeys keeps its data, and what the tests leave there. */
export const E2E_DIR = join(
  ".data",
  `e2e${process.env.E2E_HALF === undefined ? "" : `-${process.env.E2E_HALF}`}`,
);
export const LINK_FILE = join(E2E_DIR, "link.txt");
export const SESSION = join(E2E_DIR, "session.json");
