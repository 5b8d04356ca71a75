import "server-only";
import type { EntryStore, Person } from "@/application/stores";
import type { Database, Row } from "./pool";
import { sql } from "./sql";

const personOf = (row: Row): Person => ({ id: String(row.id), name: String(row.name) });

export const entryStore = (database: Database): EntryStore => ({
  useLink: async (keyHash) =>
    (await database.run(sql`DELETE FROM entry_link WHERE key_hash = ${keyHash} AND made_at > UTC_TIMESTAMP(3) - INTERVAL 1 DAY`)) === 1,
  personNamed: async (name, newId) => {
    await database.run(sql`INSERT INTO person (id, name) VALUES (${newId}, ${name}) ON DUPLICATE KEY UPDATE id = id`);
    const person = await database.maybeOne(sql`SELECT id, name FROM person WHERE name = ${name}`, personOf);
    if (person === null) throw new Error("A person just written is not there");
    return person;
  },
  addSession: async (tokenHash, person) => {
    await database.run(sql`INSERT INTO session (token_hash, person_id, made_at) VALUES (${tokenHash}, ${person}, UTC_TIMESTAMP(3))`);
  },
  personOfSession: (tokenHash) =>
    database.maybeOne(sql`SELECT p.id, p.name FROM session s JOIN person p ON p.id = s.person_id WHERE s.token_hash = ${tokenHash}`, personOf),
});
