import { expect, type Locator, type Page } from "@playwright/test";

/**
 * Goes on with Tab until the control has the focus: what can't be reached so can't be reached without a
 * mouse.
 */
export async function tabTo(page: Page, target: Locator, back = false): Promise<void> {
  await target.waitFor();
  for (let i = 0; i < 250; i += 1) {
    if (
      await target.evaluate(
        (element) =>
          element === document.activeElement ||
          (element.getAttribute("role") === "row" && element.contains(document.activeElement)),
      )
    )
      return;
    await page.keyboard.press(back ? "Shift+Tab" : "Tab");
  }
  throw new Error(`Tab never came to ${String(target)}`);
}

export const press = async (page: Page, ...keys: string[]) => {
  // As fast as a held key repeats.
  for (const key of keys) await page.keyboard.press(key, { delay: 15 });
};
export const goTo = async (page: Page, sheet: string, heading: string | RegExp) => {
  await page
    .locator("body")
    .evaluate(() =>
      document.activeElement instanceof HTMLElement ? document.activeElement.blur() : undefined,
    );
  await press(page, "g", ...sheet);
  await expect(page.getByRole("heading", { level: 1, name: heading })).toBeVisible();
};
