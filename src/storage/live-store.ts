import "server-only";
import type { LiveState, LiveStore, Present } from "@/application/live";
import { grouped } from "@/core/kernel";
import { entries, entryOf } from "./log-rows";
import type { Database, Row } from "./pool";
import { sql } from "./sql";

const presentOf = (row: Row): Present & { readonly site: string } => ({
  site: String(row.site_id),
  tab: String(row.tab_id),
  name: String(row.name),
  sheet: String(row.sheet),
  things: JSON.parse(String(row.things)) as string[],
});

/** Who is where on those sites, given as JSON. */
const presentOn = (database: Database, ids: string) =>
  database.all(
    sql`SELECT h.site_id, h.tab_id, h.sheet, h.things, p.name
      FROM JSON_TABLE(${ids}, '$[*]' COLUMNS (id CHAR(36) PATH '$')) asked
      JOIN presence h ON h.site_id = CAST(asked.id AS UUID) JOIN person p ON p.id = h.person_id
      WHERE ABS(TIMESTAMPDIFF(SECOND, h.seen_at, UTC_TIMESTAMP(3))) < 60 ORDER BY p.name, h.tab_id`,
    presentOf,
  );

/** As many changes are told at once; a whole site that was imported is asked for by whoever needs it. */
const MOST_TOLD = 40;

export const liveStore = (database: Database): LiveStore => ({
  states: async (sites) => {
    const ids = JSON.stringify(sites);
    const [rows, present] = await Promise.all([
      database.all(
        sql`SELECT s.id, s.revision,
            (SELECT COALESCE(MAX(r.number), 0) FROM record_entry r WHERE r.site_id = s.id) AS last
          FROM JSON_TABLE(${ids}, '$[*]' COLUMNS (id CHAR(36) PATH '$')) asked
          JOIN site s ON s.id = CAST(asked.id AS UUID) WHERE s.deleted_at IS NULL`,
        (row) => ({ site: String(row.id), revision: Number(row.revision), record: Number(row.last) }),
      ),
      presentOn(database, ids),
    ]);
    const bySite = grouped(present, ({ site }) => site);
    return new Map(
      rows.map(({ site, revision, record }): [string, LiveState] => [
        site,
        {
          revision,
          record,
          present: (bySite.get(site) ?? []).map(({ tab, name, sheet, things }) => ({
            tab,
            name,
            sheet,
            things,
          })),
        },
      ]),
    );
  },
  cameBetween: async (site, after, until) => {
    const came = await database.all(
      entries`WHERE b.site_id = ${site} AND b.revision > ${after} AND b.revision <= ${until}
        AND (SELECT SUM(m.change_count) FROM change_batch m
          WHERE m.site_id = ${site} AND m.revision > ${after} AND m.revision <= ${until}) <= ${MOST_TOLD}
        ORDER BY b.revision`,
      entryOf,
    );
    return came.length === until - after ? came : null;
  },
  putPresence: async (site, person, { tab, sheet, things }) => {
    await database.run(sql`INSERT INTO presence (site_id, tab_id, person_id, sheet, things, seen_at)
      VALUES (${site}, ${tab}, ${person}, ${sheet}, ${JSON.stringify(things)}, UTC_TIMESTAMP(3))
      ON DUPLICATE KEY UPDATE sheet = IF(person_id = ${person}, VALUES(sheet), sheet),
        things = IF(person_id = ${person}, VALUES(things), things),
        seen_at = IF(person_id = ${person}, VALUES(seen_at), seen_at)`);
    await database.run(
      sql`DELETE FROM presence WHERE site_id = ${site}
        AND ABS(TIMESTAMPDIFF(MINUTE, seen_at, UTC_TIMESTAMP(3))) >= 10`,
    );
  },
  dropPresence: async (site, person, tab) => {
    await database.run(
      sql`DELETE FROM presence WHERE site_id = ${site} AND tab_id = ${tab} AND person_id = ${person}`,
    );
  },
});
