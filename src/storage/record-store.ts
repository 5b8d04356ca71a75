import "server-only";
import { pauseAfterAWhile } from "@/application/in-slices";
import type { Person, RecordStore, SaidEntry, StoredRecord } from "@/application/stores";
import { encodeEntrySliced } from "@/core/records";
import { notePhotos } from "./photo-store";
import type { Database, Row, Tx } from "./pool";
import { sql } from "./sql";

/** In the form in which it was written, whenever that was: who reads it brings it into the present one. */
const storedOf = (row: Row): StoredRecord => ({
  number: Number(row.number),
  by: String(row.said_by ?? row.person_name),
  entry: JSON.parse(String(row.entry)) as unknown,
});

const siteIn = (tx: Tx, site: string): Promise<string | null> =>
  tx.maybeOne(sql`SELECT id FROM site WHERE id = ${site} AND deleted_at IS NULL`, (row) => String(row.id));

const lastIn = async (tx: Tx, site: string): Promise<number> =>
  (await tx.maybeOne(sql`SELECT MAX(number) AS last FROM record_entry WHERE site_id = ${site}`, (row) =>
    Number(row.last ?? 0),
  )) ?? 0;

/** The entries that are not in a site's record yet, each once. */
async function unknownIn(tx: Tx, site: string, entries: readonly SaidEntry[]): Promise<SaidEntry[]> {
  const found = new Map<string, SaidEntry>();
  for (const said of entries) {
    const { entry } = said;
    const known = await tx.maybeOne(
      sql`SELECT number FROM record_entry WHERE site_id = ${site} AND id = ${entry.id}`,
      (row) => Number(row.number),
    );
    if (known === null) found.set(entry.id, said);
  }
  return [...found.values()];
}

/** Adds entries behind the last one; whoever calls has locked the site's row. */
export async function insertEntries(
  tx: Tx,
  { site, by, last }: { readonly site: string; readonly by: Person; readonly last: number },
  entries: readonly SaidEntry[],
): Promise<void> {
  for (const [at, { entry, saidBy }] of entries.entries()) {
    const text = await encodeEntrySliced(entry, pauseAfterAWhile());
    await tx.run(sql`INSERT INTO record_entry (site_id, number, id, person_id, said_by, made_at, entry)
      VALUES (${site}, ${last + 1 + at}, ${entry.id}, ${by.id}, ${saidBy}, UTC_TIMESTAMP(3), ${text})`);
    await notePhotos(tx, site, entry);
  }
}

export const recordStore = (database: Database): RecordStore => ({
  after: async (site, number, limit) => {
    if ((await siteIn(database, site)) === null) return null;
    const entries = await database.all(
      sql`SELECT r.number, r.entry, r.said_by, p.name AS person_name
        FROM record_entry r JOIN person p ON p.id = r.person_id
        WHERE r.site_id = ${site} AND r.number > ${number} ORDER BY r.number LIMIT ${limit}`,
      storedOf,
    );
    return { entries, last: await lastIn(database, site) };
  },
  // The site's row is locked, so that numbers have no gap and those who add wait for one another.
  add: (site, by, entries, most) =>
    database.transaction(async (tx) => {
      const locked = await tx.maybeOne(
        sql`SELECT id FROM site WHERE id = ${site} AND deleted_at IS NULL FOR UPDATE`,
        (row) => row.id,
      );
      if (locked === null) return null;
      const last = await lastIn(tx, site);
      const added = await unknownIn(tx, site, entries);
      if (added.length > 0 && last + added.length > most) return "full";
      await insertEntries(tx, { site, by, last }, added);
      return last + added.length;
    }),
});
