import type { Exception } from "../../plan";

type Hours = NonNullable<Exception["hours"]>;
const DAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"] as const;

const dayOf = (word: string): number =>
  DAYS.findIndex((day) => word.toLowerCase().startsWith(day.toLowerCase())) + 1;

/** "Mon-Fri", "Sat, Sun", "daily" as days of the week; null where a word is no day. */
function readDays(text: string): number[] | null {
  if (/^(daily|every day|)$/i.test(text)) return [1, 2, 3, 4, 5, 6, 7];
  const days = new Set<number>();
  for (const part of text.split(/[,\s]+/).filter((part) => part !== "")) {
    const [first, last = first] = part.split("-").map(dayOf);
    if (first === undefined || last === undefined || first === 0 || last === 0) return null;
    for (let day = first; ; day = (day % 7) + 1) {
      days.add(day);
      if (day === last) break;
    }
  }
  return [...days].sort((a, b) => a - b);
}

const minuteOf = (hours: string, minutes = "0"): number => Number(hours) * 60 + Number(minutes);

/** "08:00-17:00", "22 to 6" as the two minutes of the day; null where they are none. */
function readClock(text: string): Pick<Hours, "from" | "to"> | null {
  const match = /^(\d{1,2})(?::([0-5]\d))?\s*(?:-|to)\s*(\d{1,2})(?::([0-5]\d))?$/i.exec(text);
  const [from, to] = [minuteOf(match?.[1] ?? "99", match?.[2]), minuteOf(match?.[3] ?? "99", match?.[4])];
  return from < 1440 && to >= 1 && to <= 1440 && from !== to ? { from, to } : null;
}

/** "Mon-Fri 08:00-17:00" as hours of the week, "always" as none; a sentence where it can't be read. */
export function readHours(text: string): Hours | null | string {
  if (/^(|always|all|none)$/i.test(text)) return null;
  const [, dayText = "", clockText = ""] = /^(.*?)\s*(\d[\d: ]*(?:-|to).*)$/i.exec(text) ?? [];
  const days = readDays(dayText.trim().replace(/,$/, ""));
  const clock = readClock(clockText.trim());
  return days === null || days.length === 0 || clock === null
    ? `"${text}" is no time of the week: write days and hours, like Mon-Fri 08:00-17:00 or ` +
        "daily 22-6, or always."
    : { days, ...clock };
}

const clockText = (minute: number): string =>
  `${String(Math.floor(minute / 60)).padStart(2, "0")}:${String(minute % 60).padStart(2, "0")}`;

/** Runs of days: "Mon-Wed, Sat". */
function daysText(days: readonly number[]): string {
  if (days.length === 7) return "daily";
  const runs: [number, number][] = [];
  for (const day of [...days].sort((a, b) => a - b)) {
    const last = runs.at(-1);
    if (last !== undefined && last[1] === day - 1) last[1] = day;
    else runs.push([day, day]);
  }
  return runs
    .map(([first, last]) => (first === last ? DAYS[first - 1] : `${DAYS[first - 1]}-${DAYS[last - 1]}`))
    .join(", ");
}

/** Hours of the week as `readHours` reads them. */
export const hoursText = (hours: Hours | null): string =>
  hours === null ? "always" : `${daysText(hours.days)} ${clockText(hours.from)}-${clockText(hours.to)}`;
