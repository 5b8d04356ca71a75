import { expect, test, type Locator, type Page } from "@playwright/test";
import { arrowTo, goTo, press, tabTo } from "./by-keyboard";
import { newSite, saved } from "./open-site";

/** The roles are one stop for Tab; arrows choose among them. */
async function paintAs(page: Page, role: string): Promise<void> {
  await arrowTo(page, page.getByRole("radiogroup", { name: "Role" }), role);
}

const choose = async (page: Page, select: Locator, label: string) => {
  await tabTo(page, select);
  await page.keyboard.type(label, { delay: 10 });
  await expect(select.locator("option:checked")).toHaveText(new RegExp(`^${label}`));
};

test("the whole job by keyboard alone", async ({ page }) => {
  await page.goto("/");
  await tabTo(page, page.getByLabel("Name"));
  await page.keyboard.type("Lockkeeper's House, boathouse");
  await press(page, "Enter");
  await expect(page.getByText("Begin here with what you see")).toBeVisible();
  const survey = page.getByRole("grid", { name: "Survey" });
  await tabTo(page, survey.locator('td[tabindex="0"]'));
  await page.keyboard.type("Hall");
  await press(page, "Enter", "ArrowUp", "ArrowRight");
  await page.keyboard.type("2 PC, 1 holodeck");
  await expect(page.getByText('"holodeck" is no kind of device known here')).toBeVisible();
  await press(page, ...Array<string>(12).fill("Backspace"), "Enter");
  await expect(survey.getByRole("gridcell", { name: "2 PC" })).toBeVisible();
  await goTo(page, "02", "Segments");

  const grid = page.getByRole("grid", { name: "Segments" });
  await tabTo(page, grid.locator('td[tabindex="0"]'));
  await press(page, "ArrowRight", "ArrowRight");
  await page.keyboard.type("Household");
  await press(page, "Enter");
  await page.keyboard.type("Visitors");
  await press(page, "Enter");
  await expect(grid.getByRole("gridcell", { name: "Visitors", exact: true }).first()).toBeVisible();
  await press(page, "ArrowUp", "End", "ArrowLeft");
  await page.keyboard.type("many");
  await press(page, "Enter");
  await expect(
    page.getByRole("alert").filter({ hasText: '"many" is not a number of devices' }),
  ).toBeVisible();
  await press(page, "Escape");
  await page.keyboard.type("12");
  await press(page, "Enter");
  await expect(grid.getByRole("gridcell", { name: "12", exact: true }).first()).toBeVisible();

  await goTo(page, "04", "Hardware");
  const what = page.getByLabel("What");
  await choose(page, what, "Gateway, 1 line");
  await tabTo(page, page.getByRole("button", { name: "Add it" }));
  await press(page, "Enter");
  // The form stays open: back to its first field.
  await tabTo(page, what, true);
  await choose(page, what, "8-port PoE");
  await tabTo(page, page.getByRole("button", { name: "Add it" }));
  await press(page, "Enter");
  const devices = page.getByRole("table", { name: "Devices" });
  await tabTo(page, devices.getByRole("button", { name: "Switch 1" }));
  await press(page, "Enter");
  await choose(page, page.getByLabel("From port"), "8");
  await choose(page, page.getByLabel("to", { exact: true }), "Gateway 1 port 1");
  await tabTo(page, page.getByRole("button", { name: "Lay the cable" }));
  await press(page, "Enter");
  await expect(page.getByRole("button", { name: "Show the cable at port 8" })).toBeVisible();

  await goTo(page, "05", "Switch 1");
  const ports = page.getByRole("grid", { name: "Ports of Switch 1" });
  await tabTo(page, ports.locator('tr[tabindex="0"]'));
  await press(page, "Home", "Shift+ArrowDown", "Shift+ArrowDown");
  await expect(page.getByText("3 ports, 1 to 3")).toBeVisible();
  await choose(page, page.getByLabel("in", { exact: true }), "20 Visitors");
  await tabTo(page, page.getByRole("button", { name: "Paint 3 ports" }));
  await press(page, "Enter");
  await tabTo(page, ports.locator('tr[tabindex="0"]'), true);
  await press(page, "Home", ...Array<string>(7).fill("ArrowDown"));
  await paintAs(page, "Chosen VLANs");
  await tabTo(page, page.getByRole("button", { name: "Paint 1 port" }));
  await press(page, "Enter");
  await tabTo(page, page.getByRole("button", { name: /^Device:/ }), true);
  await press(page, "Enter");
  await page.keyboard.type("Gateway");
  await press(page, "Enter");
  const gate = page.getByRole("grid", { name: "Ports of Gateway 1" });
  await tabTo(page, gate.locator('tr[tabindex="0"]'));
  await press(page, "Home", "ArrowDown");
  await paintAs(page, "Chosen VLANs");
  await tabTo(
    page,
    page.getByRole("group", { name: "Tagged" }).getByRole("button", { name: "VI, Visitors" }),
  );
  await press(page, "Enter");
  await tabTo(page, page.getByRole("button", { name: "Paint 1 port" }));
  await press(page, "Enter");

  await goTo(page, "10", "Findings");
  const finding = page.getByRole("button", { name: /^Visitors \(20\) stops at Gateway 1 port 1/ });
  await tabTo(page, finding);
  await press(page, "Enter");
  await tabTo(page, page.getByRole("button", { name: "Add Visitors (20) to Gateway 1 port 1" }));
  await press(page, "Enter");
  await tabTo(page, page.getByRole("button", { name: "Apply" }));
  await press(page, "Enter");
  await expect(finding).toHaveCount(0);

  await goTo(page, "08", "Walls");
  await tabTo(page, page.getByRole("grid", { name: "Walls between zones" }).locator('td[tabindex="0"]'));
  await press(page, "ArrowDown", "ArrowUp");
  await tabTo(page, page.getByRole("radio", { name: "Closed" }));
  await press(page, "ArrowDown", "ArrowDown");
  await expect(page.getByRole("gridcell", { name: /^Household to Internet: open/ })).toBeVisible();

  await page
    .locator("body")
    .evaluate(() =>
      document.activeElement instanceof HTMLElement ? document.activeElement.blur() : undefined,
    );
  await press(page, "p");
  await tabTo(page, page.getByRole("button", { name: /^What and where/ }));
  await press(page, "Enter");
  await expect(page.getByPlaceholder("Type part of the name")).toBeFocused();
  await page.keyboard.type("Switch 1 2");
  await press(page, "Enter");
  await expect(page.getByText("✓ all 4 steps pass")).toBeVisible();
  await tabTo(page, page.getByRole("list", { name: "Steps" }).locator('button[tabindex="0"]'));
  await press(page, "Home", "ArrowRight");
  await expect(
    page.getByRole("complementary", { name: "Margin" }).getByText("untagged: joins 20, leaves with tag 20"),
  ).toBeVisible();

  await goTo(page, "03", "Addresses");
  await tabTo(page, page.getByRole("button", { name: "Add device" }));
  await press(page, "Enter");
  await expect(page.getByRole("gridcell", { name: "Device 1" })).toBeVisible();

  await press(page, "Control+k");
  await page.keyboard.type("Go to Hand-over");
  await press(page, "Enter");
  await tabTo(page, page.getByRole("radio", { name: "Sheets" }));
  await press(page, "ArrowRight", "ArrowRight", "ArrowRight");
  await tabTo(page, page.getByRole("button", { name: "Save plan file", exact: true }));
  const [download] = await Promise.all([page.waitForEvent("download"), press(page, "Enter")]);
  expect(download.suggestedFilename()).toBe("lockkeeper-s-house-boathouse-plan.json");

  await saved(page);
  const revision = async () => Number(await page.locator("[data-revision]").innerText());
  await page
    .locator("body")
    .evaluate(() =>
      document.activeElement instanceof HTMLElement ? document.activeElement.blur() : undefined,
    );
  const before = await revision();
  await press(page, "Control+z");
  await expect.poll(revision).toBe(before + 1);
  await press(page, "Control+Shift+z");
  await expect.poll(revision).toBe(before + 2);
  await press(page, "?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
  await press(page, "Escape");
});

test("the pool's edges move by the arrow keys, count said while they do, and Escape leaves them", async ({
  page,
}) => {
  await newSite(page, "Lockkeeper's House, studio");
  const grid = page.getByRole("grid", { name: "Segments" });
  await grid.getByText("New segment").click();
  await page.keyboard.type("Studio");
  await press(page, "Enter");
  await goTo(page, "04", "Hardware");
  await page.getByRole("button", { name: "Add it" }).click();
  await goTo(page, "03", "Addresses");
  await page.getByRole("group", { name: /^Studio/ }).click({ position: { x: 60, y: 40 } });
  const last = page.getByRole("slider", { name: "Studio: last address of the pool" });
  const said = await last.getAttribute("aria-valuetext");
  await tabTo(page, last);
  await press(page, "ArrowRight", "ArrowRight", "PageUp");
  expect(await last.getAttribute("aria-valuetext")).not.toBe(said);
  await press(page, "Escape");
  await expect(last).toHaveAttribute("aria-valuetext", String(said));
  await press(page, "ArrowRight", "Enter");
  await expect(page.getByRole("complementary", { name: "Margin" }).getByText("count 21")).toBeVisible();
});
