import { expect, test, type Page } from "@playwright/test";
import { tabTo } from "./by-keyboard";
import { choose, openView, ownSite } from "./open-site";

const slip = (page: Page) => page.getByRole("region", { name: "Job slip" });
const rows = (page: Page) =>
  page.getByRole("table", { name: "What you looked at" }).locator("tbody").getByRole("row");
const start = async (page: Page, number: number) => {
  await page.getByRole("button", { name: new RegExp(`^Play drill ${number},`) }).click();
  await expect(slip(page)).toBeVisible({ timeout: 60_000 });
};
/** The debrief, once the search for the shortest way is over. */
const debriefed = async (page: Page, heading: RegExp) => {
  await expect(page.getByRole("heading", { name: heading })).toBeVisible();
  await expect(page.getByText(/readings that tell something here/)).toBeVisible({ timeout: 60_000 });
};

test("a drill by mouse, over a reload; a wrong name is told why; the site knows nothing of it", async ({
  page,
}) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, practised");
  await openView(page, "Drills");
  await start(page, 1);
  await page.getByRole("button", { name: /^See it yourself/ }).click();
  await expect(rows(page)).toHaveCount(1);
  await page.getByRole("button", { name: /^Read a device/ }).click();
  await choose(page, /^Device: /, "Upper switch");
  await page.getByRole("button", { name: "Look", exact: true }).click();
  await expect(rows(page).last()).toContainText("port 11: off");
  await page.reload();
  await expect(rows(page)).toHaveCount(2, { timeout: 60_000 });
  await choose(page, /^The fault: /, "Upper switch was not saved");
  await page.getByRole("button", { name: "Name it" }).click();
  await expect(rows(page).last()).toContainText("would have shown");
  await choose(page, /^About: /, "Upper switch port 11");
  await choose(page, /^The fault: /, "is off");
  await page.getByRole("button", { name: "Name it" }).click();
  await expect(rows(page).last()).toContainText("that is it");
  await choose(page, /^What is done: /, "Switch Upper switch port 11 on");
  await page.getByRole("button", { name: "Mend it" }).click();
  await debriefed(page, /Found and mended in \d+ min/);
  await expect(page.getByText(/^The shortest way: \d+ min/)).toBeVisible();
  await page.getByRole("button", { name: "All drills" }).click();
  await expect(page.getByRole("row", { name: /One PC gets no address/ })).toContainText(/✓ \d+ min/);

  await openView(page, "History");
  await expect(page.getByRole("table", { name: "History" }).locator("tbody").getByRole("row")).toHaveCount(1);
  await page.goto("/");
  await expect(page.getByText(/, a copy/)).toHaveCount(0);
});

test("two more to the end, one by keys alone, one lost; all stands in the progress", async ({ page }) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, by keys");
  await openView(page, "Drills");
  await tabTo(page, page.getByRole("button", { name: /^Play drill 6,/ }));
  await page.keyboard.press("Enter");
  await expect(slip(page)).toBeVisible({ timeout: 60_000 });
  const type = async (name: RegExp, text: string) => {
    await tabTo(page, page.getByRole("button", { name }));
    await page.keyboard.press("Enter");
    await expect(page.getByPlaceholder("Type part of the name")).toBeFocused();
    await page.keyboard.type(text);
    await page.keyboard.press("Enter");
  };
  const press = async (name: string | RegExp) => {
    await tabTo(page, page.getByRole("button", { name, exact: typeof name === "string" }));
    await page.keyboard.press("Enter");
  };
  await press(/^Ask somebody on site/);
  await type(/^Who: /, "lodgers-desk");
  await press("Look");
  await expect(rows(page)).toHaveCount(1);
  await type(/^The fault: /, "DHCP for Lodger is off on Gateway");
  await press("Name it");
  await expect(rows(page).last()).toContainText("that is it");
  await type(/^What is done: /, "Switch DHCP for Lodger on Gateway on");
  await press("Mend it");
  await debriefed(page, /Found and mended in \d+ min/);
  await press("All drills");

  await start(page, 13);
  await choose(page, /^The fault: /, "Phone Reception 3 sends without its tag");
  await page.getByRole("button", { name: "Name it" }).click();
  await choose(page, /^What is done: /, "Set VLAN 30 on Phone Reception 3");
  await page.getByRole("button", { name: "Mend it" }).click();
  await debriefed(page, /Found and mended/);
  await page.getByRole("button", { name: "All drills" }).click();

  await start(page, 8);
  for (let minutes = 0; minutes < 50; minutes += 8) {
    await page
      .getByRole("button", { name: /^Move a cable/ })
      .first()
      .waitFor();
    if (minutes === 0) {
      await page.getByRole("button", { name: /^Move a cable/ }).click();
      await choose(page, /^From: /, "Hall switch 8");
      await choose(page, /^To: /, "Hall switch 7");
    }
    await page.getByRole("button", { name: "Move it" }).click();
    await expect(rows(page)).toHaveCount(minutes / 8 + 1);
  }
  await debriefed(page, /The time is up/);
  await page.getByRole("button", { name: "All drills" }).click();
  await page.getByRole("radio", { name: "Progress" }).click();
  const mine = page.getByRole("row", { name: /\(you\)/ });
  await expect(mine.getByRole("cell").nth(5)).toHaveText(/^\d+$/);
  await expect(mine.getByRole("cell").nth(12)).toHaveText("4");
  await expect(mine.getByRole("cell").nth(7)).toHaveText("·");
});
