import "server-only";
import { request as requestHttp, type IncomingMessage } from "node:http";
import { request as requestHttps } from "node:https";
import { connect, type TLSSocket } from "node:tls";
import { once } from "node:events";
import type { DeviceReader, NotAsked, Reading } from "@/application/devices";
import { err, ok, type Result } from "@/core/kernel";

/** More than the configuration of any switch. */
const MOST_BYTES = 16_000_000;
const TIMEOUT_MS = 15_000;
/** A device that trickles is not waited for. */
const WHOLE_MS = 60_000;
const RESTCONF = "/restconf";

const notRead = (sentence: string): Result<never, NotAsked> => err({ code: "device-not-read", sentence });

const LOOPBACK = new Set(["127.0.0.1", "[::1]", "localhost"]);

/** An entry of the list as an address; null for one that is none, or would send a password in the clear. */
function urlOf(entry: string): URL | null {
  const text = /^https?:\/\//.test(entry) ? entry : `https://${entry}`;
  if (!URL.canParse(text)) return null;
  const url = new URL(text);
  const isSafe = url.protocol === "https:" || LOOPBACK.has(url.hostname);
  return isSafe && url.username === "" && url.search === "" && url.hash === "" ? url : null;
}

const bareHex = (text: string): string => text.replace(/[^0-9a-f]/gi, "").toUpperCase();

const reasonOf = (error: unknown): string =>
  typeof error === "object" && error !== null && "message" in error ? String(error.message) : "no answer";

/** A connection whose certificate is known to this machine, or is the one that was named. */
async function secured(url: URL, fingerprint: string): Promise<Result<TLSSocket, NotAsked>> {
  const host = url.hostname.replace(/^\[|\]$/g, "");
  const socket = connect({
    host,
    port: Number(url.port || 443),
    rejectUnauthorized: false,
    ...(/[a-z]/i.test(host) && !host.includes(":") ? { servername: host } : {}),
  });
  socket.setTimeout(TIMEOUT_MS, () => socket.destroy(new Error("nobody answers")));
  try {
    await once(socket, "secureConnect");
  } catch (error) {
    return notRead(`${url.host} can't be reached: ${reasonOf(error)}.`);
  }
  const shown = socket.getPeerCertificate().fingerprint256;
  const isNamed = fingerprint !== "" && bareHex(fingerprint) === bareHex(shown);
  if (isNamed || (fingerprint === "" && socket.authorized)) return ok(socket);
  socket.destroy();
  const whose = fingerprint === "" ? "of nobody whom this machine knows" : "another one";
  return notRead(
    `The certificate of ${url.host} is ${whose}. Lay its SHA-256 fingerprint beside what the device itself ` +
      `shows, and enter it if it is that: ${shown}`,
  );
}

/** The answer to a GET, as long as it may be; a sentence why there is none. */
async function get(
  url: URL,
  accept: string,
  { user, password, fingerprint }: Reading,
): Promise<Result<{ readonly status: number; readonly text: string }, NotAsked>> {
  const isTls = url.protocol === "https:";
  const socket = isTls ? await secured(url, fingerprint) : null;
  if (socket !== null && !socket.ok) return socket;
  const options = {
    method: "GET",
    auth: `${user}:${password}`,
    headers: { accept },
    timeout: TIMEOUT_MS,
    signal: AbortSignal.timeout(WHOLE_MS),
  };
  const own = socket?.value;
  const asked =
    own === undefined
      ? requestHttp(url, { ...options, agent: false })
      : requestHttps(url, { ...options, createConnection: () => own });
  asked.on("timeout", () => asked.destroy(new Error("it does not answer")));
  asked.end();
  try {
    const [answer] = (await once(asked, "response")) as [IncomingMessage];
    const text = await bounded(answer);
    return text === null
      ? notRead(`${url.host} says more than ${MOST_BYTES / 1_000_000} MB; paste its tables instead.`)
      : ok({ status: answer.statusCode ?? 0, text });
  } catch (error) {
    return notRead(`${url.host} can't be read: ${reasonOf(error)}.`);
  } finally {
    asked.destroy();
  }
}

async function bounded(answer: IncomingMessage): Promise<string | null> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of answer as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > MOST_BYTES) return null;
    parts.push(part);
  }
  return Buffer.concat(parts).toString("utf8");
}

/** Where a device has its RESTCONF root (RFC 8040 section 3.1): a path of its own, never elsewhere. */
async function rootOf(url: URL, reading: Reading): Promise<Result<URL, NotAsked>> {
  if (url.pathname !== "/") return ok(url);
  const found = await get(new URL("/.well-known/host-meta", url), "application/xrd+xml", reading);
  if (!found.ok) return found;
  const link = /<Link\b[^>]*\brel=["']restconf["'][^>]*>/i.exec(found.value.text)?.[0] ?? "";
  const [, path] = /\bhref=["'](\/[^"'/][^"']*)["']/.exec(link) ?? [];
  return ok(new URL(found.value.status === 200 && path !== undefined ? path : RESTCONF, url));
}

function refusedWith(host: string, status: number): string {
  if (status === 401 || status === 403) return `${host} does not take that name and password (${status}).`;
  if (status >= 300 && status < 400) return `${host} sends us elsewhere (${status}), which is not followed.`;
  return `${host} answered ${status} and no configuration.`;
}

/** Reads devices over RESTCONF: the addresses of the list and no others. */
export const deviceReader = (entries: readonly string[]): DeviceReader => ({
  allowed: entries,
  read: async (reading) => {
    const url = urlOf(reading.address);
    if (url === null)
      return notRead(`${reading.address} is no address that is read: an IP address or a name, over TLS.`);
    const root = await rootOf(url, reading);
    if (!root.ok) return root;
    const data = new URL(`${root.value.pathname.replace(/\/$/, "")}/data?content=config`, root.value);
    const heard = await get(data, "application/yang-data+json", reading);
    if (!heard.ok) return heard;
    const { status, text } = heard.value;
    return status === 200 ? ok(text) : notRead(refusedWith(url.host, status));
  },
});
