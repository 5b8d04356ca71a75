import { expect, test } from "@playwright/test";
import { JPEG, withSegment } from "../support/jpeg";
import { openView, ownSite } from "./open-site";

test("a phone comes by its own link; offline its page opens anew, and ticks are kept until sent", async ({
  page,
  browser,
}) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, offline");
  const address = page.url();
  await page.getByRole("button", { name: "Let another browser in" }).click();
  await expect(page.getByRole("img", { name: "QR code of the link" })).toBeVisible();
  const link = await page.getByRole("textbox", { name: "The link" }).inputValue();

  const phone = await browser.newContext({
    serviceWorkers: "allow",
    viewport: { width: 390, height: 844 },
    storageState: { cookies: [], origins: [] },
  });
  const first = await phone.newPage();
  await first.goto(link);
  await first.getByRole("button", { name: "Come in as Ruth" }).click();
  await expect(first.getByRole("heading", { name: "Sites" })).toBeVisible();
  await first.goto(address);
  await first.getByRole("button", { name: "All views" }).click();
  await openView(first, "Runbook");
  await first.getByRole("radio", { name: "On site" }).click();
  await first.getByRole("button", { name: /^Begin a visit/ }).click();
  await expect(first.getByText("✓ This page opens without a connection, too.")).toBeVisible();
  await first.getByRole("button", { name: "Done", exact: true }).click();
  const ticked = first.getByRole("list", { name: "Ticked" }).getByRole("listitem");
  await expect(ticked).toHaveCount(1);
  await expect(first.getByText(/Not sent yet/)).toHaveCount(0);

  await phone.setOffline(true);
  await first.reload();
  await expect(ticked).toHaveCount(1);
  await expect(first.getByText("✓ This page opens without a connection, too.")).toBeVisible();
  const told = Buffer.from(withSegment(JPEG, 0xe1, "Exif GPS 51.5N"));
  await first
    .getByLabel("Add a photo")
    .setInputFiles({ name: "rack.jpg", mimeType: "image/jpeg", buffer: told });
  await expect(first.getByRole("img", { name: "Photo 1" })).toBeVisible();
  await first.getByRole("button", { name: "Done", exact: true }).click();
  await expect(ticked).toHaveCount(2);
  await expect(first.getByText(/^Not sent yet: 1 entry, 1 photo, kept in this browser\./)).toBeVisible();
  const runbook = first.url();
  await first.close();

  const again = await phone.newPage();
  await again.goto(runbook);
  await expect(again.getByRole("list", { name: "Ticked" }).getByRole("listitem")).toHaveCount(2);
  await expect(again.getByText(/^Not sent yet: 1 entry, 1 photo, kept in this browser\./)).toBeVisible();
  await phone.setOffline(false);
  await expect(again.getByText(/Not sent yet/)).toHaveCount(0);

  // Whoever sits in the office sees the photo, and can take it out for everybody.
  await page.getByRole("button", { name: "Close" }).click();
  await openView(page, "Runbook");
  await page.getByRole("radio", { name: "On site" }).click();
  await page.getByRole("button", { name: /^Open: Photo 1 of/ }).click();
  const large = page.getByRole("dialog").getByRole("img");
  await expect.poll(() => large.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(24);
  await page.getByRole("button", { name: "Take the photo out" }).click();
  await expect(page.getByText("A photo was taken out.")).toBeVisible();
  await expect(again.getByText("A photo was taken out.")).toBeVisible();

  // Whoever signs out leaves nothing of the site behind.
  await again.setViewportSize({ width: 1280, height: 800 });
  await again.getByRole("button", { name: "Sign out" }).click();
  await expect(again).toHaveURL(/\/enter$/);
  expect(
    await again.evaluate(async () =>
      (await caches.keys()).filter((name) => !name.startsWith("dianome-files")),
    ),
  ).toEqual([]);
  await phone.close();
});
