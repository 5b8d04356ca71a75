import { expect, test, type Page } from "@playwright/test";
import { cell, newSite, openFormats, openSite, openView, paste, saved } from "./open-site";

test("rows of a spreadsheet become segments; one bad cell refuses all of them by its row", async ({
  page,
}) => {
  await newSite(page, "Bramblewick Cider Works, orchard");
  await openView(page, "Hardware");
  await page.getByRole("button", { name: "Add it" }).click();
  await openView(page, "Segments");
  await cell(page, "Segments", "New segment", 0).click();
  await paste(page, [
    ["KT", "110", "Kit", "Kit", "172.22.110.0/27", ".1", ".10–.20", "1 h", ".1", "8"],
    ["OF", "180", "Office", "Office", "172.22.180.0/33", ".1", "", "", "", ""],
  ]);
  await expect(
    page.getByRole("alert").filter({ hasText: 'Row 2: "172.22.180.0/33" is not an IPv4 subnet' }),
  ).toBeVisible();
  await expect(cell(page, "Segments", "New segment", 1)).toHaveText("10");
  await paste(page, [
    ["KT", "110", "Kit", "Kit", "172.22.110.0/27", ".1", ".10–.20", "1 h", ".1", "8"],
    ["OF", "180", "Office", "Office", "172.22.180.0/25", ".1", ".40–.99", "8 h", "172.22.110.1", "24"],
  ]);
  await expect(page.getByRole("row").filter({ hasText: "Kit" }).first()).toContainText(".10–.20");
  await expect(page.getByRole("row").filter({ hasText: "Office" }).first()).toContainText("110.1");
  await saved(page);
});

test("fill down writes a block from its first row; copy gives back what paste takes", async ({
  page,
  context,
}) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await openSite(page, "Lockkeeper's House");
  const lease = (row: string) => cell(page, "Segments", row, 8);
  await cell(page, "Segments", "Household", 8).dblclick();
  await page.keyboard.type("3 h");
  await page.keyboard.press("Enter");
  await lease("Household").click();
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("Control+d");
  await expect(page.getByRole("gridcell", { name: "3 h", exact: true })).toHaveCount(3);
  await page.keyboard.press("Control+c");
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe("3 h\n3 h\n3 h");
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("gridcell", { name: "3 h", exact: true })).toHaveCount(0);
});

test("wrong input says what is wrong and changes nothing", async ({ page }) => {
  await openSite(page, "Fennel Street Veterinary Practice");
  const revision = () => page.locator("[data-revision]").innerText();
  const before = await revision();
  for (const [column, typed, says] of [
    [1, "5000", "is not a VLAN ID; write a whole number from 1 to 4094"],
    [4, "10.24.20.1/25", "the host part must be zero"],
    [6, ".99-.40", "write its first and last address"],
    [8, "soon", "is not a lease time"],
    [9, "10.24.300.1", "is not an address"],
    [0, "KT", "Kit wears the mark KT already"],
    [11, "-3", "is not a number of devices"],
  ] as const) {
    await cell(page, "Segments", "Staff", column).dblclick();
    await page.keyboard.press("Control+a");
    await page.keyboard.type(typed);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("alert").filter({ hasText: says })).toBeVisible();
    await page.keyboard.press("Escape");
  }
  expect(await revision()).toBe(before);
});

test("a malformed plan file is refused by its place; a good one is previewed, taken in and undone", async ({
  page,
}) => {
  await newSite(page, "Lockkeeper's House, barn");
  await openFormats(page);
  const take = (name: string, text: string) =>
    page
      .getByLabel("Plan file")
      .setInputFiles({ name, mimeType: "application/json", buffer: Buffer.from(text) });
  const { readFileSync } = await import("node:fs");
  const good = readFileSync("demo/lockkeepers-house.json", "utf8");
  await take("cut-off.json", good.slice(0, 4000));
  await expect(page.getByRole("alert").filter({ hasText: "nothing has changed" })).toContainText(
    "stops being JSON at line",
  );
  const bad = JSON.parse(good) as { vlans: { vid: number }[] };
  const [first] = bad.vlans;
  if (first !== undefined) first.vid = 4095;
  await take("bad.json", JSON.stringify(bad));
  await expect(page.getByRole("alert").filter({ hasText: "nothing has changed" })).toContainText("vlans[0]");
  await take("good.json", good);
  const preview = page.getByRole("group", { name: "Preview of good.json" });
  await expect(preview).toContainText("new");
  await preview.getByRole("button", { name: "Import", exact: true }).click();
  await openView(page, "Segments");
  await expect(page.getByRole("gridcell", { name: "Lodger", exact: true }).first()).toBeVisible();
  await page.getByRole("button", { name: /^Undo: Imported/ }).click();
  await page
    .getByRole("dialog", { name: "Take the whole import back?" })
    .getByRole("button", { name: "Undo the import" })
    .click();
  await expect(page.getByText("Here stand the groups")).toBeVisible();
});

