import fc from "fast-check";
import { adviseLease, holdSeconds, LEASES, peakUse, type Visits } from "./lease-sizing";

/**
 * The formula against a day lived through minute by minute: visitors at even distances, each renewing at half
 * its lease.
 */
function livedThrough({ perHour, staySeconds, openSeconds }: Visits, lease: number): number {
  const gap = 3600 / perHour;
  const events: [number, number][] = [];
  for (let day = 0; day < 10; day += 1) {
    for (let at = 0; at < openSeconds - 1e-9; at += gap) {
      const arrives = day * 86_400 + at;
      let ends = arrives + lease;
      for (let asks = arrives + lease / 2; asks <= arrives + staySeconds + 1e-9; asks += lease / 2)
        ends = asks + lease;
      events.push([arrives, 1], [ends, -1]);
    }
  }
  events.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  let [now, most] = [0, 0];
  for (const [, step] of events) {
    now += step;
    most = Math.max(most, now);
  }
  return most;
}

test("the average at the peak is what ten lived-through days come to", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 60 }),
      fc.integer({ min: 300, max: 20_000 }),
      fc.integer({ min: 4, max: 24 }),
      fc.constantFrom(...LEASES),
      (perHour, staySeconds, openHours, lease) => {
        const visits = { perHour, staySeconds, openSeconds: openHours * 3600 };
        // Ten days don't fill a lease of a week and more.
        fc.pre(holdSeconds(visits, lease) < 9 * 86_400);
        const lived = livedThrough(visits, lease);
        expect(Math.abs(peakUse(visits, lease).average - lived)).toBeLessThanOrEqual(
          Math.ceil(holdSeconds(visits, lease) / 86_400) + 1,
        );
      },
    ),
    { numRuns: 200 },
  );
});

test.each([
  // 60 an hour for 45 minutes on a lease of 2 h: held 2 h, so 120 on average and 146 on a busy day.
  [{ perHour: 60, staySeconds: 2700, openSeconds: 32_400 }, 7200, 7200, 120, 146],
  // 12 an hour for 40 minutes on a lease of 24 h: nobody's comes back before closing, so all 108 of nine hours.
  [{ perHour: 12, staySeconds: 2400, openSeconds: 32_400 }, 86_400, 86_400, 108, 133],
  // 90 minutes on a lease of 1 h: renewed three times, held 2.5 h.
  [{ perHour: 10, staySeconds: 5400, openSeconds: 36_000 }, 3600, 9000, 25, 37],
  // eslint-disable-next-line max-params -- a row of the table of cases
])("by hand: %j with %i s", (visits, lease, hold, average, needed) => {
  expect(holdSeconds(visits, lease)).toBe(hold);
  expect(peakUse(visits, lease)).toMatchObject({ average, needed });
});

test("a longer lease never needs fewer addresses, and the advice is the longest that fits", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 200 }),
      fc.integer({ min: 60, max: 40_000 }),
      fc.integer({ min: 3600, max: 86_400 }),
      fc.integer({ min: 1, max: 1000 }),
      (perHour, staySeconds, openSeconds, room) => {
        const visits = { perHour, staySeconds, openSeconds };
        const advice = adviseLease(visits, room, 0);
        expect(advice.fits).toBe(peakUse(visits, advice.leaseSeconds).needed <= room);
        for (const lease of LEASES.filter((l) => l > advice.leaseSeconds && l <= 86_400))
          if (advice.fits) expect(peakUse(visits, lease).needed).toBeGreaterThan(room);
      },
    ),
  );
});

test("advice says so when even the shortest lease is too long for the room", () => {
  expect(adviseLease({ perHour: 600, staySeconds: 3600, openSeconds: 36_000 }, 50, 0)).toMatchObject({
    fits: false,
    leaseSeconds: 600,
  });
});
