import type { RefusedAnswer } from "@/http/contracts/answers";

/** What came of a call: the answer, a refusal with its sentence, or no answer that can be read. */
export type Called<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly status: number; readonly refused: RefusedAnswer };
export type Call = <T>(
  path: string,
  method?: "GET" | "POST" | "DELETE",
  body?: unknown,
) => Promise<Called<T>>;

const NO_ANSWER: RefusedAnswer = {
  code: "no-answer",
  sentence: "The server does not answer. Try again when it does.",
};
/** It may have been done all the same, unless nothing was to be done. */
const notUnderstood = (status: number, isQuestion: boolean): RefusedAnswer => ({
  code: "no-answer",
  sentence:
    `The server's answer (${status}) could not be read. ` +
    (isQuestion ? "Try again." : "See whether it was done before you try again."),
});

const isRefused = (answer: unknown): answer is RefusedAnswer =>
  typeof answer === "object" &&
  answer !== null &&
  "code" in answer &&
  typeof answer.code === "string" &&
  "sentence" in answer &&
  typeof answer.sentence === "string";

/** The JSON of an answer; null when it is something else, such as an error page of something on the way. */
function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    return null;
  }
}

export const call: Call = async <T>(
  path: string,
  method: "GET" | "POST" | "DELETE" = "GET",
  body?: unknown,
): Promise<Called<T>> => {
  let response: Response;
  let answer: unknown;
  try {
    response = await fetch(
      path,
      body === undefined
        ? { method }
        : { method, body: JSON.stringify(body), headers: { "content-type": "application/json" } },
    );
    answer = jsonIn(await response.text());
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
    return { ok: false, status: 0, refused: NO_ANSWER };
  }
  if (response.ok && answer !== null) return { ok: true, value: answer as T };
  return {
    ok: false,
    status: response.status,
    refused: isRefused(answer) ? answer : notUnderstood(response.status, method === "GET"),
  };
};

/**
 * What becomes of a batch that was refused: it is dropped, put on top of what others did, asked about at the
 * door, or sent again later.
 */
export type Fate = "drop" | "catch-up" | "load-anew" | "stranger" | "again";

/**
 * Only these say that the batch itself can never be taken. Everything else may pass, whatever the server
 * makes of it.
 */
const NEVER_TAKEN: ReadonlySet<string> = new Set(["bad-request", "broken-plan", "too-large", "no-such-site"]);

export function fateOf(status: number, code: string): Fate {
  if (NEVER_TAKEN.has(code)) return "drop";
  if (status === 401) return "stranger";
  if (code === "revision-ahead") return "load-anew";
  return code === "stale-revision" ? "catch-up" : "again";
}