test("two people: different fields merge, the same field is shown with both values and decided", async ({
  page,
  browser,
}) => {
  const name = "Bramblewick Cider Works, press shed";
  await newSite(page, name);
  await cell(page, "Segments", "New segment", 2).click();
  await page.keyboard.type("Press");
  await page.keyboard.press("Enter");
  await saved(page);
  const other = await browser.newContext();
  const second = await other.newPage();
  await openSite(second, name);
  const write = async (on: Page, column: number, text: string) => {
    await on
      .getByRole("grid", { name: "Segments" })
      .getByRole("row")
      .nth(2)
      .getByRole("gridcell")
      .nth(column)
      .dblclick();
    await on.keyboard.press("Control+a");
    await on.keyboard.type(text);
    await on.keyboard.press("Enter");
  };
  await write(page, 2, "Press house");
  await saved(page);
  await write(second, 11, "40");
  await expect(second.getByRole("gridcell", { name: "Press house", exact: true }).first()).toBeVisible();
  await expect(second.getByRole("gridcell", { name: "40", exact: true }).first()).toBeVisible();
  await saved(second);

  await second.route("**/batches", (route) =>
    route.request().method() === "POST" ? route.abort() : route.continue(),
  );
  await write(second, 2, "Mill");
  await expect(second.getByText("offline: 1 change waiting")).toBeVisible();
  await write(page, 2, "Vat room");
  await saved(page);
  await second.unroute("**/batches");
  const dialog = second.getByRole("dialog", { name: "Somebody changed the same" });
  await expect(dialog).toContainText("Mill");
  await expect(dialog).toContainText("Vat room");
  // Closing it decides nothing: the change waits, and the question can be opened again.
  await second.keyboard.press("Escape");
  await expect(dialog).toHaveCount(0);
  await expect(second.getByRole("gridcell", { name: "Vat room", exact: true }).first()).toBeVisible();
  await second.reload();
  await second.getByRole("button", { name: "1 change waits for your choice" }).or(dialog).first().waitFor();
  if ((await dialog.count()) === 0)
    await second.getByRole("button", { name: "1 change waits for your choice" }).click();
  // The segment and its VLAN were called so, both.
  await expect(dialog.getByRole("button", { name: "2 to choose" })).toBeDisabled();
  await dialog.getByRole("radio", { name: "Yours: Mill" }).first().click();
  await dialog.getByRole("radio", { name: "Yours: Mill" }).last().click();
  await dialog.getByRole("button", { name: "Save what is chosen" }).click();
  await saved(second);
  await page.bringToFront();
  await expect(page.getByRole("gridcell", { name: "Mill", exact: true }).first()).toBeVisible();
  await other.close();
});

test("what is not saved yet survives a closed tab", async ({ page }) => {
  const name = "Lockkeeper's House, shed";
  await newSite(page, name);
  await page.route("**/batches", (route) =>
    route.request().method() === "POST" ? route.abort() : route.continue(),
  );
  await cell(page, "Segments", "New segment", 2).click();
  await page.keyboard.type("Tools");
  await page.keyboard.press("Enter");
  await expect(page.getByText("offline: 1 change waiting")).toBeVisible();
  const { context } = { context: page.context() };
  await page.close();
  const again = await context.newPage();
  await openSite(again, name);
  await expect(again.getByRole("gridcell", { name: "Tools", exact: true }).first()).toBeVisible();
  await saved(again);
  await again.reload();
  await expect(again.getByRole("gridcell", { name: "Tools", exact: true }).first()).toBeVisible();
});

test("deleting a site asks for its name; it comes back from the bin, and goes for good", async ({ page }) => {
  const name = "Lockkeeper's House, kiln";
  await newSite(page, name);
  await page.goto("/");
  await page.getByRole("button", { name: `Delete ${name}` }).click();
  await page.getByRole("button", { name: "Delete the site" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "type its name exactly" })).toBeVisible();
  await page.getByLabel("Type the site’s name").fill(name);
  await page.getByRole("button", { name: "Delete the site" }).click();
  await expect(page.getByRole("link", { name })).toHaveCount(0);
  await page.getByRole("button", { name: `Bring back ${name}` }).click();
  await expect(page.getByRole("link", { name })).toBeVisible();
  await page.getByRole("button", { name: `Delete ${name}` }).click();
  await page.getByLabel("Type the site’s name").fill(name);
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: `Delete ${name} for good` }).click();
  await page
    .getByRole("dialog")
    .getByRole("button", { name: `Delete ${name} for good` })
    .click();
  await expect(page.getByRole("region", { name: "Bin" }).getByText(name)).toHaveCount(0);
});

