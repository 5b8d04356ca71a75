import { expect, test, type Locator, type Page } from "@playwright/test";
import { arrowTo, downTo, goTo, press, tabTo } from "./by-keyboard";
import { ownSite, saved } from "./open-site";

const margin = (page: Page) => page.getByRole("complementary", { name: "Margin" });
const who = (page: Page, name: string): Locator =>
  page.getByRole("grid", { name: "Who gets in" }).getByRole("row").filter({ hasText: name });

/** The way of the sheet by arrows. */
async function showSignIn(page: Page): Promise<void> {
  await arrowTo(page, page.getByRole("radiogroup", { name: "Show" }), "Sign-in");
  await expect(page.getByRole("heading", { name: "Who gets in" })).toBeVisible();
}

async function write(page: Page, label: string, text: string): Promise<void> {
  await tabTo(page, margin(page).getByRole("textbox", { name: label, exact: true }));
  await page.keyboard.press("Control+a");
  await page.keyboard.type(text);
  await press(page, "Enter");
}

test("by keys alone: a profile from nothing to closed, seen with servers down, and taken back", async ({
  page,
}) => {
  await ownSite(page, "fennel-street", "Fennel Street, sign-in");
  await goTo(page, "09", "Switch guards");
  await showSignIn(page);
  await tabTo(page, page.getByLabel("Name of a profile"));
  await page.keyboard.type("Screens");
  await press(page, "Enter");
  const profiles = page.getByRole("grid", { name: "Sign-in profiles" });
  await tabTo(page, profiles.locator('td[tabindex="0"]'));
  await press(page, "ArrowDown");
  await expect(margin(page).getByRole("heading", { level: 2, name: "Screens" })).toBeVisible();
  await write(page, "Servers", "Sign-in server 9");
  await expect(margin(page).getByText(/There is no device "Sign-in server 9" in the register/)).toBeVisible();
  await write(page, "Servers", "Sign-in server 1, Sign-in server 2");
  await write(page, "By MAC", "yes");

  await goTo(page, "05", /switch|Gateway|Switch/);
  await tabTo(page, page.getByRole("button", { name: /^Device:/ }));
  await press(page, "Enter");
  await page.keyboard.type("Upper");
  await press(page, "Enter");
  await tabTo(page, page.getByRole("grid", { name: "Ports of Upper switch" }).locator('tr[tabindex="0"]'));
  await press(page, "Home", ...Array<string>(6).fill("ArrowDown"));
  await tabTo(page, margin(page).getByRole("checkbox", { name: /^802\.1X/ }));
  await press(page, "Space");
  const profile = margin(page).getByLabel("802.1X profile");
  await tabTo(page, profile);
  await page.keyboard.type("Screens", { delay: 10 });
  await expect(profile.locator("option:checked")).toHaveText("Screens");
  await saved(page);

  await goTo(page, "09", "Switch guards");
  await showSignIn(page);
  const screen = who(page, "Waiting room screen");
  await expect(screen.getByText("watched")).toHaveCount(2);
  const grid = page.getByRole("grid", { name: "Who gets in" });
  await tabTo(page, grid.locator('td[tabindex="0"]'));
  await downTo(page, grid, "Waiting room screen");
  await expect(margin(page).getByRole("heading", { level: 2, name: "Waiting room screen" })).toBeVisible();
  await tabTo(page, margin(page).getByRole("button", { name: "Screens" }));
  await press(page, "Enter");
  await expect(margin(page).getByText(/closed.*: cuts nobody off/)).toBeVisible();
  await tabTo(page, margin(page).getByRole("button", { name: "Go to closed" }));
  await press(page, "Enter");
  await expect(screen.getByText("by MAC address")).toHaveCount(2);
  await expect(screen.getByText("stays out")).toHaveCount(2);
  await saved(page);
  await press(page, "Control+z");
  await expect(screen.getByText("watched")).toHaveCount(2);
});

test("the works go over to multiple trees, a region is mended in one act, snooping is on", async ({
  page,
}) => {
  await ownSite(page, "bramblewick", "Bramblewick, trees");
  await page
    .getByRole("navigation", { name: "Work order" })
    .getByRole("link", { name: "Switch guards" })
    .click();
  await margin(page).getByRole("button", { name: "Go over to multiple trees" }).click();
  await expect(margin(page).getByText(/In this order no state in between has a loop/)).toBeVisible();
  await margin(page).getByRole("button", { name: "Plan multiple trees on 5 switches" }).click();
  await margin(page).getByRole("button", { name: "Apply", exact: true }).click();
  await saved(page);

  await page.getByRole("radio", { name: "Regions" }).click();
  const grid = page.getByRole("grid", { name: "Regions" });
  const revision = grid.getByRole("row").filter({ hasText: "Tank farm switch" }).getByRole("gridcell").nth(2);
  await revision.click();
  await page.keyboard.type("7");
  await page.keyboard.press("Enter");
  await expect(grid.getByText("≠")).not.toHaveCount(0);
  await page.getByLabel("Region of").selectOption("Office switch");
  await page.getByRole("button", { name: "Give it to 1 other switch" }).click();
  await expect(grid.getByText("≠")).toHaveCount(0);
  await saved(page);

  await page.getByRole("radio", { name: "Guards" }).click();
  // Nothing is chosen any more: the margin is about all switches again.
  await page.keyboard.press("Escape");
  await margin(page).getByRole("button", { name: "DHCP snooping" }).click();
  await expect(margin(page).getByText(/nobody who has a network now is without one then/)).toBeVisible();
  await margin(page).getByRole("button", { name: "Switch DHCP snooping on" }).click();
  await margin(page).getByRole("button", { name: "Apply", exact: true }).click();
  await expect(margin(page).getByText("Nothing is left to switch on.")).toBeVisible();
  await saved(page);
});
