import "server-only";
import type { Customer, Noted, PeopleStore, PersonLine } from "@/application/account-stores";
import type { Grant, Role } from "@/application/roles";
import { StorageError } from "@/application/storage-error";
import { grouped } from "@/core/kernel";
import { addDeed } from "./deed-store";
import { grantOf, scopeId } from "./grants";
import { personData } from "./person-data";
import { instant, type Database, type Row, type Tx } from "./pool";
import { sql } from "./sql";

const customerOf = (row: Row): Customer => ({ id: String(row.id), name: String(row.name) });
const isThere = (): true => true;

const personLine = (row: Row, grants: readonly Grant[]): PersonLine => ({
  id: String(row.id),
  name: String(row.name),
  hasAccount: Number(row.has_account) === 1,
  hasFactor: Number(row.has_factor) === 1,
  seenAt: row.seen_at === null ? null : instant(row.seen_at),
  grants,
});

/** Whoever may no longer invite has no invitation open. */
const endInvitationsOf = (tx: Tx, person: string): Promise<number> =>
  tx.run(sql`DELETE FROM entry_link WHERE made_by = ${person} AND kind = 'invite'`);

/** What is done and its line in the log: both or neither; false where nothing is done. */
const told = (
  database: Database,
  { by, deed }: Noted,
  work: (tx: Tx) => Promise<boolean>,
): Promise<boolean> =>
  database.transaction(async (tx) => {
    const isDone = await work(tx);
    if (isDone) await addDeed(tx, by, deed);
    return isDone;
  });

/**
 * Whether that person is the last with a password who owns everything. All who do are locked until the
 * transaction ends, so that two of them don't take each other away.
 */
async function isLastOwner(tx: Tx, person: string): Promise<boolean> {
  const owners = await tx.all(
    sql`SELECT g.person_id, p.password_hash IS NOT NULL AS has_account FROM role_grant g
      JOIN person p ON p.id = g.person_id WHERE g.scope = 'all' AND g.role = 'owner'
      ORDER BY g.person_id FOR UPDATE`,
    (row) => ({ id: String(row.person_id), hasAccount: Number(row.has_account) === 1 }),
  );
  return (
    owners.some(({ id }) => id === person) &&
    !owners.some(({ id, hasAccount }) => hasAccount && id !== person)
  );
}

