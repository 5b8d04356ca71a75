import "server-only";
import type { DrillStore, TriedDrill } from "@/application/stores";
import type { DrillKind, DrillProgress, DrillTry } from "@/core/drills";
import { instant, type Database, type Row, type Tx } from "./pool";
import { sql } from "./sql";

const progressOf = (row: Row): DrillProgress => ({
  what: String(row.what) as DrillKind,
  number: Number(row.number),
  tries: Number(row.tries),
  solved: Number(row.solved),
  best: row.best === null ? null : Number(row.best),
  lastAt: instant(row.last_at),
});
const triedOf = (row: Row): TriedDrill => ({
  person: String(row.person_id),
  name: String(row.person_name),
  ...progressOf(row),
});

async function begin(tx: Tx, person: string, { id, what, number, isSolved, score }: DrillTry): Promise<void> {
  await tx.run(sql`INSERT INTO drill_progress
      (person_id, what, number, tries, solved, best, last_id, last_at)
    VALUES (${person}, ${what}, ${number}, 1, ${isSolved ? 1 : 0}, ${isSolved ? score : null}, ${id},
      UTC_TIMESTAMP(3))`);
}

async function goOn(tx: Tx, person: string, { id, what, number, isSolved, score }: DrillTry): Promise<void> {
  const best = isSolved ? score : null;
  await tx.run(sql`UPDATE drill_progress
    SET tries = tries + 1, solved = solved + ${isSolved ? 1 : 0},
      best = CASE WHEN ${best} IS NULL THEN best ELSE LEAST(COALESCE(best, ${best}), ${best}) END,
      last_id = ${id}, last_at = UTC_TIMESTAMP(3)
    WHERE person_id = ${person} AND what = ${what} AND number = ${number}`);
}

export const drillStore = (database: Database): DrillStore => ({
  // The person's row is locked, so that two tabs that end a first try at once wait for one another.
  add: (person, tried) =>
    database.transaction(async (tx) => {
      await tx.maybeOne(sql`SELECT id FROM person WHERE id = ${person} FOR UPDATE`, (row) => row.id);
      const last = await tx.maybeOne(
        sql`SELECT last_id FROM drill_progress
          WHERE person_id = ${person} AND what = ${tried.what} AND number = ${tried.number}`,
        (row) => String(row.last_id),
      );
      if (last === tried.id) return;
      await (last === null ? begin(tx, person, tried) : goOn(tx, person, tried));
    }),
  all: (limit, person) =>
    database.all(
      sql`SELECT d.person_id, d.what, d.number, d.tries, d.solved, d.best, d.last_at, p.name AS person_name
        FROM drill_progress d JOIN person p ON p.id = d.person_id
        WHERE ${person} IS NULL OR d.person_id = ${person}
        ORDER BY p.name, d.what, d.number LIMIT ${limit}`,
      triedOf,
    ),
});
