import "server-only";
import type { Person, PhotoStore } from "@/application/stores";
import type { Photo } from "@/core/records";
import type { Database, Tx } from "./pool";
import { sql } from "./sql";

/** Adds a photo; one that is there already, or was taken out, stays as it is. */
export async function insertPhoto(tx: Tx, site: string, by: Person, { id, jpeg }: Photo): Promise<void> {
  await tx.run(sql`INSERT INTO photo (site_id, id, person_id, made_at, jpeg)
    VALUES (${site}, ${id}, ${by.id}, UTC_TIMESTAMP(3), ${Buffer.from(jpeg)})
    ON DUPLICATE KEY UPDATE id = photo.id`);
}

/** Forgets a photo's picture, whether it has come already or not. */
export async function takePhotoOut(tx: Tx, site: string, by: Person, id: string): Promise<void> {
  await tx.run(sql`INSERT INTO photo (site_id, id, person_id, made_at, jpeg)
    VALUES (${site}, ${id}, ${by.id}, UTC_TIMESTAMP(3), NULL) ON DUPLICATE KEY UPDATE jpeg = NULL`);
}

export const photoStore = (database: Database): PhotoStore => ({
  read: (site, id) =>
    database.maybeOne(
      sql`SELECT jpeg FROM photo WHERE site_id = ${site} AND id = ${id} AND jpeg IS NOT NULL`,
      (row) => new Uint8Array(row.jpeg as Buffer),
    ),
  // The site's row is locked, so that two at once don't both take the last place.
  add: (site, by, photo, most) =>
    database.transaction(async (tx) => {
      const locked = await tx.maybeOne(
        sql`SELECT id FROM site WHERE id = ${site} FOR UPDATE`,
        (row) => row.id,
      );
      if (locked === null) return null;
      const others = await tx.maybeOne(
        sql`SELECT COUNT(*) AS many FROM photo
          WHERE site_id = ${site} AND id <> ${photo.id} AND jpeg IS NOT NULL`,
        (row) => Number(row.many),
      );
      if ((others ?? 0) >= most) return "full";
      await insertPhoto(tx, site, by, photo);
      return "added";
    }),
});
