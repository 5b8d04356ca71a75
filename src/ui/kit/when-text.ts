/** An instant in the site's time zone, as it is read: "3 Nov 14:05". */
export const whenText = (instant: string, timeZone: string): string =>
  new Intl.DateTimeFormat("en-GB", {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
    timeZone,
  })
    .format(new Date(instant))
    .replace(",", "");
