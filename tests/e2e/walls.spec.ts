import { expect, test, type Page } from "@playwright/test";
import { goTo, press, tabTo } from "./by-keyboard";
import { openView, ownSite, saved } from "./open-site";

const margin = (page: Page) => page.getByRole("complementary", { name: "Margin" });
const proof = (page: Page) => page.getByRole("region", { name: "Proof" });
const apply = async (page: Page, repair: RegExp) => {
  await margin(page).getByRole("button", { name: repair }).click();
  await margin(page).getByRole("button", { name: "Apply" }).click();
};

/** As it came from the device: one line that nobody can read, one rule too wide, one repeated, one missing. */
const LIST = [
  "From,To,Services,Action,Note",
  'Practice,Gateway,"dhcp, dns, ping",allow,',
  'Payment,Gateway,"dhcp, dns, ping",allow,',
  'zone Building,Gateway,"dhcp, dns, ping",allow,',
  'Clinical,Gateway,"dhcp, ping",allow,',
  'Visitors,Gateway,"dhcp, ping",allow,',
  "Servers,Gateway,ping,allow,",
  "Kit,Gateway,any,allow,its pages",
  "Practice,Practice,any,allow,",
  "zone Building,zone Building,any,allow,",
  "Practice,Internet,any,allow,",
  "Visitors,Internet,any,allow,",
  'Kit,Internet,"https, ntp",allow,',
  'Server room,Internet,"https, ntp",allow,',
  "Payment,Internet,https,allow,",
  'Practice,Servers,"dns, files, https",allow,',
  "Staff,Servers,https,allow,asked for twice",
  'Clinical,Servers,"dns, files",allow,',
  'Practice,Clinical,"dicom, https",allow,',
  "Practice,zone Building,any,allow,the door",
  "Kit,Servers,radius,allow,",
  "Internet,Gateway,udp 51900,allow,the vet on call",
  'By VPN,Gateway,"dns, ping",allow,',
  "By VPN,Image store,https,allow,",
].join("\n");

test("a list is read, cleaned and closed until the proof holds; the counter-example was a way", async ({
  page,
}) => {
  await ownSite(page, "fennel-street", "Fennel Street, proven");
  await openView(page, "Walls");
  await expect(page.getByText("Walls not proven: 2 pairs")).toBeVisible();
  await page.getByRole("button", { name: "Read a rule list" }).click();
  await page.getByLabel(/or paste here/).fill(LIST);
  await expect(
    page.getByText(/^Line 13, from: There is no zone, segment or device called "Server room"/),
  ).toBeVisible();
  await page.getByRole("button", { name: "Put them in place of 21 rules" }).click();
  await page.getByRole("radio", { name: "What stands on it, 22" }).click();
  await expect(proof(page)).toContainText("81 of 83");
  await page.getByRole("checkbox", { name: "probes go by this list" }).check();
  await expect(page.getByText("Walls not proven")).toBeVisible();

  await proof(page).getByRole("button", { name: "Servers to Internet" }).click();
  await margin(page)
    .getByRole("button", { name: /^Probe tcp 443 from / })
    .click();
  await expect(
    margin(page)
      .getByText(/No rule of the list that stands on Gateway takes it/)
      .first(),
  ).toBeVisible();
  await openView(page, "Walls");
  await page.getByRole("radio", { name: "What stands on it, 22" }).click();
  await apply(page, /^On top of the list: Practice to Building video, the rest closed/);
  await apply(page, /^On top of the list: Servers to Internet https, ntp/);
  await expect(proof(page)).toContainText("83 of 83");
  for (const rule of [/^Remove rule 21 of Gateway/, /^Remove rule 18 of Gateway/]) await apply(page, rule);
  await expect(page.getByRole("grid", { name: "Rules on Gateway" }).getByText("never reached")).toHaveCount(
    0,
  );
  await expect(page.getByText("Walls proven")).toBeVisible();
  await saved(page);
  expect((await page.reload())?.status()).toBe(200);
  await page.getByRole("radio", { name: "What stands on it, 23" }).click();
  await expect(proof(page)).toContainText("83 of 83");
});

test("a forward and a route by keyboard alone, and the rule that follows", async ({ page }) => {
  await ownSite(page, "lockkeepers-house", "Lockkeeper's House, forwarded");
  await goTo(page, "07", "Gateway");
  const forwards = page.getByRole("grid", { name: "Forwards" });
  await tabTo(page, forwards.locator('td[tabindex="0"]'));
  await press(page, "ArrowDown", "Home", "ArrowRight", "ArrowRight", "ArrowRight");
  await page.keyboard.type("heating-controller");
  await press(page, "Enter");
  await expect(forwards.getByRole("gridcell", { name: "To heating-controller" })).toBeVisible();
  await press(page, "ArrowUp", "ArrowLeft");
  await page.keyboard.type("tcp 8443");
  await press(page, "Enter");
  await expect(page.getByText(/both want TCP 8443 on Fibre line/).first()).toBeVisible();
  await press(page, "ArrowUp");
  await page.keyboard.type("tcp 9443");
  await press(page, "Enter");
  await expect(page.getByText(/both want TCP 8443 on Fibre line/)).toHaveCount(0);

  const routes = page.getByRole("grid", { name: "Routes on Gateway" });
  await tabTo(page, routes.locator('td[tabindex="0"]'));
  await page.keyboard.type("10.9.0.0/16");
  await press(page, "Tab");
  await page.keyboard.type("172.19.20.7");
  await press(page, "Enter");
  await expect(routes.getByRole("gridcell", { name: "172.19.20.7" })).toBeVisible();
  await saved(page);

  await goTo(page, "08", "Walls");
  await expect(page.getByText(/the forward To heating-controller lets it in/)).toBeVisible();
  await expect(page.getByText("Walls proven")).toBeVisible();
});
