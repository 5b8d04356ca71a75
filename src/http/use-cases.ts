import "server-only";
import type { z } from "zod";
import { commitBatch } from "@/application/commit-batch";
import { enter } from "@/application/enter";
import type { AppError } from "@/application/errors";
import { history, newsSince, openSite } from "@/application/read-site";
import { createSite, createSiteFromFile, removeSite } from "@/application/sites";
import type { Person } from "@/application/stores";
import { redo, undo, type Step, type Stepped } from "@/application/undo-redo";
import { stores } from "@/composition";
import { batchOf, encodeChanges, encodePlan } from "@/core/formats";
import { ok, type Result } from "@/core/kernel";
import { SESSION_COOKIE } from "./authorise";
import type { CommitAnswer, NewsAnswer, PlanAnswer, SiteAnswer, StepAnswer } from "./contracts/answers";
import { idText } from "./contracts/contract";
import type { commitContract } from "./contracts/commit-contract";
import type { createSiteContract, enterContract, stepContract } from "./contracts/site-contracts";
import { presentEntry } from "./present-entry";
import type { Reply } from "./route";

// Between the routes and the use cases: hands over the store and puts answers into the form in which they travel.

type Answer = Promise<Result<Reply, AppError>>;
type BodyOf<C> = C extends { body: z.ZodType<infer B> } ? B : never;
interface OfSite { readonly params: { readonly site: string }; readonly person: Person }

const MONTH_SECONDS = 30 * 86_400;
const map = <T>(result: Result<T, AppError>, present: (value: T) => unknown): Result<Reply, AppError> => (result.ok ? ok({ value: present(result.value) }) : result);

export async function comeIn({ body }: { body: BodyOf<typeof enterContract> }): Promise<Reply | null> {
  const { entries, tools } = stores();
  const entered = await enter(entries, tools, body.key, body.name);
  return entered === null ? null : {
    value: { name: entered.person.name },
    cookie: `${SESSION_COOKIE}=${entered.token}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${MONTH_SECONDS}`,
  };
}

/** For pages, which have let the person in themselves. */
export const readSites = (): Promise<SiteAnswer[]> => stores().plans.listSites();
export const siteName = async (site: string): Promise<string | null> => (idText.safeParse(site).success ? stores().plans.nameOf(site) : null);

export const listSites = async (): Answer => ok({ value: await readSites() });

export async function addSite({ body, person }: { body: BodyOf<typeof createSiteContract>; person: Person }): Answer {
  const { plans } = stores();
  const made = body.by === "name" ? await createSite(plans, body) : await createSiteFromFile(plans, body.id, body.batch, body.file, person);
  return map(made, (site) => site);
}

export const deleteSite = async ({ params }: OfSite): Answer => map(await removeSite(stores().plans, params.site), (site) => site);

export const openPlan = async ({ params, person }: OfSite): Answer =>
  map(await openSite(stores().plans, params.site, person), ({ plan, revision, steps }): PlanAnswer => ({ revision, plan: encodePlan(plan), steps }));

export const commit = async ({ params, body, person }: OfSite & { body: BodyOf<typeof commitContract> }): Answer =>
  map(await commitBatch(stores().plans, { site: params.site, revision: body.revision, batch: batchOf(body.batch), by: person }),
    ({ revision, entries }) => ({ revision, entries: entries.map(presentEntry) }) as CommitAnswer);

export const readNews = async ({ params, query, person }: OfSite & { query: { after: number } }): Answer =>
  map(await newsSince(stores().plans, params.site, query.after, person), (news) => ({ ...news, entries: news.entries.map(presentEntry) }) as NewsAnswer);

const stepAnswer = ({ revision, batch }: Stepped): StepAnswer => ({ revision, summary: batch.summary, changes: encodeChanges(batch.changes) });

type StepAsked = OfSite & { body: BodyOf<typeof stepContract> };
const stepOf = ({ params, body, person }: StepAsked): Step => ({ site: params.site, batchId: body.id, by: person, settled: body.settled });
export const undoLast = async (asked: StepAsked): Answer => map(await undo(stores().plans, stepOf(asked)), stepAnswer);
export const redoLast = async (asked: StepAsked): Answer => map(await redo(stores().plans, stepOf(asked)), stepAnswer);

export const readHistory = async ({ params, query }: OfSite & { query: { before: number; about?: string | undefined } }): Answer =>
  map(await history(stores().plans, params.site, query.before, query.about ?? null), (lines) => lines);
