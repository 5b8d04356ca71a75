// Applies the numbered SQL files. MariaDB commits at every DDL statement, so each statement must be
// repeatable, and a file counts as applied only after it ran to its end.
import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { connectTo } from "./connection.mjs";
import { Problem } from "./stage.mjs";

const folderOf = (root) => join(root, "src", "storage", "migrations");

export function migrationFiles(root) {
  return readdirSync(folderOf(root))
    .filter((name) => /^\d{4}_[a-z0-9_]+\.sql$/.test(name))
    .sort()
    .map((name) => {
      const text = readFileSync(join(folderOf(root), name), "utf8");
      return { name, text, sha: createHash("sha256").update(text).digest("hex") };
    });
}

/**
 * The files still to be applied, and whether the database holds anything yet. Refuses one that is newer than
 * this program.
 */
export async function pendingMigrations(root, url) {
  const connection = await connectTo(url);
  try {
    const [tables] = await connection.query("SHOW TABLES LIKE 'migration'");
    const [applied] =
      tables.length === 0 ? [[]] : await connection.query("SELECT name, sha FROM migration ORDER BY name");
    return {
      hasData: applied.length > 0,
      fresh: freshAfter(applied, migrationFiles(root)).map((file) => file.name),
    };
  } finally {
    await connection.end();
  }
}

/** What comes after those applied; a sentence when they are not the beginning of what this program knows. */
function freshAfter(applied, files) {
  for (const [i, row] of applied.entries()) {
    const file = files[i];
    if (file === undefined || file.name !== row.name)
      throw new Problem(
        `This database has the migration ${row.name}, which this version ` +
          "does not know. Use the version that made it, or a newer one.",
      );
    if (file.sha !== row.sha)
      throw new Problem(
        `The migration ${row.name} has changed since it was ` +
          "applied. Put the old file back and write a new one instead.",
      );
  }
  return files.slice(applied.length);
}

/** Whether no other start changes this database: a lock of one server, which a cluster may refuse to have. */
async function isAlone(connection) {
  try {
    const [[lock]] = await connection.query("SELECT GET_LOCK('plan-migrations', 30) AS taken");
    return lock.taken === 1;
  } catch (error) {
    if (error.code !== "ER_NOT_SUPPORTED_YET") throw error;
    return true;
  }
}

/**
 * Brings the database to the newest form, or only to the one that the first so many files make; answers the
 * names of the files it applied.
 */
export async function migrate(root, url, most = Infinity) {
  const connection = await connectTo(url, { multipleStatements: true });
  try {
    if (!(await isAlone(connection)))
      throw new Problem(
        "Another start is changing this database just now. Wait until it is done and start again.",
      );
    await connection.query(
      "CREATE TABLE IF NOT EXISTS migration (name VARCHAR(80) PRIMARY KEY, sha " +
        "CHAR(64) NOT NULL, applied_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3))",
    );
    const [applied] = await connection.query("SELECT name, sha FROM migration ORDER BY name");
    const fresh = freshAfter(applied, migrationFiles(root)).slice(0, Math.max(0, most - applied.length));
    for (const file of fresh) {
      await connection.query(file.text);
      // In a cluster a start on another node may have done the same meanwhile: every statement is repeatable.
      await connection.query("INSERT IGNORE INTO migration (name, sha) VALUES (?, ?)", [file.name, file.sha]);
    }
    return fresh.map((file) => file.name);
  } finally {
    await connection.end();
  }
}