test("the register and the port schedule leave as CSV that a spreadsheet reads", async ({ page }) => {
  await openSite(page, "Fennel Street Veterinary Practice");
  await openFormats(page);
  const { readFileSync } = await import("node:fs");
  const saveAs = async (button: string) => {
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: button }).click(),
    ]);
    return {
      name: download.suggestedFilename(),
      lines: readFileSync(await download.path(), "utf8").split("\r\n"),
    };
  };
  const register = await saveAs("Save address register");
  expect([register.name, register.lines[0]]).toEqual([
    "fennel-street-veterinary-practice-addresses.csv",
    "Address,Name,Kind,Segment,How,MAC,Plugged into,Place,Own mask,Own " +
      "gateway,Own IPv6 length,Own IPv6 gateway,Own name servers,Changes MAC",
  ]);
  expect(register.lines).toContain(
    '10.24.40.34,"Viewing station, Theatre",PC,Imaging,static,02:5a:10:49:00:41,Switch B 5,Theatre,,,,,,',
  );
  const ports = await saveAs("Save port schedule");
  expect(ports.lines[0]).toMatch(/^Device,Case,Software name,Plugged in,Mode,PVID/);
  expect(ports.lines.find((line) => line.startsWith("Upper switch,25,"))).toContain(
    "trunk,,,10 20 30 50 70 80 90",
  );
  expect([register.lines.at(-1), ports.lines.at(-1)]).toEqual(["", ""]);
});

test("the register: filtered, sorted, filled down, a selection moved between schools, all undone", async ({
  page,
}) => {
  await openSite(page, "Fennel Street Veterinary Practice");
  await openView(page, "Addresses");
  const grid = page.getByRole("grid", { name: "Register" });
  const names = () =>
    grid.getByRole("row").filter({ hasNotText: "New device" }).locator("td:nth-child(2)").allInnerTexts();
  const filter = page.getByLabel("Filter the register");

  await filter.fill("laptop wrong");
  await expect(grid.getByRole("row")).toHaveCount(2);
  await filter.press("Escape");
  await filter.fill("laptop");
  await expect.poll(async () => (await names()).length).toBe(6);
  await grid.getByRole("columnheader", { name: "Device" }).getByRole("button").click();
  await expect(grid.getByRole("columnheader", { name: "Device" })).toHaveAttribute("aria-sort", "ascending");
  expect(await names()).toEqual([1, 2, 3, 4, 5, 6].map((n) => `Staff laptop ${n}`));
  await grid.getByRole("columnheader", { name: "Device" }).getByRole("button").click();
  expect((await names())[0]).toBe("Staff laptop 6");
  await grid.getByRole("columnheader", { name: "Device" }).getByRole("button").click();

  const cells = grid.locator("tbody td:nth-child(2)");
  await cells.nth(0).dblclick();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("A-08");
  await page.keyboard.press("Enter");
  await grid.getByRole("gridcell", { name: "A-08", exact: true }).click();
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("Shift+ArrowDown");
  await expect(page.getByText("3 devices chosen")).toBeVisible();
  await page.keyboard.press("Control+d");
  await expect
    .poll(names)
    .toEqual(["A-08", "A-08", "A-08", "Staff laptop 4", "Staff laptop 5", "Staff laptop 6"]);
  await page.keyboard.press("Control+Shift+D");
  await expect
    .poll(names)
    .toEqual(["A-08", "A-09", "A-10", "Staff laptop 4", "Staff laptop 5", "Staff laptop 6"]);

  await filter.fill("card terminal");
  await expect.poll(async () => (await names()).length).toBe(3);
  await cells.nth(0).click();
  await cells.nth(2).click({ modifiers: ["Shift"] });
  await expect(page.getByText("3 devices chosen")).toBeVisible();
  await page.getByRole("button", { name: "Make static", exact: true }).click();
  await expect(grid.getByRole("gridcell", { name: "static" })).toHaveCount(3);
  await saved(page);
  for (let i = 0; i < 4; i += 1) {
    const before = Number(await page.locator("[data-revision]").innerText());
    await page.getByRole("button", { name: /^Undo/ }).click();
    await expect.poll(async () => Number(await page.locator("[data-revision]").innerText())).toBe(before + 1);
  }
  await filter.fill("laptop");
  await expect
    .poll(async () => (await names()).sort())
    .toEqual([1, 2, 3, 4, 5, 6].map((n) => `Staff laptop ${n}`));
});
