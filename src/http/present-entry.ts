import type { LogEntry } from "@/application/stores";
import { encodeChanges } from "@/core/formats";

/** A log entry as it travels: addresses as text. */
export const presentEntry = (entry: LogEntry): unknown => ({
  ...entry,
  changes: encodeChanges(entry.changes),
});
