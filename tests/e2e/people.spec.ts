import AxeBuilder from "@axe-core/playwright";
import { expect, test, type Browser, type Page } from "@playwright/test";
import { Secret, TOTP } from "otpauth";
import { arrowTo, press, tabTo } from "./by-keyboard";
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

test("customers, folders of sites, roles and tokens by keyboard alone", async ({ page }) => {
  const site = "Lockkeeper's House, by keyboard";
  await ownSite(page, "lockkeepers-house", site);
  await page.goto("/people");
  const part = (name: string) => arrowTo(page, page.getByLabel("What of it"), name, true);
  const choose = async (label: string, option: string) => {
    const select = page.getByRole("combobox", { name: label, exact: true });
    await tabTo(page, select);
    await page.keyboard.type(option, { delay: 10 });
    await expect(select.locator("option:checked")).toHaveText(option);
  };
  await part("Customers");
  await tabTo(page, page.getByLabel("New customer"));
  await page.keyboard.type("Weir Trust");
  await press(page, "Enter");
  await tabTo(page, page.getByLabel("Name of Weir Trust"), true);
  await press(page, "Control+a");
  await page.keyboard.type("Weir and Lock Trust");
  await press(page, "Enter");
  const folder = page.getByRole("listitem").filter({ has: page.getByLabel("Name of Weir and Lock Trust") });
  await expect(folder.getByText("0 sites")).toBeVisible();
  await choose(`Folder of ${site}`, "Weir and Lock Trust");
  // Chosen is not moved yet.
  await expect(folder.getByText("0 sites")).toBeVisible();
  await tabTo(page, page.getByRole("button", { name: "Move it" }));
  await press(page, "Enter");
  await expect(folder.getByText("1 site", { exact: true })).toBeVisible();

  await part("Machines");
  await tabTo(page, page.getByLabel("What for"));
  await page.keyboard.type("copy by keyboard");
  await choose("Where", "Weir and Lock Trust");
  await tabTo(page, page.getByRole("button", { name: "Make the token" }));
  await press(page, "Enter");
  await expect(page.getByLabel(/^Keep this token/)).toBeVisible();
  const token = page.getByRole("list", { name: "Tokens" }).getByRole("listitem").first();
  await expect(token).toContainText("copy by keyboard");
  await tabTo(page, token.getByRole("button", { name: /^Withdraw/ }));
  await press(page, "Enter");
  await expect(token).toContainText("withdrawn");

  await part("People");
  await tabTo(page, page.getByRole("button", { name: "Give Ruth a role" }));
  await press(page, "Enter");
  await expect(page.getByRole("dialog").getByLabel("Where")).toBeVisible();
  await press(page, "Escape");
  // Where one was before is where one is again.
  await expect(page.getByRole("button", { name: "Give Ruth a role" })).toBeFocused();
  await press(page, "Enter");
  const dialog = page.getByRole("dialog");
  await tabTo(page, dialog.getByLabel("Where"));
  await page.keyboard.type("Weir", { delay: 10 });
  await tabTo(page, dialog.getByRole("button", { name: "Give the role" }));
  await press(page, "Enter");
  const withdraw = page.getByRole("button", { name: "Withdraw viewer on Weir and Lock Trust from Ruth" });
  await tabTo(page, withdraw);
  await press(page, "Enter");
  await expect(withdraw).toBeHidden();

  await part("Customers");
  // With a site in it the folder stays.
  const remove = page.getByRole("button", { name: "Remove Weir and Lock Trust" });
  await tabTo(page, remove);
  await press(page, "Enter");
  await expect(page.getByRole("alert").filter({ hasText: "Sites still lie in this folder" })).toBeVisible();
  await choose(`Folder of ${site}`, "no customer");
  await tabTo(page, page.getByRole("button", { name: "Move it" }));
  await press(page, "Enter");
  await expect(folder.getByText("0 sites")).toBeVisible();
  await tabTo(page, remove, true);
  await press(page, "Enter");
  await expect(folder).toBeHidden();
});

