import { err, ok, type Result } from "@/core/kernel";
import { decodeEntry, type Recorded, type RecordEntry } from "@/core/records";
import { NO_SUCH_SITE, type AppError } from "./errors";
import type { Person, RecordStore, StoredRecord } from "./stores";

/** As many entries has a record at most: hundreds of visits of hundreds of steps. */
export const MOST_ENTRIES = 100_000;
export const RECORD_FULL: AppError = {
  code: "record-full",
  sentence: `The record of a site holds ${MOST_ENTRIES} entries and takes no more.`,
};
/** As many are answered at once. */
const PAGE = 200;
/** As many are read at once for a program of ours. */
const RECORD_AT_ONCE = 1000;

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
  const last = await store.add(
    site,
    by,
    entries.map((entry) => ({ entry, saidBy: null })),
    MOST_ENTRIES,
  );
  if (last === null) return err(NO_SUCH_SITE);
  return last === "full" ? err(RECORD_FULL) : ok({ last });
}

/** The whole record; entries of a newer form are left out. */
export async function wholeRecord(records: RecordStore, site: string): Promise<Recorded[]> {
  const all: Recorded[] = [];
  for (let after = 0; ;) {
    const page = await records.after(site, after, RECORD_AT_ONCE);
    const last = page?.entries.at(-1)?.number;
    if (page === null || last === undefined) return all;
    for (const { by, entry } of page.entries) {
      const read = decodeEntry(entry);
      if (read !== null) all.push({ by, entry: read });
    }
    after = last;
  }
}
