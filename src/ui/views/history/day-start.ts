import { TZDate } from "@date-fns/tz";

/**
 * The instant at which a day begins where the site is, or one so many days later; by UTC in an unknown zone.
 */
export function dayStart(day: string, timeZone: string, later: number): string {
  const [year = 1970, month = 1, date = 1] = day.split("-").map(Number);
  const at = TZDate.tz(timeZone, year, month - 1, date + later).getTime();
  return new Date(Number.isNaN(at) ? Date.UTC(year, month - 1, date + later) : at).toISOString();
}
