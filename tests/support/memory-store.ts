import type { LogEntry, LogLine, NewEntry, Person, PlanStore, PlanTx } from "@/application/stores";
import { must } from "@/core/kernel";
import { emptyPlan, type Plan } from "@/core/plan";

interface Kept {
  plan: Plan;
  revision: number;
  log: LogEntry[];
}

/**
 * The stores' contract in memory, one transaction at a time: what the browser's side is tried against without
 * a database.
 */
export function memoryStore(): PlanStore {
  const sites = new Map<string, Kept>();
  let last: Promise<unknown> = Promise.resolve();
  const ownLines = async (site: string, author: string, before: number, limit: number): Promise<LogLine[]> =>
    (sites.get(site)?.log ?? [])
      .filter((line) => line.author === author && line.revision < before)
      .reverse()
      .slice(0, limit);
  const entryOf = ({ revision, batch, by, undoes, redoes }: NewEntry): LogEntry => ({
    revision,
    id: batch.id,
    author: by.id,
    authorName: by.name,
    isFromFile: false,
    madeAt: "2026-11-27T12:00:00Z",
    planner: batch.planner,
    summary: batch.summary,
    undoes,
    redoes,
    changeCount: batch.changes.length,
    changes: batch.changes,
  });
  const tx: PlanTx = {
    lockSite: async (site) => sites.get(site)?.revision ?? null,
    planAt: async (site) => must(sites.get(site), "the site").plan,
    addSite: async (site) => {
      sites.set(site.id, { plan: emptyPlan(site), revision: 0, log: [] });
    },
    beginRecord: async (_site, _by, entries) => {
      if (entries.length > 0) throw new Error("A site in memory keeps no record");
    },
    beginLog: () => Promise.reject(new Error("A site in memory comes without a history")),
    addPhotos: async (_site, photos) => {
      if (photos.length > 0) throw new Error("A site in memory keeps no photos");
    },
    removeSite: async (site) => {
      sites.delete(site);
    },
    note: async () => undefined,
    toBin: () => Promise.reject(new Error("A store in memory has no bin")),
    lockInBin: async () => null,
    outOfBin: () => Promise.reject(new Error("A store in memory has no bin")),
    write: async (site, entry, after) => {
      const kept = must(sites.get(site), "the site");
      sites.set(site, { plan: after, revision: entry.revision, log: [...kept.log, entryOf(entry)] });
    },
    findEntry: async (site, batch) => sites.get(site)?.log.find(({ id }) => id === batch) ?? null,
    entriesAfter: async (site, revision) =>
      (sites.get(site)?.log ?? []).filter((entry) => entry.revision > revision),
    ownLines,
  };
  return {
    transaction: (work) => {
      const result = last.then(() => work(tx));
      last = result.catch(() => null);
      return result;
    },
    listSites: async () => [],
    bin: async () => [],
    nameOf: async (site) => sites.get(site)?.plan.site.name ?? null,
    ownLines,
    batchesBefore: async () => [],
    news: async (site, after) => {
      const kept = sites.get(site);
      return kept === undefined
        ? null
        : { revision: kept.revision, entries: kept.log.filter((entry) => entry.revision > after) };
    },
    snapshot: async (site) => sites.get(site) ?? null,
    history: async (site) => sites.get(site)?.log ?? null,
    touched: async (site) => sites.get(site)?.log ?? null,
  };
}

export const RUTH: Person = { id: "00000000-0000-7000-8000-00000000000a", name: "Ruth" };
export const MAREK: Person = { id: "00000000-0000-7000-8000-00000000000b", name: "Marek" };
