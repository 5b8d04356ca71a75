import type { Change, ChangeBatch, Plan, Site } from "@/core/plan";
import type { LoggedBatch } from "@/core/formats";
import type { DrillProgress, DrillTry } from "@/core/drills";
import type { Photo, RecordEntry } from "@/core/records";
import type { Role } from "./roles";

export interface Person {
  readonly id: string;
  readonly name: string;
}

export interface SiteSummary {
  readonly id: string;
  readonly name: string;
  readonly kind: Site["kind"];
  /** The customer in whose folder it lies; null for none. */
  readonly customer: string | null;
  /** What the person who asks may do on it. */
  readonly role: Role;
  readonly revision: number;
  readonly changedAt: string;
  /** Who made the newest change; null for a site in which nobody has changed anything. */
  readonly changedBy: string | null;
  readonly segments: number;
  readonly devices: number;
  readonly hosts: number;
}

/** One line of the change log without the changes themselves. */
export interface LogLine {
  readonly revision: number;
  readonly id: string;
  readonly author: string;
  /** The name of who made it: of anybody, where it came with a plan file. */
  readonly authorName: string;
  /** Whether it came with the plan file that the site began with: `author` is who imported that. */
  readonly isFromFile: boolean;
  readonly madeAt: string;
  readonly planner: string;
  readonly summary: string;
  readonly undoes: string | null;
  readonly redoes: string | null;
  readonly changeCount: number;
}
export interface LogEntry extends LogLine {
  readonly changes: readonly Change[];
}

export interface NewEntry {
  readonly revision: number;
  readonly batch: ChangeBatch;
  readonly by: Person;
  readonly undoes: string | null;
  readonly redoes: string | null;
}
/** One that comes with a plan file: who made it there, and when. */
export interface ToldEntry extends NewEntry {
  readonly said: Pick<LoggedBatch, "by" | "at">;
}

/** A deleted site, as long as it can be brought back. */
export interface BinnedSite {
  readonly id: string;
  readonly name: string;
  readonly deletedAt: string;
  readonly deletedBy: string;
  /** When it goes for good. */
  readonly endsAt: string;
  /** Whether that is over, and the next look at the bin takes it away. */
  readonly isOver: boolean;
}
/** What is written down of what was done with a whole site. */
export type SiteDeed = "site-made" | "site-deleted" | "site-back" | "site-forgotten";
/** What is done with the bin inside a transaction. */
export interface BinTx {
  /** Puts a locked site into the bin: from then on it is nowhere else. */
  readonly toBin: (site: string, by: Person) => Promise<void>;
  /** Locks a site in the bin until the transaction ends; null when it is not there. */
  readonly lockInBin: (site: string) => Promise<string | null>;
  /** Writes down who did what with the site, in the same transaction as that. */
  readonly note: (by: Person, site: string, what: SiteDeed) => Promise<void>;
  readonly outOfBin: (site: string) => Promise<void>;
}

/** What a use case may do inside one transaction. */
export interface PlanTx extends BinTx {
  /** Locks the site's row until the transaction ends; its revision, or null without such a site. */
  readonly lockSite: (site: string) => Promise<number | null>;
  /** The plan at that revision; kept between requests, so that most answers need no reading. */
  readonly planAt: (site: string, revision: number) => Promise<Plan>;
  /** A new site in a customer's folder; null for none. */
  readonly addSite: (site: Site, customer: string | null) => Promise<void>;
  /** Begins the record of a new site with what came with its plan file. */
  readonly beginRecord: (site: string, by: Person, entries: readonly SaidEntry[]) => Promise<void>;
  /** Writes the plan of a new site, and begins its log with what led to that. */
  readonly beginLog: (site: string, entries: readonly ToldEntry[], plan: Plan) => Promise<void>;
  /** Pictures of photos that its record names. */
  readonly addPhotos: (site: string, photos: readonly Photo[]) => Promise<void>;
  /** For good, with everything that it has. */
  readonly removeSite: (site: string) => Promise<void>;
  /**
   * Writes the rows, appends to the log and moves the revision on; `after` is the plan that `changes` led to.
   */
  readonly write: (site: string, entry: NewEntry, after: Plan) => Promise<void>;
  readonly findEntry: (site: string, batch: string) => Promise<LogEntry | null>;
  /** Entries after a revision, oldest first. */
  readonly entriesAfter: (site: string, revision: number) => Promise<LogEntry[]>;
  readonly ownLines: OwnLines;
}

