import "server-only";
import type { z } from "zod";
import type { AppError } from "@/application/errors";
import type { Person } from "@/application/stores";
import type { Result } from "@/core/kernel";
import { issueSentence } from "@/core/plan";
import { StorageError } from "@/application/storage-error";
import { authorise, wrongPlace } from "./authorise";
import type { Contract } from "./contracts/contract";
import { ERRORS, type ErrorCode } from "./errors";
import { presentError } from "./present-error";
import { readBody } from "./read-body";

type Context = { readonly params: Promise<Record<string, string | string[] | undefined> | undefined> };
type Handler = (request: Request, context: Context) => Promise<Response>;
interface Parts<P, Q, B> { readonly params: P; readonly query: Q; readonly body: B }
interface Asked<P, Q, B> extends Parts<P, Q, B> { readonly person: Person }
/** What a handler answers, and the cookie it sets with it. */
export interface Reply { readonly value: unknown; readonly cookie?: string }

const NO_STORE = { "cache-control": "no-store" };

const refuse = (code: ErrorCode, sentence: string = ERRORS[code].text, more: object = {}): Response =>
  Response.json({ code, sentence, ...more }, { status: ERRORS[code].status, headers: NO_STORE });

/** The part of a request by its schema, or the sentence of what is wrong with it. */
function parsePart<T>(schema: z.ZodType<T>, value: unknown, part: string): { value: T } | { sentence: string } {
  const read = schema.safeParse(value);
  if (read.success) return { value: read.data };
  const issue = read.error.issues[0];
  const place = [part, ...(issue?.path ?? [])].join(".");
  const found = (issue?.path ?? []).reduce<unknown>((at, key) => (typeof at === "object" && at !== null ? (at as Record<PropertyKey, unknown>)[key] : undefined), value);
  return { sentence: `${place}: ${issue === undefined ? "does not fit" : issueSentence(issue, found)}` };
}

async function parse<P, Q, B>(contract: Contract<P, Q, B>, request: Request, context: Context): Promise<Parts<P, Q, B> | Response> {
  const params = parsePart(contract.params, (await context.params) ?? {}, "address");
  if ("sentence" in params) return refuse("bad-request", params.sentence);
  const query = parsePart(contract.query, Object.fromEntries(new URL(request.url).searchParams), "query");
  if ("sentence" in query) return refuse("bad-request", query.sentence);
  const raw = contract.maxBytes === 0 ? { ok: true as const, value: null } : await readBody(request, contract.maxBytes);
  if (!raw.ok) return refuse(raw.code, raw.code === "too-large" ? `At most ${Math.floor(contract.maxBytes / 1_000_000)} MB are taken here.` : ERRORS["bad-request"].text);
  const body = parsePart(contract.body, raw.value, "body");
  return "sentence" in body ? refuse("bad-request", body.sentence) : { params: params.value, query: query.value, body: body.value };
}

/** Runs the work; what the database could not do becomes a refusal, anything else unexpected stays a bug. */
async function withStorage(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof StorageError) || error.fault === "duplicate") throw error;
    return refuse(error.fault === "no-space" ? "database-full" : "database-unreachable");
  }
}

function answer(result: Result<Reply, AppError>): Response {
  if (!result.ok) return refuse(result.error.code, result.error.sentence, presentError(result.error));
  const { value, cookie } = result.value;
  return Response.json(value, { headers: { ...NO_STORE, ...(cookie === undefined ? {} : { "set-cookie": cookie }) } });
}

/** A route handler: let in, parse by the contract, ask the use case, answer. */
export const route = <P, Q, B>(contract: Contract<P, Q, B>, handle: (asked: Asked<P, Q, B>) => Promise<Result<Reply, AppError>>): Handler =>
  (request, context) => withStorage(async () => {
    const admission = await authorise(request);
    if (!admission.admitted) return refuse(admission.code);
    const asked = await parse(contract, request, context);
    return asked instanceof Response ? asked : answer(await handle({ ...asked, person: admission.person }));
  });

/** The door itself: the one route without a session. Host and Origin are checked all the same. */
export const doorRoute = <P, Q, B>(contract: Contract<P, Q, B>, handle: (asked: Parts<P, Q, B>) => Promise<Reply | null>): Handler =>
  (request, context) => withStorage(async () => {
    const wrong = wrongPlace(request);
    if (wrong !== null) return refuse(wrong);
    const asked = await parse(contract, request, context);
    if (asked instanceof Response) return asked;
    const reply = await handle(asked);
    return reply === null ? refuse("bad-link") : answer({ ok: true, value: reply });
  });
