import {
  deviceExports,
  encodePlanSliced,
  SITE_EXPORTS,
  zoneExports,
  type ExportContent,
  type SiteExport,
} from "@/core/formats";
import { err, ok, type Result } from "@/core/kernel";
import { PlanIndex, type Plan } from "@/core/plan";
import {
  photosOf,
  photosToFile,
  recordExports,
  recordsToFile,
  type Photo,
  type Recorded,
} from "@/core/records";
import type { Deed, DeedStore } from "./account-stores";
import { NO_SUCH_EXPORT, NO_SUCH_SITE, type AppError } from "./errors";
import { pauseAfterAWhile } from "./in-slices";
import type { Pass, PassStore } from "./passes";
import { wholeRecord } from "./records";
import type { Person, PhotoStore, PlanStore, RecordStore } from "./stores";

// Files that leave a plan by the server, for whoever is signed in and for machines with a token.

export interface ExportDoor {
  readonly plans: PlanStore;
  readonly records: RecordStore;
  readonly photos: PhotoStore;
  readonly passes: PassStore;
  readonly deeds: DeedStore;
}
/** Who fetches: somebody who is signed in, or a machine with its address. */
export type Fetcher = { readonly person: Person } | { readonly pass: Pass; readonly cameFrom: string };

export interface ExportLine {
  readonly file: string;
  readonly type: string;
  readonly what: string;
  readonly about: string;
}
const PLAN_FILE: ExportLine = {
  file: "plan.json",
  type: "application/json",
  what: "Plan file",
  about: "Everything in the plan, and what was done on site with its photos.",
};

/** All files of a site but the plan file. */
const exportsOf = (
  index: PlanIndex,
  revision: number,
  record: readonly Recorded[],
): readonly SiteExport[] => [
  ...SITE_EXPORTS,
  ...recordExports(record),
  ...zoneExports(index, revision),
  ...deviceExports(index),
];

/** The files that can be fetched of a site as it is now. */
export async function listExports(
  plans: PlanStore,
  site: string,
): Promise<Result<readonly ExportLine[], AppError>> {
  const now = await plans.snapshot(site);
  if (now === null) return err(NO_SUCH_SITE);
  const rest = exportsOf(PlanIndex.of(now.plan), now.revision, []);
  return ok([PLAN_FILE, ...rest.map(({ file, type, what, about }) => ({ file, type, what, about }))]);
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

/** The plan file, written in slices: an estate's has tens of megabytes. */
async function planFile({ records, photos }: ExportDoor, site: string, plan: Plan): Promise<string> {
  const record = await wholeRecord(records, site);
  const pieces = await encodePlanSliced(plan, pauseAfterAWhile());
  const taken = photosToFile(await photosIn(photos, site, record));
  const beside = [
    ...(record.length === 0 ? [] : [`,"records":${JSON.stringify(recordsToFile(record))}`]),
    ...(taken.length === 0 ? [] : [`,"photos":${JSON.stringify(taken)}`]),
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

/** A file of a site as it is now, and its type. */
export async function fetchExport(
  door: ExportDoor,
  by: Fetcher,
  { site, file, today }: { readonly site: string; readonly file: string; readonly today: string },
): Promise<Result<{ readonly type: string; readonly content: ExportContent }, AppError>> {
  const now = await door.plans.snapshot(site);
  if (now === null) return err(NO_SUCH_SITE);
  const { plan, revision } = now;
  if (file === PLAN_FILE.file) {
    await noteFetch(door, by, site, file);
    return ok({ type: PLAN_FILE.type, content: { is: "text", text: await planFile(door, site, plan) } });
  }
  const index = PlanIndex.of(plan, today);
  const record = await wholeRecord(door.records, site);
  const found = exportsOf(index, revision, record).find((one) => one.file === file);
  if (found === undefined) return err(NO_SUCH_EXPORT);
  await noteFetch(door, by, site, file);
  return ok({ type: found.type, content: found.make(index) });
}
