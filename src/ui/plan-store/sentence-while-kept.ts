import type { RefusedAnswer } from "@/http/contracts/answers";

/** The sentence of a refusal where what was sent is kept in the browser and goes out again by itself. */
export function sentenceWhileKept(status: number, { code, sentence }: RefusedAnswer): string {
  if (code !== "no-answer") return sentence;
  return status === 0
    ? "The server does not answer. Your changes are kept here and are sent when it does."
    : `The server's answer (${status}) could not be read. Your changes are kept here and are sent again.`;
}
