import { expect, test } from "@playwright/test";
import { openSite } from "./open-site";
import { SESSION } from "./places";

const MOST_KB = 1200;

/** What a page and everything it asked for came to on the wire, by the browser's own record. */
interface Weight {
  readonly requests: number;
  readonly kilobytes: number;
  readonly domReadyMs: number;
  readonly foreign: string[];
}

test("a first visit to the first sheet stays light and asks nobody else for anything", async ({
  page,
  baseURL,
}) => {
  await openSite(page, "Fennel Street Veterinary Practice");
  const address = page.url();
  const context = await page.context().browser()?.newContext({ storageState: SESSION });
  const fresh = await context?.newPage();
  if (fresh === undefined) throw new Error("no browser");
  const began = Date.now();
  await fresh.goto(address);
  await expect(fresh.getByRole("gridcell", { name: "Guests", exact: true }).first()).toBeVisible();
  const shownMs = Date.now() - began;
  const weight = await fresh.evaluate((own): Weight => {
    const [page] = performance.getEntriesByType("navigation") as PerformanceNavigationTiming[];
    const parts = performance.getEntriesByType("resource") as PerformanceResourceTiming[];
    const bytes = [...(page === undefined ? [] : [page]), ...parts].reduce(
      (sum, part) => sum + part.transferSize,
      0,
    );
    return {
      requests: parts.length + 1,
      kilobytes: Math.round(bytes / 1000),
      domReadyMs: Math.round(page?.domContentLoadedEventEnd ?? 0),
      foreign: parts.map((part) => part.name).filter((name) => !name.startsWith(own)),
    };
  }, String(baseURL));
  console.log(
    `    first visit to Segments: ${weight.requests} requests, ${weight.kilobytes} kB on ` +
      `the wire, DOM ready after ${weight.domReadyMs} ms, plan shown after ${shownMs} ms`,
  );
  expect(weight.foreign).toEqual([]);
  expect(weight.kilobytes).toBeLessThan(MOST_KB);
  await context?.close();
});
