import "server-only";
import type { AccountStore, Credentials, Factor } from "@/application/account-stores";
import type { Person } from "@/application/stores";
import type { Database, Row, Tx } from "./pool";
import { sql, sqlAfter } from "./sql";

/** A step that is taken is one to either side of now at most: two steps that are taken lie no further apart. */
const STEPS_AROUND = 2;

const personOf = (row: Row): Person => ({ id: String(row.id), name: String(row.name) });
const textOrNull = (value: unknown): string | null => (value === null ? null : String(value));
const credentialsOf = (row: Row): Credentials => ({
  person: personOf(row),
  passwordHash: textOrNull(row.password_hash),
  factorSecret: textOrNull(row.factor_secret),
  factorStep: Number(row.factor_step),
});
const credentials = sqlAfter("SELECT id, name, password_hash, factor_secret, factor_step FROM person");

/** So many tries have the longest wait behind them. */
const MANY = Number.MAX_SAFE_INTEGER;

/**
 * Failed tries under one key; what is older than a day is forgotten. A wait that is longer than any that is
 * given was given while the clock was ahead, and counts no more.
 */
async function triesOf(
  tx: Tx,
  { hash, waitAfter }: { readonly hash: string; readonly waitAfter: (failed: number) => number },
): Promise<{ failed: number; wait: number }> {
  const found = await tx.maybeOne(
    sql`SELECT IF(last_at < UTC_TIMESTAMP(3) - INTERVAL 1 DAY, 0, failed) AS failed,
        GREATEST(0, CEIL(TIMESTAMPDIFF(MICROSECOND, UTC_TIMESTAMP(3), free_at) / 1000000)) AS wait
      FROM sign_in_try WHERE key_hash = ${hash}`,
    (row) => ({ failed: Number(row.failed), wait: Number(row.wait) }),
  );
  if (found === null) return { failed: 0, wait: 0 };
  return found.wait > waitAfter(MANY) ? { ...found, wait: 0 } : found;
}

/** Sets the secret, and recovery codes in place of those there were. */
async function putFactor(tx: Tx, person: string, factor: Factor | null) {
  const { secret = null, step = 0, codeHashes: codes = [] } = factor ?? {};
  await tx.run(sql`UPDATE person SET factor_secret = ${secret}, factor_step = ${step} WHERE id = ${person}`);
  await tx.run(sql`DELETE FROM recovery_code WHERE person_id = ${person}`);
  for (const hash of codes)
    await tx.run(sql`INSERT INTO recovery_code (person_id, code_hash) VALUES (${person}, ${hash})`);
}

// eslint-disable-next-line max-lines-per-function -- one store, a statement for each of its questions
export const accountStore = (database: Database): AccountStore => ({
  personNamed: async (name, newId) => {
    await database.run(
      sql`INSERT INTO person (id, name) VALUES (${newId}, ${name}) ON DUPLICATE KEY UPDATE id = id`,
    );
    const person = await database.maybeOne(sql`SELECT id, name FROM person WHERE name = ${name}`, personOf);
    if (person === null) throw new Error("A person just written is not there");
    return person;
  },
  credentialsNamed: (name) =>
    database.maybeOne(credentials`WHERE name = ${name} AND NOT is_out`, credentialsOf),
  credentialsOf: (person) =>
    database.maybeOne(credentials`WHERE id = ${person} AND NOT is_out`, credentialsOf),
  hasOwner: async () =>
    (await database.maybeOne(
      sql`SELECT 1 AS one FROM role_grant g JOIN person p ON p.id = g.person_id
        WHERE g.scope = 'all' AND g.role = 'owner' AND p.password_hash IS NOT NULL LIMIT 1`,
      () => true,
    )) !== null,
  setPassword: async (person, hash) => {
    await database.run(sql`UPDATE person SET password_hash = ${hash} WHERE id = ${person}`);
  },
  setFactor: (person, factor) => database.transaction((tx) => putFactor(tx, person, factor)),
  takeStep: async (person, step) =>
    (await database.run(
      sql`UPDATE person SET factor_step = ${step}
        WHERE id = ${person} AND (factor_step < ${step} OR factor_step > ${step + STEPS_AROUND})`,
    )) === 1,
  takeRecoveryCode: async (person, codeHash) =>
    (await database.run(
      sql`DELETE FROM recovery_code WHERE person_id = ${person} AND code_hash = ${codeHash}`,
    )) === 1,
  recoveryCodesLeft: async (person) =>
    (await database.maybeOne(
      sql`SELECT COUNT(*) AS n FROM recovery_code WHERE person_id = ${person}`,
      (row) => Number(row.n),
    )) ?? 0,
  beginTry: (keys) =>
    database.transaction(async (tx) => {
      // Counted under lock, so that many tries at once are as many tries.
      // In one order everywhere, so that two tries wait for one another and never for each other.
      const sorted = [...keys].sort((a, b) => (a.hash < b.hash ? -1 : 1));
      const counted = [];
      for (const { hash } of sorted)
        await tx.run(sql`INSERT INTO sign_in_try (key_hash, failed, last_at, free_at)
          VALUES (${hash}, 0, UTC_TIMESTAMP(3), UTC_TIMESTAMP(3)) ON DUPLICATE KEY UPDATE failed = failed`);
      for (const key of sorted) counted.push({ ...key, ...(await triesOf(tx, key)) });
      const wait = Math.max(0, ...counted.map((key) => key.wait));
      if (wait > 0) return wait;
      for (const { hash, failed, waitAfter } of counted)
        await tx.run(sql`UPDATE sign_in_try SET failed = ${failed + 1}, last_at = UTC_TIMESTAMP(3),
            free_at = UTC_TIMESTAMP(3) + INTERVAL ${waitAfter(failed + 1)} SECOND
          WHERE key_hash = ${hash}`);
      return 0;
    }),
  forgetTries: async (hashes) => {
    for (const hash of hashes) await database.run(sql`DELETE FROM sign_in_try WHERE key_hash = ${hash}`);
    await database.run(sql`DELETE FROM sign_in_try WHERE last_at < UTC_TIMESTAMP(3) - INTERVAL 1 DAY`);
  },
  knowBrowser: async (tokenHash, person) => {
    await database.run(sql`INSERT INTO known_browser (token_hash, person_id, used_at)
      VALUES (${tokenHash}, ${person}, UTC_TIMESTAMP(3)) ON DUPLICATE KEY UPDATE used_at = VALUES(used_at)`);
    await database.run(sql`DELETE FROM known_browser WHERE used_at < UTC_TIMESTAMP(3) - INTERVAL 1 YEAR`);
  },
  isKnownBrowser: async (tokenHash, name) =>
    (await database.maybeOne(
      sql`SELECT 1 AS one FROM known_browser b JOIN person p ON p.id = b.person_id
        WHERE b.token_hash = ${tokenHash} AND p.name = ${name}
          AND b.used_at > UTC_TIMESTAMP(3) - INTERVAL 1 YEAR`,
      () => true,
    )) !== null,
});
