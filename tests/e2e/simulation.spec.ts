import { expect, test, type Page } from "@playwright/test";
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { choose, openView, ownSite, saved } from "./open-site";

const margin = (page: Page) => page.getByRole("complementary", { name: "Margin" });
const show = (page: Page, way: string) => page.getByRole("radio", { name: way, exact: true }).click();
const undo = (page: Page) => page.getByRole("button", { name: /^Undo/ }).click();

async function downloaded(page: Page, name: string): Promise<string> {
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name, exact: true }).click(),
  ]);
  return file.path();
}

test("a probe fails, is repaired, lit on the drawing, captured, kept, and told when it breaks", async ({
  page,
}) => {
  await ownSite(page, "fennel-street", "Fennel Street, probed");
  await openView(page, "Probe");
  await choose(page, /^What and where/, "Analyser");
  await expect(page.getByText("stops at step 3")).toBeVisible();
  await expect(
    margin(page).getByText("Add Imaging (40) to Upper switch port 25: tried, the probe passes"),
  ).toBeVisible();
  // The arrow keys go along the steps.
  await page.getByRole("list", { name: "Steps" }).getByRole("button").nth(2).focus();
  await page.keyboard.press("ArrowLeft");
  await expect(margin(page).getByText("port 4 in, 17 out")).toBeVisible();
  await margin(page).getByRole("button", { name: "Add Imaging (40) to Upper switch port 25" }).click();
  await margin(page).getByRole("button", { name: "Apply" }).click();
  await expect(page.getByText(/all \d+ steps pass/)).toBeVisible();

  await show(page, "On the drawing");
  await expect(page.locator('[data-laid-out="true"]')).toBeVisible();
  await expect(
    page.locator(".react-flow__node", { hasText: "Upper switch" }).locator(".border-act").first(),
  ).toBeVisible();
  await expect(
    page.locator(".react-flow__node", { hasText: "Consult AP" }).locator(".border-rule").first(),
  ).toBeVisible();

  await show(page, "On the wire");
  await choose(page, /^Listen at/, "Upper switch port 25");
  await expect(
    page.getByRole("table", { name: "Frames at Upper switch port 25" }).getByText("DHCP offer"),
  ).toBeVisible();
  const capture = await downloaded(page, "Save the capture file");
  const read = execFileSync(
    "tshark",
    [
      "-r",
      capture,
      "-o",
      "udp.check_checksum:TRUE",
      "-T",
      "fields",
      "-e",
      "vlan.id",
      "-e",
      "dhcp.option.dhcp",
      "-Y",
      "dhcp && !_ws.malformed && !(udp.checksum.status == 0)",
    ],
    { encoding: "utf8", stdio: ["ignore", "pipe", "ignore"] },
  );
  expect(read.trim().split("\n")).toEqual(["40\t1", "40\t2", "40\t3", "40\t5"]);

  await page.getByRole("button", { name: "Keep: has to pass" }).click();
  await expect(page.getByText("Kept: it has to get through.")).toBeVisible();
  await show(page, "Kept");
  await expect(page.getByText("✓ 1 kept probe comes out as it has to")).toBeVisible();
  await openView(page, "Ports");
  await page.getByRole("button", { name: /^Device:/ }).click();
  await page.getByRole("option", { name: "Upper switch" }).click();
  await openView(page, "Probe");
  await page.getByRole("button", { name: "pass", exact: true }).click();
  await expect(page.getByText("1 of 1 come out otherwise")).toBeVisible();
  await expect(page.getByText("It has to be stopped and gets through.")).toBeVisible();
  await saved(page);
  // Back to the site as it was: what has to come of it, keeping, the repair.
  for (let i = 0; i < 3; i += 1) {
    await undo(page);
    await saved(page);
  }
  await show(page, "One journey");
  await expect(page.getByText("stops at step 3")).toBeVisible();
});

test("a laptop of any kind: nonsense is said, a false server kept out, two probes side by side", async ({
  page,
}) => {
  await ownSite(page, "fennel-street", "Fennel Street, tried out");
  await openView(page, "Probe");
  await choose(page, /^What and where/, "Upper switch 11");
  await page.getByLabel("As what").selectOption("typed");
  const address = page.getByLabel("Its address");
  await address.fill("10.24.20.300/25");
  await address.press("Enter");
  await expect(
    page.getByRole("alert").filter({ hasText: "is no address with its length, such as 192.0.2.10/24." }),
  ).toBeVisible();
  await address.fill("10.24.70.9/27");
  await address.press("Enter");
  await choose(page, /^What it asks for/, "the internet");
  await expect(
    margin(page).getByText("10.24.70.9 does not belong in Staff, where it comes in"),
  ).toBeVisible();
  await page.getByRole("button", { name: "Lay aside to compare" }).click();
  await page.getByLabel("As what").selectOption("client");
  await expect(page.getByText(/They part at step 2/)).toBeVisible();
  await page.getByRole("button", { name: "Put away" }).click();
  await page.getByLabel("As what").selectOption("falseServer");
  await expect(page.getByText("✓ kept out")).toBeVisible();
  await page.getByLabel("As what").selectOption("spoofer");
  await expect(page.getByText(/gets through to \d+/)).toBeVisible();
  await margin(page)
    .getByRole("button", { name: /^Let Upper switch inspect ARP in VLAN 20/ })
    .click();
  await expect(margin(page).getByRole("button", { name: "Apply" })).toBeVisible();
});

