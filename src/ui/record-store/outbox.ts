import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import { decodeEntry, encodeEntry, type Photo, type RecordEntry } from "@/core/records";

// Entries that the server does not have yet, one by one, shared by all tabs: an entry counts once however often
// it is sent. Beside them what the server had when it was last asked, so that a page without a connection has
// the record, too. Photos wait beside them, and leave once the server has them.

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

/** A database of its own: the other one need not change, which a tab of before would be in the way of. */
interface PhotoSchema extends DBSchema {
  readonly photo: {
    readonly key: [site: string, id: string];
    readonly value: Photo & { readonly site: string; readonly person: string };
  };
}

/** What is kept for a site in this browser; every question is answered with nothing where it keeps nothing. */
export interface Outbox {
  /** What this person has made and the server does not have, oldest first. */
  readonly waiting: () => Promise<RecordEntry[]>;
  /** The photos that this person has taken and the server does not have. */
  readonly photos: () => Promise<Photo[]>;
  /** False where this browser could not keep it. */
  readonly putPhoto: (photo: Photo) => Promise<boolean>;
  readonly removePhoto: (id: string) => Promise<void>;
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
const PHOTO_DATABASE = "dianome-photos";
const LAST = "\uffff";

const openDatabase = (): Promise<IDBPDatabase<Schema>> =>
  openDB<Schema>(DATABASE, 1, {
    upgrade: (db) => {
      db.createObjectStore("outbox", { keyPath: ["site", "id"] });
      db.createObjectStore("record", { keyPath: ["site", "number"] });
    },
  });
const openPhotos = (): Promise<IDBPDatabase<PhotoSchema>> =>
  openDB<PhotoSchema>(PHOTO_DATABASE, 1, {
    upgrade: (db) => {
      db.createObjectStore("photo", { keyPath: ["site", "id"] });
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

/** A browser without a database, or a full one, says so in many ways; the page goes on with what it has. */
function trying<S>(openOne: () => Promise<IDBPDatabase<S>>) {
  let database: Promise<IDBPDatabase<S>> | null = null;
  return async <T>(work: (db: IDBPDatabase<S>) => Promise<T>, otherwise: T): Promise<T> => {
    try {
      return await work(await (database ??= openOne()));
    } catch {
      return otherwise;
    }
  };
}

/** The outbox of a person for a site. */
export function makeOutbox(site: string, person: string): Outbox {
  const tried = trying(openDatabase);
  const triedPhotos = trying(openPhotos);
  const ofSite = () => IDBKeyRange.bound([site], [site, LAST]);
  return {
    waiting: () =>
      tried(async (db) => {
        const all = await db.getAll("outbox", ofSite());
        return all.flatMap((row) => (row.person === person ? (decodeEntry(row.entry) ?? []) : []));
      }, []),
    known: () => tried((db) => db.getAll("record", ofSite()), []),
    put: (entry) =>
      tried(async (db) => {
        await db.put("outbox", { site, id: entry.id, person, entry: encodeEntry(entry) });
        return true;
      }, false),
    photos: () =>
      triedPhotos(async (db) => {
        const all = await db.getAll("photo", ofSite());
        return all.flatMap(({ id, jpeg, person: own }) => (own === person ? { id, jpeg } : []));
      }, []),
    putPhoto: (photo) =>
      triedPhotos(async (db) => {
        await db.put("photo", { site, person, ...photo });
        return true;
      }, false),
    removePhoto: (id) => triedPhotos((db) => db.delete("photo", [site, id]), undefined),
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
