import "server-only";
import type { z } from "zod";
import { NO_SUCH_SITE, type AppError } from "@/application/errors";
import type { Role } from "@/application/roles";
import type { Person } from "@/application/stores";
import { err, type Result } from "@/core/kernel";
import { issueSentence, valueAt } from "@/core/plan";
import { StorageError } from "@/application/storage-error";
import type { Fetcher } from "@/application/exports";
import { ACCESS, type MachineKey, type RouteFor, type RouteKey } from "./access";
import { authorise, authoriseMachine, bearerOf, fromOf, roleFor, wrongPlace } from "./authorise";
import type { Contract, Misfit, SlicedBody } from "./contracts/contract";
import { ERRORS, type ErrorCode } from "./errors";
import { pauseAfterAWhile } from "@/application/in-slices";
import { presentError } from "./present-error";
import { readBody } from "./read-body";

type Context = { readonly params: Promise<Record<string, string | string[] | undefined> | undefined> };
type Handler = (request: Request, context: Context) => Promise<Response>;
interface Parts<P, Q, B> {
  readonly params: P;
  readonly query: Q;
  readonly body: B;
}
/** Who is let in, and by which role on the site of the address; null where the route asks for none. */
interface Signed {
  readonly person: Person;
  readonly role: Role | null;
}
interface Asked<P, Q, B> extends Parts<P, Q, B>, Signed {
  readonly headers: Headers;
}
/** What a handler answers, and the cookies it sets with it. */
export interface Reply {
  readonly value: unknown;
  readonly cookies?: readonly string[];
  /** Instead of the value: a body that is JSON already. */ readonly ready?: ReadyBody;
  /** Instead of the value: server-sent events. */ readonly stream?: ReadableStream<Uint8Array>;
}
export interface ReadyBody {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly headers: Readonly<Record<string, string>>;
}

/** Nothing on the way may keep it back: neither to pack it nor to send it in larger pieces. */
const EVENT_STREAM = {
  "content-type": "text/event-stream; charset=utf-8",
  "cache-control": "no-store, no-transform",
  "x-accel-buffering": "no",
};
const NO_STORE = { "cache-control": "no-store" };

const refuse = (code: ErrorCode, sentence: string = ERRORS[code].text, more: object = {}): Response =>
  Response.json({ code, sentence, ...more }, { status: ERRORS[code].status, headers: NO_STORE });

/** "body.batch.changes.4.after.vid: a VLAN ID is …". */
const misfitSentence = ({ issue, path }: Misfit, value: unknown, part: string): string =>
  `${[part, ...path].join(".")}: ${issueSentence(issue, valueAt(value, path))}`;

/** The part of a request by its schema, or the sentence of what is wrong with it. */
async function parsePart<T>(
  schema: z.ZodType<T> | SlicedBody<T>,
  value: unknown,
  part: string,
): Promise<{ value: T } | { sentence: string }> {
  if ("read" in schema) {
    const read = await schema.read(value, pauseAfterAWhile());
    return "value" in read ? read : { sentence: misfitSentence(read, value, part) };
  }
  const read = schema.safeParse(value);
  if (read.success) return { value: read.data };
  const [issue] = read.error.issues;
  return {
    sentence:
      issue === undefined
        ? `${part} does not fit.`
        : misfitSentence({ issue, path: issue.path }, value, part),
  };
}

async function parse<P, Q, B>(
  contract: Contract<P, Q, B>,
  request: Request,
  context: Context,
): Promise<Parts<P, Q, B> | Response> {
  const params = await parsePart(contract.params, (await context.params) ?? {}, "address");
  if ("sentence" in params) return refuse("bad-request", params.sentence);
  const query = await parsePart(
    contract.query,
    Object.fromEntries(new URL(request.url).searchParams),
    "query",
  );
  if ("sentence" in query) return refuse("bad-request", query.sentence);
  const raw =
    contract.maxBytes === 0 ? { ok: true as const, value: null } : await readBody(request, contract.maxBytes);
  if (!raw.ok) return refuse(raw.code, raw.sentence);
  const body = await parsePart(contract.body, raw.value, "body");
  return "sentence" in body
    ? refuse("bad-request", body.sentence)
    : { params: params.value, query: query.value, body: body.value };
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
  const { value, cookies = [], ready, stream } = result.value;
  if (stream !== undefined) return new Response(stream, { headers: EVENT_STREAM });
  if (ready !== undefined)
    return new Response(ready.bytes, {
      headers: { ...NO_STORE, "content-type": "application/json", ...ready.headers },
    });
  const headers = new Headers(NO_STORE);
  for (const cookie of cookies) headers.append("set-cookie", cookie);
  return Response.json(value, { headers });
}

