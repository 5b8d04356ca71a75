import { expect, test } from "@playwright/test";
import { openView, ownSite } from "./open-site";

test("on a phone offline a site is proven reading by reading, over a restart; others add", async ({
  page,
  browser,
}) => {
  await ownSite(page, "fennel-street", "Fennel Street, proven");
  const phone = await browser.newContext({
    serviceWorkers: "allow",
    viewport: { width: 390, height: 844 },
  });
  const first = await phone.newPage();
  await first.goto(page.url());
  await first.getByRole("button", { name: "All views" }).click();
  await openView(first, "Tests");
  await expect(first.getByText("✓ This page opens without a connection, too.")).toBeVisible();
  const row = (name: RegExp) => first.getByRole("option", { name }).first();
  const asExpected = first.getByRole("button", { name: "As expected" });
  await row(/Lower switch port 16\. Plug in/).click();
  await asExpected.click();
  // The next one is open at once; back to the list, which has one less to take.
  await expect(asExpected).toBeFocused();
  await first.getByRole("button", { name: "All readings" }).click();
  await expect(first.getByText(/Not sent yet/)).toHaveCount(0);
  const wide = await first.evaluate(
    () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
  );
  expect(wide).toBe(0);

  await phone.setOffline(true);
  await first.reload();
  await first.getByRole("radio", { name: /^All / }).click();
  await row(/Lower switch port 6\. Plug in/).click();
  await first
    .getByRole("textbox", { name: /^What is read/ })
    .fill("inet 10.24.50.9/24\ndefault via 10.24.50.1");
  await expect(
    first.getByText(/10\.24\.50\.9 is an address of Cards; it has to be one of Imaging/),
  ).toBeVisible();
  await first.getByRole("button", { name: "Otherwise", exact: true }).click();
  await expect(first.getByText(/^Not sent yet: 1 entry, kept in this browser\./)).toBeVisible();
  // What is wrong is worked out without a connection, too; it is found, and written down.
  await first.getByRole("radio", { name: "What is wrong?" }).click();
  await first.getByRole("button", { name: /^Lower switch port 6 is untagged in VLAN 50 \(Cards\)/ }).click();
  await first.getByRole("button", { name: "It was this" }).click();
  const found = /^Found: Lower switch port 6 is untagged in VLAN 50 \(Cards\), not in VLAN 40 \(Imaging\)$/;
  await expect(first.getByText(found)).toBeVisible();
  await expect(first.getByText(/^Not sent yet: 2 entries, kept in this browser\./)).toBeVisible();
  // So is a capture that was taken at a port.
  await first.getByRole("radio", { name: "Captures" }).click();
  await first.getByLabel("Capture file").setInputFiles("tests/oracle/capture/nak-access.pcap");
  await first.getByRole("button", { name: /^Port:/ }).click();
  await first.getByPlaceholder("Type part of the name").fill("Lower switch 6");
  await first.keyboard.press("Enter");
  await expect(first.getByText(/^A second DHCP server answers in Imaging: find /)).toBeVisible();
  const address = first.url();
  await first.close();

  const again = await phone.newPage();
  await again.goto(address);
  await expect(again.getByRole("radio", { name: "Otherwise 1" })).toBeVisible();
  await expect(again.getByText(/^Not sent yet: 2 entries, kept in this browser\./)).toBeVisible();
  await phone.setOffline(false);
  await expect(again.getByText(/Not sent yet/)).toHaveCount(0);

  // In the office the same is seen; the same reading taken there again counts, and both see it.
  await openView(page, "Tests");
  await page.getByRole("radio", { name: "What is wrong?" }).click();
  await expect(page.getByText(found)).toBeVisible();
  await expect(page.getByText("Once it is mended, read again:")).toBeVisible();
  await page.getByRole("radio", { name: "Sheet", exact: true }).last().click();
  await page.getByRole("radio", { name: "Otherwise 1" }).click();
  await page.getByRole("option").first().click();
  await expect(page.getByText(/an address of Cards/)).toBeVisible();
  await page.getByRole("button", { name: "As expected" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText("Nothing was read otherwise.")).toBeVisible();
  await expect(again.getByRole("radio", { name: "Otherwise 0" })).toBeVisible();
  await page.getByRole("radio", { name: "What is proven" }).click();
  await expect(page.getByText(/✓ [1-9]\d* proven/)).toBeVisible();
  await phone.close();
});