test("who reaches whom: as intended until a switch routes past the walls; mouse, keys, file", async ({
  page,
}) => {
  await ownSite(page, "bramblewick", "Bramblewick, reached");
  await openView(page, "Probe");
  await show(page, "Reachability");
  const grid = page.getByRole("grid", { name: "Reachability" });
  await expect(page.getByText("✓ as the walls intend")).toBeVisible();
  await grid.getByRole("gridcell", { name: "Operations to Tank farm: services" }).click();
  await expect(margin(page).getByText("From Operations to Tank farm: opc ua only.")).toBeVisible();
  await page.keyboard.press("ArrowRight");
  await expect(margin(page).getByRole("heading", { level: 2 })).toHaveText("Operations to Bottling hall");
  const table = readFileSync(await downloaded(page, "Save CSV"), "utf8").split("\r\n");
  expect(table[0]).toContain("the internet,the gateway's pages");
  expect(table.find((line) => line.startsWith("Office,"))).toContain("services");
  await margin(page)
    .getByRole("button", { name: /^Probe from/ })
    .click();
  await expect(page.getByText(/all \d+ steps pass/)).toBeVisible();
});

test("every failure is tried: the ring's cable hurts one hall, the gateway all; two at once", async ({
  page,
}) => {
  await ownSite(page, "bramblewick", "Bramblewick, failed");
  await openView(page, "Failures");
  const ranking = page.getByRole("listbox", { name: "Failures, the worst first" });
  await expect(ranking.getByRole("option").first()).toHaveAccessibleName(/Office switch|Gateway/);
  await ranking.getByRole("option", { name: /^R5: / }).click();
  await expect(margin(page).getByText(/4 lose their gateway.*1 port that stood by takes over/)).toBeVisible();
  await expect(margin(page).getByText("Bottling hall, 4:")).toBeVisible();
  await ranking.getByRole("option", { name: /^R1: / }).click();
  await expect(
    margin(page).getByText(/Nobody loses anything. 1 port that stood by takes over./),
  ).toBeVisible();
  await choose(page, /^And at the same time/, "R5");
  await expect(margin(page).getByText(/lose their gateway/)).toBeVisible();
  await page.keyboard.press("Escape");
  await ranking.getByRole("option", { name: /^R1: / }).focus();
  await page.keyboard.press("Home");
  await expect(ranking.getByRole("option").first()).toHaveAttribute("aria-selected", "true");
  await expect(
    page
      .getByRole("region", { name: "No second way" })
      .getByText(/the way to the gateway/)
      .first(),
  ).toBeVisible();
});

test("an order of work is found, walked by keys, and tried by hand until it locks out", async ({ page }) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, set up");
  await openView(page, "Runbook");
  const steps = page.getByRole("listbox", { name: "Steps of the runbook" });
  await steps.getByRole("option").first().focus();
  await page.keyboard.press("ArrowDown");
  await expect(margin(page).getByText(/^Step 2 of \d+/)).toBeVisible();
  await expect(margin(page).getByRole("heading", { level: 2 })).toHaveText(/^Unpack and power /);
  await page.keyboard.press("End");
  await expect(margin(page).getByRole("heading", { level: 2 })).toHaveText(
    "Put back what the laptop had before",
  );
  await page.getByRole("radio", { name: "Rehearse by hand" }).click();
  const done = async (what: string) => {
    await choose(page, /^Do next/, what);
    await page.getByRole("button", { name: "Do it" }).click();
  };
  await choose(page, /^The laptop is at/, "Hall switch port 15");
  await done("Hall switch: Unpack and power");
  await done("Hall switch: Ports 9");
  const told = page.getByRole("list", { name: "What came of it" });
  await expect(told.getByRole("listitem")).toHaveCount(2);
  await expect(told.getByText("done, and out of reach now")).toBeVisible();
  await expect(told.getByText(/Hall switch does not answer at Hall switch port 15 any more/)).toBeVisible();
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(told.getByRole("listitem")).toHaveCount(1);
});

test("the tree from its root; another is shown, chosen, taken back; guards are written", async ({ page }) => {
  await ownSite(page, "bramblewick", "Bramblewick, its tree");
  await openView(page, "Switch guards");
  await expect(
    page.getByRole("region", { name: "Blocked ports" }).getByText(/Bottling hall switch port 17.*blocking/),
  ).toBeVisible();
  await page.getByRole("button", { name: /^Tank farm switch/ }).click();
  await margin(page).getByRole("button", { name: "Make it the root" }).click();
  await margin(page).getByRole("button", { name: "Apply" }).click();
  await expect(page.getByRole("button", { name: /^Tank farm switch root, 4096/ })).toBeVisible();
  await saved(page);
  await undo(page);
  await expect(page.getByRole("button", { name: /^Office switch root, 4096/ })).toBeVisible();
  await saved(page);
  await show(page, "Guards");
  await page
    .getByRole("table", { name: "Guards of each device" })
    .getByRole("button", { name: "Cold store switch" })
    .click();
  const snoops = margin(page).getByLabel("Snoops in VLANs");
  await snoops.fill("150, 9999");
  await snoops.press("Enter");
  await expect(margin(page).getByText(/"9999" is no VLAN ID or run of them/)).toBeVisible();
  await snoops.fill("150");
  await snoops.press("Enter");
  await expect(
    page.getByRole("row").filter({ hasText: "Cold store switch" }).getByRole("cell", { name: "150" }),
  ).toBeVisible();
  await saved(page);
  await openView(page, "Findings");
  await expect(
    page
      .getByText(
        /Cold store switch port 1[78] leads to Gateway, which gives addresses in VLAN 150, and is not trusted/,
      )
      .first(),
  ).toBeVisible();
  await undo(page);
  await saved(page);
});
