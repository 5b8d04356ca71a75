import "server-only";
import { personOf } from "@/application/enter";
import type { Person } from "@/application/stores";
import { stores } from "@/composition";
import { config } from "@/config";
import type { ErrorCode } from "./errors";

const shared = globalThis as typeof globalThis & { dianomeCookie?: Promise<string> };

/** The cookie's name: one for a database, on all its instances. A failure to ask is asked again. */
export const sessionCookie = (): Promise<string> =>
  (shared.dianomeCookie ??= stores()
    .entries.mark()
    .then((mark) => `dianome_${mark}`)
    .catch((error: unknown) => {
      delete shared.dianomeCookie;
      throw error;
    }));

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
  const { entries, tools } = stores();
  const person = token === null ? null : await personOf(entries, tools, token);
  return person === null ? { admitted: false, code: "no-session" } : { admitted: true, person };
}
