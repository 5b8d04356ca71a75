import type { z } from "zod";
import { pause, pauseAfterAWhile } from "@/application/in-slices";
import { must } from "@/core/kernel";
import {
  COLLECTION_KINDS,
  decodeStored,
  emptyPlan,
  encodeStored,
  MISFIT,
  SCHEMAS,
  type Change,
  type CollectionKind,
  type Entity,
  type Kind,
  type Link,
  type Plan,
  type Site,
} from "@/core/plan";
import type { Tx, Row } from "./pool";
import { columnsOf, readRow, writeRow, type Fields } from "./rows/row-map";
import { ROW_MAPS, SITE_MAP } from "./rows/row-maps";
import {
  clearAllOfSite,
  clearReference,
  deleteAllOfSite,
  deleteRows,
  insertLinkEnds,
  insertRow,
  insertTouched,
  selectOfSite,
  setReferences,
  sql,
  updateById,
  upsertRows,
  type SqlValue,
  type Statement,
} from "./sql";

/** Rows in one statement: well below the 65,535 parameters that a prepared statement can have. */
const ROWS_AT_ONCE = 400;

function inRuns<T>(items: readonly T[]): T[][] {
  return Array.from({ length: Math.ceil(items.length / ROWS_AT_ONCE) }, (_, i) =>
    items.slice(i * ROWS_AT_ONCE, (i + 1) * ROWS_AT_ONCE),
  );
}

const encoded = (kind: Kind, entity: Entity): Fields => encodeStored(kind, entity as never) as Fields;

/** A row as it was written; one that does not fit its schema is refused with the schema's own words. */
function decoded(kind: Kind, fields: Fields): Entity {
  const entity = decodeStored(kind, fields);
  return entity === MISFIT ? ((SCHEMAS[kind] as z.ZodType).parse(fields) as Entity) : entity;
}

/** A column of a kind's table, and its place among the columns. */
const columnOf = (kind: CollectionKind, column: string) => ({
  ...{ table: ROW_MAPS[kind].table, column },
  at: columnsOf(ROW_MAPS[kind]).indexOf(column),
});
type Late = ReturnType<typeof columnOf>;

/** The references that make circles: written as NULL first, set when everything stands. */
const LATE: Partial<Record<CollectionKind, Late>> = {
  room: columnOf("room", "cabinet_id"),
  segment: columnOf("segment", "gateway_interface_id"),
  device: columnOf("device", "asks_from_interface_id"),
  host: columnOf("host", "behind_host_id"),
};

/** Runs statements one after another: while the database works on one, the next is put together. */
async function runAll(tx: Tx, statements: Iterable<Statement>): Promise<void> {
  let last: Promise<unknown> = Promise.resolve();
  for (const statement of statements) {
    await last;
    last = tx.run(statement);
    // It is waited for after the next one was put together; should that fail, nobody asks how this one went.
    last.catch(() => {});
    // It leaves in the next turn.
    await pause();
  }
  await last;
}

async function readLinkEnds(tx: Tx, site: string): Promise<Map<string, { a?: string; b?: string }>> {
  const ends = new Map<string, { a?: string; b?: string }>();
  const rows = await tx.all(
    sql`SELECT link_id, which, port_id FROM link_end WHERE site_id = ${site}`,
    (row) => row,
  );
  for (const row of rows) {
    const known = ends.get(String(row.link_id)) ?? {};
    ends.set(String(row.link_id), { ...known, [row.which === "a" ? "a" : "b"]: String(row.port_id) });
  }
  return ends;
}

/** The whole plan of a site; null when there is no such site. */
export async function readPlan(tx: Tx, siteId: string): Promise<Plan | null> {
  const site = await readSite(tx, siteId);
  if (site === null) return null;
  const linkEnds = await readLinkEnds(tx, siteId);
  const breath = pauseAfterAWhile();
  const collections: Record<string, Map<string, Entity>> = {};
  for (const kind of COLLECTION_KINDS) {
    const map = ROW_MAPS[kind];
    const entityOf = (row: Row): Entity => {
      const fields = readRow(map, row);
      return decoded(kind, kind === "link" ? { ...fields, ...linkEnds.get(String(row.id)) } : fields);
    };
    const entities = (collections[kind] = new Map<string, Entity>());
    for (const row of await tx.all(selectOfSite(map.table, columnsOf(map), siteId), (found) => found)) {
      const entity = entityOf(row);
      entities.set(entity.id, entity);
      await breath();
    }
  }
  return { ...emptyPlan(site), ...collections } as Plan;
}

async function readSite(tx: Tx, id: string): Promise<Site | null> {
  const row = await tx.maybeOne(
    sql`SELECT id, name, kind, time_zone, blocks, conventions, radio, baseline, keep_clear, paper
        FROM site WHERE id = ${id}`,
    (found) => found,
  );
  return row === null ? null : (decoded("site", readRow(SITE_MAP, row)) as Site);
}

export const insertSite = (tx: Tx, site: Site): Promise<number> =>
  tx.run(
    insertRow(
      "site",
      ["id", ...columnsOf(SITE_MAP)],
      [site.id, ...writeRow(SITE_MAP, encoded("site", site))],
    ),
  );
const updateSite = (tx: Tx, site: Site): Promise<number> =>
  tx.run(updateById("site", columnsOf(SITE_MAP), writeRow(SITE_MAP, encoded("site", site)), site.id));

