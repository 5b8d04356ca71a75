import { expect, test, type Locator, type Page } from "@playwright/test";
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { addSegment, cell, choosePorts, newSite, openSite, openView, paste, saved } from "./open-site";

const margin = (page: Page) => page.getByRole("complementary", { name: "Margin" });
const undo = (page: Page) => page.getByRole("button", { name: /^Undo/ });
const show = (page: Page, way: string) => page.getByRole("radio", { name: way, exact: true }).click();
const crossing = (page: Page, name: RegExp): Locator =>
  page.getByRole("grid", { name: "VLANs across, ports down" }).getByRole("gridcell", { name });

async function stack(page: Page, line: string): Promise<void> {
  await page.getByLabel("Several at once").fill(line);
  await page.getByRole("button", { name: "Add them" }).click();
  await expect(page.getByLabel("Several at once")).toHaveValue("");
}

/** The port a cell of the ports' grid stands in, by its printed number. */
const portRow = (page: Page, device: string, label: string): Locator =>
  page
    .getByRole("grid", { name: `Ports of ${device}` })
    .getByRole("row")
    .filter({
      has: page
        .getByRole("cell", { name: label, exact: true })
        .or(page.getByRole("gridcell", { name: label, exact: true })),
    })
    .first();

test("three switches racked and cabled, 40 ports painted by mouse and keys, a hop mended", async ({
  page,
}) => {
  test.setTimeout(600_000);
  await newSite(page, "Bramblewick Cider Works, new hall");
  for (const name of ["Office", "Press", "Visitors"]) await addSegment(page, name);

  await openView(page, "Hardware");
  // The form stays open when the first device ends the empty sheet.
  await page.getByRole("button", { name: "Add it" }).click();
  await page.getByLabel("Several at once").fill("3 × hovercraft in Hall");
  await expect(page.getByText('No model answers to "hovercraft"')).toBeVisible();
  await page.getByRole("button", { name: "Add them" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "No model answers" })).toBeVisible();
  await stack(page, "1 × 24-port PoE in Cabinet A, uplinks to Gateway 1");
  await stack(page, "2 × 24-port PoE in Cabinet A, uplinks to core");
  const devices = page.getByRole("table", { name: "Devices" });
  for (const n of [1, 2, 3])
    await expect(devices.getByRole("button", { name: `Cabinet A switch ${n}` })).toBeVisible();

  await show(page, "Cabinets");
  for (const n of [1, 2, 3]) {
    await page
      .getByRole("listitem")
      .filter({ hasText: `Cabinet A switch ${n}` })
      .getByRole("button", { name: "Rack it" })
      .click();
    await expect(
      page
        .getByRole("list", { name: "Height units of Cabinet A" })
        .getByRole("button", { name: new RegExp(`Cabinet A switch ${n} U${n}`) }),
    ).toBeVisible();
  }

  await show(page, "Cables");
  await expect(page.getByRole("grid", { name: "Cables" }).getByRole("row")).toHaveCount(5);
  await cell(page, "Cables", "New cable", 1).click();
  await page.keyboard.type("Cabinet A switch 2 24 to Cabinet A switch 3 99");
  await page.keyboard.press("Enter");
  await expect(
    page.getByRole("alert").filter({ hasText: '"Cabinet A switch 3 99" is no port here' }),
  ).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.type("Cabinet A switch 2 24 to Cabinet A switch 3 24");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("grid", { name: "Cables" }).getByRole("row")).toHaveCount(6);
  await page.getByRole("button", { name: "Label all by the pattern" }).click();
  await expect(page.getByRole("gridcell", { name: "Cabinet A switch 2-24", exact: true })).toBeVisible();
  await undo(page).click();
  await expect(page.getByRole("gridcell", { name: "Cabinet A switch 2-24", exact: true })).toHaveCount(0);
  await undo(page).click();
  await expect(page.getByRole("grid", { name: "Cables" }).getByRole("row")).toHaveCount(5);

  await openView(page, "Ports");
  // With the mouse: a run is dragged over on each of two switches.
  for (const device of ["Cabinet A switch 2", "Cabinet A switch 3"]) {
    await choosePorts(page, device, "1", "1");
    await portRow(page, device, "1").hover();
    await page.mouse.down();
    await portRow(page, device, "20").hover();
    await page.mouse.up();
    await expect(page.getByText("20 ports, 1 to 20")).toBeVisible();
    await page.getByLabel("in", { exact: true }).selectOption({ label: "10 Office" });
    await page.getByRole("button", { name: "Paint 20 ports" }).click();
    await expect(page.getByText("21 set, 5 to decide, 0 off")).toBeVisible();
  }
  // And again with the keyboard alone, into another segment.
  for (const device of ["Cabinet A switch 2", "Cabinet A switch 3"]) {
    await choosePorts(page, device, "20", "20");
    await page.keyboard.press("Home");
    for (let i = 0; i < 19; i += 1) await page.keyboard.press("Shift+ArrowDown");
    await expect(page.getByText("20 ports, 1 to 20")).toBeVisible();
    await page.getByLabel("in", { exact: true }).focus();
    await page.keyboard.type("20 P");
    await page.getByRole("button", { name: "Paint 20 ports" }).focus();
    await page.keyboard.press("Enter");
    await expect(
      portRow(page, device, "20").getByRole("img", { name: /^Press \(20\) untagged/ }),
    ).toBeVisible();
  }

  // A hop is broken by taking Press off one end; it is seen, and repaired.
  await show(page, "VLAN paths");
  await expect(page.getByText("0 missing")).toBeVisible();
  const hop = crossing(page, /^Cabinet A switch 2 port 26, Press \(20\): tagged/);
  await hop.click();
  await expect(
    crossing(page, /^Cabinet A switch 2 port 26, Press \(20\): not carried, missing here/),
  ).toBeVisible();
  await expect(page.getByText("1 missing")).toBeVisible();
  await expect(
    page.getByRole("navigation", { name: "Work order" }).getByRole("link", { name: /Ports/ }),
  ).toContainText("1");
  // The same by keyboard: put back, taken off again.
  await page.keyboard.press("Space");
  await expect(page.getByText("0 missing")).toBeVisible();
  await page.keyboard.press("Delete");
  await expect(page.getByText("1 missing")).toBeVisible();
  await page.getByRole("button", { name: "Carry exactly what is needed", exact: true }).click();
  const preview = page.getByRole("main").getByRole("group", { name: /^Preview/ });
  await expect(preview.getByText(/goes: ?Press \(20\) stops at Cabinet A switch 2 port 26/)).toBeVisible();
  await preview.getByRole("button", { name: "Apply" }).click();
  await expect(page.getByText("0 missing")).toBeVisible();
  await expect(page.getByText("0 needless")).toBeVisible();

  // Every port still open is parked by a rule, shown before it is done.
  await show(page, "By rule");
  await page.getByLabel("Take").selectOption({ label: "every unused port" });
  await page.getByRole("radio", { name: "Park" }).click();
  await page.getByRole("button", { name: /^Preview \d+ ports/ }).click();
  await page
    .getByRole("main")
    .getByRole("group", { name: /^Preview/ })
    .getByRole("button", { name: "Apply" })
    .click();
  await show(page, "One device");
  await expect(page.getByText("1 set, 0 to decide, 25 off")).toBeVisible();
  await saved(page);
});

