import "server-only";
import { pauseAfterAWhile } from "@/application/in-slices";
import { ROLES } from "@/application/roles";
import type {
  LogEntry,
  NewEntry,
  OwnLines,
  PlanStore,
  PlanTx,
  SiteSummary,
  ToldEntry,
  TouchedAsked,
} from "@/application/stores";
import { decodeChanges, encodeChangesSliced } from "@/core/formats";
import { grouped } from "@/core/kernel";
import { diff, emptyPlan, type Plan } from "@/core/plan";
import { batches, entries, entryOf, FROM, LINE, lineOf, lines, loggedOf, textOrNull } from "./log-rows";
import { deleteSite, insertSite, readPlan, writeChanges, writeTouched } from "./plan-rows";
import { binOn, binTx } from "./bin";
import { cacheKey, type CachedPlan, type PlanCache } from "./plan-cache";
import { instant, type Database, type Row, type Tx } from "./pool";
import { putPhoto } from "./photo-store";
import { insertEntries } from "./record-store";
import { sql, sqlAfter } from "./sql";

/** An instant as the database writes it: in UTC, with milliseconds. */
const asStored = (text: string): string => text.replace("T", " ").replace("Z", "");
const FIRST_INSTANT = "1000-01-01T00:00:00.000Z";
const LAST_INSTANT = "9999-12-31T23:59:59.999Z";

const ownLinesOn =
  (tx: Tx): OwnLines =>
  (site, author, before, limit) =>
    tx.all(
      lines`WHERE b.site_id = ${site} AND b.person_id = ${author} AND b.said_by IS NULL
        AND b.revision < ${before} ORDER BY b.revision DESC LIMIT ${limit}`,
      lineOf,
    );

/**
 * A site as it stands: its revision, and when it was made, which tells it from one of the same id that was
 * deleted.
 */
interface Standing {
  readonly revision: number;
  readonly made: string;
}
const standingOf = (row: Row): Standing => ({ revision: Number(row.revision), made: String(row.made_at) });

async function appendToLog(
  tx: Tx,
  site: string,
  { revision, batch, by, undoes, redoes }: NewEntry,
  said: ToldEntry["said"] | null,
): Promise<void> {
  const changes = await encodeChangesSliced(batch.changes, pauseAfterAWhile());
  const at = said === null ? null : asStored(said.at);
  await tx.run(sql`INSERT INTO change_batch
      (site_id, revision, id, person_id, said_by, made_at, planner, summary, args,
      undoes, redoes, change_count, changes)
    VALUES (${site}, ${revision}, ${batch.id}, ${by.id}, ${said?.by ?? null}, COALESCE(${at}, UTC_TIMESTAMP(3)),
      ${batch.planner}, ${batch.summary}, ${JSON.stringify(batch.args ?? null)}, ${undoes}, ${redoes},
      ${batch.changes.length}, ${changes})`);
  await writeTouched(tx, site, revision, batch.changes);
}

/**
 * Plans of a transaction's batches: kept apart until the commit, since a plan of a batch that was rolled back
 * must never be answered.
 */
type Fresh = Map<string, CachedPlan>;

