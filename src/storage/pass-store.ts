import "server-only";
import type { Pass, PassFor, PassStore, SeenPass, Visit } from "@/application/passes";
import { grouped } from "@/core/kernel";
import { READERS } from "@/core/pack";
import { addDeed } from "./deed-store";
import { scopeId, scopeOf } from "./grants";
import { instant, type Database, type Row, type Tx } from "./pool";
import { sql, sqlAfter } from "./sql";

/** As many visits of one pass are kept, and as many passes are listed. */
const MOST_VISITS = 100;
const MOST_LISTED = 500;

function opensOf(row: Row): PassFor {
  if (row.kind === "machine") return { kind: "machine", on: scopeOf(row) };
  const reader = READERS.find((reader) => reader === row.reader) ?? "customer";
  return { kind: "sheet", site: String(row.scope_id), issue: String(row.issue_id), reader };
}
const passOf = (row: Row): Pass => ({
  id: String(row.id),
  title: String(row.title),
  opens: opensOf(row),
  madeBy: { id: String(row.made_by), name: String(row.name) },
  madeAt: instant(row.made_at),
  endsAt: instant(row.ends_at),
  isWithdrawn: Number(row.is_withdrawn) === 1,
  isOver: Number(row.is_over) === 1,
  visits: Number(row.visits),
});
const visitOf = (row: Row): Visit & { readonly pass: string } => ({
  pass: String(row.pass_id),
  beganAt: instant(row.began_at),
  lastAt: instant(row.last_at),
  cameFrom: String(row.came_from),
  asked: Number(row.asked),
});
const passes = sqlAfter(
  "SELECT s.id, s.title, s.kind, s.scope, s.scope_id, s.issue_id, s.reader, s.made_by, p.name, s.made_at, " +
    "s.ends_at, s.is_withdrawn, s.ends_at <= UTC_TIMESTAMP(3) AS is_over, s.visits " +
    "FROM pass s JOIN person p ON p.id = s.made_by",
);

/** The columns of what a pass opens, in their order. */
function columnsOf(opens: PassFor) {
  return opens.kind === "sheet"
    ? { scope: "site", at: opens.site, issue: opens.issue, reader: opens.reader }
    : { scope: opens.on.kind, at: scopeId(opens.on), issue: null, reader: null };
}

/** The passes of a kind that still open, then others, the newest first; each with its newest visits. */
async function listed(database: Tx, kind: PassFor["kind"], site: string | null): Promise<SeenPass[]> {
  const found = await database.all(
    passes`WHERE s.kind = ${kind} AND (${site} IS NULL OR (s.scope = 'site' AND s.scope_id = ${site}))
      ORDER BY s.is_withdrawn OR s.ends_at <= UTC_TIMESTAMP(3), s.made_at DESC, s.id LIMIT ${MOST_LISTED}`,
    passOf,
  );
  const visits = await database.all(
    sql`SELECT v.pass_id, v.began_at, v.last_at, v.came_from, v.asked
      FROM JSON_TABLE(${JSON.stringify(found.map(({ id }) => id))},
        '$[*]' COLUMNS (id CHAR(36) PATH '$')) asked_for
      JOIN pass_visit v ON v.pass_id = CAST(asked_for.id AS UUID) ORDER BY v.number DESC`,
    visitOf,
  );
  const seen = grouped(visits, ({ pass }) => pass);
  return found.map((pass): SeenPass => ({
    ...pass,
    seen: (seen.get(pass.id) ?? []).map(({ beganAt, lastAt, cameFrom, asked }) => ({
      beganAt,
      lastAt,
      cameFrom,
      asked,
    })),
  }));
}

export const passStore = (database: Database): PassStore => ({
  add: ({ id, keyHash, title, opens, lastDay }, most, { by, deed }) =>
    database.transaction(async (tx) => {
      const open = await tx.maybeOne(
        sql`SELECT COUNT(*) AS n FROM pass WHERE NOT is_withdrawn AND ends_at > UTC_TIMESTAMP(3)`,
        (row) => Number(row.n),
      );
      if ((open ?? 0) >= most) return false;
      const { scope, at, issue, reader } = columnsOf(opens);
      await tx.run(sql`INSERT INTO pass
          (id, key_hash, kind, title, scope, scope_id, issue_id, reader, made_by, made_at, ends_at)
        VALUES (${id}, ${keyHash}, ${opens.kind}, ${title}, ${scope}, ${at}, ${issue}, ${reader}, ${by.id},
          UTC_TIMESTAMP(3), ${lastDay} + INTERVAL 1 DAY)`);
      await addDeed(tx, by, deed);
      return true;
    }),
  passOf: (keyHash) => database.maybeOne(passes`WHERE s.key_hash = ${keyHash}`, passOf),
  passes: (kind, site) => listed(database, kind, site),
  withdraw: (id, { by, deed }) =>
    database.transaction(async (tx) => {
      // Withdrawn twice, it is told once.
      if (
        (await tx.run(sql`UPDATE pass SET is_withdrawn = TRUE WHERE id = ${id} AND NOT is_withdrawn`)) === 1
      )
        await addDeed(tx, by, deed);
    }),
  visit: (id, cameFrom) =>
    database.transaction(async (tx) => {
      await tx.run(sql`UPDATE pass SET visits = visits + 1 WHERE id = ${id}`);
      const goesOn = await tx.run(sql`UPDATE pass_visit SET asked = asked + 1, last_at = UTC_TIMESTAMP(3)
        WHERE pass_id = ${id} AND came_from = ${cameFrom}
          AND last_at > UTC_TIMESTAMP(3) - INTERVAL 30 MINUTE ORDER BY number DESC LIMIT 1`);
      if (goesOn === 1) return false;
      await tx.run(sql`INSERT INTO pass_visit (pass_id, began_at, last_at, came_from, asked)
        VALUES (${id}, UTC_TIMESTAMP(3), UTC_TIMESTAMP(3), ${cameFrom}, 1)`);
      const last = await tx.all(
        sql`SELECT number FROM pass_visit WHERE pass_id = ${id} ORDER BY number DESC
          LIMIT 1 OFFSET ${MOST_VISITS}`,
        (row) => Number(row.number),
      );
      for (const number of last)
        await tx.run(sql`DELETE FROM pass_visit WHERE pass_id = ${id} AND number <= ${number}`);
      return true;
    }),
});
