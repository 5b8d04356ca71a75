import "server-only";
import {
  createPool,
  type Pool,
  type PoolConnection,
  type ResultSetHeader,
  type RowDataPacket,
} from "mysql2/promise";
import { StorageError } from "@/application/storage-error";
import { storageErrorOf } from "./errors";
import type { Statement } from "./sql";

export type Row = Readonly<Record<string, unknown>>;

/**
 * An instant of the database, which keeps them in UTC, as ISO 8601 has it, always with its milliseconds: of a
 * whole second the driver leaves them out, and as text it would come after the rest of its second.
 */
export const instant = (value: unknown): string => `${String(value).replace(" ", "T").padEnd(23, ".000")}Z`;

/** What a statement runs on: the pool outside a transaction, one connection inside. */
export interface Tx {
  /** All rows, decoded. */
  readonly all: <T>(statement: Statement, decode: (row: Row) => T) => Promise<T[]>;
  /** The one row or null; more than one is a bug. */
  readonly maybeOne: <T>(statement: Statement, decode: (row: Row) => T) => Promise<T | null>;
  /** Runs a change and answers how many rows it touched. */
  readonly run: (statement: Statement) => Promise<number>;
}

export interface Database extends Tx {
  /**
   * Runs `work` in one transaction; an exception rolls it back. A lost lock, or another node's change that came
   * first, is tried again some times, each time after a longer pause by chance.
   */
  readonly transaction: <T>(work: (tx: Tx) => Promise<T>) => Promise<T>;
  readonly close: () => Promise<void>;
}

async function translated<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    throw storageErrorOf(error) ?? error;
  }
}

function txOn(connection: Pool | PoolConnection): Tx {
  const rows = async (statement: Statement): Promise<Row[]> => {
    const [found] = await translated(() =>
      connection.execute<RowDataPacket[]>(statement.text, [...statement.params]),
    );
    return found;
  };
  return {
    all: async (statement, decode) => (await rows(statement)).map(decode),
    maybeOne: async (statement, decode) => {
      const [first, ...more] = await rows(statement);
      if (more.length > 0) throw new Error(`Expected one row at most: ${statement.text}`);
      return first === undefined ? null : decode(first);
    },
    run: async (statement) => {
      const [result] = await translated(() =>
        connection.execute<ResultSetHeader>(statement.text, [...statement.params]),
      );
      return result.affectedRows;
    },
  };
}

async function inTransaction<T>(pool: Pool, work: (tx: Tx) => Promise<T>): Promise<T> {
  const connection = await translated(() => pool.getConnection());
  try {
    await translated(() => connection.beginTransaction());
    const result = await work(txOn(connection));
    await translated(() => connection.commit());
    connection.release();
    return result;
  } catch (error) {
    // A connection that can't even roll back is of no use to the next one: destroy() closes it and the server
    // rolls back.
    await connection.rollback().then(
      () => connection.release(),
      () => connection.destroy(),
    );
    throw error;
  }
}

/** As often is a transaction tried that others were faster than. */
const MOST_TRIES = 8;
const PAUSE_MS = 30;

export function openDatabase(uri: string): Database {
  const pool = createPool({
    uri,
    connectionLimit: 12,
    // Whoever has to wait behind so many others is told so at once.
    queueLimit: 1000,
    connectTimeout: 5000,
    maxPreparedStatements: 400,
    timezone: "Z",
    dateStrings: true,
    jsonStrings: true,
    supportBigNumbers: true,
    charset: "utf8mb4_unicode_ci",
  });
  // A statement that takes longer than that has met something that will not go away by waiting.
  pool.pool.on("connection", (connection) => {
    connection.query("SET SESSION max_statement_time = 60, innodb_lock_wait_timeout = 10");
    // In a cluster what one node has acknowledged is read on the others, too; elsewhere it changes nothing, and
    // a server that has no such variable says so, which is as good.
    connection.query("SET SESSION wsrep_sync_wait = 7", () => {});
  });
  return {
    ...txOn(pool),
    transaction: async (work) => {
      for (let tries = 1; ; tries += 1) {
        try {
          return await inTransaction(pool, work);
        } catch (error) {
          const isLost = error instanceof StorageError && error.fault === "lock-conflict";
          if (!isLost || tries === MOST_TRIES) throw error;
          await new Promise((done) => setTimeout(done, Math.random() * tries * PAUSE_MS));
        }
      }
    },
    close: () => pool.end(),
  };
}
