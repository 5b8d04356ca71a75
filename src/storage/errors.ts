import { StorageError, type StorageFault } from "@/application/storage-error";

const FAULTS: Readonly<Record<string, StorageFault>> = {
  ER_DUP_ENTRY: "duplicate",
  ER_LOCK_DEADLOCK: "lock-conflict",
  ER_LOCK_WAIT_TIMEOUT: "lock-conflict",
  ER_CHECKREAD: "lock-conflict",
  ER_DISK_FULL: "no-space",
  ER_RECORD_FILE_FULL: "no-space",
  ER_STATEMENT_TIMEOUT: "unreachable",
  ECONNREFUSED: "unreachable",
  ENOENT: "unreachable",
  ECONNRESET: "unreachable",
  EPIPE: "unreachable",
  ETIMEDOUT: "unreachable",
  PROTOCOL_CONNECTION_LOST: "unreachable",
  ER_SERVER_SHUTDOWN: "unreachable",
  ER_CON_COUNT_ERROR: "unreachable",
  // A node of a cluster that is not part of it just now.
  ER_UNKNOWN_COM_ERROR: "unreachable",
};

/**
 * The operating system's "no space", by whichever of the database's codes it comes: a file, a table, or a
 * temporary one that could not be written.
 */
const FULL = /No space left on device|\bErrcode: 28\b|\bGot error 28\b/i;

/** What is told by its words alone: a full disk, and the driver's own queue. */
function faultIn(message: string): StorageFault | undefined {
  if (FULL.test(message)) return "no-space";
  return message === "Queue limit reached." ? "unreachable" : undefined;
}

/** The driver's error as one of ours; null for one that nobody expects, which is a bug and stays what it is. */
export function storageErrorOf(error: unknown): StorageError | null {
  const code = typeof error === "object" && error !== null && "code" in error ? String(error.code) : "";
  const fault = FAULTS[code] ?? (error instanceof Error ? faultIn(error.message) : undefined);
  return fault === undefined ? null : new StorageError(fault, error);
}
