/** A day as people write it, with its year: papers are kept for years. */
const dayIn = (instant: string, timeZone: string): string =>
  new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric", timeZone }).format(
    new Date(instant),
  );

/** The day of an instant where the site is. */
export const issuedText = (instant: string, timeZone: string): string => dayIn(instant, timeZone);
/** A day of the calendar, wherever one is. */
export const dayText = (day: string): string => dayIn(`${day}T00:00:00.000Z`, "UTC");
