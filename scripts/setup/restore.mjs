// A backup becomes a database again: in an empty one, in the form that it was taken in, held against the sums
// that stand in the file, and then brought to the newest form.
import { migrate, migrationFiles } from "./migrate.mjs";
import { plainConnection, quoted, readBackup, sumOf, tablesOf } from "./backup.mjs";
import { Problem } from "./stage.mjs";

const MOST_ROWS = 500;
const MOST_CHARACTERS = 4_000_000;
const NOTHING = { table: () => {}, row: () => {}, end: () => {} };

/** How many of this program's migrations the backup's form has; a sentence where it has others. */
function formOf(root, file, { migrations }) {
  const known = migrationFiles(root);
  for (const [at, [name, sha]] of migrations.entries())
    if (known[at]?.name !== name || known[at]?.sha !== sha)
      throw new Problem(
        `${file} was made by a version that has the migration ${name}, which this one does not know as it is ` +
          "there. Restore it with that version, or a newer one. Nothing was changed.",
      );
  return migrations.length;
}

async function requireEmpty(connection) {
  const [tables] = await connection.query("SHOW TABLES");
  if (tables.length > 0)
    throw new Problem(
      "There are plans in this database already. Restore into a folder of its own with --dir, " +
        "or into an empty database. Nothing was changed.",
    );
}

/** Writes rows as they are read, some at a time. */
function writer(connection, tables) {
  let waiting = [];
  let characters = 0;
  const flush = async ({ table, columns }) => {
    if (waiting.length > 0)
      await connection.query(
        `INSERT INTO ${quoted(table)} (${columns.map(([name]) => quoted(name)).join(", ")}) VALUES ?`,
        [waiting],
      );
    waiting = [];
    characters = 0;
  };
  return {
    table: async ({ table, columns }) => {
      const known = tables.find((own) => own.table === table);
      if (JSON.stringify(known?.columns) !== JSON.stringify(columns))
        throw new Problem(`The backup's table ${table} is not in the form that its migrations make.`);
      // A migration writes some rows of its own.
      await connection.query(`DELETE FROM ${quoted(table)}`);
    },
    row: async (table, cells) => {
      const isBytes = (at) => table.columns[at][1] === "bytes";
      waiting.push(
        cells.map((cell, at) => (cell !== null && isBytes(at) ? Buffer.from(cell, "base64") : cell)),
      );
      characters += cells.reduce((sum, cell) => sum + (cell?.length ?? 0), 0);
      if (waiting.length >= MOST_ROWS || characters >= MOST_CHARACTERS) await flush(table);
    },
    end: flush,
  };
}

async function load(root, url, file, count) {
  await migrate(root, url, count);
  const connection = await plainConnection(url);
  try {
    const tables = await tablesOf(connection);
    await connection.query("SET SESSION foreign_key_checks = 0");
    await connection.beginTransaction();
    const write = writer(connection, tables);
    const wanted = [];
    await readBackup(file, {
      ...write,
      end: async (table, sum) => {
        await write.end(table);
        wanted.push([table.table, sum]);
      },
    });
    await connection.commit();
    for (const [name, { rows, sha256 }] of wanted) {
      const is = await sumOf(
        connection,
        tables.find(({ table }) => table === name),
      );
      if (is.rows !== rows || is.sha256 !== sha256)
        throw new Problem(`The table ${name} did not come out as it is in ${file}.`);
    }
    return wanted.map(([name, { rows }]) => [name, rows]);
  } finally {
    await connection.end();
  }
}

/** Makes the database empty again where a restore did not come to its end. */
async function dropAll(url) {
  const connection = await plainConnection(url);
  try {
    await connection.query("SET SESSION foreign_key_checks = 0");
    const [tables] = await connection.query("SHOW TABLES");
    for (const row of tables) await connection.query(`DROP TABLE ${quoted(Object.values(row)[0])}`);
  } finally {
    await connection.end();
  }
}

/**
 * Restores a backup into an empty database; answers its tables with their numbers of rows. The file is read
 * through once before anything is written; where something fails later, the database is empty as before.
 */
export async function restore(root, url, file) {
  const connection = await plainConnection(url);
  try {
    await requireEmpty(connection);
  } finally {
    await connection.end();
  }
  const count = formOf(root, file, await readBackup(file, NOTHING));
  try {
    const tables = await load(root, url, file, count);
    await migrate(root, url);
    return tables;
  } catch (error) {
    await dropAll(url);
    throw error;
  }
}
