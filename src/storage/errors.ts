import { StorageError, type StorageFault } from "@/application/storage-error";

const FAULTS: Readonly<Record<string, StorageFault>> = {
  ER_DUP_ENTRY: "duplicate",
  ER_LOCK_DEADLOCK: "lock-conflict",
  ER_LOCK_WAIT_TIMEOUT: "lock-conflict",
  ER_CHECKREAD: "lock-conflict",
  ER_DISK_FULL: "no-space",
  ER_RECORD_FILE_FULL: "no-space",
  ECONNREFUSED: "unreachable",
  ENOENT: "unreachable",
  ECONNRESET: "unreachable",
  EPIPE: "unreachable",
  ETIMEDOUT: "unreachable",
  PROTOCOL_CONNECTION_LOST: "unreachable",
  ER_SERVER_SHUTDOWN: "unreachable",
  ER_CON_COUNT_ERROR: "unreachable",
};

/** The driver's error as one of ours; null for one that nobody expects, which is a bug and stays what it is. */
export function storageErrorOf(error: unknown): StorageError | null {
  const code = typeof error === "object" && error !== null && "code" in error ? String(error.code) : "";
  const fault = FAULTS[code];
  return fault === undefined ? null : new StorageError(fault, error);
}
