import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test, type Page } from "@playwright/test";
import { FENNEL_STREET } from "../../demo/surveys";
import { beginSite, openFormats, openSite, openView, saved } from "./open-site";

/** Puts a text into what has the focus, as a paste does. */
const paste = (page: Page, text: string) =>
  page.evaluate((pasted) => {
    const data = new DataTransfer();
    data.setData("text/plain", pasted);
    document.activeElement?.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, text);

/** Three rooms typed by hand, the others pasted, as somebody with a list would. */
async function typeSurvey(page: Page, rooms: (typeof FENNEL_STREET)["rooms"]): Promise<void> {
  const grid = page.getByRole("grid", { name: "Survey" });
  const typed = rooms.filter((room) => room.kind !== "cabinet").slice(0, 3);
  const pasted = rooms
    .filter((room) => !typed.includes(room))
    .map((room) =>
      [
        room.name,
        room.needs,
        room.cabinet ?? "",
        room.metres === undefined ? "" : String(room.metres),
        room.group ?? "",
      ].join("\t"),
    );
  await grid.getByRole("gridcell").first().click();
  await paste(page, pasted.join("\n"));
  await expect(grid.getByRole("row")).toHaveCount(pasted.length + 2);
  for (const [i, room] of typed.entries()) {
    await grid.getByRole("gridcell", { name: "New room", exact: true }).click();
    await page.keyboard.type(room.name);
    await page.keyboard.press("Enter");
    await expect(grid.getByRole("row")).toHaveCount(pasted.length + 3 + i);
    await grid.getByRole("gridcell", { name: room.name, exact: true }).click();
    await page.keyboard.press("ArrowRight");
    await page.keyboard.type(room.needs);
    await expect(grid.getByRole("status")).toBeVisible();
    await page.keyboard.press("Enter");
    if (room.group === undefined) continue;
    await grid.getByRole("gridcell", { name: room.name, exact: true }).click();
    await page.getByRole("complementary", { name: "Margin" }).getByLabel("Group").fill(room.group);
    await page.keyboard.press("Enter");
  }
}

/** One of the zones on offer, saved and judged by a name server's own checker. */
async function judgeZone(page: Page): Promise<void> {
  await openFormats(page);
  const button = page
    .getByRole("region", { name: "DNS zones" })
    .getByRole("button", { name: /^Save the zone/ })
    .first();
  const zone = ((await button.getAttribute("aria-label")) ?? "").replace("Save the zone ", "");
  const [download] = await Promise.all([page.waitForEvent("download"), button.click()]);
  const file = join(mkdtempSync(join(tmpdir(), "zones-")), "saved.zone");
  writeFileSync(file, readFileSync(await download.path()));
  const strict = ["-k", "fail", "-n", "fail", "-m", "fail"];
  expect(execFileSync("named-checkzone", [...strict, zone, file], { encoding: "utf8" })).toMatch(/OK\s*$/);
}

const HEADS = "Name,Kind,MAC,Address,Segment,Place";

test("surveyed from nothing, drafted, its register taken in with bad rows skipped, accepted", async ({
  page,
}) => {
  await beginSite(page, "Fennel, surveyed", "office");
  await typeSurvey(page, FENNEL_STREET.rooms);

  await page.getByRole("button", { name: "Draft the plan" }).click();
  const margin = page.getByRole("complementary", { name: "Margin" });
  await expect(margin.getByText("no stop")).toBeVisible();
  await margin.getByRole("checkbox", { name: "Doors in the walls" }).uncheck();
  await expect(margin.getByText("left out").nth(1)).toBeVisible();
  await margin.getByRole("checkbox", { name: "Doors in the walls" }).check();
  await margin.getByRole("button", { name: "Accept the draft" }).click();
  await expect(page.getByText(/^Sound$/)).toBeVisible();
  await saved(page);

  await openView(page, "Segments");
  const grid = page.getByRole("grid", { name: "Segments" });
  const kit = grid.getByRole("row").filter({ hasText: "Kit" });
  await kit.getByRole("gridcell").nth(11).dblclick();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("14");
  await page.keyboard.press("Enter");
  await expect(kit.getByRole("gridcell").nth(11)).toHaveText("14");

  await openView(page, "Addresses");
  await page.getByRole("button", { name: "Import" }).click();
  const rows = [
    `spare-1,PC,02:5a:10:77:00:01,,Staff,Store`,
    `spare-2,PC,02-5A-10-77-00-02,,Staff,Store`,
    `spare-3,printer,025a.1077.0003,,Staff,Store`,
    `bad-mac,PC,02:5a:10:77:zz:04,,Staff,Store`,
    `bad-segment,PC,02:5a:10:77:00:05,,Attic,Store`,
    `bad-address,PC,02:5a:10:77:00:06,8.8.4.4,,Store`,
  ];
  await page.getByLabel("CSV file", { exact: true }).setInputFiles({
    name: "register.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(`${HEADS}\r\n${rows.join("\r\n")}\r\n`),
  });
  await expect(page.getByText("3 bad rows")).toBeVisible();
  await expect(page.getByText('There is no segment called "Attic".')).toBeVisible();
  const [badRows] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save the bad rows" }).click(),
  ]);
  expect(
    readFileSync(await badRows.path(), "utf8")
      .trim()
      .split("\r\n"),
  ).toHaveLength(4);
  await page.getByRole("button", { name: "Skip 3, import 3" }).click();
  await page.getByLabel("Filter the register").fill("spare");
  await expect(
    page.getByRole("grid", { name: "Register" }).getByRole("gridcell", { name: "spare-2", exact: true }),
  ).toBeVisible();
  await expect(page.getByRole("grid", { name: "Register" }).getByText("bad-mac")).toHaveCount(0);
  await saved(page);

  await judgeZone(page);
});

