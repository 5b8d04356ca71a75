import type { z } from "zod";

/** What is kept in this browser under a key; null where nothing is, or it cannot be read any more. */
export function readKept<T>(key: string, form: z.ZodType<T>): T | null {
  const text = localStorage.getItem(key);
  if (text === null) return null;
  try {
    const read = form.safeParse(JSON.parse(text));
    return read.success ? read.data : null;
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    return null;
  }
}

/** Keeps something, null nothing any more; a browser that keeps nothing goes on without. */
export function writeKept(key: string, value: unknown): void {
  try {
    if (value === null) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(value));
  } catch (error) {
    if (!(error instanceof DOMException)) throw error;
  }
}
