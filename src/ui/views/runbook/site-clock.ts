import { TZDate } from "@date-fns/tz";

/** The time on the clock at a site, "2026-12-05T18:20"; null where its time zone is not known in this browser. */
export function clockAt(timeZone: string): string | null {
  const now = new TZDate(Date.now(), timeZone);
  return Number.isNaN(now.valueOf()) ? null : now.toISOString().slice(0, 16);
}
