const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

/** A day as people write it, with its year: papers are kept for years. */
export function dayWords(day: string): string {
  const [year, month, date] = day.split("-").map(Number);
  return `${date ?? ""} ${MONTHS[(month ?? 1) - 1] ?? ""} ${year ?? ""}`;
}

/** Parts of an instant where the site is, or in UTC where nobody knows its time zone. */
function partsIn(instant: string, timeZone: string): Intl.DateTimeFormatPart[] {
  const options: Intl.DateTimeFormatOptions = {
    year: "numeric",
    month: "2-digit",
    day: "2-digit",
    hour: "2-digit",
    minute: "2-digit",
    hourCycle: "h23",
  };
  try {
    return new Intl.DateTimeFormat("en-CA", { ...options, timeZone }).formatToParts(new Date(instant));
  } catch {
    return new Intl.DateTimeFormat("en-CA", { ...options, timeZone: "UTC" }).formatToParts(new Date(instant));
  }
}

/** The day and the time of an instant where the site is: "30 Nov 2026 14:02". */
export function timeWords(instant: string, timeZone: string): string {
  const parts = partsIn(instant, timeZone);
  const part = (type: string): string => parts.find((part) => part.type === type)?.value ?? "";
  const day = dayWords(`${part("year")}-${part("month")}-${part("day")}`);
  return `${day} ${part("hour")}:${part("minute")}`;
}

/** Lines of a text that somebody wrote, those without anything left out. */
export const linesOf = (text: string): string[] =>
  text
    .split("\n")
    .map((line) => line.trim())
    .filter((line) => line !== "");
