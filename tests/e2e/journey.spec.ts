import { expect, test, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { startInstance, type Instance } from "./instance";
import { addSegment, cell, choosePorts, newSite, openFormats, openView, saved } from "./open-site";

const SITE = "Fennel Street Veterinary Practice, annexe";
const PORT = 4188;

async function comeIn(page: Page, { link }: Instance): Promise<void> {
  await page.goto(link);
  await page.getByLabel("Your name").fill("Ruth");
  await page.getByLabel("Password").fill("several words do well");
  await page.getByRole("button", { name: "Make the account" }).click();
  await expect(page.getByRole("heading", { name: "Sites" })).toBeVisible();
}

async function addDevice(page: Page, model: string, name: string): Promise<void> {
  await page.getByLabel("What").selectOption({ label: model });
  await page.getByLabel("Name", { exact: true }).first().fill(name);
  await page.getByLabel("Place", { exact: true }).first().fill("Cabinet A");
  await page.getByRole("button", { name: "Add it" }).click();
  await expect(page.getByRole("table", { name: "Devices" }).getByRole("button", { name })).toBeVisible();
}

/** What the plan file says, without the order of its lists: rows come back sorted by id. */
function planIn(text: string): unknown {
  const file = JSON.parse(text) as Record<string, unknown>;
  return Object.fromEntries(
    Object.entries(file).map(([name, value]) => [
      name,
      Array.isArray(value) ? [...(value as { id: string }[])].sort((a, b) => (a.id < b.id ? -1 : 1)) : value,
    ]),
  );
}

async function exported(page: Page): Promise<unknown> {
  await openFormats(page);
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save plan file", exact: true }).click(),
  ]);
  return planIn(readFileSync(await download.path(), "utf8"));
}

let instance: Instance | null = null;
test.afterEach(async () => {
  await instance?.stop();
});

test("a site from nothing: planned, repaired, probed, exported, undone, killed and still there", async ({
  browser,
}) => {
  test.setTimeout(600_000);
  instance = await startInstance(PORT, true);
  const context = await browser.newContext({
    baseURL: instance.address,
    storageState: { cookies: [], origins: [] },
    acceptDownloads: true,
  });
  const page = await context.newPage();
  await comeIn(page, instance);
  await expect(page.getByText("No site yet")).toBeVisible();
  await newSite(page, SITE);

  await addSegment(page, "Staff");
  await addSegment(page, "Guests");
  await expect(page.getByText("10.24.20.0/24").first()).toBeVisible();

  await openView(page, "Hardware");
  await addDevice(page, "Gateway, 1 line and 4 ports", "Gateway");
  await addDevice(page, "24-port PoE switch, 2 uplinks", "Upper switch");
  await page.getByRole("table", { name: "Devices" }).getByRole("button", { name: "Upper switch" }).click();
  await page.getByLabel("From port").selectOption({ label: "24" });
  await page.getByLabel("to", { exact: true }).selectOption({ label: "Gateway port 1" });
  await page.getByRole("button", { name: "Lay the cable" }).click();
  await expect(page.getByRole("complementary", { name: "Margin" }).getByText("Gateway 1")).toBeVisible();

  await openView(page, "Ports");
  await choosePorts(page, "Upper switch", "1", "4");
  await expect(page.getByText("4 ports, 1 to 4")).toBeVisible();
  await page.getByLabel("in", { exact: true }).selectOption({ label: "10 Staff" });
  await page.getByRole("button", { name: "Paint 4 ports" }).click();
  await choosePorts(page, "Upper switch", "5", "6");
  await page.getByLabel("in", { exact: true }).selectOption({ label: "20 Guests" });
  await page.getByRole("button", { name: "Paint 2 ports" }).click();
  await choosePorts(page, "Upper switch", "24", "24");
  await page.getByRole("radio", { name: "Chosen VLANs" }).click();
  await page.getByRole("button", { name: "Paint 1 port" }).click();
  await choosePorts(page, "Gateway", "1", "1");
  await page.getByRole("radio", { name: "Chosen VLANs" }).click();
  await page.getByRole("group", { name: "Tagged" }).getByRole("button", { name: "GU, Guests" }).click();
  await page.getByRole("button", { name: "Paint 1 port" }).click();

  await openView(page, "Findings");
  await page.getByRole("button", { name: /^Guests \(20\) stops at Gateway port 1/ }).click();
  const margin = page.getByRole("complementary", { name: "Margin" });
  await margin.getByRole("button", { name: "Add Guests (20) to Gateway port 1" }).click();
  const preview = margin.getByRole("group", { name: /^Preview/ });
  await expect(preview.getByText("10 → 10, 20")).toBeVisible();
  await expect(preview.getByText(/goes: ?Guests \(20\) stops at Gateway port 1/)).toBeVisible();
  await preview.getByRole("button", { name: "Apply" }).click();
  await expect(page.getByRole("button", { name: /^Guests \(20\) stops/ })).toHaveCount(0);

  await openView(page, "Probe");
  await page.getByRole("button", { name: /^What and where/ }).click();
  await page.getByPlaceholder("Type part of the name").fill("Upper switch 5");
  await page.getByRole("option", { name: "Upper switch 5", exact: true }).click();
  await expect(page.getByText("✓ all 4 steps pass")).toBeVisible();
  await expect(page.getByText(/^10\.24\.20\.\d+$/).first()).toBeVisible();

  await saved(page);
  const plan = await exported(page);
  expect(plan).toMatchObject({ format: "dianome-plan", site: { name: SITE } });

  const undo = page.getByRole("button", { name: /^Undo/ });
  const revision = () => page.locator("[data-revision]").innerText();
  let steps = 0;
  while (await undo.isEnabled()) {
    const before = await revision();
    await undo.click();
    await expect.poll(revision).not.toBe(before);
    steps += 1;
  }
  expect(steps).toBe(10);
  expect(await exported(page)).toMatchObject({
    segments: [],
    devices: [],
    ports: [],
    links: [],
    vlans: [],
    zones: [],
    scopes: [],
  });
  const redo = page.getByRole("button", { name: /^Redo/ });
  while (await redo.isEnabled()) {
    const before = await revision();
    await redo.click();
    await expect.poll(revision).not.toBe(before);
  }
  expect(await exported(page)).toEqual(plan);
  const last = await revision();

  instance.kill();
  await openView(page, "Segments");
  await cell(page, "Segments", "Guests", 2).dblclick();
  await page.keyboard.type("Visitors");
  await page.keyboard.press("Enter");
  await expect(page.getByText("offline: 1 change waiting")).toBeVisible();

  instance = await startInstance(PORT, false);
  await expect(page.getByText(/^saved/)).toBeVisible();
  await page.reload();
  await expect(page.getByRole("gridcell", { name: "Visitors", exact: true }).first()).toBeVisible();
  expect(Number(await revision())).toBe(Number(last) + 1);
  await undo.click();
  await expect.poll(revision).toBe(String(Number(last) + 2));
  expect(await exported(page)).toEqual(plan);
  await context.close();
});
