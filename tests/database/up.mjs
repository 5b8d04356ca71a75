import { dirname, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { rmSync } from "node:fs";
import { startDatabase } from "../../scripts/setup/database.mjs";
import { DATABASE_PROGRAMS, ensurePrograms } from "../../scripts/setup/debian.mjs";
import { migrate } from "../../scripts/setup/migrate.mjs";

/** A MariaDB of its own for the database tests, from an empty folder. */
export default async function up() {
  const root = resolve(dirname(fileURLToPath(import.meta.url)), "..", "..");
  const dir = resolve(root, ".data", "jest");
  rmSync(dir, { recursive: true, force: true });
  await ensurePrograms(DATABASE_PROGRAMS);
  const database = await startDatabase(dir, { durable: false });
  await migrate(root, database.url);
  process.env.TEST_DATABASE_URL = database.url;
  globalThis.stopTestDatabase = database.stop;
}
