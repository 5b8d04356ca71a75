import { TZDate } from "@date-fns/tz";

/** The time on the clock at a site, "2026-12-05T18:20"; null where this browser does not know its time zone. */
export function clockAt(timeZone: string): string | null {
  const now = new TZDate(Date.now(), timeZone);
  return Number.isNaN(now.valueOf()) ? null : now.toISOString().slice(0, 16);
}