/** A row with its late reference left out, and that reference. */
function rowOf(kind: CollectionKind, site: string, entity: Entity): { row: SqlValue[]; late: SqlValue } {
  const row = writeRow(ROW_MAPS[kind], encoded(kind, entity));
  const at = LATE[kind]?.at ?? -1;
  const late = row[at] ?? null;
  if (at >= 0) row[at] = null;
  return { row: [site, entity.id, ...row], late };
}

const changesOf = (changes: readonly Change[], kind: Kind) =>
  changes.filter((change) => change.kind === kind);
const gone = (changes: readonly Change[], kind: Kind): string[] =>
  changesOf(changes, kind)
    .filter((c) => c.after === null)
    .map((c) => c.id);

/** Rows of a kind with the late references that they shall have. */
type LateReferences = Map<CollectionKind, { readonly id: string; readonly value: SqlValue }[]>;

/** What is new or changed, kind by kind; the references that can be set only afterwards come to `late`. */
function* putRows(site: string, changes: readonly Change[], late: LateReferences): Generator<Statement> {
  for (const kind of COLLECTION_KINDS) {
    const kept = changesOf(changes, kind).flatMap(({ after }) => (after === null ? [] : [after as Entity]));
    const columns = columnsOf(ROW_MAPS[kind]);
    const references: { id: string; value: SqlValue }[] = [];
    late.set(kind, references);
    for (const run of inRuns(kept)) {
      const rows: SqlValue[][] = [];
      for (const entity of run) {
        const { row, late: value } = rowOf(kind, site, entity);
        rows.push(row);
        if (value !== null) references.push({ id: entity.id, value });
      }
      yield upsertRows(ROW_MAPS[kind].table, columns, rows);
    }
  }
}

/** What can be written only when all rows stand: the ends of cables, and the references that make circles. */
function* putLate(site: string, changes: readonly Change[], late: LateReferences): Generator<Statement> {
  const links = changesOf(changes, "link").flatMap(({ after }) => (after === null ? [] : [after as Link]));
  for (const run of inRuns(links))
    yield insertLinkEnds(
      site,
      run.flatMap(({ id, a, b }) => [[id, "a", a] as const, [id, "b", b] as const]),
    );
  for (const [kind, references] of late)
    for (const run of inRuns(references)) {
      const { table, column } = must(LATE[kind], "a kind with a late reference");
      yield setReferences(table, column, site, run);
    }
}

/**
 * Writes what `applyChanges` has accepted, in an order in which every foreign key holds all the way: what
 * makes circles is taken off, new and changed rows come from the root outwards, what makes circles is put on,
 * then what goes goes the other way.
 */
// eslint-disable-next-line complexity -- the order in which references let rows be written and deleted
export async function writeChanges(tx: Tx, site: string, changes: readonly Change[]): Promise<void> {
  for (const change of changes)
    if (change.kind === "site" && change.after !== null) await updateSite(tx, change.after);
  const links = changesOf(changes, "link");
  for (const run of inRuns(links.filter((c) => c.before !== null).map((c) => c.id)))
    await tx.run(deleteRows("link_end", "link_id", site, run));
  const late: LateReferences = new Map();
  await runAll(tx, putRows(site, changes, late));
  await runAll(tx, putLate(site, changes, late));
  const backwards = [...COLLECTION_KINDS].reverse();
  for (const kind of backwards) {
    const reference = LATE[kind];
    for (const run of reference === undefined ? [] : inRuns(gone(changes, kind)))
      await tx.run(clearReference(reference?.table ?? "", reference?.column ?? "", site, run));
  }
  for (const kind of backwards)
    for (const run of inRuns(gone(changes, kind)))
      await tx.run(deleteRows(ROW_MAPS[kind].table, "id", site, run));
}

/** Rows of three values in one statement. */
const TOUCHED_AT_ONCE = 2000;

/** Notes which entities a batch touched. */
export async function writeTouched(
  tx: Tx,
  site: string,
  revision: number,
  changes: readonly Change[],
): Promise<void> {
  function* statements(): Generator<Statement> {
    for (let from = 0; from < changes.length; from += TOUCHED_AT_ONCE)
      yield insertTouched(changes.slice(from, from + TOUCHED_AT_ONCE).map(({ id }) => [site, id, revision]));
  }
  await runAll(tx, statements());
}

/** Removes a site and everything of it. */
export async function deleteSite(tx: Tx, site: string): Promise<void> {
  for (const { table, column } of Object.values(LATE)) await tx.run(clearAllOfSite(table, column, site));
  await tx.run(deleteAllOfSite("link_end", site));
  for (const kind of [...COLLECTION_KINDS].reverse())
    await tx.run(deleteAllOfSite(ROW_MAPS[kind].table, site));
  await tx.run(deleteAllOfSite("change_touch", site));
  await tx.run(deleteAllOfSite("change_batch", site));
  await tx.run(sql`DELETE FROM presence WHERE site_id = ${site}`);
  await tx.run(sql`DELETE FROM role_grant WHERE scope = 'site' AND scope_id = ${site}`);
  await tx.run(sql`DELETE FROM pass WHERE scope = 'site' AND scope_id = ${site}`);
  await tx.run(sql`DELETE FROM site WHERE id = ${site}`);
}
