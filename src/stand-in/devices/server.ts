import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import { once } from "node:events";
import { createHash, timingSafeEqual } from "node:crypto";
import type { AddressInfo } from "node:net";
import { decodeChanges, encodeChanges } from "@/core/formats";
import type { Change, PlanIndex } from "@/core/plan";
import { answer, refused, type Answered } from "./restconf";
import { StandInSite } from "./site";

/** A site's plan as it is stored. */
export interface StoredPlan {
  readonly revision: number;
  /** The same object as long as the plan is the same. */
  readonly index: PlanIndex;
}

/** What the server is asked to do. */
export interface StandInDevices {
  /** 0 for any that is free. */
  readonly port: number;
  /** The password of the one account, "installer". */
  readonly password: string;
  /** A site's plan as it is at this moment; null for none. */
  readonly plan: (site: string) => Promise<StoredPlan | null>;
  readonly now?: () => number;
}
export interface RunningDevices {
  readonly port: number;
  readonly close: () => Promise<void>;
}

const YANG = "application/yang-data+json";
/** What is found on the devices of a large site is the largest that comes. */
const MOST_BYTES = 64_000_000;
/** A device that is not reached keeps silent for that long, then the connection is cut. */
const SILENCE_MS = 400;

async function bodyOf(request: IncomingMessage): Promise<string | null> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > MOST_BYTES) return null;
    parts.push(part);
  }
  return Buffer.concat(parts).toString("utf8");
}

function send(response: ServerResponse, { status, body, etag, allow }: Answered): void {
  response.writeHead(status, {
    "cache-control": "no-store",
    ...(body === null ? {} : { "content-type": YANG }),
    ...(etag === undefined ? {} : { etag }),
    ...(allow === undefined ? {} : { allow }),
  });
  response.end(body === null ? undefined : JSON.stringify(body));
}

const sameText = (a: string, b: string): boolean => {
  const [left, right] = [a, b].map((text) => createHash("sha256").update(text).digest());
  return left !== undefined && right !== undefined && timingSafeEqual(left, right);
};

/** What somebody does who stands before the devices; a sentence why not, or null. */
function byHand(site: StandInSite, act: Readonly<Record<string, unknown>>): string | null {
  const { do: what, device: id, port, changes } = act;
  if (what === "begin") {
    let found: Change[];
    try {
      found = decodeChanges(changes);
    } catch {
      return "What is found has to be a list of changes.";
    }
    return site.begin(found) ? null : "What is found is no state of this plan.";
  }
  if (what === "plug") {
    if (port !== null && (typeof port !== "string" || !site.plan.plan.port.has(port)))
      return "There is no such port.";
    site.plug(port);
    return null;
  }
  const device = typeof id === "string" ? site.device(id) : null;
  if (device === null) return "There is no such device that is set up.";
  if (what === "power") site.power(device);
  else if (what === "powerCut") site.restart(device);
  else if (what === "reset") site.reset(device);
  else return "That is nothing that can be done by hand.";
  return null;
}

/** A site's devices, and the revision of the plan that they follow. */
interface Followed {
  readonly site: StandInSite;
  readonly revision: number;
}

class Devices {
  readonly #asked: StandInDevices;
  readonly #sites = new Map<string, StandInSite>();

  constructor(asked: StandInDevices) {
    this.#asked = asked;
  }

  /** Asked anew each time: devices of a plan that has been changed since would take what is told amiss. */
  async #followed(id: string): Promise<Followed | null> {
    const stored = await this.#asked.plan(id);
    if (stored === null) {
      this.#sites.delete(id);
      return null;
    }
    const { index, revision } = stored;
    const site = this.#sites.get(id) ?? StandInSite.of(index, this.#asked.now ?? Date.now);
    if (site === null) return null;
    this.#sites.set(id, site);
    if (site.plan !== index) site.follow(index);
    return { site, revision };
  }

  #isLetIn({ headers }: IncomingMessage): boolean {
    const word = Buffer.from(`installer:${this.#asked.password}`).toString("base64");
    return sameText(headers.authorization ?? "", `Basic ${word}`);
  }

  async handle(request: IncomingMessage, response: ServerResponse): Promise<void> {
    if (!this.#isLetIn(request)) {
      response.setHeader("www-authenticate", 'Basic realm="stand-in devices"');
      return send(response, { status: 401, body: null });
    }
    const { pathname } = new URL(request.url ?? "/", "http://devices.invalid");
    const [, siteId = "", part = "", root, ...path] = pathname
      .split("/")
      .filter((part, at) => at === 0 || part !== "");
    const body = await bodyOf(request);
    if (body === null) return send(response, { status: 413, body: null });
    const followed = await this.#followed(siteId);
    if (followed === null) return send(response, refused("unknown-element", "There is no such site."));
    if (part === "bench") return this.#bench(followed, request.method ?? "", body, response);
    const { site } = followed;
    const device = site.device(part);
    if (device === null || root !== "restconf")
      return send(response, refused("unknown-element", "There is no such device."));
    if (!site.answers(device.id)) return keepSilent(response);
    const answered = answer(site, device, {
      method: request.method ?? "",
      path,
      ifMatch: request.headers["if-match"] ?? null,
      body,
    });
    // Its answer goes the way that there is now: what cut the laptop off is done, and nobody hears of it.
    if (!site.reaches(device.id)) return keepSilent(response);
    return send(response, answered);
  }

  /** What is done by hand, and how everything stands then; no part of RESTCONF. */
  #bench({ site, revision }: Followed, method: string, body: string, response: ServerResponse): void {
    let fault: string | null = null;
    if (method === "POST") {
      let act: unknown = null;
      try {
        act = JSON.parse(body);
      } catch {
        act = null;
      }
      fault =
        typeof act === "object" && act !== null ? byHand(site, { ...act }) : "The body is no JSON object.";
    }
    if (fault !== null) return send(response, refused("invalid-value", fault));
    const state = site.state();
    response.writeHead(200, { "content-type": "application/json", "cache-control": "no-store" });
    response.end(JSON.stringify({ ...state, revision, changes: encodeChanges(state.changes) }));
  }
}

function keepSilent(response: ServerResponse): void {
  setTimeout(() => response.destroy(), SILENCE_MS);
}

/**
 * Starts the devices that stand in for the planned ones, on loopback only, over plain HTTP: at
 * /SITE/DEVICE/restconf each as RESTCONF (RFC 8040), at /SITE/bench what somebody does by hand.
 */
export async function startDevices(asked: StandInDevices): Promise<RunningDevices> {
  const devices = new Devices(asked);
  const server = createServer((request, response) => {
    devices.handle(request, response).catch(() => response.destroy());
  });
  server.requestTimeout = 30_000;
  server.listen(asked.port, "127.0.0.1");
  await once(server, "listening");
  return {
    port: (server.address() as AddressInfo).port,
    close: () =>
      new Promise((done) => {
        server.close(() => done());
        server.closeAllConnections();
      }),
  };
}
