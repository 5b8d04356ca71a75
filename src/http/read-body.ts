export type Body = { readonly ok: true; readonly value: unknown } | { readonly ok: false; readonly code: "too-large" | "bad-request" };

/** The JSON of a request of at most `maxBytes`; reading stops as soon as there is more. */
export async function readBody(request: Request, maxBytes: number): Promise<Body> {
  if (Number(request.headers.get("content-length") ?? 0) > maxBytes) return { ok: false, code: "too-large" };
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (let read = await reader?.read(); read !== undefined && !read.done; read = await reader?.read()) {
    size += read.value.byteLength;
    if (size > maxBytes) {
      await reader?.cancel();
      return { ok: false, code: "too-large" };
    }
    chunks.push(read.value);
  }
  try {
    return { ok: true, value: JSON.parse(Buffer.concat(chunks).toString("utf8")) };
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    return { ok: false, code: "bad-request" };
  }
}
