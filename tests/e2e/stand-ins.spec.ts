import { readFileSync } from "node:fs";
import { expect, test, type Page } from "@playwright/test";
import { openView, ownSite } from "./open-site";

async function choose(page: Page, label: string, text: string): Promise<void> {
  await page.getByRole("button", { name: new RegExp(`^${label}:`) }).click();
  await page.getByRole("dialog", { name: label }).getByRole("combobox").fill(text);
  await page.keyboard.press("Enter");
}

const said = (page: Page) =>
  page.getByRole("list", { name: "What came of it" }).getByRole("listitem").first();

/** The devices that stand in for a site's. */
async function standIns(page: Page) {
  await page.getByRole("radio", { name: "On stand-ins" }).click();
  const devices = page.getByRole("list", { name: "Stand-in devices" });
  await expect(devices).toBeVisible();
  return devices;
}

test("over real HTTP: an own order locks one out, a power cut mends it, and it is read", async ({ page }) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, rehearsed");
  await openView(page, "Runbook");
  const devices = await standIns(page);

  // In the order that was found, by keyboard: the gateway has power, and answers.
  const ordered = page.getByRole("button", { name: "As the order has it" });
  const send = page.getByRole("button", { name: "Send it" });
  for (let step = 0; step < 2; step += 1) {
    await ordered.focus();
    await page.keyboard.press("Enter");
    await expect(send).toBeEnabled();
    await send.focus();
    await page.keyboard.press("Enter");
    // While it is sent nothing can be chosen: a key pressed then would go nowhere.
    await expect(page.getByRole("list", { name: "What came of it" }).getByRole("listitem")).toHaveCount(
      step + 1,
    );
    await expect(ordered).toBeEnabled();
  }
  await expect(said(page)).toContainText(/Gateway: .* Answered 204 after \d+ ms\./);
  const gateway = devices.getByRole("listitem").filter({ hasText: "Gateway" });
  await expect(gateway).toContainText("answers the laptop");
  await page.getByRole("button", { name: "Save: Gateway" }).click();
  await expect(said(page)).toContainText("Gateway: save Answered 204");

  // Its way to the switch before its address elsewhere: the port that the laptop is in goes off.
  await choose(page, "Do next", "off");
  await send.click();
  await expect(said(page)).toContainText("No answer");
  await expect(gateway).toContainText("silent to the laptop; not saved");
  await page.getByRole("button", { name: "Power cut: Gateway" }).click();
  await expect(gateway).toContainText("answers the laptop");

  await page.getByRole("radio", { name: "Differences" }).click();
  await page.getByRole("button", { name: "Read a device" }).click();
  await page.getByRole("button", { name: "Ask the stand-in" }).click();
  await expect(page.getByText(/^Read: \d+ ports/)).toBeVisible();
  await page.getByRole("button", { name: "Note it as what is on Gateway" }).click();
  await expect(page.getByRole("list", { name: "Read" })).toContainText(
    "Gateway read, asked over the network",
  );
  await expect(page.getByRole("region", { name: "Gateway" })).toContainText("not on the device");
  await page.reload();
  await expect(page.getByRole("radio", { name: "what the record says" })).toBeChecked();
});

test("an industrial switch's first start: its server gives an address, then it has a new one", async ({
  page,
}) => {
  await ownSite(page, "bramblewick", "Bramblewick, first start");
  await openView(page, "Runbook");
  const devices = await standIns(page);
  const hall = devices.getByRole("listitem").filter({ hasText: "Bottling hall switch" });
  const send = async (what: string) => {
    await choose(page, "Do next", `Bottling hall switch: ${what}`);
    await page.getByRole("button", { name: "Send it" }).click();
    await expect(said(page)).toContainText(`Bottling hall switch: ${what}`);
  };
  await send("Unpack and power");
  await choose(page, "The laptop is at", "Bottling hall switch port 6");
  await expect(page.getByText("By DHCP it gets an address there from Bottling hall switch.")).toBeVisible();
  await expect(hall).toContainText("answers the laptop");
  await send("Switch its own DHCP server off");
  await expect(said(page)).toContainText(/Answered 20\d/);
  await expect(page.getByText("By DHCP it gets no address there.")).toBeVisible();
  await send("Address 172.22.140.2");
  await expect(said(page)).toContainText(/Answered 20\d/);
  // The laptop's address changes with the network that its port is in now; the switch answers at its new one.
  await send("Ports 1 to 6");
  await expect(hall).toContainText("✓ answers the laptop; not saved");
  await page.getByRole("button", { name: "Save: Bottling hall switch" }).click();
  await expect(hall).not.toContainText("not saved");
});

