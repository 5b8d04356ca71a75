import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { openSite, openView, VIEWS } from "./open-site";

// Each look goes over the whole page: a record of every step besides would take longer than the looks.
test.use({ trace: "off" });

// eslint-disable-next-line complexity -- what each view needs before it is looked at
test("axe finds nothing serious on any view, light and dark", async ({ page }) => {
  test.setTimeout(600_000);
  const problems: string[] = [];
  const judge = async (axe: AxeBuilder, where: string) => {
    const { violations } = await axe.analyze();
    for (const violation of violations) {
      if (violation.impact === "serious" || violation.impact === "critical")
        problems.push(
          `${where}: ${violation.id}, ${violation.nodes
            .map((node) => `${node.target.join(" ")} ${node.any[0]?.message ?? node.all[0]?.message ?? ""}`)
            .slice(0, 3)
            .join("; ")}`,
        );
    }
  };
  // The frame is looked at once; with each view its sheet and its margin, and what changes within it alone.
  const parts = { whole: [], view: ["main", "aside"], sheet: ["main"], margin: ["aside"] } as const;
  const look = async (where: string, part: keyof typeof parts = "whole") => {
    const axe = () =>
      parts[part].reduce(
        (builder, selector) => builder.include(selector),
        // What passes is not told, and a page without frames needs none opened beside it: half the time.
        new AxeBuilder({ page }).options({ resultTypes: ["violations"] }).setLegacyMode(),
      );
    expect(page.frames()).toHaveLength(1);
    await judge(axe(), `${where}, light`);
    // The two grounds differ in their colours alone.
    await page.emulateMedia({ colorScheme: "dark" });
    await judge(axe().withRules(["color-contrast"]), `${where}, dark`);
    await page.emulateMedia({ colorScheme: "light" });
  };
  await page.goto("/");
  await look("Sites");
  await page.goto("/account");
  await look("Account");
  await page.goto("/people");
  await look("People");
  for (const part of ["Customers", "Machines", "Log"]) {
    await page.getByRole("radio", { name: part }).click();
    await look(part, "sheet");
  }
  await page.goto("/enter?key=none");
  await look("Sign in");
  await openSite(page, "Fennel Street Veterinary Practice");
  for (const view of VIEWS) {
    await openView(page, view);
    if (view === "Survey") {
      await page.getByRole("gridcell", { name: "Lab", exact: true }).click();
      await look("Survey, a room");
      await page.getByRole("button", { name: "Draft the plan" }).click();
      await expect(page.getByRole("button", { name: "Accept the draft" })).toBeVisible();
    }
    if (view === "Segments")
      await page.getByRole("gridcell", { name: "Guests", exact: true }).first().click();
    if (view === "Addresses")
      await page.getByRole("group", { name: /^Imaging/ }).click({ position: { x: 60, y: 40 } });
    if (view === "Hardware") await expect(page.locator('[data-laid-out="true"]')).toBeVisible();
    if (view === "Ports") await page.getByRole("row").filter({ hasText: "Image store" }).click();
    if (view === "Walls") await page.getByRole("gridcell", { name: "Practice to Servers" }).click();
    if (view === "Findings")
      await page
        .getByRole("main")
        .getByRole("button", { name: /^Guests/ })
        .first()
        .click();
    if (view === "Probe") {
      await page.getByRole("button", { name: /^What and where/ }).click();
      await page.getByPlaceholder("Type part of the name").fill("Analyser");
      await page.keyboard.press("Enter");
      await expect(page.getByText("stops at step 3")).toBeVisible();
    }
    if (view === "Runbook") {
      await page.getByRole("option", { name: /Switch its own DHCP server off/ }).click();
      await look("Runbook, a step", "view");
      await page.getByRole("radio", { name: "On site" }).click();
      await look("Runbook, on site", "view");
      await page.getByRole("radio", { name: "On stand-ins" }).click();
      await expect(page.getByRole("list", { name: "Stand-in devices" })).toBeVisible();
      await look("Runbook, on stand-ins", "sheet");
      await page.getByRole("radio", { name: "Differences" }).click();
      await page.getByRole("button", { name: "Read a device" }).click();
      await page.getByRole("textbox", { name: /^Paste its table/ }).fill("Port;PVID\n2;20\n77;1\n");
      await look("Runbook, differences", "sheet");
      await page.getByRole("radio", { name: "Rehearse by hand" }).click();
    }
    if (view === "Failures")
      await expect(page.getByRole("listbox").getByRole("option").first()).toBeVisible();
    await look(view, view === "Survey" ? "whole" : "view");
    if (view === "Segments") {
      await page.getByRole("button", { name: "Size the pool and the lease" }).click();
      await expect(page.getByText("The formula")).toBeVisible();
      await look("Lease and pool", "margin");
      await page.getByRole("button", { name: "Numbering" }).click();
      await look("Numbering", "margin");
    }
    const ways: Readonly<Record<string, readonly string[]>> = {
      Hardware: ["Cabinets", "Cables", "Sheets", "Models"],
      Ports: ["VLAN paths", "By rule"],
      "Switch guards": ["Regions", "Sign-in", "Guards"],
      Probe: ["On the wire", "Kept", "Reachability"],
    };
    for (const way of ways[view] ?? []) {
      await page.getByRole("radio", { name: way, exact: true }).click();
      await look(`${view}, ${way}`, "sheet");
    }
    if (view === "Wireless") {
      await page.getByRole("gridcell", { name: "Fennel Guests" }).click();
      await look("Wireless, a name", "margin");
      await page.getByRole("gridcell", { name: "Office AP", exact: true }).first().click();
      await look("Wireless, an access point", "margin");
    }
    if (view === "Addresses") {
      await page.getByRole("button", { name: "How full they are" }).click();
      await expect(page.getByRole("table", { name: "Use of the subnets" })).toBeVisible();
      await look("How full they are", "sheet");
      await page.getByRole("button", { name: "Import" }).click();
      await look("Import", "sheet");
      await page.getByRole("button", { name: "Close" }).click();
    }
  }
  await page.keyboard.press("Control+k");
  await expect(page.getByRole("dialog")).toBeVisible();
  await look("Find or do");
  expect(problems).toEqual([]);
});

test("nothing is cut off at 200 % zoom or on a narrow page", async ({ page }) => {
  await openSite(page, "Fennel Street Veterinary Practice");
  await page.setViewportSize({ width: 640, height: 800 });
  for (const view of VIEWS) {
    await openView(page, view);
    const ways: Readonly<Record<string, readonly string[]>> = {
      Hardware: ["Drawing", "Cabinets", "Cables", "Baseline", "Sheets", "Models"],
      Ports: ["One device", "VLAN paths", "By rule"],
      Runbook: ["Order", "Windows", "On site", "On stand-ins", "Differences"],
    };
    for (const way of ways[view] ?? [""]) {
      if (way !== "") await page.getByRole("radio", { name: way, exact: true }).click();
      const wide = await page.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      );
      expect([view, way, wide]).toEqual([view, way, 0]);
    }
  }
});
