import { HISTORY_FILE, loggedText, MOST_BATCHES, planPieces, type ExportContent } from "@/core/formats";
import { err, ok, type Result } from "@/core/kernel";
import { entityCount, PlanIndex, planBefore, type Plan } from "@/core/plan";
import {
  MOST_FILE_BYTES,
  photosOf,
  photosToFile,
  recordsToFile,
  type Photo,
  type Recorded,
} from "@/core/records";
import type { Deed, DeedStore } from "./account-stores";
import { NO_SUCH_EXPORT, NO_SUCH_SITE, type AppError } from "./errors";
import { exportsOf, refused, type Calendars, type ExportLine } from "./export-list";
import { pauseAfterAWhile } from "./in-slices";
import { paperJob, PAPERS, type PaperKind, type PaperMaker } from "./paper-exports";
import type { Pass, PassStore } from "./passes";
import { wholeRecord } from "./records";
import { MOST_ENTITIES } from "./soundness";
import type { Person, PhotoStore, PlanStore, RecordStore } from "./stores";

// Files that leave a plan by the server, for whoever is signed in and for machines with a token.

export interface ExportDoor {
  readonly papers: PaperMaker;
  readonly calendars: Calendars;
  readonly plans: PlanStore;
  readonly records: RecordStore;
  readonly photos: PhotoStore;
  readonly passes: PassStore;
  readonly deeds: DeedStore;
}
/** Who fetches: somebody who is signed in, or a machine with its address. */
export type Fetcher = { readonly person: Person } | { readonly pass: Pass; readonly cameFrom: string };

const PLAN_FILE: ExportLine = {
  file: "plan.json",
  type: "application/json",
  what: "Plan file",
  about: "Everything in the plan, and what was done on site with its photos.",
};

const WITH_HISTORY: ExportLine = {
  file: HISTORY_FILE,
  type: "application/json",
  what: "Plan file with its history",
  about: "The plan file, and every change that made it: who made it when, each value before and after.",
};

/** The files that can be fetched of a site as it is now. */
export async function listExports(
  { plans, calendars }: Pick<ExportDoor, "plans" | "calendars">,
  site: string,
): Promise<Result<readonly ExportLine[], AppError>> {
  const now = await plans.snapshot(site);
  if (now === null) return err(NO_SUCH_SITE);
  const rest = exportsOf(calendars, PlanIndex.of(now.plan), { revision: now.revision, record: [] });
  const lines = [PLAN_FILE, WITH_HISTORY, ...PAPERS, ...rest];
  return ok(lines.map(({ file, type, what, about }) => ({ file, type, what, about })));
}

/** All photos that a record names and the server has. */
async function photosIn(store: PhotoStore, site: string, record: readonly Recorded[]): Promise<Photo[]> {
  const found: Photo[] = [];
  for (const id of new Set(record.flatMap(({ entry }) => photosOf(entry)))) {
    const jpeg = await store.read(site, id);
    if (jpeg !== null) found.push({ id, jpeg });
  }
  return found;
}

const BATCHES_AT_ONCE = 50;
/**
 * The batches that led to a plan, oldest first, as JSON: as far back as each leads to what follows it, which is
 * to the first where none was written in a form that knew less. Null where it is more than a file may hold.
 */
async function historyOf(plans: PlanStore, site: string, now: Standing): Promise<string | null> {
  const breath = pauseAfterAWhile();
  const texts: string[] = [];
  let [then, before, size]: [Plan, number, number] = [now.plan, now.revision + 1, 0];
  for (;;) {
    const page = await plans.batchesBefore(site, before, BATCHES_AT_ONCE);
    for (const logged of page) {
      const earlier = logged.revision === before - 1 ? planBefore(then, [logged.batch.changes]) : null;
      if (earlier === null) return texts.toReversed().join(",");
      const text = await loggedText(logged, breath);
      texts.push(text);
      size += text.length;
      if (size > MOST_FILE_BYTES || texts.length > MOST_BATCHES) return null;
      [then, before] = [earlier, logged.revision];
    }
    if (page.length < BATCHES_AT_ONCE) return texts.toReversed().join(",");
  }
}
interface Standing {
  readonly plan: Plan;
  readonly revision: number;
}

/** What more than a file may hold can't be read again: it is not written either. */
const TOO_LARGE = refused(
  `With its history the plan file would have more than ${Math.floor(MOST_FILE_BYTES / 1_000_000)} MB or ` +
    `${MOST_BATCHES} changes, which no plan file may have. Save it without; a backup of the whole ` +
    "database has it all.",
);

async function fileWithHistory(door: ExportDoor, site: string, now: Standing): Promise<ExportContent> {
  const history = await historyOf(door.plans, site, now);
  if (history === null) return TOO_LARGE;
  const text = await planFile(door, site, now.plan, history);
  const isTooLarge = new TextEncoder().encode(text).length > MOST_FILE_BYTES;
  return isTooLarge ? TOO_LARGE : { is: "text", text };
}