test("an old wireless router becomes a switch: rescue network, the order sent over HTTP, opened", async ({
  page,
}) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, old router");
  await openView(page, "Hardware");
  await page.getByRole("button", { name: "Hall switch", exact: true }).first().click();
  const margin = page.getByRole("complementary", { name: "Margin" });
  const write = async (label: string, text: string) => {
    await margin.getByLabel(label, { exact: true }).fill(text);
    await page.keyboard.press("Enter");
  };
  await write("Model", "Old wireless router");
  await write("First address", "its own");
  await write("Which", "192.168.207.1/24");
  await write("Is a DHCP server", "yes");
  await margin.getByRole("button", { name: "Keep a way back in" }).click();
  const way = margin.getByText(/^Way back in: port/);
  await expect(way).toBeVisible();
  const [, port] = /port (\S+);/.exec((await way.textContent()) ?? "") ?? [];
  await openView(page, "Runbook");
  await expect(page.getByText(/^\d+ steps from what is on the devices to the plan/)).toBeVisible();
  await expect(page.getByText("Switch its own DHCP server off").first()).toBeVisible();

  await standIns(page);
  const ordered = page.getByRole("button", { name: "As the order has it" });
  const send = page.getByRole("button", { name: "Send it" });
  const done = page.getByText("✓ Everything is on the devices as planned.");
  // Each operation in turn, over HTTP, until nothing is left.
  const came = page.getByRole("list", { name: "What came of it" });
  for (let left = 80; ; left -= 1) {
    await expect.poll(async () => (await done.isVisible()) || (await ordered.isEnabled())).toBe(true);
    if (await done.isVisible()) break;
    if (left === 0) throw new Error(`Nothing came to an end: ${await came.innerText()}`);
    await ordered.click();
    await expect(send).toBeEnabled();
    await send.click();
  }
  await choose(page, "The laptop is at", `Hall switch port ${port ?? ""}`);
  const hall = page.getByRole("listitem").filter({ hasText: "Hall switch" }).first();
  await expect(hall).toContainText("answers the laptop");
});

/** The house as it is found before a visit: one port of the hall switch is in another VLAN. */
function asFound(): Buffer {
  const plan = JSON.parse(readFileSync("demo/lockkeepers-house.json", "utf8")) as {
    devices: { id: string; name: string }[];
    ports: { device: string; label: string; pvid: number | null; untagged: number[] }[];
  };
  const hall = plan.devices.find(({ name }) => name === "Hall switch")?.id;
  for (const port of plan.ports)
    if (port.device === hall && port.label === "5") Object.assign(port, { pvid: 30, untagged: [30] });
  return Buffer.from(JSON.stringify(plan));
}

test("a wrong reading after a visit: its fault is found, mended on the device, and read again", async ({
  page,
}) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, mended");
  await openView(page, "Runbook");
  await page
    .getByLabel("Plan file of what is on the devices")
    .setInputFiles({ name: "found.json", mimeType: "application/json", buffer: asFound() });
  await expect(page.getByText("what found.json says")).toBeVisible();
  await page.getByRole("radio", { name: "On site" }).click();
  await page.getByRole("button", { name: "Begin a visit with what the plan file says" }).click();
  const isDone = page.getByText("✓ Everything that can be done is done. End the visit.");
  const ticked = page.getByRole("list", { name: "Ticked" }).getByRole("listitem");
  const tickAll = async () => {
    for (let step = await ticked.count(); !(await isDone.isVisible()); step += 1) {
      await page.getByRole("button", { name: "Done", exact: true }).click();
      await expect(ticked).toHaveCount(step + 1);
    }
  };
  await tickAll();
  await page.getByRole("button", { name: "End the visit" }).click();

  // Somebody has moved a port since.
  await openView(page, "Tests");
  const reading = page.getByRole("option", { name: /Hall switch port 4\. Plug in/ }).first();
  await reading.click();
  await page.getByRole("textbox", { name: /^What is read/ }).fill("172.19.30.70");
  await page.getByRole("button", { name: "Otherwise", exact: true }).click();
  await page.getByRole("radio", { name: "What is wrong?" }).click();
  await expect(
    page.getByRole("heading", {
      name: "Hall switch port 4 is untagged in VLAN 30 (Studio), not in VLAN 20 (Household)",
    }),
  ).toBeVisible();
  await page.getByRole("button", { name: "It was this" }).click();
  await expect(page.getByText("Once it is mended, read again:")).toBeVisible();

  // The runbook has the step, and the device that stands in takes it over HTTP.
  await openView(page, "Runbook");
  await page.getByRole("radio", { name: "what the record says" }).check();
  const devices = await standIns(page);
  await page.getByRole("button", { name: "From the start" }).click();
  await expect(said(page)).toContainText("Every device is as it is found");
  await page.getByRole("button", { name: "As the order has it" }).click();
  await expect(said(page)).toContainText("is plugged into Hall switch port 16 now");
  await page.getByRole("button", { name: "Send it" }).click();
  await expect(said(page)).toContainText(/Hall switch: Port 4: untagged 20 Answered 204/);
  await expect(page.getByText("✓ Everything is on the devices as planned.")).toBeVisible();
  await page.getByRole("button", { name: "Save: Hall switch" }).click();
  await expect(devices.getByRole("listitem").filter({ hasText: "Hall switch" })).not.toContainText(
    "not saved",
  );
  await page.getByRole("radio", { name: "On site" }).click();
  await page.getByRole("button", { name: /^Begin a visit/ }).click();
  await tickAll();

  await openView(page, "Tests");
  await page.getByRole("radio", { name: "Sheet", exact: true }).last().click();
  await page.getByRole("radio", { name: "Otherwise 1" }).click();
  await reading.click();
  await page.getByRole("button", { name: "As expected" }).click();
  await page.getByRole("radio", { name: "What is wrong?" }).click();
  await expect(page.getByText("Once it is mended, read again:")).toHaveCount(0);
  await expect(page.getByText("Nothing was read otherwise than planned.")).toBeVisible();
});