type Admit<W> = (request: Request, context: Context) => Promise<W | Response>;

/** A route handler: whoever is admitted is answered by the use case, by the contract of the route. */
const served =
  <P, Q, B, W extends object>(
    admit: Admit<W>,
    contract: Contract<P, Q, B>,
    handle: (asked: Parts<P, Q, B> & W & { readonly headers: Headers }) => Promise<Result<Reply, AppError>>,
  ): Handler =>
  (request, context) =>
    withStorage(async () => {
      const admitted = await admit(request, context);
      if (admitted instanceof Response) return admitted;
      const asked = await parse(contract, request, context);
      return asked instanceof Response
        ? asked
        : answer(await handle({ ...asked, ...admitted, headers: request.headers }));
    });

/** Whoever is signed in and may use the route by the table of access. */
const bySession =
  (key: RouteKey): Admit<Signed> =>
  async (request, context) => {
    const admission = await authorise(request);
    if (!admission.admitted) return refuse(admission.code);
    const { person } = admission;
    const found = await roleFor(person, ACCESS[key], (await context.params)?.site);
    if (!("code" in found)) return { person, role: found.role };
    return found.code === "no-such-site" ? answer(err(NO_SUCH_SITE)) : refuse(found.code);
  };

/** For whoever is signed in. */
export const route = <P, Q, B>(
  key: Exclude<RouteKey, RouteFor<"anybody"> | MachineKey>,
  contract: Contract<P, Q, B>,
  handle: (asked: Asked<P, Q, B>) => Promise<Result<Reply, AppError>>,
): Handler => served(bySession(key), contract, handle);

/** For whoever is signed in, and for machines with a token that opens the site. */
export const machineRoute = <P, Q, B>(
  key: MachineKey,
  contract: Contract<P, Q, B>,
  handle: (asked: Parts<P, Q, B> & { readonly fetcher: Fetcher }) => Promise<Result<Reply, AppError>>,
): Handler =>
  served(
    async (request, context) => {
      const token = bearerOf(request.headers);
      if (token === null) {
        const admitted = await bySession(key)(request, context);
        return admitted instanceof Response ? admitted : { fetcher: admitted };
      }
      const found = await authoriseMachine(request, token, (await context.params)?.site);
      if ("code" in found) return refuse(found.code);
      const { address } = await fromOf(request.headers);
      return { fetcher: { pass: found.pass, cameFrom: address } };
    },
    contract,
    handle,
  );

/** The door itself: for those without a session. Host and Origin are checked all the same. */
export const doorRoute = <P, Q, B>(
  _key: RouteFor<"anybody">,
  contract: Contract<P, Q, B>,
  handle: (asked: Parts<P, Q, B> & { readonly headers: Headers }) => Promise<Result<Reply, AppError>>,
): Handler =>
  served(
    (request) => {
      const wrong = wrongPlace(request);
      return Promise.resolve(wrong === null ? {} : refuse(wrong));
    },
    contract,
    handle,
  );

/** As long as a look at the state may take: who asks is a program that asks again. */
const MOST_LOOK_MS = 2000;

/**
 * A look at the state, for the program that watches over this one: open to everybody who names us rightly, and
 * says nothing but whether.
 */
export const stateRoute =
  (
    _key: RouteFor<"anybody">,
    look: () => Promise<unknown>,
    most = MOST_LOOK_MS,
  ): ((request: Request) => Promise<Response>) =>
  (request) =>
    withStorage(async () => {
      const wrong = wrongPlace(request);
      if (wrong !== null) return refuse(wrong);
      let timer: ReturnType<typeof setTimeout> | undefined;
      const late = new Promise<never>((_, reject) => {
        timer = setTimeout(() => reject(new StorageError("unreachable", "no answer in time")), most);
      });
      await Promise.race([look(), late]).finally(() => clearTimeout(timer));
      return Response.json({ ok: true }, { headers: NO_STORE });
    });
