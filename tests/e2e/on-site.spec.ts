import { expect, test } from "@playwright/test";
import { openView, ownSite, saved } from "./open-site";

test("a visit: steps are ticked by keys, wait while offline, and come to a second window", async ({
  page,
  context,
}) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, on site");
  await openView(page, "Runbook");
  await page.getByRole("radio", { name: "On site" }).click();
  await page.getByRole("button", { name: /^Begin a visit/ }).click();
  const done = page.getByRole("button", { name: "Done", exact: true });
  await expect(done).toBeVisible();
  await done.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText(/: 1 step ticked, \d+ to go\.$/)).toBeVisible();
  await page.keyboard.press("Enter");
  const ticked = page.getByRole("list", { name: "Ticked" }).getByRole("listitem");
  await expect(ticked).toHaveCount(2);

  // A second window of the same person, in the hand: it has the same visit.
  const second = await context.newPage();
  await second.setViewportSize({ width: 390, height: 844 });
  await second.goto(page.url());
  await expect(second.getByRole("list", { name: "Ticked" }).getByRole("listitem")).toHaveCount(2);
  const wide = await second.evaluate(
    () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
  );
  expect(wide).toBe(0);
  const small = await second.locator("main button, nav button").evaluateAll((buttons) =>
    buttons.flatMap((button) => {
      const { height } = button.getBoundingClientRect();
      return height > 0 && height < 44 ? [button.textContent] : [];
    }),
  );
  expect(small).toEqual([]);

  // The second window has it from the server; the first may still be asking whether it was taken.
  await expect(page.getByText(/Not sent yet/)).toHaveCount(0);
  await page.route("**/record*", (route) => route.abort());
  await page.keyboard.press("Enter");
  await expect(page.getByText(/^Not sent yet: 1 entry, kept in this browser\./)).toBeVisible();
  await expect(ticked).toHaveCount(3);
  await page.reload();
  await expect(page.getByText(/^Not sent yet: 1 entry, kept in this browser\./)).toBeVisible();
  await expect(ticked).toHaveCount(3);
  await page.unroute("**/record*");
  await page.getByRole("button", { name: "Try now" }).click();
  await expect(page.getByText(/Not sent yet/)).toHaveCount(0);
  await expect(second.getByRole("list", { name: "Ticked" }).getByRole("listitem")).toHaveCount(3);

  await second.getByRole("button", { name: "All views" }).click();
  await expect(second.getByRole("link", { name: /Findings/ })).toBeVisible();
  await second.getByRole("link", { name: /Findings/ }).click();
  await expect(second.getByRole("heading", { name: "Findings" })).toBeVisible();
  await expect(second.getByRole("link", { name: /Survey/ })).toBeHidden();
});

test("a live afternoon: a VLAN leaves both ends of a trunk, ticked to its end", async ({ page }) => {
  await ownSite(page, "fennel-street", "Fennel Street, live");
  await openView(page, "Ports");
  await page.getByRole("radio", { name: "VLAN paths", exact: true }).click();
  const crossing = (name: RegExp) =>
    page.getByRole("grid", { name: "VLANs across, ports down" }).getByRole("gridcell", { name });
  await crossing(/^Upper switch port 25, Cards \(50\): tagged/).click();
  await expect(crossing(/^Upper switch port 25, Cards \(50\): not carried/)).toBeVisible();
  await crossing(/^Switch B port 17, Cards \(50\): tagged/).click();
  await saved(page);

  await openView(page, "Runbook");
  await page.getByRole("button", { name: "or an earlier revision …" }).click();
  await page.getByRole("button", { name: "Take revision 1" }).click();
  await expect(page.getByRole("radio", { name: "what revision 1 says" })).toBeChecked();
  await expect(page.getByText(/^9 steps .*; the laptop is plugged in 1 time$/)).toBeVisible();
  await expect(page.getByText(/^Already so, nothing to do: Gateway, Lower switch, /)).toBeVisible();
  await page.getByRole("radio", { name: "On site" }).click();
  await page.getByRole("button", { name: /^Begin a visit/ }).click();
  const done = page.getByRole("button", { name: "Done", exact: true });
  await expect(done).toBeVisible();
  await done.focus();
  for (let step = 1; step <= 9; step += 1) {
    await page.keyboard.press("Enter");
    await expect(
      page.getByText(`: ${step} ${step === 1 ? "step" : "steps"} ticked, ${9 - step} to go.`),
    ).toBeVisible();
  }
  await expect(page.getByText("✓ Everything that can be done is done. End the visit.")).toBeVisible();
  await page.getByRole("button", { name: "End the visit" }).click();
  await page.getByRole("radio", { name: "Differences" }).click();
  await expect(page.getByText("✓ What is known to be on the devices is as planned.")).toBeVisible();
});
