const UNITS: Readonly<Record<string, number>> = { s: 1, min: 60, h: 3600, d: 86_400 };

/** "8 h", "30 min", "2 d", "90 s" or bare seconds, as seconds; null for anything else. */
export function parseSeconds(text: string): number | null {
  const [, digits, unit = "s"] = /^(\d{1,8})\s*(s|min|h|d)?$/i.exec(text.trim()) ?? [];
  return digits === undefined ? null : Number(digits) * (UNITS[unit.toLowerCase()] ?? 1);
}

/** The same for a lease, which lasts from a minute to a year; null beyond. */
export function parseLease(text: string): number | null {
  const seconds = parseSeconds(text);
  return seconds !== null && seconds >= 60 && seconds <= 31_536_000 ? seconds : null;
}

/** The largest unit that gives a whole number. */
export function formatLease(seconds: number): string {
  for (const [unit, size] of [
    ["d", 86_400],
    ["h", 3600],
    ["min", 60],
  ] as const) {
    if (seconds % size === 0 && (unit !== "d" || seconds > 86_400)) return `${seconds / size} ${unit}`;
  }
  return `${seconds} s`;
}
