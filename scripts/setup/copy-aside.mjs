// A copy of a stopped database's folder, made before its form is changed.
import { cpSync, mkdirSync, readdirSync, rmSync, statSync } from "node:fs";
import { join } from "node:path";
import { placesOf, requireSpace } from "./database.mjs";
import { say, stage } from "./stage.mjs";

/** So many copies are kept; older ones go. */
const KEPT = 3;
const NAME = /^\d{8}T\d{6}Z-before-\d{4}_[a-z0-9_]+$/;

function sizeOf(folder) {
  return readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile())
    .reduce((sum, entry) => sum + statSync(join(entry.parentPath, entry.name)).size, 0);
}

/** Copies the data of a folder whose database does not run; answers where the copy lies. */
export async function copyAside(dir, migration, now) {
  const { data } = placesOf(dir);
  const copies = join(dir, "copies");
  const to = join(
    copies,
    `${now.toISOString().replace(/[-:]|\.\d+/g, "")}-before-${migration.replace(/\.sql$/, "")}`,
  );
  requireSpace(dir, sizeOf(data));
  mkdirSync(copies, { recursive: true, mode: 0o700 });
  await stage("copying the data aside", async () =>
    cpSync(data, to, { recursive: true, preserveTimestamps: true }),
  );
  say(`    the data as it was lies in ${to}`);
  for (const old of readdirSync(copies)
    .filter((name) => NAME.test(name))
    .sort()
    .slice(0, -KEPT))
    rmSync(join(copies, old), { recursive: true, force: true });
  return to;
}