test("software's names are found by plugging in: two sightings name a run, twice is refused", async ({
  page,
}) => {
  await openSite(page, "Fennel Street Veterinary Practice");
  await openView(page, "Hardware");
  await page.getByRole("table", { name: "Devices" }).getByRole("button", { name: "Switch B" }).click();
  const lit = async (name: string) => {
    await margin(page).getByLabel("Name that lights up").fill(name);
    await page.keyboard.press("Enter");
  };
  await margin(page).getByLabel("Port on the case").selectOption("1");
  await lit("ge1");
  await margin(page).getByLabel("Port on the case").selectOption("16");
  await lit("ge16");
  await expect(margin(page).getByText("16 of 18 ports follow")).toBeVisible();
  await margin(page).getByLabel("Port on the case").selectOption("17");
  await lit("ge16");
  await margin(page).getByRole("button", { name: "Write 17 names" }).click();
  await expect(margin(page).getByRole("alert")).toHaveText(
    "ge16 would stand for ports 16 and 17; the software gives each port one name.",
  );
  await margin(page).getByRole("button", { name: "Forget port 17" }).click();
  await margin(page).getByRole("button", { name: "Write 16 names" }).click();
  await openView(page, "Ports");
  await expect(portRow(page, "Switch B", "7").getByText("ge7", { exact: true })).toBeVisible();
  await undo(page).click();
  await expect(portRow(page, "Switch B", "7").getByText("e6", { exact: true })).toBeVisible();
});

/** A cell of the n-th access point; two rows of heads stand above. */
const radioCell = (page: Page, n: number, column: number): Locator =>
  page
    .getByRole("grid", { name: "Radios" })
    .getByRole("row")
    .nth(n + 1)
    .getByRole("gridcell")
    .nth(column);

