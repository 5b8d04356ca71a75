import "server-only";
import { buffer } from "node:stream/consumers";
import { pipeline } from "node:stream/promises";
import { promisify } from "node:util";
import { createGzip, gunzip } from "node:zlib";
import { planPieces } from "@/core/formats";
import type { Plan } from "@/core/plan";
import { pauseAfterAWhile } from "@/application/in-slices";
import type { ReadyBody } from "./route";

/**
 * The framework lets no route say how its body is encoded; our own server in front of it (scripts/serve.mjs)
 * turns this into that header.
 */
const BODY_ENCODING = "x-body-encoding";
const unzip = promisify(gunzip);

/**
 * By the plan itself: one revision of a site is one plan, so it is encoded once, however often it is asked
 * for.
 */
const ENCODED = new WeakMap<Plan, Promise<Buffer>>();

async function* answerPieces(plan: Plan, revision: number): AsyncGenerator<string> {
  yield `{"revision":${revision},"plan":`;
  yield* planPieces(plan, pauseAfterAWhile());
  yield "}";
}

/** A piece is compressed, in a thread of its own, while the next one is written. */
const encode = (plan: Plan, revision: number): Promise<Buffer> =>
  pipeline(answerPieces(plan, revision), createGzip({ level: 4 }), buffer);

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
