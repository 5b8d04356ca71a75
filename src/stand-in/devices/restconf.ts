import { createHash } from "node:crypto";
import { deviceData, yangData } from "@/core/device-sheet";
import { decodeChanges, deviceAccessListText } from "@/core/formats";
import type { Change, Device } from "@/core/plan";
import { placeOf, resource, written, type Json } from "./data-tree";
import type { StandInSite } from "./site";

// The resources of one device (RFC 8040 section 3.3): its data, and its operations.

export interface Asked {
  readonly method: string;
  /** The parts of the path below the device's RESTCONF root. */
  readonly path: readonly string[];
  readonly ifMatch: string | null;
  readonly body: string;
}
export interface Answered {
  readonly status: number;
  readonly body: Json | null;
  readonly etag?: string;
  readonly allow?: string;
}

/** RFC 8040 section 7: the tags that are used here, each with its status. */
const TAGS = {
  "invalid-value": 400,
  "malformed-message": 400,
  "unknown-element": 404,
  "operation-not-supported": 405,
  "operation-failed": 412,
} as const;

export const refused = (tag: keyof typeof TAGS, message: string): Answered => ({
  status: TAGS[tag],
  body: {
    "ietf-restconf:errors": {
      error: [{ "error-type": "application", "error-tag": tag, "error-message": message }],
    },
  },
});

const dataOf = (site: StandInSite, device: Device): Json => {
  const own = site.running.plan.device.get(device.id) ?? device;
  return JSON.parse(JSON.stringify(yangData(deviceData(site.running, own)))) as Json;
};

const tagOf = (data: Json): string =>
  `"${createHash("sha256").update(JSON.stringify(data)).digest("hex").slice(0, 16)}"`;

function parsed(text: string): Json | undefined {
  try {
    return JSON.parse(text) as Json;
  } catch {
    return undefined;
  }
}

const NO_RESOURCE =
  "There is no such resource; there are /data with interfaces, bridges and access lists, and /operations.";
/** The list that a device filters by (RFC 8519): only read, since it follows from settings. */
const ACCESS_LISTS = "ietf-access-control-list:acls";

function write(site: StandInSite, device: Device, { method, path, body, ifMatch }: Asked): Answered {
  if (path[1] === ACCESS_LISTS)
    return refused(
      "operation-not-supported",
      "Access lists follow from the rules, which are entered as settings.",
    );
  const place = placeOf(path.slice(1));
  if (place === null) return refused("unknown-element", NO_RESOURCE);
  const data = dataOf(site, device);
  if (ifMatch !== null && ifMatch !== tagOf(data))
    return refused("operation-failed", "It has changed since; read it again.");
  const value = parsed(body);
  if (value === undefined) return refused("malformed-message", "The body is no JSON.");
  const now = written(data, place, value, method === "PUT" ? "replace" : "merge");
  if (now === null)
    return refused("invalid-value", "The body is about another resource than the address names.");
  const taken = site.take(device, JSON.stringify(now));
  return taken.ok ? { status: 204, body: null } : refused("invalid-value", taken.error);
}

function accessLists(site: StandInSite, device: Device): Answered {
  const own = deviceAccessListText(site.running, device);
  if ("refusal" in own) return refused("operation-failed", own.refusal);
  const data = JSON.parse(own.text) as Json;
  return { status: 200, body: data, etag: tagOf(data) };
}

function read(site: StandInSite, device: Device, path: readonly string[]): Answered {
  if (path.length === 2 && path[1] === ACCESS_LISTS) return accessLists(site, device);
  const data = dataOf(site, device);
  const place = placeOf(path.slice(1));
  const found = place === null ? null : resource(data, place);
  return found === null
    ? refused("unknown-element", NO_RESOURCE)
    : { status: 200, body: found, etag: tagOf(data) };
}

/** What is said to an operation is in its "input" (RFC 8040 section 4.4.2). */
function settingsIn(body: string): Change[] | null {
  const value = parsed(body);
  const input =
    typeof value === "object" && value !== null && "dianome-stand-in:input" in value
      ? value["dianome-stand-in:input"]
      : null;
  const changes = typeof input === "object" && input !== null && "changes" in input ? input.changes : null;
  try {
    return Array.isArray(changes) ? decodeChanges(changes) : null;
  } catch {
    return null;
  }
}

function enter(site: StandInSite, device: Device, body: string): string | null {
  const changes = settingsIn(body);
  return changes === null ? "The input has to hold changes of settings." : site.takeSettings(device, changes);
}

/** Operations of a device: standard where there is one, else of the module dianome-stand-in. */
const OPERATIONS: Readonly<
  Record<string, (site: StandInSite, device: Device, body: string) => string | null>
> = {
  "ietf-system:system-restart": (site, device) => {
    site.restart(device);
    return null;
  },
  "dianome-stand-in:save": (site, device) => {
    site.save(device);
    return null;
  },
  "dianome-stand-in:enter": enter,
};

function operate(site: StandInSite, device: Device, { path, body }: Asked): Answered {
  const run = OPERATIONS[path[1] ?? ""];
  if (run === undefined || path.length > 2) return refused("unknown-element", NO_RESOURCE);
  const fault = run(site, device, body);
  return fault === null ? { status: 204, body: null } : refused("invalid-value", fault);
}

const ROOT: Json = {
  "ietf-restconf:restconf": { data: {}, operations: {}, "yang-library-version": "2019-01-04" },
};

const ALLOW = { data: "GET, HEAD, PUT, PATCH", operations: "GET, HEAD, POST" } as const;

const notTaken = (method: string, allow: string): Answered => ({
  ...refused("operation-not-supported", `${method} is not taken here.`),
  allow,
});

function answerData(site: StandInSite, device: Device, asked: Asked): Answered {
  const { method, path } = asked;
  if (method === "GET" || method === "HEAD") return read(site, device, path);
  return method === "PUT" || method === "PATCH" ? write(site, device, asked) : notTaken(method, ALLOW.data);
}

const OPERATION_NAMES: Json = {
  "ietf-restconf:operations": Object.fromEntries(Object.keys(OPERATIONS).map((name) => [name, [null]])),
};

function answerOperations(site: StandInSite, device: Device, asked: Asked): Answered {
  const { method, path } = asked;
  if (method === "POST") return operate(site, device, asked);
  if (method !== "GET" && method !== "HEAD") return notTaken(method, ALLOW.operations);
  return path.length === 1 ? { status: 200, body: OPERATION_NAMES } : refused("unknown-element", NO_RESOURCE);
}

/** What a device answers. */
export function answer(site: StandInSite, device: Device, asked: Asked): Answered {
  const [top] = asked.path;
  if (top === "data") return answerData(site, device, asked);
  if (top === "operations") return answerOperations(site, device, asked);
  if (top !== undefined) return refused("unknown-element", NO_RESOURCE);
  const isRead = asked.method === "GET" || asked.method === "HEAD";
  return isRead ? { status: 200, body: ROOT } : notTaken(asked.method, "GET, HEAD");
}