/** The plan file, written in slices: an estate's has tens of megabytes. `history`: as `historyOf` has it. */
async function planFile(
  { records, photos }: ExportDoor,
  site: string,
  plan: Plan,
  history = "",
): Promise<string> {
  const record = await wholeRecord(records, site);
  const pieces: string[] = [];
  for await (const piece of planPieces(plan, pauseAfterAWhile())) pieces.push(piece);
  const taken = photosToFile(await photosIn(photos, site, record));
  const beside = [
    ...(record.length === 0 ? [] : [`,"records":${JSON.stringify(recordsToFile(record))}`]),
    ...(taken.length === 0 ? [] : [`,"photos":${JSON.stringify(taken)}`]),
    ...(history === "" ? [] : [`,"history":[${history}]`]),
  ];
  return [...pieces.slice(0, -1), ...beside, ...pieces.slice(-1), "\n"].join("");
}

/** Writes down that a file was fetched: each by a person, each visit of a machine. */
async function noteFetch(door: ExportDoor, by: Fetcher, site: string, file: string): Promise<void> {
  if ("person" in by) return door.deeds.add(by.person, exported(site, file));
  if (await door.passes.visit(by.pass.id, by.cameFrom))
    await door.deeds.add(null, { what: "fetched", about: `${by.pass.title}: ${file}`, site });
}
const exported = (site: string, file: string): Deed => ({ what: "exported", about: file, site });

/** Writes down that somebody saved a file that their browser made. */
export const noteExport = (
  deeds: DeedStore,
  by: Person,
  { site, file }: { readonly site: string; readonly file: string },
): Promise<void> => deeds.add(by, exported(site, file));

/** What leaves as a file: as the core gives it, or bytes. */
export type Fetched = ExportContent | { readonly is: "bytes"; readonly bytes: Uint8Array<ArrayBuffer> };
interface Wanted {
  readonly site: string;
  readonly file: string;
  /** When: an ISO 8601 instant in UTC. */
  readonly made: string;
}
interface MadeFile {
  readonly type: string;
  readonly content: Fetched;
}

async function papers(
  door: ExportDoor,
  kind: PaperKind,
  { site, made }: Wanted,
  now: Standing,
): Promise<Fetched> {
  const count = entityCount(now.plan);
  if (count > MOST_ENTITIES)
    return refused(
      `The plan has ${count} things; papers are set here of at most ${MOST_ENTITIES}. ` +
        "Whoever opens the site can make them there.",
    );
  if (kind === "drawing" && now.plan.device.size === 0) return NO_GEAR;
  const record = await wholeRecord(door.records, site);
  const photos = await photosIn(door.photos, site, record);
  const job = paperJob(kind, { ...now, record, photos }, { today: made.slice(0, 10), made });
  const bytes = await door.papers.make(job);
  return bytes === null ? NOT_SET : { is: "bytes", bytes };
}
const NOT_SET = refused(
  "It could not be set now: too many others wait for theirs, or it took too long. Try again in a minute.",
);
const NO_GEAR = refused("The plan has no gear yet, so there is nothing to draw.");

async function fileOf(door: ExportDoor, wanted: Wanted, now: Standing): Promise<MadeFile | null> {
  const { site, file } = wanted;
  if (file === PLAN_FILE.file)
    return { type: PLAN_FILE.type, content: { is: "text", text: await planFile(door, site, now.plan) } };
  if (file === WITH_HISTORY.file)
    return { type: WITH_HISTORY.type, content: await fileWithHistory(door, site, now) };
  const paper = PAPERS.find((paper) => paper.file === file);
  if (paper !== undefined) return { type: paper.type, content: await papers(door, paper.kind, wanted, now) };
  const index = PlanIndex.of(now.plan, wanted.made.slice(0, 10));
  const record = await wholeRecord(door.records, site);
  const standing = { revision: now.revision, record };
  const found = exportsOf(door.calendars, index, standing).find((siteExport) => siteExport.file === file);
  return found === undefined ? null : { type: found.type, content: found.make(index) };
}

/** A file of a site as it is now, and its type; what was fetched is written down. */
export async function fetchExport(
  door: ExportDoor,
  by: Fetcher,
  wanted: Wanted,
): Promise<Result<MadeFile, AppError>> {
  const now = await door.plans.snapshot(wanted.site);
  if (now === null) return err(NO_SUCH_SITE);
  const found = await fileOf(door, wanted, now);
  if (found === null) return err(NO_SUCH_EXPORT);
  if (found.content.is !== "refused") await noteFetch(door, by, wanted.site, wanted.file);
  return ok(found);
}
