import { execFileSync } from "node:child_process";
import { expect, test } from "@playwright/test";
import { openView, ownSite, saved } from "./open-site";

test("a remark for the customer, and the whole pack by keys alone, from an issued sheet", async ({
  page,
}) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, on paper");
  await openView(page, "Hand-over");
  await page.getByRole("button", { name: "Issue this state" }).click();
  await page.getByLabel(/^Name, as/).fill("As built");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("table", { name: "Issued sheets" })).toContainText("As built");
  // What is remarked after a sheet is of later papers.
  await page.getByRole("radio", { name: "Diary" }).click();
  await page.getByRole("region", { name: "Points and remarks" }).getByRole("button").first().click();
  await page.getByLabel("Remark", { exact: true }).fill("The studio door needs a longer cable.");
  await page.getByRole("radio", { name: /the customer’s/ }).click();
  await page.getByRole("button", { name: "Write it down" }).click();
  await expect(page.getByRole("region", { name: "Points and remarks" })).toContainText("longer cable");

  const made = async () => {
    const [file] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: "Make PDF" }).press("Enter"),
    ]);
    await expect(page.getByRole("status").filter({ hasText: "is written" })).toContainText(
      file.suggestedFilename(),
    );
    return execFileSync("pdftotext", [await file.path(), "-"])
      .toString("utf8")
      .replace(/\s+/g, " ");
  };
  // From the tab of sheets on, by keys alone.
  await page.getByRole("radio", { name: "Sheets" }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("heading", { name: "The pack of" })).toBeVisible();
  const whole = await made();
  expect(whole).toContain("Sheet A As built");
  for (const text of ["Hall switch", "Address register", "Walls in words"]) expect(whole).toContain(text);
  expect(whole).toMatch(/172\.19\.\d+\.1 /);
  expect(whole).not.toContain("longer cable");

  await page.getByRole("combobox", { name: "State" }).selectOption("the plan as it is now");
  await page.getByRole("radio", { name: "Next installer" }).focus();
  await page.keyboard.press("ArrowRight");
  const customers = await made();
  expect(customers).toContain("The studio door needs a longer cable.");
  expect(customers).not.toMatch(/\b172\.19\./);
});

test("a label's code opens what it is on", async ({ page }) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, labelled");
  await openView(page, "Hand-over");
  await page.getByRole("radio", { name: "Labels" }).click();
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: /^PDF of/ }).click(),
  ]);
  expect(execFileSync("pdftotext", [await file.path(), "-"]).toString("utf8")).toContain("Hall switch");
  await page.getByRole("button", { name: /came out well/ }).click();
  await expect(page.getByRole("button", { name: "Nothing to print" })).toBeVisible();

  await openView(page, "Hardware");
  await page.getByRole("button", { name: "Hall switch" }).first().click();
  const device = await page.evaluate(async () => {
    const site = window.location.pathname.split("/")[2] ?? "";
    const answer = await fetch(`/api/sites/${site}/plan`);
    const { plan } = (await answer.json()) as { plan: { devices: { id: string; name: string }[] } };
    return plan.devices.find(({ name }) => name === "Hall switch")?.id ?? "";
  });
  const site = new URL(page.url()).pathname.split("/")[2] ?? "";
  await page.goto("/");
  await page.goto(`/sites/${site}/hardware#device=${device}`);
  await expect(page.getByRole("complementary", { name: "Margin" })).toContainText("Hall switch");
  expect(new URL(page.url()).hash).toBe("");
});

test("a finding that is accepted with its reason stands in the papers", async ({ page }) => {
  await ownSite(page, "fennel-street", "Fennel Street, accepted");
  await openView(page, "Findings");
  await page
    .getByRole("main")
    .getByRole("button", { name: /^Imaging \(40\)/ })
    .click();
  const margin = page.getByRole("complementary", { name: "Margin" });
  await margin.getByPlaceholder("why it may stay as it is").fill("The ward is closed until spring.");
  await margin.getByRole("button", { name: "Accept it" }).click();
  await saved(page);
  await openView(page, "Hand-over");
  await page.getByRole("radio", { name: "Papers" }).click();
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Make PDF" }).click(),
  ]);
  const text = execFileSync("pdftotext", [await file.path(), "-"])
    .toString("utf8")
    .replace(/\s+/g, " ");
  expect(text).toContain("The ward is closed until spring.");
});
