/** Fills the words in braces of a pattern; what is empty leaves no double space or loose mark behind. */
export const fillPattern = (pattern: string, words: Readonly<Record<string, string | number>>): string =>
  pattern
    .replace(/\{(\w+)\}/g, (whole, word: string) => (word in words ? String(words[word]) : whole))
    .replace(/\s+/g, " ")
    .replace(/^[\s\-_.]+|[\s\-_.]+$/g, "");

/** Whether each word in braces is one of those that can be filled, and one of them is there. */
export function patternFault(pattern: string, known: readonly string[]): string | null {
  const used = [...pattern.matchAll(/\{(\w*)\}/g)].map((match) => match[1] ?? "");
  const unknown = used.find((word) => !known.includes(word));
  if (unknown !== undefined)
    return `{${unknown}} is not known here; use ${known.map((word) => `{${word}}`).join(", ")}.`;
  return used.length === 0
    ? `"${pattern}" makes the same text each time; use ${known.map((word) => `{${word}}`).join(", ")}.`
    : null;
}