test("eight access points that hear their neighbours get channels of which no two overlap", async ({
  page,
}) => {
  test.setTimeout(600_000);
  await newSite(page, "Lockkeeper's House, jetty");
  await addSegment(page, "Household");
  await openView(page, "Hardware");
  // The form stays open when the first device ends the empty sheet.
  await page.getByRole("button", { name: "Add it" }).click();
  await stack(page, "1 × 24-port PoE in Hall, uplinks to Gateway 1");
  await stack(page, "8 × access point in Hall, uplinks to core");

  await openView(page, "Wireless");
  await cell(page, "Wireless names", "New name", 0).click();
  await page.keyboard.type("Jetty");
  await page.keyboard.press("Enter");
  await expect(cell(page, "Wireless names", "Jetty", 1)).toContainText("Household");
  await page.getByRole("button", { name: "Channels and rules" }).click();
  await margin(page).getByRole("button", { name: "Europe", exact: true }).click();
  await margin(page).getByRole("button", { name: "Assign channels" }).click();
  // All in one room hear one another, and 2.4 GHz has three channels.
  await expect(margin(page).getByText(/pairs still overlap/)).toBeVisible();
  await margin(page).getByRole("button", { name: "Cancel" }).click();

  await radioCell(page, 1, 1).click();
  await paste(
    page,
    [1, 2, 3, 4, 5, 6, 7, 8].map((n) => [`Berth ${n}`]),
  );
  await expect(page.getByRole("gridcell", { name: "Berth 8" })).toBeVisible();
  for (let n = 1; n < 8; n += 1) {
    await radioCell(page, n, 0).click();
    await margin(page)
      .getByLabel(`Hall AP ${n + 1}`, { exact: false })
      .first()
      .check();
  }
  await radioCell(page, 1, 2).dblclick();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("14");
  await page.keyboard.press("Enter");
  await expect(
    page.getByRole("alert").filter({ hasText: "Channel 14 is not in the site's list for 2.4 GHz" }),
  ).toBeVisible();
  await page.keyboard.press("Escape");

  await page.getByRole("button", { name: "Channels and rules" }).click();
  await margin(page).getByRole("button", { name: "Assign channels" }).click();
  await expect(margin(page).getByText("No two that hear each other overlap.")).toBeVisible();
  await margin(page).getByRole("button", { name: "Apply" }).click();
  const channels = await Promise.all([1, 2, 3, 4, 5, 6, 7, 8].map((n) => radioCell(page, n, 2).innerText()));
  for (const [i, channel] of channels.entries()) {
    expect(["1", "6", "11"]).toContain(channel);
    if (i > 0) expect(channel).not.toBe(channels[i - 1]);
  }
  await openView(page, "Findings");
  await expect(page.getByText(/hear each other/)).toHaveCount(0);
});

