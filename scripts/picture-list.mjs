// What stands on each picture of docs/screenshots that is one sheet.

export const view = (page, name) =>
  page.getByRole("navigation", { name: "Work order" }).getByRole("link", { name }).click();
export const cell = (page, name) => page.getByRole("gridcell", { name, exact: true }).first();

/** What each picture shows: the site, the sheet, and what is done there before it is taken. */
export const PICTURES = [
  [
    "survey",
    "Fennel Street",
    "Survey",
    async (page) => {
      await cell(page, "Lab").click();
      await page.keyboard.press("ArrowRight");
      await page.keyboard.press("Enter");
      await page.keyboard.press("End");
      await page.keyboard.type(", 1 fridge loger");
    },
  ],
  [
    "segments",
    "Fennel Street",
    "Segments",
    (page) => page.getByRole("row").filter({ hasText: "Guests" }).getByRole("gridcell").nth(9).click(),
  ],
  [
    "addresses",
    "Fennel Street",
    "Addresses",
    (page) => page.getByRole("group", { name: /^Imaging/ }).click({ position: { x: 60, y: 30 } }),
  ],
  [
    "hardware",
    "Fennel Street",
    "Hardware",
    async (page) => {
      await page.locator('[data-laid-out="true"]').waitFor();
      await page
        .getByRole("table", { name: "Devices" })
        .getByRole("button", { name: "Upper switch" })
        .click();
    },
  ],
  [
    "ports",
    "Fennel Street",
    "Ports",
    async (page) => {
      await page.getByRole("button", { name: /^Device:/ }).click();
      await page.getByRole("option", { name: /Upper/ }).click();
      await page.getByText("Phone Consult 2").first().click();
      await page
        .getByText("Phone Office 3")
        .first()
        .click({ modifiers: ["Shift"] });
      await page.getByRole("radio", { name: "Phone + PC" }).click();
    },
  ],
  [
    "wireless",
    "Fennel Street",
    "Wireless",
    async (page) => {
      await page.getByRole("button", { name: "Assign channels" }).click();
    },
  ],
  [
    "gateway",
    "Lockkeeper's House",
    "Gateway",
    (page) => page.getByRole("grid", { name: "Ways in" }).getByText("Who is at the door").click(),
  ],
  [
    "walls",
    "Bramblewick",
    "Walls",
    (page) => page.getByRole("gridcell", { name: /^Operations to Bottling/ }).click(),
  ],
  [
    "findings",
    "Fennel Street",
    "Findings",
    async (page) => {
      await page
        .getByRole("main")
        .getByRole("button", { name: /^Imaging \(40\)/ })
        .click();
      await page
        .getByRole("complementary")
        .getByRole("button", { name: /^Add Imaging/ })
        .click();
    },
  ],
  [
    "probe-bench",
    "Fennel Street",
    "Probe",
    async (page) => {
      await page.getByRole("radio", { name: "Bench" }).click();
      await page.getByRole("button", { name: /^What and where/ }).click();
      await page.keyboard.type("Analyser");
      await page.keyboard.press("Enter");
    },
  ],
  [
    "failures",
    "Bramblewick",
    "Failures",
    (page) =>
      page
        .getByRole("main")
        .getByText(/^R5: Cold store switch/)
        .first()
        .click({ timeout: 60_000 }),
  ],
  [
    "runbook",
    "Fennel Street",
    "Runbook",
    async (page) => {
      const steps = page.getByRole("listbox", { name: "Steps of the runbook" });
      await steps.waitFor({ timeout: 60_000 });
      await steps.getByRole("option", { name: /Switch its own DHCP server off/ }).click();
    },
  ],
  [
    "who-gets-in",
    "Fennel Street",
    "Switch guards",
    async (page) => {
      await page.getByRole("radio", { name: "Sign-in" }).click();
      await page
        .getByRole("grid", { name: "Who gets in" })
        .getByRole("row")
        .filter({ hasText: "Office printer" })
        .getByRole("gridcell")
        .nth(1)
        .click();
    },
  ],
  [
    "history",
    "Lockkeeper",
    "History",
    async (page) => {
      await view(page, "Hardware");
      await page.locator('[data-laid-out="true"]').waitFor();
      await page.getByRole("table", { name: "Devices" }).getByRole("button", { name: "Hall switch" }).click();
      await page.getByRole("complementary").getByLabel("Place").first().fill("Loft");
      await page.keyboard.press("Enter");
      await page.locator('[data-saving="saved"]').waitFor();
      await view(page, "History");
      await page.getByRole("button", { name: "Compare", exact: true }).click();
      await page.getByRole("button", { name: "On the drawing" }).click();
      await page.getByRole("img", { name: /^Drawing of both/ }).waitFor();
    },
  ],
];
