import "server-only";
import {
  changePassword,
  dropFactor,
  endSessions,
  setFactor,
  signIn,
  type SignedIn,
} from "@/application/accounts";
import { enter, leave, linkFor, newLink, personOf } from "@/application/enter";
import type { AppError } from "@/application/errors";
import type { At } from "@/application/passkey-stores";
import {
  addPasskey,
  askForPasskey,
  beginPasskey,
  removePasskey,
  signInByPasskey,
} from "@/application/passkeys";
import {
  changePeople,
  invitationOf,
  overview,
  ownedOf,
  personData,
  type PeopleOrder,
} from "@/application/people";
import type { Person } from "@/application/stores";
import { stores } from "@/composition";
import { config } from "@/config";
import { ok, type Result } from "@/core/kernel";
import { browserCookie, fromOf, sessionCookie, tokenOf } from "./authorise";
import {
  LOG_AT_ONCE,
  type AccountAnswer,
  type InvitationAnswer,
  type LinkAnswer,
  type LogAnswer,
  type PeopleAnswer,
} from "./contracts/answers";
import type {
  AccountBody,
  enterContract,
  passkeyContract,
  signInContract,
} from "./contracts/account-contracts";
import type { BodyOf } from "./contracts/contract";
import type { Reply } from "./route";

// Signing in and out, one's own account, and people, between the routes and the use cases.

type Answer = Promise<Result<Reply, AppError>>;
interface Signed {
  readonly person: Person;
  readonly headers: Headers;
}

const MONTH_SECONDS = 30 * 86_400;
const YEAR_SECONDS = 365 * 86_400;

interface Cookie {
  readonly name: string;
  readonly value: string;
  readonly seconds: number;
  readonly path: string;
}
/** Behind TLS a cookie is for TLS only. */
function cookieText({ name, value, seconds, path }: Cookie, headers: Headers): string {
  const isTls = headers.get("origin")?.startsWith("https://") === true;
  const end = `Max-Age=${seconds}${isTls ? "; Secure" : ""}`;
  return `${name}=${value}; Path=${path}; HttpOnly; SameSite=Strict; ${end}`;
}

/** The answer to whoever has come in: their name, and the cookies of the session and of the known browser. */
async function letIn(signed: Result<SignedIn, AppError>, headers: Headers): Answer {
  if (!signed.ok) return signed;
  const { token, person, browser } = signed.value;
  const session = { name: await sessionCookie(), value: token, seconds: MONTH_SECONDS, path: "/" };
  const known = { name: await browserCookie(), value: browser, seconds: YEAR_SECONDS, path: "/api" };
  return ok({
    value: { name: person.name },
    cookies: [session, known].map((cookie) => cookieText(cookie, headers)),
  });
}

export async function comeIn(asked: { body: BodyOf<typeof enterContract>; headers: Headers }): Answer {
  const { body, headers } = asked;
  const token = await tokenOf(headers);
  const person = token === null ? null : await personOf(stores(), token, config().idleHours);
  return letIn(await enter(stores(), { ...body, person }, await fromOf(headers)), headers);
}

type SignInAsked = { body: BodyOf<typeof signInContract>; headers: Headers };
export async function signInNow({ body, headers }: SignInAsked): Answer {
  return letIn(await signIn(stores(), body, await fromOf(headers)), headers);
}

export async function signOut({ headers }: Signed): Answer {
  const token = await tokenOf(headers);
  if (token !== null) await leave(stores(), token);
  const gone = { name: await sessionCookie(), value: "", seconds: 0, path: "/" };
  return ok({ value: {}, cookies: [cookieText(gone, headers)] });
}

/** For the door's page: what its link does. */
export async function linkOf(key: string): Promise<LinkAnswer | null> {
  const link = await linkFor(stores(), key);
  if (link === null) return null;
  const { purpose, name } = link;
  return { kind: purpose.kind, name, invitation: await invitationOf(stores(), purpose) };
}
/** For the door's page: who is signed in already, by name. */
export async function signedInName(headers: Headers): Promise<string | null> {
  const token = await tokenOf(headers);
  return token === null ? null : ((await personOf(stores(), token, config().idleHours))?.name ?? null);
}

