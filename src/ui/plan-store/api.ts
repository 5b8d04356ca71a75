import type { RefusedAnswer } from "@/http/contracts/answers";

/** What came of a call: the answer, a refusal with its sentence, or no answer at all. */
export type Called<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly status: number; readonly refused: RefusedAnswer };

const NO_ANSWER: RefusedAnswer = { code: "no-answer", sentence: "The server does not answer. Your changes are kept here and are sent when it does." };

export async function call<T>(path: string, method: "GET" | "POST" | "DELETE" = "GET", body?: unknown): Promise<Called<T>> {
  let response: Response;
  try {
    response = await fetch(path, body === undefined ? { method } : { method, body: JSON.stringify(body), headers: { "content-type": "application/json" } });
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
    return { ok: false, status: 0, refused: NO_ANSWER };
  }
  const answer: unknown = await response.json().catch(() => NO_ANSWER);
  return response.ok ? { ok: true, value: answer as T } : { ok: false, status: response.status, refused: answer as RefusedAnswer };
}

/** Whether trying again later may help: no answer, or a server that says so. */
export const mayRetry = (status: number): boolean => status === 0 || status === 502 || status === 503 || status === 507;
