import { must } from "@/core/kernel";

// The route handlers themselves, called as Next calls them, on the real MariaDB of the tests.

export const databaseUrl = must(process.env.TEST_DATABASE_URL, "the database of the tests");
process.env.DATABASE_URL = databaseUrl;
process.env.LISTEN_PORT = "4100";
const ADDRESS = "http://127.0.0.1:4100";

export type Handler = (
  request: Request,
  context: { params: Promise<Record<string, string> | undefined> },
) => Promise<Response>;
export interface Asked {
  readonly method: string;
  readonly body?: unknown;
  readonly path?: string;
  readonly params?: Record<string, string>;
  readonly headers?: Record<string, string>;
  readonly cookie?: string;
}

/** Asks a handler as a browser on our own page would. */
export function ask(
  handler: Handler,
  { method, body, path = "/api/any", params, headers = {}, cookie = "" }: Asked,
): Promise<Response> {
  const request = new Request(`${ADDRESS}${path}`, {
    method,
    headers: { host: "127.0.0.1:4100", origin: ADDRESS, cookie, ...headers },
    ...(body === undefined ? {} : { body: typeof body === "string" ? body : JSON.stringify(body) }),
  });
  return handler(request, { params: Promise.resolve(params) });
}

export const cookieOf = (answer: Response): string =>
  (answer.headers.get("set-cookie") ?? "").split(";")[0] ?? "";

/** A new one-time key that signs in an owner of everything of that name, as the demo's link does. */
export async function newKey(name: string): Promise<string> {
  const { makeDemoLink } = await import("../../scripts/setup/entry-link.mjs");
  return must((await makeDemoLink(databaseUrl, ADDRESS, name)).split("key=")[1], "the link's key");
}

export async function enter(name: string, headers: Record<string, string> = {}): Promise<Response> {
  const { POST } = await import("@/app/api/enter/route");
  return ask(POST, { method: "POST", body: { key: await newKey(name) }, headers });
}

/** Closes what the handlers have opened. */
export const closeStores = async (): Promise<void> =>
  (
    globalThis as typeof globalThis & { dianomeStores?: { close?: () => Promise<void> } }
  ).dianomeStores?.close?.();
