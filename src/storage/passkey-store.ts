import "server-only";
import type { OwnPasskey, PasskeyStore } from "@/application/passkey-stores";
import { instant, type Database, type Row } from "./pool";
import { sql } from "./sql";

/** As many challenges wait to be signed. */
const MOST_CHALLENGES = 5000;

const ownOf = (row: Row): OwnPasskey => ({
  id: String(row.id),
  title: String(row.title),
  host: String(row.host),
  madeAt: instant(row.made_at),
  usedAt: row.used_at === null ? null : instant(row.used_at),
});
const keyOf = (row: Row) => ({
  key: {
    id: String(row.id),
    credential: String(row.credential),
    publicKey: new Uint8Array(row.public_key as Buffer),
    counter: Number(row.counter),
    host: String(row.host),
  },
  person: { id: String(row.person_id), name: String(row.name) },
});

export const passkeyStore = (database: Database): PasskeyStore => ({
  of: (person) =>
    database.all(
      sql`SELECT id, title, host, made_at, used_at FROM passkey WHERE person_id = ${person}
        ORDER BY made_at, id`,
      ownOf,
    ),
  named: (credential) =>
    database.maybeOne(
      sql`SELECT k.id, k.credential, k.public_key, k.counter, k.host, k.person_id, p.name
        FROM passkey k JOIN person p ON p.id = k.person_id WHERE k.credential = ${credential} AND NOT p.is_out`,
      keyOf,
    ),
  add: (person, { id, credential, publicKey, counter, host, title }, most) =>
    database.transaction(async (tx) => {
      const there = await tx.maybeOne(
        sql`SELECT COUNT(*) AS n FROM passkey WHERE person_id = ${person}`,
        (row) => Number(row.n),
      );
      if ((there ?? 0) >= most) return false;
      const added = await tx.run(sql`INSERT IGNORE INTO passkey
          (id, person_id, credential, public_key, counter, host, title, made_at)
        VALUES (${id}, ${person}, ${credential}, ${Buffer.from(publicKey)}, ${counter}, ${host}, ${title},
          UTC_TIMESTAMP(3))`);
      return added === 1;
    }),
  remove: async (person, id) =>
    (await database.run(sql`DELETE FROM passkey WHERE person_id = ${person} AND id = ${id}`)) === 1,
  use: async (id, counter) =>
    (await database.run(sql`UPDATE passkey SET counter = ${counter}, used_at = UTC_TIMESTAMP(3)
      WHERE id = ${id} AND (counter < ${counter} OR (counter = 0 AND ${counter} = 0))`)) === 1,
  addChallenge: async (hash, person) => {
    await database.run(
      sql`DELETE FROM passkey_challenge WHERE made_at < UTC_TIMESTAMP(3) - INTERVAL 5 MINUTE`,
    );
    const old = await database.all(
      sql`SELECT challenge_hash FROM passkey_challenge ORDER BY made_at DESC
        LIMIT 100 OFFSET ${MOST_CHALLENGES - 1}`,
      (row) => String(row.challenge_hash),
    );
    for (const hash of old)
      await database.run(sql`DELETE FROM passkey_challenge WHERE challenge_hash = ${hash}`);
    await database.run(sql`INSERT INTO passkey_challenge (challenge_hash, person_id, made_at)
      VALUES (${hash}, ${person}, UTC_TIMESTAMP(3))`);
  },
  takeChallenge: async (hash, person) =>
    (await database.run(sql`DELETE FROM passkey_challenge WHERE challenge_hash = ${hash}
      AND person_id <=> ${person} AND made_at > UTC_TIMESTAMP(3) - INTERVAL 5 MINUTE`)) === 1,
});
