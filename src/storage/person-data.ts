import "server-only";
import type { PersonData } from "@/application/account-stores";
import { grantOf } from "./grants";
import type { Row, Tx } from "./pool";
import { sql } from "./sql";

/** A row as it leaves: its columns by their names. */
const asIs = (row: Row): object => ({ ...row });

/** All that is kept of a person; null for nobody. No hash, secret or key is among it. */
export async function personData(tx: Tx, person: string): Promise<PersonData | null> {
  const found = await tx.maybeOne(
    sql`SELECT id, name, password_hash IS NOT NULL AS has_password, factor_secret IS NOT NULL AS has_factor
      FROM person WHERE id = ${person}`,
    (row) => ({
      id: String(row.id),
      name: String(row.name),
      hasPassword: Number(row.has_password) === 1,
      hasFactor: Number(row.has_factor) === 1,
    }),
  );
  if (found === null) return null;
  return {
    ...found,
    roles: await tx.all(
      sql`SELECT scope, scope_id, role FROM role_grant WHERE person_id = ${person}`,
      grantOf,
    ),
    sessions: await tx.all(
      sql`SELECT made_at, used_at, came_from FROM session WHERE person_id = ${person} ORDER BY made_at`,
      asIs,
    ),
    passkeys: await tx.all(
      sql`SELECT title, host, made_at, used_at FROM passkey WHERE person_id = ${person} ORDER BY made_at`,
      asIs,
    ),
    links: await tx.all(
      sql`SELECT kind, title, scope, scope_id, reader, made_at, ends_at, is_withdrawn
        FROM pass WHERE made_by = ${person} ORDER BY made_at`,
      asIs,
    ),
    log: await tx.all(
      sql`SELECT done_at, what, about, site_id, customer_id,
          COALESCE(person_id = ${person}, FALSE) AS is_by_them,
          COALESCE(subject_id = ${person}, FALSE) AS is_about_them
        FROM deed WHERE person_id = ${person} OR subject_id = ${person} ORDER BY number`,
      asIs,
    ),
    changes: await tx.all(
      sql`SELECT b.site_id, s.name AS site, b.revision, b.made_at, b.summary, b.change_count
        FROM change_batch b JOIN site s ON s.id = b.site_id WHERE b.person_id = ${person} AND b.said_by IS NULL
        ORDER BY b.site_id, b.revision`,
      asIs,
    ),
    record: await tx.all(
      sql`SELECT r.site_id, s.name AS site, r.number, r.made_at, r.entry
        FROM record_entry r JOIN site s ON s.id = r.site_id WHERE r.person_id = ${person} AND r.said_by IS NULL
        ORDER BY r.site_id, r.number`,
      (row) => ({ ...row, entry: JSON.parse(String(row.entry)) as unknown }),
    ),
    drills: await tx.all(
      sql`SELECT what, number, tries, solved, best, last_at FROM drill_progress WHERE person_id = ${person}`,
      asIs,
    ),
  };
}
