import { clockAt } from "./site-clock";

test("the clock at the site shows its own time, summer time too; an unknown time zone shows none", () => {
  jest.useFakeTimers();
  const at = (utc: string, zone: string) => {
    jest.setSystemTime(new Date(utc));
    return clockAt(zone);
  };
  expect([
    at("2026-12-05T23:20:59Z", "Europe/London"),
    at("2026-07-05T23:20:00Z", "Europe/London"),
    at("2026-12-05T23:20:00Z", "Asia/Kolkata"),
    at("2026-12-05T23:20:00Z", "Nowhere/Atoll"),
  ]).toEqual(["2026-12-05T23:20", "2026-07-06T00:20", "2026-12-06T04:50", null]);
  jest.useRealTimers();
});
