import "server-only";
import type { BinnedSite, BinTx } from "@/application/stores";
import { addDeed } from "./deed-store";
import { instant, type Row, type Tx } from "./pool";
import { sql } from "./sql";

/** As many days does a deleted site lie in the bin. */
const DAYS = 30;

const binnedOf = (row: Row): BinnedSite => ({
  id: String(row.id),
  name: String(row.name),
  deletedAt: instant(row.deleted_at),
  deletedBy: String(row.deleted_by),
  endsAt: instant(row.ends_at),
  isOver: Number(row.is_over) === 1,
});

/** The sites in the bin that a person owns, or all of them; what was deleted last first. */
export const binOn = (database: Tx, owner: string | null): Promise<BinnedSite[]> =>
  database.all(
    sql`SELECT id, name, deleted_at, deleted_by, deleted_at + INTERVAL ${DAYS} DAY AS ends_at,
        deleted_at + INTERVAL ${DAYS} DAY <= UTC_TIMESTAMP(3) AS is_over
      FROM site WHERE deleted_at IS NOT NULL AND (${owner} IS NULL OR EXISTS (SELECT 1 FROM role_grant g
          WHERE g.person_id = ${owner} AND g.role = 'owner' AND (g.scope = 'all'
            OR (g.scope = 'site' AND g.scope_id = site.id)
            OR (g.scope = 'customer' AND g.scope_id = site.customer_id))))
      ORDER BY deleted_at DESC, id`,
    binnedOf,
  );

export const binTx = (tx: Tx): BinTx => ({
  toBin: async (site, by) => {
    await tx.run(
      sql`UPDATE site SET deleted_at = UTC_TIMESTAMP(3), deleted_by = ${by.name} WHERE id = ${site}`,
    );
  },
  lockInBin: (site) =>
    tx.maybeOne(sql`SELECT id FROM site WHERE id = ${site} AND deleted_at IS NOT NULL FOR UPDATE`, (row) =>
      String(row.id),
    ),
  note: async (by, site, what) => {
    const name = await tx.maybeOne(sql`SELECT name FROM site WHERE id = ${site}`, (row) => String(row.name));
    await addDeed(tx, by, { what, about: name ?? "", site });
  },
  outOfBin: async (site) => {
    await tx.run(sql`UPDATE site SET deleted_at = NULL, deleted_by = NULL WHERE id = ${site}`);
  },
});
