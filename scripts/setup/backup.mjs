// Everything that a database holds as one file, taken while people work: gzip of lines of JSON. First what it
// is, with the migrations that made its form; then each table with its columns, its rows, and how many those
// were with their SHA-256; an end line last, so that a file that was cut off is known. Who is signed in is not
// in it: a restored database lets nobody in who has been put out since.
import { createHash } from "node:crypto";
import {
  closeSync,
  createReadStream,
  createWriteStream,
  existsSync,
  fsyncSync,
  openSync,
  renameSync,
  rmSync,
} from "node:fs";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { createGunzip, createGzip } from "node:zlib";
import { connectTo } from "./connection.mjs";
import { Problem } from "./stage.mjs";

const BACKUP_FORMAT = "dianome-backup";
const VERSION = 1;
/** Sign-ins end with the database; the form is told in the head. */
const LEFT_OUT = new Set([
  ...["session", "entry_link", "known_browser", "sign_in_try", "presence"],
  ...["passkey_challenge", "migration"],
]);
const BYTES = /binary|blob/;

/** A connection that says values as they are stored, whatever the server's own habits are. */
export async function plainConnection(url) {
  const connection = await connectTo(url);
  await connection.query("SET SESSION time_zone = '+00:00'");
  await connection.query(
    "SET SESSION sql_mode = 'STRICT_ALL_TABLES,NO_ENGINE_SUBSTITUTION,NO_AUTO_VALUE_ON_ZERO'",
  );
  return connection;
}

/** The tables of a database by name, each with its columns, those that are bytes marked, and its key. */
export async function tablesOf(connection) {
  const [columns] = await connection.query(
    `SELECT c.table_name AS t, c.column_name AS c, c.data_type AS type, c.column_key AS k
     FROM information_schema.columns c
     JOIN information_schema.tables i ON i.table_schema = c.table_schema AND i.table_name = c.table_name
     WHERE c.table_schema = DATABASE() AND i.table_type = 'BASE TABLE' AND c.is_generated = 'NEVER'
     ORDER BY c.table_name, c.ordinal_position`,
  );
  const tables = new Map();
  for (const { t, c, type, k } of columns) {
    if (LEFT_OUT.has(t)) continue;
    const known = tables.get(t) ?? { table: t, columns: [], key: [] };
    known.columns.push([c, BYTES.test(type) ? "bytes" : "text"]);
    if (k === "PRI") known.key.push(c);
    tables.set(t, known);
  }
  return [...tables.values()];
}

/** A name as it stands in a statement. */
export const quoted = (name) => `\`${name.replaceAll("`", "``")}\``;

/** The rows of a table as lines of JSON, in the order of its key: the same rows are the same lines. */
async function* rowsOf(connection, { table, columns, key }) {
  const names = columns.map(([name]) => quoted(name)).join(", ");
  const order = key.length === 0 ? columns.map(([name]) => name) : key;
  const asked = connection.connection.query({
    sql: `SELECT ${names} FROM ${quoted(table)} ORDER BY ${order.map(quoted).join(", ")}`,
    rowsAsArray: true,
    typeCast: (field) => field.buffer(),
  });
  for await (const row of asked.stream()) {
    const cells = row.map(
      (cell, at) => cell?.toString(columns[at][1] === "bytes" ? "base64" : "utf8") ?? null,
    );
    yield JSON.stringify(cells);
  }
}

/** How many rows a table has, and what they come to. */
export async function sumOf(connection, table) {
  const hash = createHash("sha256");
  let rows = 0;
  for await (const line of rowsOf(connection, table)) {
    hash.update(`${line}\n`);
    rows += 1;
  }
  return { rows, sha256: hash.digest("hex") };
}

async function* linesOf(connection, told) {
  const [migrations] = await connection.query("SELECT name, sha FROM migration ORDER BY name");
  const head = { format: BACKUP_FORMAT, version: VERSION, madeAt: new Date().toISOString() };
  yield `${JSON.stringify({ ...head, migrations: migrations.map(({ name, sha }) => [name, sha]) })}\n`;
  let all = 0;
  for (const table of await tablesOf(connection)) {
    yield `${JSON.stringify({ table: table.table, columns: table.columns })}\n`;
    const hash = createHash("sha256");
    let rows = 0;
    for await (const line of rowsOf(connection, table)) {
      hash.update(`${line}\n`);
      rows += 1;
      yield `${line}\n`;
    }
    all += rows;
    told.push([table.table, rows]);
    yield `${JSON.stringify({ rows, sha256: hash.digest("hex") })}\n`;
  }
  yield `${JSON.stringify({ end: true, tables: told.length, rows: all })}\n`;
}

/**
 * Writes everything of a database into a file, as one moment has it; answers its tables with their numbers of
 * rows, and the SHA-256 of the file. The file is there whole or not at all.
 */