/**
 * What one person did here before a revision, newest first, at most `limit` lines: what undo and redo need.
 * What came with a plan file is nobody's own.
 */
export type OwnLines = (site: string, author: string, before: number, limit: number) => Promise<LogLine[]>;

export interface PlanStore {
  readonly transaction: <T>(work: (tx: PlanTx) => Promise<T>) => Promise<T>;
  /** The sites on which a person has a role; null for a program of ours, which sees all. */
  readonly listSites: (person: string | null) => Promise<SiteSummary[]>;
  /** The sites in the bin that a person owns, what was deleted last first; null for whoever clears it. */
  readonly bin: (owner: string | null) => Promise<BinnedSite[]>;
  /** The site's name, or null without such a site. */
  readonly nameOf: (site: string) => Promise<string | null>;
  readonly ownLines: OwnLines;
  /** The batches before a revision, newest first, at most `limit`: as they go with a plan file. */
  readonly batchesBefore: (site: string, revision: number, limit: number) => Promise<LoggedBatch[]>;
  /** The revision and what came after another, without waiting for anybody; null without such a site. */
  readonly news: (site: string, after: number) => Promise<{ revision: number; entries: LogEntry[] } | null>;
  /** The plan and its revision as one moment saw them; null without such a site. */
  readonly snapshot: (site: string) => Promise<{ plan: Plan; revision: number } | null>;
  /**
   * The newest lines before a revision that are asked for, newest first. Null without such a site.
   */
  readonly history: (site: string, asked: HistoryAsked, limit: number) => Promise<LogLine[] | null>;
  /**
   * The newest batches before a revision that touched some entities, each with what it did to these alone,
   * newest first. Null without such a site.
   */
  readonly touched: (site: string, asked: TouchedAsked, limit: number) => Promise<LogEntry[] | null>;
}

/** Which entities are asked about, by their ids, and before which revision. */
export interface TouchedAsked {
  readonly before: number;
  readonly about: readonly string[];
}

/** Which lines of the history are asked for. */
export interface HistoryAsked {
  readonly before: number;
  /** Ids of entities: only what touched one of them; null for all. */
  readonly about: readonly string[] | null;
  /** The name of whoever made it; null for everybody. */
  readonly by: string | null;
  /** ISO 8601 instants in UTC: made from this one on, and before that one; null without an end. */
  readonly from: string | null;
  readonly until: string | null;
}

/** An entry of a site's record as it is stored, in its text form: its place in the record, and who made it. */
export interface StoredRecord {
  readonly number: number;
  readonly by: string;
  readonly entry: unknown;
}

/** An entry with who did it, where that is somebody of another machine; null for whoever adds it. */
export interface SaidEntry {
  readonly entry: RecordEntry;
  readonly saidBy: string | null;
}

export interface RecordStore {
  /** Entries after a place, oldest first, at most `limit`, and the last place; null without such a site. */
  readonly after: (
    site: string,
    number: number,
    limit: number,
  ) => Promise<{ readonly entries: StoredRecord[]; readonly last: number } | null>;
  /**
   * Adds entries that are not there yet, in their order, and answers how many there are then; "full" where that
   * would be more than `most`, and nothing is added. Null without such a site.
   */
  readonly add: (
    site: string,
    by: Person,
    entries: readonly SaidEntry[],
    most: number,
  ) => Promise<number | "full" | null>;
}

export interface PhotoStore {
  /** A photo's picture; null where there is none, or none any more. */
  readonly read: (site: string, id: string) => Promise<Uint8Array<ArrayBuffer> | null>;
  /**
   * "unnamed" where no step of the record names it, "full" where the site has `most` others; null without such
   * a site.
   */
  readonly add: (site: string, photo: Photo, most: number) => Promise<"added" | "unnamed" | "full" | null>;
}

/** How far somebody has come with one drill. */
export interface TriedDrill extends DrillProgress {
  readonly person: string;
  readonly name: string;
}
export interface DrillStore {
  /** Counts a try; the last one of a drill sent again counts once. */
  readonly add: (person: string, tried: DrillTry) => Promise<void>;
  /** Everybody's by name, or one person's. */
  readonly all: (limit: number, person: string | null) => Promise<TriedDrill[]>;
}
