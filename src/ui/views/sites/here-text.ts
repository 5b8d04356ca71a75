/** An instant by the clock of whoever reads it: "3 Nov 2026, 14:05". */
export const hereText = (instant: string): string =>
  new Intl.DateTimeFormat("en-GB", {
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
  }).format(new Date(instant));