/** A device of one's own that keeps keys and takes every touch for its person's. */
async function withKeys(page: Page): Promise<void> {
  const devices = await page.context().newCDPSession(page);
  await devices.send("WebAuthn.enable");
  await devices.send("WebAuthn.addVirtualAuthenticator", {
    options: {
      protocol: "ctap2",
      transport: "internal",
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
}

test("a sheet is handed on by a link to somebody without an account, and withdrawn; by keyboard alone", async ({
  page,
  browser,
  baseURL,
}) => {
  const site = "Lockkeeper's House, handed on";
  await ownSite(page, "lockkeepers-house", site);
  await openSite(page, site);
  await openView(page, "Hand-over");
  await page.getByRole("button", { name: "Issue this state" }).focus();
  await page.keyboard.press("Enter");
  await page.getByLabel(/^Name, as/).fill("As built");
  await page.getByLabel("For whom").fill("The household");
  await page.keyboard.press("Enter");
  const hand = page.getByRole("region", { name: "Hand it on" });
  await hand.getByLabel("Last day").fill("2020-01-01");
  await hand.getByLabel("Who gets it").focus();
  await page.keyboard.press("Enter");
  await expect(hand.getByRole("alert")).toHaveText(/has to be today or later/);
  await hand.getByLabel("Last day").fill(new Date(Date.now() + 86_400_000).toISOString().slice(0, 10));
  await hand.getByLabel("Who gets it").focus();
  await page.keyboard.press("Enter");
  const link = await hand.getByLabel(/^Send this link/).inputValue();

  const reader = await stranger(browser, baseURL);
  await reader.goto(link);
  await expect(reader.getByText("A As built")).toBeVisible();
  const parts = reader.getByRole("navigation", { name: "Parts" });
  await parts.getByRole("link", { name: "Networks" }).focus();
  await reader.keyboard.press("Enter");
  await expect(reader.getByRole("heading", { name: "Networks" })).toBeVisible();
  await expect(reader.getByRole("cell", { name: "Household" }).first()).toBeVisible();
  for (const colorScheme of ["light", "dark"] as const) {
    await reader.emulateMedia({ colorScheme });
    const { violations } = await new AxeBuilder({ page: reader }).analyze();
    expect(violations.filter(({ impact }) => impact === "serious" || impact === "critical")).toEqual([]);
  }
  // On a phone nothing stands out over the side.
  await reader.setViewportSize({ width: 390, height: 800 });
  expect(await reader.evaluate(() => document.documentElement.scrollWidth)).toBe(390);

  await openView(page, "Survey");
  await openView(page, "Hand-over");
  const line = page.getByRole("list", { name: "Links to A" }).getByRole("listitem").first();
  await expect(line.getByText(/asked 2 times; the last 1 visit/)).toBeVisible();
  await line.getByRole("button", { name: /^Withdraw The household/ }).focus();
  await page.keyboard.press("Enter");
  await expect(line.getByText("withdrawn")).toBeVisible();
  await reader.reload();
  await expect(reader.getByText("This link was withdrawn.")).toBeVisible();
  await reader.context().close();
});

test("a passkey signs in without the password, and a machine's export stands in the log", async ({
  page,
  browser,
  baseURL,
}) => {
  await page.goto("/people");
  const invite = page.getByRole("region", { name: "Invite" });
  await invite.getByRole("button", { name: "Make the link" }).click();
  const link = await invite.getByLabel(/^Send this link/).inputValue();
  const own = await stranger(browser, baseURL);
  await withKeys(own);
  await own.goto(link);
  await own.getByLabel("Your name").fill("Petra Lang");
  await own.getByLabel("Password").fill(PASSWORD);
  await own.keyboard.press("Enter");
  await expect(own.getByRole("heading", { name: "Sites" })).toBeVisible();
  await own.getByRole("link", { name: "Account" }).click();
  const added = own.getByRole("form", { name: "New passkey" });
  await added.getByLabel(/^What it is on/).fill("work laptop");
  await added.getByLabel("Your password").fill("not the password");
  await own.keyboard.press("Enter");
  await expect(added.getByRole("alert")).toHaveText(/not right/);
  await added.getByLabel("Your password").fill(PASSWORD);
  await own.keyboard.press("Enter");
  const keys = own.getByRole("list", { name: "Your passkeys" });
  await expect(keys.getByText("not used yet")).toBeVisible();
  await own.getByRole("button", { name: "Sign out" }).click();
  await own.getByRole("button", { name: "Use a passkey" }).click();
  await expect(own.getByRole("heading", { name: "Sites" })).toBeVisible();
  await own.context().close();

  await page.getByRole("radio", { name: "Machines" }).click();
  await page.getByLabel("What for").fill("nightly copy");
  await page.keyboard.press("Enter");
  const token = await page.getByLabel(/^Keep this token/).inputValue();
  const sites = (await (await page.request.get("/api/sites")).json()) as { id: string }[];
  const answer = await fetch(`${String(baseURL)}/api/sites/${sites[0]?.id}/exports/segments.csv`, {
    headers: { authorization: `Bearer ${token}` },
  });
  expect([answer.status, (await answer.text()).split(",").length > 5]).toEqual([200, true]);
  await page.reload();
  await page.getByRole("radio", { name: "Log" }).click();
  const log = page.getByRole("table", { name: "Log" });
  await expect(log.getByRole("row").nth(1)).toContainText("a machine");
  await expect(log.getByRole("row").nth(1)).toContainText("nightly copy: segments.csv");
});
