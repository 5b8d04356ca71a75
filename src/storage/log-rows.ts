import "server-only";
import type { LogEntry, LogLine } from "@/application/stores";
import { decodeChanges, type LoggedBatch } from "@/core/formats";
import type { Change } from "@/core/plan";
import { instant, type Row } from "./pool";
import { sqlAfter } from "./sql";

export const textOrNull = (value: unknown): string | null => (value === null ? null : String(value));

// The log of changes as it is read: lines, and entries, which have their changes, too.

export const LINE =
  "SELECT b.revision, b.id, b.person_id, p.name AS person_name, " +
  "b.said_by, b.made_at, b.planner, b.summary, b.undoes, b.redoes, b.change_count";
/**
 * The log before the people: read in the order of its key it is sorted already. The other way round the
 * database makes a table of all that it reads, changes and all, and with some thousands of batches it came down
 * more than once (MariaDB 10.11.19, in dropping a table of its own); this way round it has not.
 */
export const FROM = "FROM change_batch b STRAIGHT_JOIN person p ON p.id = b.person_id";
export const lines = sqlAfter(`${LINE} ${FROM}`);
export const entries = sqlAfter(`${LINE}, b.changes ${FROM}`);
export const batches = sqlAfter(`${LINE}, b.args, b.changes ${FROM}`);

export const lineOf = (row: Row): LogLine => ({
  revision: Number(row.revision),
  id: String(row.id),
  author: String(row.person_id),
  authorName: String(row.said_by ?? row.person_name),
  isFromFile: row.said_by !== null,
  madeAt: instant(row.made_at),
  planner: String(row.planner),
  summary: String(row.summary),
  undoes: textOrNull(row.undoes),
  redoes: textOrNull(row.redoes),
  changeCount: Number(row.change_count),
});
/** Changes by the text that they are stored as: what is new to many people at once is read once. */
const READ = new Map<string, readonly Change[]>();
const [MOST_READ, LONGEST_READ] = [500, 20_000];
function changesOf(text: string): readonly Change[] {
  const known = READ.get(text);
  if (known !== undefined) return known;
  const changes = decodeChanges(JSON.parse(text));
  if (text.length > LONGEST_READ) return changes;
  const [oldest] = READ.keys();
  if (READ.size >= MOST_READ && oldest !== undefined) READ.delete(oldest);
  READ.set(text, changes);
  return changes;
}

export const entryOf = (row: Row): LogEntry => ({
  ...lineOf(row),
  changes: changesOf(String(row.changes)),
});

/** As it goes with a plan file. */
export const loggedOf = (row: Row): LoggedBatch => {
  const { revision, id, authorName, madeAt, planner, summary, undoes, redoes } = lineOf(row);
  const batch = { id, planner, summary, args: JSON.parse(String(row.args)) as unknown };
  const changes = decodeChanges(JSON.parse(String(row.changes)));
  return { revision, by: authorName, at: madeAt, undoes, redoes, batch: { ...batch, changes } };
};
