import type { LogEntry } from "@/application/stores";
import { encodeChanges } from "@/core/formats";

/** By the changes themselves, which never change: the same news go to many people. */
const ENCODED = new WeakMap<LogEntry["changes"], unknown>();

function encoded(changes: LogEntry["changes"]): unknown {
  const known = ENCODED.get(changes) ?? encodeChanges(changes);
  ENCODED.set(changes, known);
  return known;
}

/** A log entry as it travels: addresses as text. */
export const presentEntry = (entry: LogEntry): unknown => ({ ...entry, changes: encoded(entry.changes) });
