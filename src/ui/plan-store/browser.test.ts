/** @jest-environment node */
import { thisBrowser } from "./browser";

test("the page is made on the server first, where there is no browser: that is no error", () => {
  const { navigator } = globalThis as { navigator?: unknown };
  expect(navigator).toBeUndefined();
  const browser = thisBrowser();
  expect([browser.claim, browser.tabId()]).toEqual([null, ""]);
  expect(browser.now()).toBeGreaterThan(0);
});
