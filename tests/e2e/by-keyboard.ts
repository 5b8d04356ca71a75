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

/**
 * Chooses one of a group of radios by arrows: as often as it is away from the one that is chosen. Pressing
 * until it shows would outrun a busy page and go past it.
 */
export async function arrowTo(page: Page, group: Locator, name: string, back = false): Promise<void> {
  await tabTo(page, group.locator('[aria-checked="true"]'), back);
  const target = group.getByRole("radio", { name });
  const away = await target.evaluate((element) => {
    const radios = [...(element.closest('[role="radiogroup"]')?.querySelectorAll('[role="radio"]') ?? [])];
    const chosen = radios.findIndex((radio) => radio.getAttribute("aria-checked") === "true");
    return (radios.indexOf(element) - chosen + radios.length) % radios.length;
  });
  await press(page, ...Array<string>(away).fill("ArrowRight"));
  await expect(target).toBeChecked();
  await expect(target).toBeFocused();
}

/** Goes down to the first row with that text, from the row of the grid in which the focus is. */
export async function downTo(page: Page, grid: Locator, text: string): Promise<void> {
  const away = await grid
    .getByRole("row")
    .evaluateAll(
      (rows, sought) =>
        rows.findIndex((row) => row.textContent.includes(sought)) -
        rows.findIndex((row) => row.contains(document.activeElement)),
      text,
    );
  await press(page, ...Array<string>(away).fill("ArrowDown"));
}

export const goTo = async (page: Page, sheet: string, heading: string | RegExp) => {
  await page
    .locator("body")
    .evaluate(() =>
      document.activeElement instanceof HTMLElement ? document.activeElement.blur() : undefined,
    );
  await press(page, "g", ...sheet);
  await expect(page.getByRole("heading", { level: 1, name: heading })).toBeVisible();
};