test("numbering: a block moves and is undone, a lease is sized, sightings are laid beside", async ({
  page,
}) => {
  await openSite(page, "Fennel Street Veterinary Practice");
  const margin = page.getByRole("complementary", { name: "Margin" });
  await page.getByRole("button", { name: "Numbering" }).click();
  await margin.getByRole("radio", { name: "Move a block elsewhere" }).click();
  await margin.getByLabel("goes to").fill("172.28.0.0/16");
  await margin.getByRole("button", { name: "Preview" }).click();
  await expect(margin.getByRole("alert")).toContainText("must stay clear");
  await margin.getByLabel("goes to").fill("10.36.0.0/17");
  await margin.getByRole("button", { name: "Preview" }).click();
  const [list] = await Promise.all([
    page.waitForEvent("download"),
    margin.getByRole("button", { name: /old and new/ }).click(),
  ]);
  expect(readFileSync(await list.path(), "utf8")).toContain(
    "device,Practice server,Servers,10.24.60.10,10.36.60.10",
  );
  await margin.getByRole("button", { name: "Apply" }).click();
  await expect(page.getByRole("gridcell", { name: "10.36.20.0/25" })).toBeVisible();
  await saved(page);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByRole("gridcell", { name: "10.24.20.0/25" })).toBeVisible();

  await page.getByRole("gridcell", { name: "Guests", exact: true }).click();
  await margin.getByRole("button", { name: "Size the pool and the lease" }).click();
  await expect(margin.getByText("133 in use at the peak")).toBeVisible();
  await margin.getByLabel("Arrivals an hour").fill("x");
  await page.keyboard.press("Enter");
  await expect(margin.getByRole("alert")).toContainText('"x" is no number of arrivals');
  await page.keyboard.press("Escape");

  await openView(page, "Addresses");
  await page.getByRole("button", { name: "Compare", exact: true }).click();
  await page.locator("#seen-table").focus();
  await paste(page, "10.24.20.20  02:5a:10:ee:00:01  stranger\n10.24.20.61  02:5a:10:ee:00:02  new-laptop\n");
  await expect(page.getByText("1 clash")).toBeVisible();
  await expect(page.getByText("10.24.20.20 is planned for Reception printer")).toBeVisible();
  await page.getByRole("checkbox", { name: "new", exact: true }).check();
  await page.getByRole("button", { name: "Take 1 over" }).click();
  await page.getByRole("button", { name: "Close" }).click();
  await expect(
    page.getByRole("grid", { name: "Register" }).getByRole("gridcell", { name: "new-laptop", exact: true }),
  ).toBeVisible();
  await saved(page);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(
    page.getByRole("grid", { name: "Register" }).getByRole("gridcell", { name: "new-laptop", exact: true }),
  ).toHaveCount(0);
});
