import { expect, test } from "@playwright/test";
import { existsSync, readFileSync } from "node:fs";
import { LINK_FILE, SESSION } from "./places";

test("the link lets one person in, one time", async ({ page, browser }) => {
  await expect.poll(() => existsSync(LINK_FILE)).toBe(true);
  const link = readFileSync(LINK_FILE, "utf8");
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Write your name" })).toBeVisible();
  await page.goto(link);
  await page.getByRole("button", { name: "Come in as Ruth" }).click();
  await expect(page.getByRole("heading", { name: "Sites" })).toBeVisible();
  await expect(page.getByRole("link", { name: "Fennel Street Veterinary Practice" })).toBeVisible();
  await page.context().storageState({ path: SESSION });

  const stranger = await browser.newContext();
  const second = await stranger.newPage();
  await second.goto(link);
  await expect(second.getByRole("alert").filter({ hasText: "has been used" })).toBeVisible();
  await stranger.close();
});
