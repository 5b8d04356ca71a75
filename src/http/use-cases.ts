import "server-only";
import { readFileSync } from "node:fs";
import { commitBatch } from "@/application/commit-batch";
import { onBench, readRealDevice, type BenchAct, type Reading } from "@/application/devices";
import { addTry, drillProgress } from "@/application/drills";
import { NOT_ALLOWED, NOT_LISTENING, NOT_IN_BIN, type AppError } from "@/application/errors";
import { history, newsSince, openSite, touched } from "@/application/read-site";
import { foldersOf, mayBegin, ownedOf, roleOn } from "@/application/people";
import { reaches, type Role } from "@/application/roles";
import { soundness } from "@/application/soundness";
import { bringSiteBack, forgetSite, readBin, removeSite } from "@/application/bin";
import { badFile, createSite, storePlan } from "@/application/sites";
import { addPhoto, readPhoto } from "@/application/photos";
import { addToRecord, readRecord } from "@/application/records";
import type { Person } from "@/application/stores";
import { redo, undo, type Step, type Stepped } from "@/application/undo-redo";
import { devices, stores } from "@/composition";
import { config } from "@/config";
import { decodePlanSliced, encodeChanges, historyOfFile } from "@/core/formats";
import { photosOfFile, recordsOfFile } from "@/core/records";
import { err, ok, type Result } from "@/core/kernel";
import { notesOnly } from "@/core/plan";
import {
  STEPS_HEADER,
  type BinnedAnswer,
  TOUCHED_AT_ONCE,
  type CommitAnswer,
  type DrillsAnswer,
  type FoldersAnswer,
  type NewsAnswer,
  type ReadableAnswer,
  type ReadAnswer,
  type RecordAnswer,
  type SiteAnswer,
  type StepAnswer,
  type TouchedAnswer,
} from "./contracts/answers";
import { idText, type BodyOf } from "./contracts/contract";
import type { CommitBody } from "./contracts/commit-contract";
import type { addTryContract } from "./contracts/drill-contracts";
import type { addPhotoContract } from "./contracts/photo-contracts";
import type { RecordBody } from "./contracts/record-contract";
import type { binContract, createSiteContract, stepContract } from "./contracts/site-contracts";
import { planBody } from "./encoded-plan";
import { pauseAfterAWhile } from "@/application/in-slices";
import { presentEntry } from "./present-entry";
import type { Reply } from "./route";

// Between the routes and the use cases: hands over the store and puts answers into the form in which they
// travel.

type Answer = Promise<Result<Reply, AppError>>;
interface OfSite {
  readonly params: { readonly site: string };
  readonly person: Person;
}

const map = <T>(result: Result<T, AppError>, present: (value: T) => unknown): Result<Reply, AppError> =>
  result.ok ? ok({ value: present(result.value) }) : result;

/** The certificate itself, for a browser that is to trust it: it is no secret. */
export async function certificate(): Answer {
  const { beyond } = config();
  if (beyond === null) return err(NOT_LISTENING);
  const bytes = new Uint8Array(readFileSync(beyond.certificateFile));
  const headers = {
    "content-type": "application/x-x509-ca-cert",
    "content-disposition": 'attachment; filename="dianome-certificate.pem"',
  };
  return ok({ value: null, ready: { bytes, headers } });
}

/** For pages, which have let the person in themselves. */
export const readSites = (person: Person): Promise<SiteAnswer[]> => stores().plans.listSites(person.id);
/** The site's name and what the person may do there; null for a site that is not there for them. */
export async function siteFor(site: string, person: Person): Promise<{ name: string; role: Role } | null> {
  if (!idText.safeParse(site).success) return null;
  const [name, role] = [await stores().plans.nameOf(site), await roleOn(stores(), person, site)];
  return name === null || role === null ? null : { name, role };
}

/** For the page of the sites: where the person may begin one. */
export const foldersFor = (person: Person): Promise<FoldersAnswer> => foldersOf(stores(), person);

export const listSites = async ({ person }: { person: Person }): Answer =>
  ok({ value: await readSites(person) });

