import { err, ok, type Result } from "@/core/kernel";
import type { Recorded, RecordEntry } from "@/core/records";
import { NO_SUCH_SITE, type AppError } from "./errors";
import type { Person, RecordStore, SaidEntry, StoredRecord } from "./stores";

/** As many entries has a record at most: hundreds of visits of hundreds of steps. */
const MOST_ENTRIES = 100_000;
/** As many are answered at once. */
const PAGE = 200;

export interface RecordPage {
  readonly entries: readonly StoredRecord[];
  /** Whether there are more after these. */
  readonly isMore: boolean;
  /** How many the record has; less than what was asked after where it is another record. */
  readonly last: number;
}

/** What came into a site's record after a place. */
export async function readRecord(
  store: RecordStore,
  site: string,
  after: number,
): Promise<Result<RecordPage, AppError>> {
  const found = await store.after(site, after, PAGE + 1);
  if (found === null) return err(NO_SUCH_SITE);
  const { entries, last } = found;
  return ok({ entries: entries.slice(0, PAGE), isMore: entries.length > PAGE, last });
}

/** Adds to a site's record; what is in it already counts as added. */
export async function addToRecord(
  store: RecordStore,
  site: string,
  by: Person,
  entries: readonly RecordEntry[],
): Promise<Result<{ readonly last: number }, AppError>> {
  return addSaid(
    store,
    site,
    by,
    entries.map((entry) => ({ entry, saidBy: null })),
  );
}

/** The record that came with a plan file: whoever did it stays a name. */
export const importRecord = (
  store: RecordStore,
  site: string,
  by: Person,
  record: readonly Recorded[],
): Promise<Result<{ readonly last: number }, AppError>> =>
  addSaid(
    store,
    site,
    by,
    record.map(({ by: saidBy, entry }) => ({ entry, saidBy })),
  );

async function addSaid(
  store: RecordStore,
  site: string,
  by: Person,
  entries: readonly SaidEntry[],
): Promise<Result<{ readonly last: number }, AppError>> {
  const last = await store.add(site, by, entries, MOST_ENTRIES);
  if (last === null) return err(NO_SUCH_SITE);
  return last === "full"
    ? err({
        code: "record-full",
        sentence: `The record of this site holds ${MOST_ENTRIES} entries and takes no more.`,
      })
    : ok({ last });
}
