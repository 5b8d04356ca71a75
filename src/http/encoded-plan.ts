import "server-only";
import { promisify } from "node:util";
import { gunzip, gzip } from "node:zlib";
import { encodePlanSliced } from "@/core/formats";
import type { Plan } from "@/core/plan";
import { pauseAfterAWhile } from "@/application/in-slices";
import type { ReadyBody } from "./route";

/**
 * The framework lets no route say how its body is encoded; our own server in front of it (scripts/serve.mjs)
 * turns this into that header.
 */
const BODY_ENCODING = "x-body-encoding";
const zip = promisify(gzip);
const unzip = promisify(gunzip);

/**
 * By the plan itself: one revision of a site is one plan, so it is encoded once, however often it is asked
 * for.
 */
const ENCODED = new WeakMap<Plan, Promise<Buffer>>();

async function encode(plan: Plan, revision: number): Promise<Buffer> {
  const pieces = await encodePlanSliced(plan, pauseAfterAWhile());
  return zip(Buffer.from([`{"revision":${revision},"plan":`, ...pieces, "}"].join(""), "utf8"), { level: 4 });
}

/** `{ revision, plan }` as it goes out, compressed for whoever takes that. */
export async function planBody(plan: Plan, revision: number, headers: Headers): Promise<ReadyBody> {
  const known = ENCODED.get(plan) ?? encode(plan, revision);
  ENCODED.set(plan, known);
  const zipped = await known;
  const takes = /\bgzip\b/.test(headers.get("accept-encoding") ?? "");
  return {
    // Compressed already: nothing on the way shall do it again.
    bytes: new Uint8Array(takes ? zipped : await unzip(zipped)),
    headers: {
      vary: "accept-encoding",
      "cache-control": "no-store, no-transform",
      ...(takes ? { [BODY_ENCODING]: "gzip" } : {}),
    },
  };
}
