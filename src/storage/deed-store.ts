import "server-only";
import type { Deed, DeedKind, DeedLine, DeedStore } from "@/application/account-stores";
import type { Person } from "@/application/stores";
import { instant, type Database, type Row, type Tx } from "./pool";
import { sql, sqlAfter } from "./sql";

const lineOf = (row: Row): DeedLine => ({
  number: Number(row.number),
  at: instant(row.done_at),
  by: row.name === null ? null : String(row.name),
  what: String(row.what) as DeedKind,
  subject: row.subject === null ? null : String(row.subject),
  about: String(row.about),
});
const lines = sqlAfter(
  "SELECT d.number, d.done_at, d.what, d.about, p.name, s.name AS subject FROM deed d " +
    "LEFT JOIN person p ON p.id = d.person_id LEFT JOIN person s ON s.id = d.subject_id",
);

/** Writes a line of the log; null is a stranger. */
export async function addDeed(tx: Tx, by: Person | null, deed: Deed): Promise<void> {
  const { what, subject = null, about, site = null, customer = null } = deed;
  await tx.run(sql`INSERT INTO deed (done_at, person_id, what, subject_id, about, site_id, customer_id)
    VALUES (UTC_TIMESTAMP(3), ${by?.id ?? null}, ${what}, ${subject}, ${[...about].slice(0, 200).join("")},
      ${site}, ${customer})`);
}

export const deedStore = (database: Database): DeedStore => ({
  add: (by, deed) => addDeed(database, by, deed),
  before: (number, where, limit) =>
    database.all(
      where === null
        ? lines`WHERE d.number < ${number} ORDER BY d.number DESC LIMIT ${limit}`
        : lines`WHERE d.number < ${number} AND (
              d.site_id IN (SELECT CAST(id AS UUID) FROM
                JSON_TABLE(${JSON.stringify(where.sites)}, '$[*]' COLUMNS (id CHAR(36) PATH '$')) s)
              OR d.customer_id IN (SELECT CAST(id AS UUID) FROM
                JSON_TABLE(${JSON.stringify(where.customers)}, '$[*]' COLUMNS (id CHAR(36) PATH '$')) c))
            ORDER BY d.number DESC LIMIT ${limit}`,
      lineOf,
    ),
});
