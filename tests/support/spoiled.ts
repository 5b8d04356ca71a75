import type { Dice } from "@/core/testing/plants";

// Values that almost fit, for requests that are almost right.

const HOSTILE: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1e308,
  -0.5,
  2 ** 53,
  "",
  " ",
  "\u0000",
  "a\ud800",
  "e\u0301",
  "\u202e",
  "x".repeat(70_000),
  "0000-02-29",
  "9999-12-31",
  "2026-02-30",
  "300.1.2.3",
  "::1/200",
  "10.0.0.0/33",
  "10.0.0.1",
  "' OR 1=1 --",
  "\\",
  "%00",
  "__proto__",
  "constructor",
  [],
  {},
  [[]],
  [null],
  ["a", "a"],
  { __proto__: { a: 1 } },
  { id: "00000000-0000-7000-8000-000000000000" },
  "00000000-0000-7000-8000-000000000000",
  Number.MAX_SAFE_INTEGER,
  4096,
  65_536,
  "\u{1f9f1}".repeat(80),
];
/** One of a list by chance. */
export const pick = <T>(roll: Dice, list: readonly T[]): T => list[roll(list.length)] as T;

/**
 * The same value with one place in it changed: put in place of it, left out, doubled, or given a field too
 * many.
 */
export function spoiled(value: unknown, roll: Dice): unknown {
  if (Array.isArray(value) && value.length > 0 && roll(6) > 0) {
    const at = roll(value.length);
    const how = roll(8);
    if (how === 0) return value.filter((_, i) => i !== at);
    if (how === 1) return [...(value as unknown[]), value[at]];
    return (value as unknown[]).map((item, i) => (i === at ? spoiled(item, roll) : item));
  }
  if (
    typeof value === "object" &&
    value !== null &&
    !Array.isArray(value) &&
    Object.keys(value).length > 0 &&
    roll(6) > 0
  ) {
    const key = pick(roll, Object.keys(value));
    const how = roll(10);
    if (how === 0) return Object.fromEntries(Object.entries(value).filter(([name]) => name !== key));
    if (how === 1) return { ...value, [pick(roll, ["__proto__x", "extra", "id"])]: pick(roll, HOSTILE) };
    return { ...value, [key]: spoiled((value as Record<string, unknown>)[key], roll) };
  }
  return pick(roll, HOSTILE);
}
