/** The day so many days after an instant, in UTC, as YYYY-MM-DD. */
export const dayFrom = (instant: Date, days: number): string =>
  new Date(instant.getTime() + days * 86_400_000).toISOString().slice(0, 10);
