import "server-only";
import type { PhotoStore } from "@/application/stores";
import { photosOf, type Photo, type RecordEntry } from "@/core/records";
import type { Database, Tx } from "./pool";
import { sql } from "./sql";

/** What an entry of the record says of photos: they are awaited, or their pictures are forgotten. */
export async function notePhotos(tx: Tx, site: string, entry: RecordEntry): Promise<void> {
  for (const id of photosOf(entry))
    await tx.run(
      sql`INSERT INTO photo (site_id, id) VALUES (${site}, ${id}) ON DUPLICATE KEY UPDATE id = photo.id`,
    );
  if (entry.do === "takeOut")
    await tx.run(sql`INSERT INTO photo (site_id, id, taken_out) VALUES (${site}, ${entry.photo}, 1)
      ON DUPLICATE KEY UPDATE taken_out = 1, jpeg = NULL`);
}

/** Puts a picture where one is awaited: one that is there already, or was taken out, stays as it is. */
export async function putPhoto(tx: Tx, site: string, { id, jpeg }: Photo): Promise<void> {
  await tx.run(sql`UPDATE photo SET jpeg = ${Buffer.from(jpeg)}
    WHERE site_id = ${site} AND id = ${id} AND taken_out = 0 AND jpeg IS NULL`);
}

export const photoStore = (database: Database): PhotoStore => ({
  read: (site, id) =>
    database.maybeOne(
      sql`SELECT f.jpeg FROM photo f JOIN site s ON s.id = f.site_id AND s.deleted_at IS NULL
        WHERE f.site_id = ${site} AND f.id = ${id} AND f.jpeg IS NOT NULL`,
      (row) => new Uint8Array(row.jpeg as Buffer),
    ),
  // The site's row is locked, so that two at once don't both take the last place.
  add: (site, photo, most) =>
    database.transaction(async (tx) => {
      const locked = await tx.maybeOne(
        sql`SELECT id FROM site WHERE id = ${site} AND deleted_at IS NULL FOR UPDATE`,
        (row) => row.id,
      );
      if (locked === null) return null;
      const counted = await tx.maybeOne(
        sql`SELECT COUNT(*) AS named,
            (SELECT COUNT(*) FROM photo
              WHERE site_id = ${site} AND id <> ${photo.id} AND jpeg IS NOT NULL) AS others
          FROM photo WHERE site_id = ${site} AND id = ${photo.id}`,
        ({ named, others }) => ({ named: Number(named), others: Number(others) }),
      );
      if ((counted?.named ?? 0) === 0) return "unnamed";
      if ((counted?.others ?? 0) >= most) return "full";
      await putPhoto(tx, site, photo);
      return "added";
    }),
});
