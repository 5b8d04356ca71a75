import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import { v7 } from "uuid";
import { z } from "zod";
import { batchOf, changeBatchSchema, encodeBatch, upgradedBatches } from "@/core/formats";
import type { ChangeBatch } from "@/core/plan";

// What the server does not have yet, kept in the browser's own database: a list for each tab, so that two
// tabs never write over one another. A tab shows that it lives by holding a lock (Web Locks); the list of one
// that is gone is taken over once.

interface Kept {
  readonly tab: string;
  readonly site: string;
  readonly person: string;
  readonly batches: unknown;
  readonly writtenAt: number;
}
interface Schema extends DBSchema {
  readonly waiting: { readonly key: [tab: string, site: string]; readonly value: Kept };
}

/** What a keeper needs of the browser; tests pass their own. */
export interface Browser {
  readonly tabId: () => string;
  /**
   * Takes the lock of a tab and keeps it as long as the page lives; false when another living page has it.
   * Null without Web Locks.
   */
  readonly claim: ((tab: string) => Promise<boolean>) | null;
  readonly now: () => number;
  /** What versions before kept for a site, and a way to forget it. */
  readonly older: (site: string) => { readonly text: string | null; readonly forget: () => void };
}

export interface Keeper {
  /**
   * What this tab goes on with: its own after a reload, that of closed tabs, and what an older version left.
   */
  readonly restore: () => Promise<ChangeBatch[]>;
  /** Keeps what waits now, instead of what was kept before. */
  readonly keep: (pending: readonly ChangeBatch[]) => void;
  /** Settles when everything handed to `keep` so far is written, or could not be. */
  readonly settled: () => Promise<void>;
  /** Whether closing the tab now would lose changes: they wait, and they are not written. */
  readonly wouldBeLost: () => boolean;
}

const DATABASE = "dianome";
/** Without locks a list counts as a closed tab's once nothing was written to it for so long. */
const LEFT_ALONE_MS = 15 * 60_000;
/** Beyond this, writing it out would hold the page up: the file that it came from is still there. */
const MOST_KEPT = 20_000;

/**
 * Batches as another hand or an older version wrote them; none when they can't be read: they must not keep
 * the plan from opening.
 */
function batchesIn(value: unknown): ChangeBatch[] {
  const read = z.array(changeBatchSchema).safeParse(upgradedBatches(value));
  return read.success ? read.data.map(batchOf) : [];
}

function batchesInText(text: string | null): ChangeBatch[] {
  if (text === null) return [];
  try {
    return batchesIn(JSON.parse(text));
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    return [];
  }
}

const ENCODED = new WeakMap<ChangeBatch, unknown>();
function encoded(batch: ChangeBatch): unknown {
  const known = ENCODED.get(batch) ?? encodeBatch(batch);
  ENCODED.set(batch, known);
  return known;
}

const later = (a: ChangeBatch, b: ChangeBatch): number => (a.id < b.id ? -1 : 1);

// eslint-disable-next-line max-lines-per-function -- one keeper, its states in one closure
export function makeKeeper(
  site: string,
  person: string,
  browser: Browser,
  onChange: (kept: boolean) => void,
): Keeper {
  let database: Promise<IDBPDatabase<Schema>> | null = null;
  const open = () =>
    (database ??= openDB<Schema>(DATABASE, 1, {
      upgrade: (db) => {
        db.createObjectStore("waiting", { keyPath: ["tab", "site"] });
      },
    }));
  let tab = browser.tabId();
  let pending: readonly ChangeBatch[] = [];
  let written: readonly ChangeBatch[] | null = [];
  let writing: Promise<void> | null = null;

  const write = async (batches: readonly ChangeBatch[]): Promise<void> => {
    const count = batches.reduce((sum, batch) => sum + batch.changes.length, 0);
    try {
      const db = await open();
      const tooMany = count > MOST_KEPT;
      if (count === 0 || tooMany) await db.delete("waiting", [tab, site]);
      else
        await db.put("waiting", {
          tab,
          site,
          person,
          batches: batches.map(encoded),
          writtenAt: browser.now(),
        });
      written = tooMany ? null : batches;
    } catch {
      // A browser without a database, or a full one, says so in many ways: what waits is still here and on
      // its way, and the tab warns.
      written = null;
    }
  };

  const writeAll = async (): Promise<void> => {
    for (let wanted = pending; ; wanted = pending) {
      await write(wanted);
      if (wanted === pending) break;
    }
    // With the last look, and not a turn later: what is to be kept in between would be written by nobody.
    writing = null;
    onChange(pending.length === 0 || written === pending);
  };

  const keep = (batches: readonly ChangeBatch[]) => {
    if (batches === pending) return;
    pending = batches;
    writing ??= writeAll();
  };

  /** Lists of this person and site whose tab is gone. */
  const orphans = async (): Promise<Kept[]> => {
    const lists = await (await open()).getAll("waiting");
    const found: Kept[] = [];
    for (const list of lists) {
      if (list.site !== site || list.person !== person || list.tab === tab) continue;
      const isGone =
        browser.claim === null
          ? browser.now() - list.writtenAt > LEFT_ALONE_MS
          : await browser.claim(list.tab);
      if (isGone) found.push(list);
    }
    return found;
  };

  const restore = async (): Promise<ChangeBatch[]> => {
    // A page opened as a copy of another has its name, too: the one that lives keeps it.
    if (browser.claim !== null && !(await browser.claim(tab))) {
      tab = v7();
      await browser.claim(tab);
    }
    const older = browser.older(site);
    const fromBefore = batchesInText(older.text);
    try {
      const own = await (await open()).get("waiting", [tab, site]);
      const lists = await orphans();
      const mine = own?.site === site && own.person === person ? batchesIn(own.batches) : [];
      const all = new Map(
        [...mine, ...fromBefore, ...lists.flatMap((list) => batchesIn(list.batches))].map((batch) => [
          batch.id,
          batch,
        ]),
      );
      const batches = [...all.values()].sort(later);
      // One transaction: whatever happens now, each batch is in exactly one list.
      const transaction = (await open()).transaction("waiting", "readwrite");
      if (batches.length > 0)
        await transaction.store.put({
          tab,
          site,
          person,
          batches: batches.map(encoded),
          writtenAt: browser.now(),
        });
      for (const list of lists) await transaction.store.delete([list.tab, site]);
      await transaction.done;
      older.forget();
      pending = batches;
      written = batches;
      return batches;
    } catch {
      // No database here: what an older version kept stays where it is until it is sent.
      written = null;
      pending = fromBefore;
      onChange(fromBefore.length === 0);
      return fromBefore;
    }
  };

  return {
    restore,
    keep,
    settled: async () => {
      await writing;
    },
    wouldBeLost: () => pending.length > 0 && written !== pending,
  };
}
