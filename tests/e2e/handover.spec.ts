import { expect, test } from "@playwright/test";
import { openView, ownSite, saved } from "./open-site";

test("a state is issued and signed, the plan goes on, and what has changed since is told and set up", async ({
  page,
}) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, handed over");
  await openView(page, "Hand-over");
  // With the keyboard alone.
  await page.getByRole("button", { name: "Issue this state" }).focus();
  await page.keyboard.press("Enter");
  await page.getByLabel(/^Name, as/).focus();
  await page.keyboard.type("As built");
  await page.keyboard.press("Tab");
  await page.keyboard.type("the owners");
  await page.keyboard.press("Enter");
  const sheets = page.getByRole("table", { name: "Issued sheets" });
  await expect(sheets).toContainText("As built");
  await expect(page.getByText("✓ Nothing has changed.")).toBeVisible();
  await page.getByRole("button", { name: "Write down as checked" }).focus();
  await page.keyboard.press("Enter");
  await page.getByLabel("Who accepts it").fill("Mrs Aldous");
  await page.keyboard.press("Enter");
  await expect(sheets).toContainText(/Mrs Aldous, \d+ \w+ 2\d{3}/);

  // A week later a segment has another name.
  await openView(page, "Segments");
  await page.getByRole("gridcell", { name: "Studio", exact: true }).first().dblclick();
  await page.keyboard.type("Workshop");
  await page.keyboard.press("Enter");
  await saved(page);
  await openView(page, "Hand-over");
  await expect(sheets).toContainText("1 change");
  const since = page.getByRole("region", { name: "Changed since" });
  await expect(since).toContainText("name: Studio became Workshop");
  await expect(since).toContainText("Nothing is found wrong that was not before");

  // It is there after a reload, for everybody; and it is where the runbook begins.
  await page.reload();
  await expect(since).toContainText("name: Studio became Workshop");
  await since.getByRole("button", { name: "Runbook for the difference" }).click();
  await expect(page.getByText("what A As built says")).toBeVisible();

  // One thing of then is brought back after the other: the segment, and its VLAN, which was renamed with it.
  await openView(page, "Hand-over");
  await since.getByRole("button", { name: "As it was: Workshop", exact: true }).click();
  await saved(page);
  await since.getByRole("button", { name: "As it was: Workshop (30)", exact: true }).click();
  await expect(since).toContainText("✓ Nothing has changed.");
  await saved(page);

  // History tells the same of any two revisions.
  await openView(page, "History");
  const history = page.getByRole("region", { name: "Compare revisions" });
  await history.getByRole("button", { name: "Compare", exact: true }).click();
  await expect(history).toContainText("name: Workshop became Studio");
});
