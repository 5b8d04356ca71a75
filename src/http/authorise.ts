import "server-only";
import type { From } from "@/application/accounts";
import { personOf } from "@/application/enter";
import { roleOn } from "@/application/people";
import { reaches, type Role } from "@/application/roles";
import { passFor, type Pass } from "@/application/passes";
import type { Person } from "@/application/stores";
import { stores } from "@/composition";
import { config } from "@/config";
import type { Needs } from "./access";
import { idText } from "./contracts/contract";
import type { ErrorCode } from "./errors";

const shared = globalThis as typeof globalThis & { dianomeMark?: Promise<string> };

/** The mark of this database, the same on all its instances. A failure to ask is asked again. */
const mark = (): Promise<string> =>
  (shared.dianomeMark ??= stores()
    .entries.mark()
    .catch((error: unknown) => {
      delete shared.dianomeMark;
      throw error;
    }));
/** The names of the cookies: of a session, and of a browser that is known. */
export const sessionCookie = async (): Promise<string> => `dianome_${await mark()}`;
export const browserCookie = async (): Promise<string> => `dianome_known_${await mark()}`;

export interface Asked {
  readonly headers: Headers;
  readonly method: string;
}
export type Admission =
  | { readonly admitted: true; readonly person: Person }
  | { readonly admitted: false; readonly code: ErrorCode };

/** The value of one cookie of a Cookie header, or null. */
function cookieOf(headers: Headers, name: string): string | null {
  for (const part of (headers.get("cookie") ?? "").split(";")) {
    const [key, ...value] = part.trim().split("=");
    if (key === name) return value.join("=");
  }
  return null;
}

/** The session's token that a request comes with, or null. */
export async function tokenOf(headers: Headers): Promise<string | null> {
  return cookieOf(headers, await sessionCookie()) || null;
}

/** Where a request comes from; the address is written there by our own server (scripts/serve.mjs). */
export async function fromOf(headers: Headers): Promise<From> {
  return {
    address: (headers.get("x-client-address") ?? "").slice(0, 60),
    browser: cookieOf(headers, await browserCookie()) || null,
  };
}

/**
 * Whether the request names us and comes from our own pages; null when it does. What changes something must
 * say where it comes from.
 */
export function wrongPlace({ headers, method }: Asked): ErrorCode | null {
  const host = (headers.get("host") ?? "").toLowerCase();
  if (!config().hosts.has(host)) return "wrong-host";
  const origin = headers.get("origin");
  if (origin === null) return method === "GET" || method === "HEAD" ? null : "wrong-origin";
  return origin === `http://${host}` || origin === `https://${host}` ? null : "wrong-origin";
}

/** The one place where a request is let in: right host, right origin, a session. */
export async function authorise(asked: Asked): Promise<Admission> {
  const wrong = wrongPlace(asked);
  if (wrong !== null) return { admitted: false, code: wrong };
  const token = await tokenOf(asked.headers);
  const person = token === null ? null : await personOf(stores(), token, config().idleHours);
  return person === null ? { admitted: false, code: "no-session" } : { admitted: true, person };
}

/** The token that a machine comes with (RFC 6750), or null. */
export const bearerOf = (headers: Headers): string | null =>
  /^Bearer ([\w-]{20,100})$/.exec(headers.get("authorization") ?? "")?.[1] ?? null;

/** The pass of a machine that may fetch from a site; why not otherwise. */
export async function authoriseMachine(
  asked: Asked,
  token: string,
  site: unknown,
): Promise<{ readonly pass: Pass } | { readonly code: ErrorCode }> {
  const wrong = wrongPlace(asked);
  if (wrong !== null) return { code: wrong };
  const known = idText.safeParse(site);
  const found = await passFor(stores(), token, known.success ? known.data : null);
  if ("closed" in found || found.pass.opens.kind !== "machine") return { code: "no-session" };
  return { pass: found.pass };
}

/**
 * The role by which somebody who is signed in may use a route, null where it asks for none; or why they may
 * not. A site on which they have no role is not there for them, as one that never was.
 */
export async function roleFor(
  person: Person,
  needs: Needs,
  site: unknown,
): Promise<{ readonly role: Role | null } | { readonly code: ErrorCode }> {
  if (needs === "anybody" || needs === "signed-in") return { role: null };
  const known = idText.safeParse(site);
  // Not even an id: the contract says so.
  if (!known.success) return { role: null };
  const role = await roleOn(stores(), person, known.data);
  if (role === null) return { code: "no-such-site" };
  return reaches(role, needs) ? { role } : { code: "not-allowed" };
}