// eslint-disable-next-line max-lines-per-function -- one store, a statement for each of its questions
export const peopleStore = (database: Database): PeopleStore => ({
  rolesOnSite: (person, site) =>
    database.all(
      sql`SELECT g.role FROM site s JOIN role_grant g ON g.person_id = ${person} AND (g.scope = 'all'
          OR (g.scope = 'site' AND g.scope_id = s.id)
          OR (g.scope = 'customer' AND g.scope_id = s.customer_id))
        WHERE s.id = ${site}`,
      (row) => String(row.role) as Role,
    ),
  grantsOf: (person) =>
    database.all(sql`SELECT scope, scope_id, role FROM role_grant WHERE person_id = ${person}`, grantOf),
  people: async () => {
    const grants = grouped(
      await database.all(sql`SELECT person_id, scope, scope_id, role FROM role_grant`, (row) => ({
        person: String(row.person_id),
        grant: grantOf(row),
      })),
      ({ person }) => person,
    );
    return database.all(
      sql`SELECT p.id, p.name, p.password_hash IS NOT NULL AS has_account,
          p.factor_secret IS NOT NULL AS has_factor,
          (SELECT MAX(s.used_at) FROM session s WHERE s.person_id = p.id) AS seen_at
        FROM person p WHERE NOT p.is_out ORDER BY p.name`,
      (row) =>
        personLine(
          row,
          (grants.get(String(row.id)) ?? []).map(({ grant }) => grant),
        ),
    );
  },
  grant: (person, { on, role }, noted) =>
    told(database, noted, async (tx) => {
      if (on.kind === "all" && role !== "owner" && (await isLastOwner(tx, person))) return false;
      await tx.run(sql`INSERT INTO role_grant (person_id, scope, scope_id, role)
        VALUES (${person}, ${on.kind}, ${scopeId(on)}, ${role}) ON DUPLICATE KEY UPDATE role = VALUES(role)`);
      if (role !== "owner") await endInvitationsOf(tx, person);
      return true;
    }),
  withdraw: (person, on, noted) =>
    told(database, noted, async (tx) => {
      if (on.kind === "all" && (await isLastOwner(tx, person))) return false;
      await tx.run(sql`DELETE FROM role_grant
        WHERE person_id = ${person} AND scope = ${on.kind} AND scope_id = ${scopeId(on)}`);
      await endInvitationsOf(tx, person);
      return true;
    }),
  takeOut: (person, newName, noted) =>
    told(database, noted, async (tx) => {
      if (await isLastOwner(tx, person)) return false;
      for (const table of [
        sql`DELETE FROM session WHERE person_id = ${person}`,
        sql`DELETE FROM role_grant WHERE person_id = ${person}`,
        sql`DELETE FROM recovery_code WHERE person_id = ${person}`,
        sql`DELETE FROM passkey WHERE person_id = ${person}`,
        sql`DELETE FROM known_browser WHERE person_id = ${person}`,
        sql`DELETE FROM entry_link WHERE person_id = ${person} OR made_by = ${person}`,
        sql`UPDATE pass SET is_withdrawn = TRUE WHERE made_by = ${person}`,
      ])
        await tx.run(table);
      if (newName !== null)
        await tx.run(sql`UPDATE site SET deleted_by = ${newName}
          WHERE deleted_by = (SELECT name FROM person WHERE id = ${person})`);
      await tx.run(sql`UPDATE person SET password_hash = NULL, factor_secret = NULL, factor_step = 0,
          is_out = ${newName === null ? 0 : 1}, name = COALESCE(${newName}, name) WHERE id = ${person}`);
      return true;
    }),
  dataOf: (person) => personData(database, person),
  customers: () => database.all(sql`SELECT id, name FROM customer ORDER BY name`, customerOf),
  customerOf: (id) => database.maybeOne(sql`SELECT id, name FROM customer WHERE id = ${id}`, customerOf),
  putCustomer: async ({ id, name }, { by, deed }) => {
    try {
      return await database.transaction(async (tx) => {
        await tx.run(sql`INSERT INTO customer (id, name) VALUES (${id}, ${name})
          ON DUPLICATE KEY UPDATE name = IF(id = ${id}, VALUES(name), name)`);
        const there = await tx.maybeOne(
          sql`SELECT 1 AS one FROM customer WHERE id = ${id} AND name = ${name}`,
          isThere,
        );
        if (there !== null) await addDeed(tx, by, deed);
        return there !== null;
      });
    } catch (error) {
      if (error instanceof StorageError && error.fault === "duplicate") return false;
      throw error;
    }
  },
  removeCustomer: (id, { by, deed }) =>
    database.transaction(async (tx) => {
      await tx.maybeOne(sql`SELECT id FROM customer WHERE id = ${id} FOR UPDATE`, isThere);
      const used = await tx.maybeOne(
        sql`SELECT 1 AS one FROM site WHERE customer_id = ${id} LIMIT 1`,
        isThere,
      );
      if (used !== null) return false;
      await tx.run(sql`DELETE FROM role_grant WHERE scope = 'customer' AND scope_id = ${id}`);
      await tx.run(sql`DELETE FROM customer WHERE id = ${id}`);
      await addDeed(tx, by, deed);
      return true;
    }),
  sites: () =>
    database.all(sql`SELECT id, name, customer_id FROM site ORDER BY name, id`, (row) => ({
      id: String(row.id),
      name: String(row.name),
      customer: row.customer_id === null ? null : String(row.customer_id),
    })),
  putIntoFolder: (site, customer, { by, deed }) =>
    database.transaction(async (tx) => {
      if (customer !== null) {
        const there = await tx.maybeOne(
          sql`SELECT id FROM customer WHERE id = ${customer} LOCK IN SHARE MODE`,
          isThere,
        );
        if (there === null) return false;
      }
      const found = await tx.maybeOne(sql`SELECT id FROM site WHERE id = ${site} FOR UPDATE`, isThere);
      if (found === null) return false;
      await tx.run(sql`UPDATE site SET customer_id = ${customer} WHERE id = ${site}`);
      await addDeed(tx, by, deed);
      return true;
    }),
});