export async function backUp(url, file) {
  if (existsSync(file))
    throw new Problem(`${file} is there already; name another file, so that no backup is written over.`);
  const part = `${file}.part`;
  const connection = await plainConnection(url);
  const told = [];
  try {
    await connection.query("SET SESSION TRANSACTION ISOLATION LEVEL REPEATABLE READ");
    await connection.query("START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY");
    await pipeline(
      Readable.from(linesOf(connection, told)),
      createGzip(),
      createWriteStream(part, { mode: 0o600 }),
    );
    const written = openSync(part, "r");
    fsyncSync(written);
    closeSync(written);
    renameSync(part, file);
  } catch (error) {
    rmSync(part, { force: true });
    if (["ENOENT", "EACCES", "ENOSPC", "EROFS", "ENOTDIR"].includes(error.code))
      throw new Problem(`${file} can't be written (${error.code}). Name a file in a folder with room.`);
    throw error;
  } finally {
    await connection.end();
  }
  return { tables: told, sha256: await fileSum(file) };
}

async function fileSum(file) {
  const hash = createHash("sha256");
  for await (const chunk of createReadStream(file)) hash.update(chunk);
  return hash.digest("hex");
}

const broken = (file, why) => new Problem(`${file} can't be restored: ${why}. Nothing was changed.`);

/** No row is as long: one holds all that a change of the largest site did. */
const MOST_CHARACTERS = 500_000_000;

/** The lines of a stream of text; a long one is put together once, when its end has come. */
async function* linesIn(source) {
  let parts = [];
  let length = 0;
  for await (const chunk of source) {
    let from = 0;
    for (let at = chunk.indexOf("\n"); at >= 0; at = chunk.indexOf("\n", from)) {
      yield parts.join("") + chunk.slice(from, at);
      [parts, length, from] = [[], 0, at + 1];
    }
    parts.push(chunk.slice(from));
    length += chunk.length - from;
    if (length > MOST_CHARACTERS) throw new SyntaxError("a line without end");
  }
  if (length > 0) yield parts.join("");
}

const isFields = (value) => typeof value === "object" && value !== null && !Array.isArray(value);

/** Follows a backup line by line, and holds what stands in it against what it says of itself. */
class Reading {
  head = null;
  ended = false;
  #file;
  #take;
  #table = null;
  #hash = null;
  #rows = 0;
  #tables = 0;
  #all = 0;

  constructor(file, take) {
    this.#file = file;
    this.#take = take;
  }

  #broken(why) {
    return broken(this.#file, why);
  }

  async line(text) {
    const value = JSON.parse(text);
    if (this.ended) throw this.#broken("something stands behind its end");
    if (this.head === null) this.#begin(value);
    else if (Array.isArray(value)) await this.#row(text, value);
    else if (!isFields(value)) throw this.#broken("a line of it is none");
    else if (this.#table !== null) await this.#endTable(value);
    else if ("table" in value) await this.#beginTable(value);
    else this.#end(value);
  }

  #begin(head) {
    if (head?.format !== BACKUP_FORMAT || !Array.isArray(head.migrations))
      throw this.#broken("it is no backup");
    if (head.version !== VERSION) throw this.#broken("a newer version of this program made it; use that");
    this.head = head;
  }

  async #beginTable(table) {
    [this.#table, this.#hash, this.#rows] = [table, createHash("sha256"), 0];
    await this.#take.table(table);
  }

  async #row(text, cells) {
    if (cells.length !== this.#table?.columns.length)
      throw this.#broken("a row of it stands where none belongs");
    this.#hash.update(`${text}\n`);
    this.#rows += 1;
    await this.#take.row(this.#table, cells);
  }

  async #endTable(sum) {
    if (sum.rows !== this.#rows || sum.sha256 !== this.#hash.digest("hex"))
      throw this.#broken(`its table ${this.#table.table} is not as it was written`);
    await this.#take.end(this.#table, sum);
    this.#table = null;
    this.#tables += 1;
    this.#all += this.#rows;
  }

  #end({ end, tables, rows }) {
    if (end !== true || tables !== this.#tables || rows !== this.#all)
      throw this.#broken("tables of it are missing");
    this.ended = true;
  }
}

/**
 * Goes through a backup from its first line to its last: `take` gets each table with its columns, its rows one
 * by one, and what they come to. Answers its head; fails with a sentence where it is none, or not whole.
 */
export async function readBackup(file, take) {
  if (!existsSync(file)) throw broken(file, "there is no such file");
  const reading = new Reading(file, take);
  /** What was wrong in a line: the pipeline itself only says that it was broken off. */
  let fault = null;
  const goThrough = async (source) => {
    source.setEncoding("utf8");
    for await (const line of linesIn(source)) await reading.line(line);
  };
  try {
    await pipeline(createReadStream(file), createGunzip(), (source) =>
      goThrough(source).catch((error) => {
        fault = error;
        throw error;
      }),
    );
  } catch (broke) {
    const error = fault ?? broke;
    if (error instanceof SyntaxError || error.code?.startsWith?.("Z_") === true)
      throw broken(file, "it is no backup, or was cut off or changed");
    throw error;
  }
  if (!reading.ended) throw broken(file, "its end is missing");
  return reading.head;
}
