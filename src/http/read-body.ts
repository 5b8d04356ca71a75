import { BodyScan, MOST_DEPTH } from "./body-scan";

export type Body =
  | { readonly ok: true; readonly value: unknown }
  | { readonly ok: false; readonly code: "too-large" | "bad-request"; readonly sentence: string };

const tooLarge = (maxBytes: number): Body => ({
  ok: false,
  code: "too-large",
  sentence:
    "At most " +
    (maxBytes < 1_000_000 ? `${Math.floor(maxBytes / 1000)} kB` : `${Math.floor(maxBytes / 1_000_000)} MB`) +
    " " +
    "are taken here.",
});
const TOO_DEEP: Body = {
  ok: false,
  code: "bad-request",
  sentence:
    `The request nests more than ${MOST_DEPTH} lists and ` +
    "objects in one another; nothing that belongs here does.",
};
const TOO_MANY: Body = {
  ok: false,
  code: "too-large",
  sentence: "The request holds more values than the largest plan.",
};
const NO_JSON: Body = { ok: false, code: "bad-request", sentence: "The request is no JSON." };

/**
 * The JSON of a request of at most `maxBytes`; reading stops as soon as there is more, or as it nests too
 * deep or holds too much.
 */
export async function readBody(request: Request, maxBytes: number): Promise<Body> {
  if (Number(request.headers.get("content-length") ?? 0) > maxBytes) return tooLarge(maxBytes);
  const chunks: Uint8Array[] = [];
  const scan = new BodyScan();
  let size = 0;
  const reader = request.body?.getReader();
  for (let read = await reader?.read(); read !== undefined && !read.done; read = await reader?.read()) {
    size += read.value.byteLength;
    const wrong = size > maxBytes ? "too-large" : scan.take(read.value);
    if (wrong !== null) {
      await reader?.cancel();
      if (wrong === "too-large") return tooLarge(maxBytes);
      if (wrong === "too-deep") return TOO_DEEP;
      return TOO_MANY;
    }
    chunks.push(read.value);
  }
  try {
    return { ok: true, value: JSON.parse(Buffer.concat(chunks).toString("utf8")) };
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    return NO_JSON;
  }
}
