import "server-only";
import type { EntryStore, LinkPurpose, OwnSession, WaitingLink } from "@/application/account-stores";
import type { Person } from "@/application/stores";
import { grantOf, scopeId } from "./grants";
import { instant, type Database, type Row } from "./pool";
import { sql, sqlAfter } from "./sql";

/** As many links wait to be used. */
const MOST_LINKS = 50;

const personOf = (row: Row): Person => ({ id: String(row.id), name: String(row.name) });

function purposeOf(row: Row): LinkPurpose {
  const person = row.person_id === null ? null : String(row.person_id);
  if (row.kind === "first") return { kind: "first" };
  if (row.kind === "invite")
    return { kind: "invite", person, grant: grantOf(row), madeBy: String(row.made_by) };
  return { kind: row.kind === "own" ? "own" : "reset", person: String(person) };
}
const linkOf = (row: Row): WaitingLink => ({
  id: String(row.id),
  purpose: purposeOf(row),
  name: row.name === null ? null : String(row.name),
  endsAt: instant(row.ends_at),
});
/** Those that still count: younger than a day. */
const links = sqlAfter(
  "SELECT l.id, l.kind, l.person_id, l.scope, l.scope_id, l.role, l.made_by, p.name, " +
    "l.made_at + INTERVAL 1 DAY AS ends_at FROM entry_link l LEFT JOIN person p ON p.id = l.person_id " +
    "WHERE l.made_at > UTC_TIMESTAMP(3) - INTERVAL 1 DAY",
);

/** The columns of what a link does, in their order. */
function columnsOf(purpose: LinkPurpose) {
  const none = { person: null, scope: null, scopeId: null, role: null, madeBy: null };
  if (purpose.kind === "first") return none;
  if (purpose.kind !== "invite") return { ...none, person: purpose.person };
  const { person, grant, madeBy } = purpose;
  return { person, scope: grant.on.kind, scopeId: scopeId(grant.on), role: grant.role, madeBy };
}

// eslint-disable-next-line max-lines-per-function -- one store, a statement for each of its questions
export const entryStore = (database: Database): EntryStore => ({
  addLink: async (id, keyHash, purpose) => {
    await database.run(sql`DELETE FROM entry_link WHERE made_at < UTC_TIMESTAMP(3) - INTERVAL 1 DAY`);
    // The newest stay, so that nobody fills the table by asking.
    const old = await database.all(
      sql`SELECT key_hash FROM entry_link ORDER BY made_at DESC LIMIT 1000 OFFSET ${MOST_LINKS - 1}`,
      (row) => String(row.key_hash),
    );
    for (const hash of old) await database.run(sql`DELETE FROM entry_link WHERE key_hash = ${hash}`);
    const { person, scope, scopeId: at, role, madeBy } = columnsOf(purpose);
    await database.run(sql`INSERT INTO entry_link
        (id, key_hash, made_at, kind, person_id, scope, scope_id, role, made_by)
      VALUES (${id}, ${keyHash}, UTC_TIMESTAMP(3), ${purpose.kind}, ${person}, ${scope}, ${at}, ${role},
        ${madeBy})`);
  },
  linkFor: (keyHash) => database.maybeOne(links`AND l.key_hash = ${keyHash}`, linkOf),
  useLink: async (keyHash) =>
    (await database.run(
      sql`DELETE FROM entry_link WHERE key_hash = ${keyHash} AND made_at > UTC_TIMESTAMP(3) - INTERVAL 1 DAY`,
    )) === 1,
  invitations: () => database.all(links`AND l.kind = 'invite' ORDER BY l.made_at DESC`, linkOf),
  withdraw: async (id) => {
    await database.run(sql`DELETE FROM entry_link WHERE id = ${id} AND kind = 'invite'`);
  },
  addSession: async ({ id, tokenHash, person, cameFrom }) => {
    await database.run(
      sql`INSERT INTO session (id, token_hash, person_id, came_from, made_at, used_at)
        VALUES (${id}, ${tokenHash}, ${person}, ${cameFrom}, UTC_TIMESTAMP(3), UTC_TIMESTAMP(3))`,
    );
  },
  personOfSession: async (tokenHash, idleHours) => {
    const found = await database.maybeOne(
      sql`SELECT p.id, p.name, s.used_at < UTC_TIMESTAMP(3) - INTERVAL 10 MINUTE AS is_stale FROM session s
        JOIN person p ON p.id = s.person_id
      WHERE s.token_hash = ${tokenHash} AND s.used_at > UTC_TIMESTAMP(3) - INTERVAL ${idleHours} HOUR
        AND s.made_at > UTC_TIMESTAMP(3) - INTERVAL 30 DAY`,
      (row) => row,
    );
    if (found === null) return null;
    // Not at every request: a few minutes more or less of hours are nothing.
    if (Number(found.is_stale) === 1)
      await database.run(sql`UPDATE session SET used_at = UTC_TIMESTAMP(3) WHERE token_hash = ${tokenHash}`);
    return personOf(found);
  },
  sessionsOf: (person, tokenHash) =>
    database.all(
      sql`SELECT id, made_at, used_at, came_from, token_hash = ${tokenHash} AS is_this
        FROM session WHERE person_id = ${person} ORDER BY used_at DESC, id`,
      (row): OwnSession => ({
        id: String(row.id),
        madeAt: instant(row.made_at),
        usedAt: instant(row.used_at),
        cameFrom: String(row.came_from),
        isThis: Number(row.is_this) === 1,
      }),
    ),
  endSession: async (tokenHash) => {
    await database.run(sql`DELETE FROM session WHERE token_hash = ${tokenHash}`);
    await database.run(sql`DELETE FROM session WHERE made_at < UTC_TIMESTAMP(3) - INTERVAL 30 DAY`);
  },
  endSessionOf: async (person, id) => {
    await database.run(sql`DELETE FROM session WHERE person_id = ${person} AND id = ${id}`);
  },
  endSessionsOf: async (person, except) => {
    await database.run(
      sql`DELETE FROM session WHERE person_id = ${person} AND (${except} IS NULL OR token_hash <> ${except})`,
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
