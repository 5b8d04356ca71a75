// Pictures of signing in, people, the log, and of two who changed the same: in the order in which they happen.

import { cell } from "./picture-list.mjs";

const SITE = "Lockkeeper's House";

/** Makes an invitation as editor of the house, and answers its link. */
async function invite(page) {
  await page.goto("/people");
  const form = page.getByRole("region", { name: "Invite" });
  await form.getByLabel("Where").selectOption({ label: SITE });
  await form.getByLabel("Role").selectOption("editor");
  await form.getByRole("button", { name: "Make the link" }).click();
  return form.getByLabel(/^Send this link/).inputValue();
}

async function openSegments(page) {
  await page.goto("/");
  await page.getByRole("link", { name: SITE }).click();
  await page.getByRole("grid", { name: "Segments" }).waitFor();
}

/** Writes a name over another in the segments. */
async function rename(page, from, to) {
  await cell(page, from).click();
  await page.keyboard.type(to);
  await page.keyboard.press("Enter");
}

/** Issues the house as it is, and answers a link to its papers. */
async function handOn(page) {
  await page.goto("/");
  await page.getByRole("link", { name: SITE }).click();
  await page.getByRole("grid", { name: "Segments" }).waitFor();
  await page.getByRole("link", { name: "Hand-over" }).click();
  await page.getByRole("button", { name: "Issue this state" }).click();
  await page.getByLabel(/^Name, as/).fill("As built");
  await page.getByLabel("For whom").fill("The household");
  await page.getByRole("button", { name: "Issue it" }).click();
  const form = page.getByRole("region", { name: "Hand it on" });
  await form.getByRole("button", { name: "Make the link" }).click();
  return form.getByLabel(/^Send this link/).inputValue();
}

/** A token is made and used once. */
async function machineToken(page) {
  await page.goto("/people");
  await page.getByRole("radio", { name: "Machines" }).click();
  await page.getByLabel("What for").fill("nightly copy of the plans");
  await page.getByRole("button", { name: "Make the token" }).click();
  const token = await page.getByLabel(/^Keep this token/).inputValue();
  const [site] = await (await page.request.get("/api/sites")).json();
  const { origin } = new URL(page.url());
  await fetch(`${origin}/api/sites/${site.id}/exports/plan.json`, {
    headers: { authorization: `Bearer ${token}` },
  });
  await page.reload();
  await page.getByRole("radio", { name: "Machines" }).click();
  await page.waitForTimeout(300);
  return page.screenshot();
}

export async function takePeople(page, browser) {
  const link = await invite(page);
  const other = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    baseURL: new URL(link).origin,
    colorScheme: "dark",
  });
  const marek = await other.newPage();
  await marek.goto(link);
  const invited = await marek.screenshot();
  await marek.getByLabel("Your name").fill("Marek");
  await marek.getByLabel("Password").fill("several words do well");
  await marek.getByRole("button", { name: "Make the account" }).click();
  await marek.getByRole("heading", { name: "Sites" }).waitFor();
  await openSegments(marek);
  await page.goto("/people");
  const people = await page.screenshot();
  await page.getByRole("radio", { name: "Log" }).click();
  await page.waitForTimeout(300);
  const log = await page.screenshot();
  // Both write the same name while one of them has no connection.
  await openSegments(page);
  await page.getByText("Marek on Segments").waitFor();
  await page.context().setOffline(true);
  await rename(page, "Gadgets", "Things");
  await rename(marek, "Gadgets", "Appliances");
  await marek.locator('[data-saving="saved"]').waitFor();
  await page.context().setOffline(false);
  await page.getByRole("dialog").waitFor();
  await page.waitForTimeout(500);
  const clash = await page.screenshot();
  await page.getByRole("button", { name: "All: theirs" }).click();
  await page.getByRole("button", { name: "Save what is chosen" }).click();
  await page.waitForTimeout(300);
  // As it was, for the pictures that follow.
  await rename(marek, "Appliances", "Gadgets");
  await marek.locator('[data-saving="saved"]').waitFor();
  await marek.goto("/account");
  await marek.getByRole("button", { name: "Set up a second factor" }).click();
  await marek.waitForTimeout(700);
  const account = await marek.screenshot();
  await marek.getByRole("button", { name: "Sign out" }).click();
  await marek.getByRole("button", { name: "Use a passkey" }).waitFor();
  await marek.waitForTimeout(500);
  const signIn = await marek.screenshot();
  await marek.goto(await handOn(page));
  await marek.getByRole("link", { name: "Networks" }).click();
  await marek.getByRole("heading", { name: "Networks" }).waitFor();
  await marek.emulateMedia({ colorScheme: "light" });
  await marek.waitForTimeout(500);
  const handed = await marek.screenshot();
  const machines = await machineToken(page);
  await other.close();
  return [invited, people, account, log, clash, signIn, handed, machines];
}