export async function addSite({
  body,
  person,
}: {
  body: BodyOf<typeof createSiteContract>;
  person: Person;
}): Answer {
  const { plans } = stores();
  const { customer } = body;
  if (!(await mayBegin(stores(), person, customer))) return err(NOT_ALLOWED);
  if (body.by === "name") return map(await createSite(plans, { ...body, by: person }), (site) => site);
  const breath = pauseAfterAWhile();
  const read = await decodePlanSliced(body.file, breath);
  if (!read.ok) return err(badFile(read.error));
  const record = await recordsOfFile(body.file, breath);
  if (!record.ok) return err(badFile(record.error));
  const photos = photosOfFile(body.file, record.value);
  if (!photos.ok) return err(badFile(photos.error));
  const history = await historyOfFile(body.file, read.value, breath);
  if (!history.ok) return err(badFile(history.error));
  const came = { id: body.id, batchId: body.batch, plan: read.value, by: person, customer };
  const beside = { record: record.value, photos: photos.value, history: history.value };
  return map(await storePlan(plans, { ...came, ...beside }), (site) => site);
}

export const deleteSite = async ({ params, person }: OfSite): Answer =>
  map(await removeSite(stores().plans, params.site, person), (site) => site);

/** The deleted sites that can still be brought back. */
export const sitesInBin = (person: Person): Promise<readonly BinnedAnswer[]> =>
  readBin(stores().plans, person);

const IN_BIN = { bringBack: bringSiteBack, forget: forgetSite } as const;
/** Brings a deleted site back, or deletes it for good. */
export async function withBin(asked: { body: BodyOf<typeof binContract>; person: Person }): Answer {
  const { body, person } = asked;
  const role = await roleOn(stores(), person, body.site);
  if (!reaches(role, "owner")) return err(role === null ? NOT_IN_BIN : NOT_ALLOWED);
  return map(await IN_BIN[body.do](stores().plans, body.site, person), (site) => site);
}

/** The plan; what the person can undo goes in a header, since the body is the same for everybody. */
export async function openPlan({ params, person, headers }: OfSite & { headers: Headers }): Answer {
  const opened = await openSite(stores().plans, params.site, person);
  if (!opened.ok) return opened;
  const { plan, revision, steps } = opened.value;
  const { bytes, headers: own } = await planBody(plan, revision, headers);
  return ok({
    value: null,
    ready: { bytes, headers: { ...own, [STEPS_HEADER]: encodeURIComponent(JSON.stringify(steps)) } },
  });
}

/** Whether somebody who was let in may plan, or else write notes only. */
const mayPlan = (role: Role | null): boolean => reaches(role, "editor");

export const commit = async ({
  params,
  body,
  person,
  role,
}: OfSite & { role: Role | null; body: CommitBody }): Answer => {
  if (!mayPlan(role) && !notesOnly(body.batch.changes)) return err(NOT_ALLOWED);
  return map(
    await commitBatch(stores().plans, { site: params.site, ...body, by: person }),
    ({ revision, entries }) => ({ revision, entries: entries.map(presentEntry) }) as CommitAnswer,
  );
};

export const readNews = async ({ params, query, person }: OfSite & { query: { after: number } }): Answer =>
  map(
    await newsSince(stores().plans, params.site, query.after, person),
    (news) => ({ ...news, entries: news.entries.map(presentEntry) }) as NewsAnswer,
  );

const stepAnswer = ({ revision, batch }: Stepped): StepAnswer => ({
  revision,
  summary: batch.summary,
  changes: encodeChanges(batch.changes),
});

type StepAsked = OfSite & { role: Role | null; body: BodyOf<typeof stepContract> };
const stepOf = ({ params, body, person, role }: StepAsked): Step => ({
  mayPlan: mayPlan(role),
  site: params.site,
  batchId: body.id,
  by: person,
  settled: body.settled,
});
export const undoLast = async (asked: StepAsked): Answer =>
  map(await undo(stores().plans, stepOf(asked)), stepAnswer);
