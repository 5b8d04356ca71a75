import { expect, test, type Page } from "@playwright/test";
import { goTo, press, tabTo } from "./by-keyboard";
import { choose, openView, ownSite, saved } from "./open-site";

const margin = (page: Page) => page.getByRole("complementary", { name: "Margin" });
const grid = (page: Page, name: string) => page.getByRole("grid", { name });

test("a camera to be reached: why it can't, the VPN with its one exception, proven, second line", async ({
  page,
}) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, from outside");
  await openView(page, "Gateway");
  const ways = grid(page, "Ways in");
  const bell = ways.getByRole("row", { name: /Who is at the door/ });
  await expect(bell).toContainText("cannot");
  await bell.getByText("Who is at the door").click();
  await expect(margin(page)).toContainText(/cannot by Mobile line: .*carrier-grade NAT/);
  await margin(page)
    .getByRole("button", { name: /by VPN, Fibre line$/ })
    .click();
  await expect(margin(page)).toContainText("What it would do");
  await margin(page).getByRole("button", { name: "Apply" }).click();
  await expect(grid(page, "Tunnels").getByText("By VPN").first()).toBeVisible();
  await grid(page, "Lines").getByText("Fibre line").first().click();
  await expect(margin(page)).toContainText("Mobile line takes over after 10 s.");
  await expect(margin(page)).toContainText("Nothing comes in by Mobile line");

  await openView(page, "Walls");
  await expect(grid(page, "Exceptions").getByText("Who is at the door")).toBeVisible();
  await expect(page.getByText("Walls proven")).toBeVisible();
  await openView(page, "Probe");
  await choose(page, /^What and where/, "By VPN, by its tunnel");
  await choose(page, /^What it asks for/, "door-bell");
  await page.locator("label", { hasText: /^by/ }).locator("select").selectOption({ label: "video" });
  await expect(page.getByText("comes in by the tunnel to Gateway")).toBeVisible();
  await expect(page.getByText("the answer returns").first()).toBeVisible();
  await saved(page);
});

test("by keys alone: lines in order, a share that can't be is said, an exception proven", async ({
  page,
}) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, two lines");
  await goTo(page, "07", "Gateway");
  const lines = grid(page, "Lines");
  await tabTo(page, lines.locator('td[tabindex="0"]'));
  await press(page, "ArrowDown");
  await page.keyboard.type("1");
  await press(page, "Enter");
  await expect(lines.getByRole("row").nth(1)).toContainText("Mobile line");
  await expect(page.getByText("first: carries everything, back after 60 s")).toBeVisible();
  await press(page, "ArrowUp", "Home", "ArrowRight", "ArrowRight");
  await page.keyboard.type("160");
  await press(page, "Enter");
  await expect(page.getByText(/"160" is no share; write percent from 1 to 100, or none\./)).toBeVisible();
  await press(page, "Escape");
  await expect(lines.getByText("160")).toHaveCount(0);
  await saved(page);

  await goTo(page, "08", "Walls");
  await expect(page.getByText("Walls proven")).toBeVisible();
  await tabTo(page, page.getByRole("textbox", { name: "From", exact: true }));
  await page.keyboard.type("Lodger");
  await press(page, "Tab");
  await page.keyboard.type("kiln-controller");
  await press(page, "Tab");
  await page.keyboard.type("https");
  await press(page, "Enter");
  const exceptions = grid(page, "Exceptions");
  await expect(exceptions.getByText("Lodger to kiln-controller")).toBeVisible();
  await tabTo(page, exceptions.locator('td[tabindex="0"]'));
  await press(page, "ArrowRight", "ArrowRight", "ArrowRight", "ArrowRight");
  await page.keyboard.type("Sat, Sun 9-18");
  await press(page, "Enter");
  await expect(page.getByText(/inside and outside all hours/)).toBeVisible();
  await expect(page.getByText("Walls proven")).toBeVisible();
  await saved(page);
});

test("the provider's box behind the gateway: seen before, in the register, pinned, taken back", async ({
  page,
}) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, box kept");
  await openView(page, "Gateway");
  const mobile = grid(page, "Lines").getByRole("row", { name: /Mobile line/ });
  await mobile.getByText("Mobile line").click();
  await expect(margin(page)).toContainText("Emergency calls.");
  await margin(page).getByRole("button", { name: "Let it be kept behind our gateway" }).click();
  await expect(margin(page)).toContainText("mobile-line-box");
  await expect(mobile).not.toContainText("mobile-line-box");
  await margin(page).getByRole("button", { name: "Apply" }).click();
  await expect(mobile).toContainText("mobile-line-box or nothing");
  await saved(page);
  await openView(page, "Addresses");
  const register = page.getByRole("grid").getByText("mobile-line-box");
  await expect(register).toBeVisible();
  await page.getByRole("button", { name: /^Undo/ }).first().click();
  await expect(register).toHaveCount(0);
  await saved(page);
});
