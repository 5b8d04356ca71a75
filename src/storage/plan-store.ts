import "server-only";
import type { LogEntry, LogLine, PlanStore, PlanTx, SiteSummary } from "@/application/stores";
import { decodeChanges, encodeChanges } from "@/core/formats";
import type { Plan } from "@/core/plan";
import { deleteSite, insertSite, readPlan, writeChanges } from "./plan-rows";
import type { PlanCache } from "./plan-cache";
import type { Database, Row, Tx } from "./pool";
import { sql, sqlAfter } from "./sql";

const instant = (value: unknown): string => `${String(value).replace(" ", "T")}Z`;
const textOrNull = (value: unknown): string | null => (value === null ? null : String(value));

const LINE = "SELECT b.revision, b.id, b.person_id, p.name AS person_name, b.made_at, b.planner, b.summary, b.undoes, b.redoes, b.change_count";
const FROM = "FROM change_batch b JOIN person p ON p.id = b.person_id";
const lines = sqlAfter(`${LINE} ${FROM}`);
const entries = sqlAfter(`${LINE}, b.changes ${FROM}`);

const lineOf = (row: Row): LogLine => ({
  revision: Number(row.revision), id: String(row.id), author: String(row.person_id), authorName: String(row.person_name), madeAt: instant(row.made_at),
  planner: String(row.planner), summary: String(row.summary), undoes: textOrNull(row.undoes), redoes: textOrNull(row.redoes), changeCount: Number(row.change_count),
});
const entryOf = (row: Row): LogEntry => ({ ...lineOf(row), changes: decodeChanges(JSON.parse(String(row.changes))) });

function planTx(tx: Tx, cache: PlanCache, fresh: Map<string, { revision: number; plan: Plan }>): PlanTx {
  return {
    lockSite: (site) => tx.maybeOne(sql`SELECT revision FROM site WHERE id = ${site} FOR UPDATE`, (row) => Number(row.revision)),
    planAt: async (site, revision) => {
      const known = cache.get(site, revision);
      if (known !== null) return known;
      const plan = await readPlan(tx, site);
      if (plan === null) throw new Error(`Site ${site} is locked and yet not there`);
      return plan;
    },
    addSite: async (site) => { await insertSite(tx, site); },
    removeSite: (site) => deleteSite(tx, site),
    write: async (site, { revision, batch, by, undoes, redoes }, after) => {
      await writeChanges(tx, site, batch.changes);
      await tx.run(sql`INSERT INTO change_batch (site_id, revision, id, person_id, made_at, planner, summary, args, undoes, redoes, change_count, changes)
        VALUES (${site}, ${revision}, ${batch.id}, ${by.id}, UTC_TIMESTAMP(3), ${batch.planner}, ${batch.summary}, ${JSON.stringify(batch.args ?? null)},
          ${undoes}, ${redoes}, ${batch.changes.length}, ${JSON.stringify(encodeChanges(batch.changes))})`);
      await tx.run(sql`UPDATE site SET revision = ${revision}, changed_at = UTC_TIMESTAMP(3) WHERE id = ${site}`);
      fresh.set(site, { revision, plan: after });
    },
    findEntry: (site, batch) => tx.maybeOne(entries`WHERE b.site_id = ${site} AND b.id = ${batch}`, entryOf),
    entriesAfter: (site, revision) => tx.all(entries`WHERE b.site_id = ${site} AND b.revision > ${revision} ORDER BY b.revision`, entryOf),
    logLines: (site) => tx.all(lines`WHERE b.site_id = ${site} ORDER BY b.revision`, lineOf),
  };
}

const summaryOf = (row: Row): SiteSummary => ({
  id: String(row.id), name: String(row.name), kind: row.kind as SiteSummary["kind"], revision: Number(row.revision), changedAt: instant(row.changed_at),
  segments: Number(row.segments), devices: Number(row.devices), hosts: Number(row.hosts),
});

export function planStore(database: Database, cache: PlanCache): PlanStore {
  return {
    transaction: async (work) => {
      // Kept apart until the commit: a plan of a batch that was rolled back must never be answered.
      const fresh = new Map<string, { revision: number; plan: Plan }>();
      const result = await database.transaction((tx) => {
        fresh.clear();
        return work(planTx(tx, cache, fresh));
      });
      for (const [site, { revision, plan }] of fresh) cache.put(site, revision, plan);
      return result;
    },
    listSites: () => database.all(sql`SELECT s.id, s.name, s.kind, s.revision, s.changed_at,
        (SELECT COUNT(*) FROM segment g WHERE g.site_id = s.id) AS segments,
        (SELECT COUNT(*) FROM device d WHERE d.site_id = s.id) AS devices,
        (SELECT COUNT(*) FROM host h WHERE h.site_id = s.id) AS hosts
      FROM site s ORDER BY s.name, s.id`, summaryOf),
    nameOf: (site) => database.maybeOne(sql`SELECT name FROM site WHERE id = ${site}`, (row) => String(row.name)),
    snapshot: (site) => database.transaction(async (tx) => {
      const revision = await tx.maybeOne(sql`SELECT revision FROM site WHERE id = ${site} LOCK IN SHARE MODE`, (row) => Number(row.revision));
      if (revision === null) return null;
      const known = cache.get(site, revision);
      const plan = known ?? (await readPlan(tx, site));
      if (plan === null) return null;
      if (known === null) cache.put(site, revision, plan);
      return { plan, revision };
    }),
    history: (site, before, about, limit) => database.all(about === null
      ? lines`WHERE b.site_id = ${site} AND b.revision < ${before} ORDER BY b.revision DESC LIMIT ${limit}`
      : lines`WHERE b.site_id = ${site} AND b.revision < ${before} AND b.changes LIKE ${`%"id":"${about}"%`} ORDER BY b.revision DESC LIMIT ${limit}`, lineOf),
  };
}