function planTx(tx: Tx, cache: PlanCache, fresh: Fresh): PlanTx {
  const standing = new Map<string, Standing>();
  const keyOf = (site: string): string => cacheKey(site, standing.get(site)?.made ?? "");
  const lockSite = async (site: string): Promise<number | null> => {
    const found = await tx.maybeOne(
      sql`SELECT revision, made_at FROM site WHERE id = ${site} AND deleted_at IS NULL FOR UPDATE`,
      standingOf,
    );
    if (found !== null) standing.set(site, found);
    return found?.revision ?? null;
  };
  const moveOn = async (site: string, revision: number, plan: Plan): Promise<void> => {
    await tx.run(
      sql`UPDATE site SET revision = ${revision}, changed_at = UTC_TIMESTAMP(3) WHERE id = ${site}`,
    );
    fresh.set(keyOf(site), { revision, plan });
  };
  return {
    lockSite,
    planAt: async (site, revision) => {
      const known = cache.get(keyOf(site), revision);
      if (known !== null) return known;
      const plan = await readPlan(tx, site);
      if (plan === null) throw new Error(`Site ${site} is locked and yet not there`);
      return plan;
    },
    addSite: async (site, customer) => {
      await insertSite(tx, site);
      if (customer !== null)
        await tx.run(sql`UPDATE site SET customer_id = ${customer} WHERE id = ${site.id}`);
      await lockSite(site.id);
    },
    beginRecord: (site, by, entries) => insertEntries(tx, { site, by, last: 0 }, entries),
    addPhotos: async (site, photos) => {
      for (const photo of photos) await putPhoto(tx, site, photo);
    },
    removeSite: (site) => deleteSite(tx, site),
    ...binTx(tx),
    write: async (site, { revision, batch, by, undoes, redoes }, after) => {
      await writeChanges(tx, site, batch.changes);
      await appendToLog(tx, site, { revision, batch, by, undoes, redoes }, null);
      await moveOn(site, revision, after);
    },
    beginLog: async (site, told, plan) => {
      await writeChanges(tx, site, diff(emptyPlan(plan.site), plan));
      for (const entry of told) await appendToLog(tx, site, entry, entry.said);
      await moveOn(site, told.at(-1)?.revision ?? 0, plan);
    },
    findEntry: (site, batch) => tx.maybeOne(entries`WHERE b.site_id = ${site} AND b.id = ${batch}`, entryOf),
    entriesAfter: (site, revision) =>
      tx.all(entries`WHERE b.site_id = ${site} AND b.revision > ${revision} ORDER BY b.revision`, entryOf),
    ownLines: ownLinesOn(tx),
  };
}

const summaryOf = (row: Row): SiteSummary => ({
  id: String(row.id),
  name: String(row.name),
  kind: row.kind as SiteSummary["kind"],
  customer: textOrNull(row.customer),
  role: ROLES[Number(row.role_rank) - 1] ?? "viewer",
  revision: Number(row.revision),
  changedAt: instant(row.changed_at),
  changedBy: textOrNull(row.changed_by),
  segments: Number(row.segments),
  devices: Number(row.devices),
  hosts: Number(row.hosts),
});