export const redoLast = async (asked: StepAsked): Answer =>
  map(await redo(stores().plans, stepOf(asked)), stepAnswer);

/** The day by the server's clock, on which support dates are judged. */
const today = (): string => new Date().toISOString().slice(0, 10);
export const readSoundness = async ({ params }: OfSite): Answer =>
  map(await soundness(stores().plans, params.site, today()), (found) => found);

interface HistoryQuery {
  readonly before: number;
  readonly about?: readonly string[] | undefined;
  readonly by?: string | undefined;
  readonly from?: string | undefined;
  readonly until?: string | undefined;
}
export const readHistory = async ({ params, query }: OfSite & { query: HistoryQuery }): Answer =>
  map(
    await history(stores().plans, params.site, {
      before: query.before,
      about: query.about ?? null,
      by: query.by ?? null,
      from: query.from ?? null,
      until: query.until ?? null,
    }),
    (lines) => lines,
  );

interface TouchedQuery {
  readonly before: number;
  readonly about: readonly string[];
}
export const readTouched = async ({ params, query }: OfSite & { query: TouchedQuery }): Answer =>
  map(
    await touched(stores().plans, params.site, { ...query, most: TOUCHED_AT_ONCE }),
    (entries) => entries.map(presentEntry) as TouchedAnswer,
  );

/** What came into the record of what was done on site. */
export const readSiteRecord = async ({ params, query }: OfSite & { query: { after: number } }): Answer =>
  map(await readRecord(stores().records, params.site, query.after), (page): RecordAnswer => page);

export const addToSiteRecord = async ({ params, body, person }: OfSite & { body: RecordBody }): Answer =>
  map(await addToRecord(stores().records, params.site, person, body.entries), (added) => added);

/** Keeps a photo that was taken on site. */
export const addSitePhoto = async ({
  params,
  body,
}: OfSite & { body: BodyOf<typeof addPhotoContract> }): Answer =>
  map(await addPhoto(stores().photos, params.site, body), (added) => added);

/** A photo itself, for its place on the page: no browser keeps it longer than that. */
export async function readSitePhoto({ params }: { params: { site: string; photo: string } }): Answer {
  const read = await readPhoto(stores().photos, params.site, params.photo);
  if (!read.ok) return read;
  return ok({ value: null, ready: { bytes: read.value, headers: { "content-type": "image/jpeg" } } });
}

/** How far everybody has come with the drills. */
export async function readDrills({ person }: { person: Person }): Answer {
  // Who teaches owns everything here; how others come on is nobody else's business.
  const { all } = await ownedOf(stores(), person);
  return ok({ value: (await drillProgress(stores().drills, person, all)) satisfies DrillsAnswer });
}

/** Counts a try that is over. */
export async function addDrillTry({
  body,
  person,
}: {
  body: BodyOf<typeof addTryContract>;
  person: Person;
}): Answer {
  await addTry(stores().drills, person, body);
  return ok({ value: {} });
}

/** How the stand-in devices of a site are. */
export const lookAtBench = async ({ params }: OfSite): Answer =>
  map(await onBench({ ...stores(), ...devices() }, params.site, null), (bench) => bench);

/** Something is done on them, by hand or over the network. */
export const actOnBench = async ({ params, body }: OfSite & { body: BenchAct }): Answer =>
  map(await onBench({ ...stores(), ...devices() }, params.site, body), (bench) => bench);

/** Which real devices may be read. */
export const readableDevices = (): Answer =>
  Promise.resolve(ok({ value: { allowed: devices().reader.allowed } satisfies ReadableAnswer }));

/** A real device is read now; the password goes to it and nowhere else. */
export const readDeviceNow = async ({ params, body }: OfSite & { body: Reading }): Answer =>
  map(await readRealDevice({ ...stores(), ...devices() }, params.site, body), (text): ReadAnswer => ({
    text,
  }));

/** The process answers. */
export const isAlive = (): Promise<null> => Promise.resolve(null);
/** The database answers, too. */
export const isReady = (): Promise<unknown> => stores().entries.mark();
