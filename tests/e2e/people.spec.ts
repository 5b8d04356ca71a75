import { expect, test, type Browser, type Page } from "@playwright/test";
import { Secret, TOTP } from "otpauth";
import { openSite, openView, ownSite } from "./open-site";

// Somebody is invited, makes an account with a second factor, may do what the role allows, and is taken out.

const SITE = "Lockkeeper's House, people";
const PASSWORD = "several words do well";

async function stranger(browser: Browser, baseURL: string | undefined): Promise<Page> {
  const context = await browser.newContext({
    baseURL: String(baseURL),
    storageState: { cookies: [], origins: [] },
  });
  return context.newPage();
}

test("invited, signed in with a second factor, kept from drawing, made an editor, taken out", async ({
  page,
  browser,
  baseURL,
}) => {
  await ownSite(page, "lockkeepers-house", SITE);
  await page.goto("/people");
  const invite = page.getByRole("region", { name: "Invite" });
  await invite.getByLabel("Where").selectOption({ label: SITE });
  await invite.getByLabel("Role").selectOption("viewer");
  await invite.getByRole("button", { name: "Make the link" }).click();
  const link = await invite.getByLabel(/^Send this link/).inputValue();
  await expect(invite.getByText("for whoever opens it")).toBeVisible();

  const ines = await stranger(browser, baseURL);
  await ines.goto(link);
  await expect(ines.getByText(`Ruth invites you to ${SITE} as viewer.`)).toBeVisible();
  await ines.getByLabel("Your name").fill("Ines Ferrand");
  await ines.getByLabel("Password").fill("short");
  await ines.keyboard.press("Enter");
  await expect(ines.getByRole("alert").filter({ hasText: "at least 12 characters" })).toBeVisible();
  await ines.getByLabel("Password").fill(PASSWORD);
  await ines.keyboard.press("Enter");
  // Nothing but the one site, and no form to begin another.
  await expect(ines.getByRole("link", { name: SITE })).toBeVisible();
  await expect(ines.getByRole("table", { name: "Sites" }).getByRole("row")).toHaveCount(2);
  await expect(ines.getByText("A new site")).toBeHidden();

  await ines.getByRole("link", { name: "Account" }).click();
  await ines.getByRole("button", { name: "Set up a second factor" }).click();
  const secret = (await ines.locator("p.mono").first().innerText()).replaceAll(" ", "");
  const totp = new TOTP({ secret: Secret.fromBase32(secret) });
  const factor = ines.getByRole("region", { name: "Second factor" });
  // The code of the step before is good as well, and leaves the present one for signing in.
  await factor.getByLabel("Code").fill(totp.generate({ timestamp: Date.now() - 30_000 }));
  await factor.getByLabel("Your password").fill(PASSWORD);
  await factor.getByRole("button", { name: "Turn it on" }).click();
  await expect(factor.getByText("10 recovery codes are left")).toBeVisible();
  const recovery = await factor.getByRole("listitem").first().innerText();
  await ines.getByRole("button", { name: "Sign out" }).click();
  await ines.getByLabel("Your name").fill("Ines Ferrand");
  await ines.getByLabel("Password").fill("not the password");
  await ines.keyboard.press("Enter");
  await expect(
    ines.getByRole("alert").filter({ hasText: "name or the password is not right" }),
  ).toBeVisible();
  await ines.getByLabel("Password").fill(PASSWORD);
  await ines.keyboard.press("Enter");
  await ines.getByLabel("Code of the second factor").fill(recovery);
  await ines.keyboard.press("Enter");
  await expect(ines.getByRole("heading", { name: "Sites" })).toBeVisible();

  await openSite(ines, SITE);
  await expect(ines.getByText("Reads only")).toBeVisible();
  await ines.getByRole("gridcell", { name: "Household", exact: true }).first().click();
  await ines.keyboard.type("Family");
  await ines.keyboard.press("Enter");
  await expect(ines.getByText(/Your role here is viewer/).first()).toBeVisible();

  await page.goto("/people");
  await page.getByRole("button", { name: "Give Ines Ferrand a role" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Where").selectOption({ label: SITE });
  await dialog.getByLabel("Role").selectOption("editor");
  await dialog.getByRole("button", { name: "Give the role" }).click();
  await expect(page.getByRole("row", { name: /^Ines Ferrand/ }).getByText("editor")).toBeVisible();
  await openSite(ines, SITE);
  await expect(ines.getByText("Reads only")).toBeHidden();
  await openView(ines, "Walls");
  await openSite(page, SITE);
  await expect(page.getByText("Ines Ferrand on Walls")).toBeVisible();

  await page.goto("/people");
  await page.getByRole("button", { name: "Take Ines Ferrand out" }).click();
  await dialog.getByRole("button", { name: "Take Ines Ferrand out" }).click();
  await expect(dialog).toBeHidden();
  await page.getByRole("radio", { name: "Log" }).click();
  const log = page.getByRole("table", { name: "Log" });
  await expect(log.getByRole("row").nth(1)).toContainText("took somebody out");
  for (const words of ["set up a second factor", "could not sign in", "made an account"])
    await expect(log.getByRole("row").filter({ hasText: words }).first()).toBeVisible();
  await ines.goto("/");
  await expect(ines).toHaveURL(/\/enter$/);
  await ines.context().close();
});