// eslint-disable-next-line max-lines-per-function -- one store, a statement for each of its questions
export function planStore(database: Database, cache: PlanCache): PlanStore {
  const standing = (tx: Tx, site: string) =>
    tx.maybeOne(
      sql`SELECT revision, made_at FROM site WHERE id = ${site} AND deleted_at IS NULL`,
      standingOf,
    );
  return {
    transaction: async (work) => {
      const fresh: Fresh = new Map();
      const result = await database.transaction((tx) => {
        fresh.clear();
        return work(planTx(tx, cache, fresh));
      });
      for (const [key, { revision, plan }] of fresh) cache.put(key, revision, plan);
      return result;
    },
    listSites: (person) =>
      database.all(
        sql`SELECT s.id, s.name, s.kind, s.revision, s.changed_at, c.name AS customer,
        IF(${person} IS NULL, 4, (SELECT MAX(FIELD(g.role, 'viewer', 'field', 'editor', 'owner'))
          FROM role_grant g WHERE g.person_id = ${person}
            AND (g.scope = 'all' OR (g.scope = 'site' AND g.scope_id = s.id)
            OR (g.scope = 'customer' AND g.scope_id = s.customer_id)))) AS role_rank,
        (SELECT COUNT(*) FROM segment g WHERE g.site_id = s.id) AS segments,
        (SELECT COUNT(*) FROM device d WHERE d.site_id = s.id) AS devices,
        (SELECT COUNT(*) FROM host h WHERE h.site_id = s.id) AS hosts,
        (SELECT COALESCE(b.said_by, p.name) FROM change_batch b JOIN person p ON p.id = b.person_id
          WHERE b.site_id = s.id AND b.revision = s.revision) AS changed_by
      FROM site s LEFT JOIN customer c ON c.id = s.customer_id
      WHERE s.deleted_at IS NULL HAVING role_rank IS NOT NULL ORDER BY c.name IS NULL, c.name, s.name, s.id`,
        summaryOf,
      ),
    nameOf: (site) =>
      database.maybeOne(sql`SELECT name FROM site WHERE id = ${site} AND deleted_at IS NULL`, (row) =>
        String(row.name),
      ),
    ownLines: ownLinesOn(database),
    batchesBefore: (site, revision, limit) =>
      database.all(
        batches`WHERE b.site_id = ${site} AND b.revision < ${revision} ORDER BY b.revision DESC LIMIT ${limit}`,
        loggedOf,
      ),
    news: async (site, after) => {
      const now = await standing(database, site);
      if (now === null) return null;
      const came =
        now.revision <= after
          ? []
          : await database.all(
              entries`WHERE b.site_id = ${site} AND b.revision > ${after} AND b.revision <= ${now.revision}
                ORDER BY b.revision`,
              entryOf,
            );
      return { revision: now.revision, entries: came };
    },
    // One transaction reads one moment (InnoDB's repeatable read): nobody who writes has to wait for it.
    snapshot: (site) =>
      database.transaction(async (tx) => {
        const now = await standing(tx, site);
        if (now === null) return null;
        const key = cacheKey(site, now.made);
        const known = cache.get(key, now.revision);
        const plan = known ?? (await readPlan(tx, site));
        if (plan === null) return null;
        if (known === null) cache.put(key, now.revision, plan);
        return { plan, revision: now.revision };
      }),
    history: async (site, { before, about, by, from, until }, limit) => {
      if ((await standing(database, site)) === null) return null;
      const [first, end] = [from ?? FIRST_INSTANT, until ?? LAST_INSTANT].map(asStored) as [string, string];
      return database.all(
        about === null
          ? lines`WHERE b.site_id = ${site} AND b.revision < ${before}
              AND (${by} IS NULL OR COALESCE(b.said_by, p.name) = ${by})
              AND b.made_at >= ${first} AND b.made_at < ${end}
              ORDER BY b.revision DESC LIMIT ${limit}`
          : lines`JOIN (SELECT DISTINCT t.revision
                FROM JSON_TABLE(${JSON.stringify(about)}, '$[*]' COLUMNS (id CHAR(36) PATH '$')) asked
                JOIN change_touch t ON t.site_id = ${site} AND t.entity_id = CAST(asked.id AS UUID)
                WHERE t.revision < ${before}) touched ON touched.revision = b.revision
            WHERE b.site_id = ${site} AND (${by} IS NULL OR COALESCE(b.said_by, p.name) = ${by})
              AND b.made_at >= ${first} AND b.made_at < ${end}
              ORDER BY b.revision DESC LIMIT ${limit}`,
        lineOf,
      );
    },
    bin: (owner) => binOn(database, owner),
    touched: async (site, asked, limit) =>
      (await standing(database, site)) === null ? null : touchedOn(database, site, asked, limit),
  };
}

/** Where a batch has its change of an entity, as a path into its changes. */
const ONE_CHANGE =
  "JSON_EXTRACT(b.changes, " +
  "REPLACE(JSON_UNQUOTE(JSON_SEARCH(b.changes, 'one', t.entity_id, NULL, '$[*].id')), '.id', ''))";
const touches = sqlAfter(
  `${LINE}, ${ONE_CHANGE} AS changed ${FROM} ` +
    "JOIN change_touch t ON t.site_id = b.site_id AND t.revision = b.revision",
);

/** A batch makes a whole site, too: only what it did to what is asked about leaves the database. */
async function touchedOn(
  database: Database,
  site: string,
  { before, about }: TouchedAsked,
  limit: number,
): Promise<LogEntry[]> {
  const ids = JSON.stringify(about);
  const rows = await database.all(
    touches`JOIN JSON_TABLE(${ids}, '$[*]' COLUMNS (id CHAR(36) PATH '$')) asked
        ON t.entity_id = CAST(asked.id AS UUID)
      JOIN (SELECT DISTINCT t.revision
          FROM JSON_TABLE(${ids}, '$[*]' COLUMNS (id CHAR(36) PATH '$')) asked
          JOIN change_touch t ON t.site_id = ${site} AND t.entity_id = CAST(asked.id AS UUID)
          WHERE t.revision < ${before} ORDER BY t.revision DESC LIMIT ${limit}) newest
        ON newest.revision = b.revision
      WHERE b.site_id = ${site} ORDER BY b.revision DESC`,
    (row) => ({ line: lineOf(row), changed: JSON.parse(String(row.changed)) as unknown }),
  );
  return [...grouped(rows, ({ line }) => line.id).values()].flatMap((own) => {
    const [first] = own;
    return first === undefined
      ? []
      : [{ ...first.line, changes: decodeChanges(own.map(({ changed }) => changed)) }];
  });
}