/** A link that signs the person in in another browser, and how that tells that this is the right machine. */
export async function linkForOwn({ person }: Signed): Answer {
  const { beyond } = config();
  const value: InvitationAnswer = {
    key: await newLink(stores(), { kind: "own", person: person.id }),
    urls: beyond?.urls ?? [],
    fingerprint: beyond?.fingerprint ?? null,
  };
  return ok({ value });
}

export async function accountOf(person: Person, headers: Headers): Promise<AccountAnswer> {
  const { accounts, entries, passkeys, tools } = stores();
  const [own, codesLeft, sessions, keys] = await Promise.all([
    accounts.credentialsOf(person.id),
    accounts.recoveryCodesLeft(person.id),
    entries.sessionsOf(person.id, tools.hash((await tokenOf(headers)) ?? "")),
    passkeys.of(person.id),
  ]);
  return {
    id: person.id,
    name: person.name,
    hasPassword: (own?.passwordHash ?? null) !== null,
    hasFactor: (own?.factorSecret ?? null) !== null,
    codesLeft,
    passkeys: keys,
    sessions,
  };
}
export const readAccount = async ({ person, headers }: Signed): Answer =>
  ok({ value: await accountOf(person, headers) });

const told = (result: Result<object | null, AppError>): Result<Reply, AppError> =>
  result.ok ? ok({ value: result.value ?? {} }) : result;

/** Where a browser is: a name and an origin that were looked at when the request was let in. */
function atOf(headers: Headers): At {
  const host = (headers.get("host") ?? "").toLowerCase();
  return { host: host.replace(/:\d+$/, ""), origin: headers.get("origin") ?? "" };
}

type PasskeyAsked = { body: BodyOf<typeof passkeyContract>; headers: Headers };
/** A browser at the door has a key. */
export async function passkeyAtDoor({ body, headers }: PasskeyAsked): Answer {
  const [door, at] = [stores(), atOf(headers)];
  if (body.do === "ask") return told(await askForPasskey(door, at));
  return letIn(await signInByPasskey(door, { answer: body.answer, at }, await fromOf(headers)), headers);
}

const done = <T>(result: Result<T, AppError>): Result<Reply, AppError> =>
  result.ok ? ok({ value: { codes: result.value } }) : result;

export async function changeAccount({ body, person, headers }: Signed & { body: AccountBody }): Answer {
  const door = stores();
  const token = (await tokenOf(headers)) ?? "";
  switch (body.do) {
    case "password":
      return done(await changePassword(door, person, { ...body, token }));
    case "newSecret":
      return ok({ value: { secret: door.tools.newSecret() } });
    case "factor":
      return done(await setFactor(door, person, body));
    case "noFactor":
      return done(await dropFactor(door, person, body.password));
    case "endSession":
      await endSessions(door, person, body.id, token);
      return ok({ value: {} });
    case "beginPasskey":
      return told(await beginPasskey(door, person, { password: body.password, at: atOf(headers) }));
    case "addPasskey":
      return told(await addPasskey(door, person, { ...body, at: atOf(headers) }));
    case "removePasskey":
      return told(await removePasskey(door, person, body.id));
  }
}

export const peopleFor = (person: Person): Promise<PeopleAnswer> => overview(stores(), person);
export const readPeople = async ({ person }: Signed): Answer => ok({ value: await peopleFor(person) });

export async function orderPeople({ body, person }: Signed & { body: PeopleOrder }): Answer {
  const changed = await changePeople(stores(), person, body);
  return changed.ok ? ok({ value: changed.value }) : changed;
}

/** All that is kept of somebody, as a file to keep. */
export async function readPersonData({ params, person }: Signed & { params: { person: string } }): Answer {
  const found = await personData(stores(), person, params.person);
  if (!found.ok) return found;
  const bytes = new TextEncoder().encode(`${JSON.stringify(found.value, null, 1)}\n`);
  return ok({
    value: null,
    ready: { bytes, headers: { "content-disposition": 'attachment; filename="person.json"' } },
  });
}

/** What was done on what the person owns, the newest first. */
export async function logFor(person: Person, before: number): Promise<LogAnswer> {
  const { all, sites, customers } = await ownedOf(stores(), person);
  const where = all ? null : { sites: [...sites], customers: [...customers] };
  return stores().deeds.before(before, where, LOG_AT_ONCE);
}
export const readLog = async ({
  person,
  query,
}: Signed & { query: { before?: number | undefined } }): Answer =>
  ok({ value: await logFor(person, query.before ?? Number.MAX_SAFE_INTEGER) });
