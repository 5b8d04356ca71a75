import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import { decodeEntry, encodeEntry, type RecordEntry } from "@/core/records";

// Entries that the server does not have yet, one by one, shared by all tabs: an entry counts once however often
// it is sent. Beside them what the server had when it was last asked, so that a page without a connection has
// the record, too.

/** An entry of the server's, in the form in which it came. */
export interface FromServer {
  readonly number: number;
  readonly by: string;
  readonly entry: unknown;
}
interface Schema extends DBSchema {
  readonly outbox: {
    readonly key: [site: string, id: string];
    readonly value: {
      readonly site: string;
      readonly id: string;
      readonly person: string;
      readonly entry: unknown;
    };
  };
  readonly record: {
    readonly key: [site: string, number: number];
    readonly value: FromServer & { readonly site: string };
  };
}

/** What is kept for a site in this browser; every question is answered with nothing where it keeps nothing. */
export interface Outbox {
  /** What this person has made and the server does not have, oldest first. */
  readonly waiting: () => Promise<RecordEntry[]>;
  /** What the server had. */
  readonly known: () => Promise<FromServer[]>;
  /** False where this browser could not keep it. */
  readonly put: (entry: RecordEntry) => Promise<boolean>;
  readonly remove: (ids: readonly string[]) => Promise<void>;
  readonly learn: (entries: readonly FromServer[]) => Promise<void>;
  /** The site's record was begun anew elsewhere: what was known of it is not true any more. */
  readonly forget: () => Promise<void>;
}

const DATABASE = "dianome-record";
const LAST = "\uffff";

const openDatabase = (): Promise<IDBPDatabase<Schema>> =>
  openDB<Schema>(DATABASE, 1, {
    upgrade: (db) => {
      db.createObjectStore("outbox", { keyPath: ["site", "id"] });
      db.createObjectStore("record", { keyPath: ["site", "number"] });
    },
  });

/** Who signs out leaves nothing here of what the server has; what it does not have yet stays. */
export async function forgetRecords(): Promise<void> {
  try {
    const db = await openDatabase();
    await db.clear("record");
    db.close();
  } catch {
    // A browser that keeps nothing has nothing to forget.
  }
}

/** The outbox of a person for a site. */
export function makeOutbox(site: string, person: string): Outbox {
  let database: Promise<IDBPDatabase<Schema>> | null = null;
  const open = () => (database ??= openDatabase());
  /** A browser without a database, or a full one, says so in many ways; the page goes on with what it has. */
  const tried = async <T>(work: (db: IDBPDatabase<Schema>) => Promise<T>, otherwise: T): Promise<T> => {
    try {
      return await work(await open());
    } catch {
      return otherwise;
    }
  };
  const ofSite = () => IDBKeyRange.bound([site], [site, LAST]);
  return {
    waiting: () =>
      tried(async (db) => {
        const all = await db.getAll("outbox", ofSite());
        return all.flatMap((one) => (one.person === person ? (decodeEntry(one.entry) ?? []) : []));
      }, []),
    known: () => tried((db) => db.getAll("record", ofSite()), []),
    put: (entry) =>
      tried(async (db) => {
        await db.put("outbox", { site, id: entry.id, person, entry: encodeEntry(entry) });
        return true;
      }, false),
    remove: (ids) =>
      tried(async (db) => {
        const { store, done } = db.transaction("outbox", "readwrite");
        for (const id of ids) await store.delete([site, id]);
        await done;
      }, undefined),
    learn: (entries) =>
      tried(async (db) => {
        const { store, done } = db.transaction("record", "readwrite");
        for (const { number, by, entry } of entries) await store.put({ site, number, by, entry });
        await done;
      }, undefined),
    forget: () => tried((db) => db.delete("record", ofSite()), undefined),
  };
}
