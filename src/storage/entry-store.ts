import "server-only";
import type { EntryStore, Person } from "@/application/stores";
import type { Database, Row } from "./pool";
import { sql } from "./sql";

/** As many links wait to be used. */
const MOST_LINKS = 50;

const personOf = (row: Row): Person => ({ id: String(row.id), name: String(row.name) });

export const entryStore = (database: Database): EntryStore => ({
  addLink: async (keyHash) => {
    await database.run(sql`DELETE FROM entry_link WHERE made_at < UTC_TIMESTAMP(3) - INTERVAL 1 DAY`);
    // The newest stay, so that nobody fills the table by asking.
    const old = await database.all(
      sql`SELECT key_hash FROM entry_link ORDER BY made_at DESC LIMIT 1000 OFFSET ${MOST_LINKS - 1}`,
      (row) => String(row.key_hash),
    );
    for (const hash of old) await database.run(sql`DELETE FROM entry_link WHERE key_hash = ${hash}`);
    await database.run(sql`INSERT INTO entry_link (key_hash, made_at) VALUES (${keyHash}, UTC_TIMESTAMP(3))`);
  },
  useLink: async (keyHash) =>
    (await database.run(
      sql`DELETE FROM entry_link WHERE key_hash = ${keyHash} AND made_at > UTC_TIMESTAMP(3) - INTERVAL 1 DAY`,
    )) === 1,
  personNamed: async (name, newId) => {
    await database.run(
      sql`INSERT INTO person (id, name) VALUES (${newId}, ${name}) ON DUPLICATE KEY UPDATE id = id`,
    );
    const person = await database.maybeOne(sql`SELECT id, name FROM person WHERE name = ${name}`, personOf);
    if (person === null) throw new Error("A person just written is not there");
    return person;
  },
  addSession: async (tokenHash, person) => {
    await database.run(
      sql`INSERT INTO session (token_hash, person_id, made_at, used_at)
        VALUES (${tokenHash}, ${person}, UTC_TIMESTAMP(3), UTC_TIMESTAMP(3))`,
    );
  },
  personOfSession: async (tokenHash) => {
    const found = await database.maybeOne(
      sql`SELECT p.id, p.name, s.used_at < UTC_TIMESTAMP(3) - INTERVAL 10 MINUTE AS is_stale FROM session s
        JOIN person p ON p.id = s.person_id
      WHERE s.token_hash = ${tokenHash} AND s.used_at > UTC_TIMESTAMP(3) - INTERVAL 7 DAY
        AND s.made_at > UTC_TIMESTAMP(3) - INTERVAL 30 DAY`,
      (row) => row,
    );
    if (found === null) return null;
    // Not at every request: a minute more or less of a week is nothing.
    if (Number(found.is_stale) === 1)
      await database.run(sql`UPDATE session SET used_at = UTC_TIMESTAMP(3) WHERE token_hash = ${tokenHash}`);
    return personOf(found);
  },
  endSession: async (tokenHash) => {
    await database.run(sql`DELETE FROM session WHERE token_hash = ${tokenHash}`);
    await database.run(
      sql`DELETE FROM session WHERE used_at < UTC_TIMESTAMP(3) - INTERVAL 7 DAY
        OR made_at < UTC_TIMESTAMP(3) - INTERVAL 30 DAY`,
    );
  },
  mark: async () => {
    const mark = await database.maybeOne(sql`SELECT value FROM setting WHERE name = 'database-mark'`, (row) =>
      String(row.value),
    );
    if (mark === null) throw new Error("The database has no mark: its migrations have not been applied");
    return mark;
  },
});