test("a device's sheet prints without the frame; its files and templates are what it says", async ({
  page,
}) => {
  await openSite(page, "Fennel Street Veterinary Practice");
  await openView(page, "Hardware");
  await page.getByRole("table", { name: "Devices" }).getByRole("button", { name: "Switch B" }).click();
  await margin(page).getByRole("button", { name: "Its sheet" }).click();
  await expect(page.getByRole("article", { name: "Sheet of Switch B" })).toBeVisible();
  const folder = mkdtempSync(join(tmpdir(), "sheet-"));
  const pdf = join(folder, "sheet.pdf");
  await page.pdf({ path: pdf, preferCSSPageSize: true });
  const text = execFileSync("pdftotext", ["-layout", pdf, "-"]).toString();
  for (const words of ["Switch B", "Reach it", "10.24.10.4", "Trunks, tagging last", "Save", "checked by"])
    expect(text).toContain(words);
  expect(text).toMatch(/Upper[\s\S]*switch 25/);
  for (const words of ["Work order", "Find or do", "Not sound", "Selected switch"])
    expect(text).not.toContain(words);
  expect(text.indexOf("VLANs")).toBeLessThan(text.indexOf("Trunks, tagging last"));
  execFileSync("pdftoppm", ["-r", "60", "-png", "-f", "1", "-l", "1", pdf, join(folder, "page")]);
  expect(statSync(join(folder, "page-1.png")).size).toBeGreaterThan(5000);
  rmSync(folder, { recursive: true });

  const save = async (form: string, button: string) => {
    await page.getByLabel("Form").selectOption({ label: form });
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: button, exact: true }).click(),
    ]);
    return { name: download.suggestedFilename(), text: readFileSync(await download.path(), "utf8") };
  };
  const csv = await save("CSV", "Save CSV");
  expect(csv.name).toBe("switch-b-sheet.csv");
  expect(csv.text).toMatch(/^Step,What,Row,Setting,Value\r\n/);
  expect(JSON.parse((await save("JSON", "Save JSON")).text)).toMatchObject({
    name: "Switch B",
    hostName: "switch-b",
  });
  expect(JSON.parse((await save("YANG data as JSON", "Save JSON")).text)).toHaveProperty(
    "ieee802-dot1q-bridge:bridges",
  );
  expect((await save("Port labels", "Save")).text).toContain('"Switch B 17","Upper switch 25"');

  await page.getByLabel("Form").selectOption({ label: "Check list" });
  await page.getByRole("button", { name: "Copy it to change it" }).click();
  const template = page.getByLabel("Template", { exact: true });
  await template.fill("{{ name }} has {{ ports.size }} ports");
  await expect(page.getByText("Switch B has 18 ports")).toBeVisible();
  await template.fill("{{ name | shout }}");
  await expect(
    page.getByRole("alert").filter({ hasText: "The template can't be filled: undefined filter: shout" }),
  ).toBeVisible();
  await template.fill("{% for a in (1..9000) %}{% for b in (1..9000) %}x{% endfor %}{% endfor %}");
  await expect(
    page.getByRole("alert").filter({ hasText: /^The template (can't be filled|took longer)/ }),
  ).toBeVisible();
  await page.getByRole("button", { name: "Remove", exact: true }).last().click();
});

test("the drawing is saved as SVG and as PNG, and a box moves by the arrow keys and comes back", async ({
  page,
}) => {
  await openSite(page, "Bramblewick Cider Works");
  await openView(page, "Hardware");
  await expect(page.locator('[data-laid-out="true"]')).toBeVisible();
  // A drawing that nobody touches rests: nothing in it is drawn again.
  await page.waitForTimeout(1500);
  const stirrings = await page.locator(".react-flow").evaluate(
    (drawing) =>
      new Promise<number>((resolve) => {
        let count = 0;
        const watch = new MutationObserver((changes) => {
          count += changes.length;
        });
        watch.observe(drawing, { subtree: true, childList: true, attributes: true });
        setTimeout(() => {
          watch.disconnect();
          resolve(count);
        }, 1500);
      }),
  );
  expect(stirrings).toBe(0);
  const save = async (kind: string) => {
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: `Save ${kind}` }).click(),
    ]);
    return readFileSync(await download.path());
  };
  const svg = (await save("SVG")).toString();
  for (const name of ["Gateway", "Press house switch", "Tank farm switch"])
    expect(svg).toContain(`>${name}<`);
  expect((svg.match(/<path /g) ?? []).length).toBe(7);
  expect(svg).not.toMatch(/var\(|undefined|NaN/);
  expect((await save("PNG")).subarray(1, 4).toString()).toBe("PNG");

  const box = page.locator(".react-flow__node-device").filter({ hasText: "Office switch" });
  await box.focus();
  await page.keyboard.press("Enter");
  await expect(margin(page).getByRole("heading", { name: "Office switch" })).toBeVisible();
  for (let i = 0; i < 6; i += 1) await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("button", { name: "Arrange anew" })).toBeVisible();
  await page.getByRole("button", { name: "Arrange anew" }).click();
  await expect(page.getByRole("button", { name: "Arrange anew" })).toHaveCount(0);
  await saved(page);
});

test("the tree says who is root and why a port blocks; another root is previewed, undone", async ({
  page,
}) => {
  await openSite(page, "Bramblewick Cider Works");
  await openView(page, "Hardware");
  const choose = (name: string) =>
    page.getByRole("table", { name: "Devices" }).getByRole("button", { name }).click();
  await choose("Tank farm switch");
  const tree = margin(page).getByRole("list", { name: "Ports in the tree" });
  await expect(
    margin(page)
      .getByRole("definition")
      .filter({ hasText: /^Office switch$/ }),
  ).toBeVisible();
  await expect(tree.getByText(/its way to Office switch/)).toBeVisible();
  await margin(page).getByLabel("Priority").fill("5000");
  await page.keyboard.press("Enter");
  await expect(
    margin(page).getByRole("alert").filter({ hasText: '"5000" is no bridge priority' }),
  ).toBeVisible();
  await page.keyboard.press("Escape");
  await margin(page).getByLabel("Second root").selectOption({ label: "Cold store switch" });
  await margin(page).getByRole("button", { name: "Make it the root" }).click();
  await expect(margin(page).getByText("What it would do: 4 changed")).toBeVisible();
  await margin(page).getByRole("button", { name: "Apply" }).click();
  await expect(
    margin(page)
      .getByRole("definition")
      .filter({ hasText: /^this one$/ }),
  ).toBeVisible();
  await choose("Cold store switch");
  await expect(
    margin(page)
      .getByRole("definition")
      .filter({ hasText: /^Tank farm switch$/ }),
  ).toBeVisible();
  await undo(page).click();
  await expect(
    margin(page)
      .getByRole("definition")
      .filter({ hasText: /^Office switch$/ }),
  ).toBeVisible();
  await saved(page);
});
