import { expect, type Locator, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";

export const VIEWS = [
  "Survey",
  "Segments",
  "Addresses",
  "Hardware",
  "Ports",
  "Wireless",
  "Gateway",
  "Walls",
  "Switch guards",
  "Findings",
  "Probe",
  "Failures",
  "Runbook",
  "Tests",
  "Hand-over",
  "History",
  "Drills",
] as const;
const PATHS: Readonly<Partial<Record<(typeof VIEWS)[number], string>>> = {
  "Switch guards": "guards",
  "Hand-over": "handover",
};

/** Opens a site of the list and waits for its plan. */
export async function openSite(page: Page, name: string): Promise<void> {
  await page.goto("/");
  await page.getByRole("link", { name, exact: true }).click();
  await expect(page.getByRole("heading", { name: "Segments", exact: true })).toBeVisible();
}

export async function openView(page: Page, view: (typeof VIEWS)[number]): Promise<void> {
  await page.getByRole("navigation", { name: "Work order" }).getByRole("link", { name: view }).click();
  await expect(page).toHaveURL(new RegExp(`/${PATHS[view] ?? view.toLowerCase()}$`));
}

/** What leaves the plan in open formats, and what comes in. */
export async function openFormats(page: Page): Promise<void> {
  await openView(page, "Hand-over");
  await page.getByRole("radio", { name: "Open formats" }).click();
}

/** Everything is on the server. */
export const saved = (page: Page): Promise<void> =>
  expect(page.locator('[data-saving="saved"]')).toBeVisible();

/** A cell of a grid by its row (as a text in it) and its column's head. */
export function cell(page: Page, grid: string, row: string | RegExp, column: number): Locator {
  return page
    .getByRole("grid", { name: grid })
    .getByRole("row")
    .filter({ hasText: row })
    .getByRole("gridcell")
    .nth(column);
}

/** Chooses what has a text in its name in one of the long lists. */
export async function choose(page: Page, label: RegExp, text: string): Promise<void> {
  await page.getByRole("button", { name: label }).click();
  await page.getByPlaceholder("Type part of the name").fill(text);
  await page.keyboard.press("Enter");
}

/** Begins an empty site; it opens with its survey. */
export async function beginSite(
  page: Page,
  name: string,
  kind: "home" | "office" | "industrial" = "office",
): Promise<void> {
  await page.goto("/");
  await page.getByLabel("Name").fill(name);
  await page.getByLabel("Kind").selectOption(kind);
  await page.getByRole("button", { name: "Begin the site" }).click();
  await expect(page.getByText("Begin here with what you see")).toBeVisible();
}

/** Begins an empty site and goes straight to its segments. */
export async function newSite(page: Page, name: string): Promise<void> {
  await beginSite(page, name);
  await openView(page, "Segments");
  await expect(page.getByText("Here stand the groups that must not see one another")).toBeVisible();
}

/** A new segment by its name alone. */
export async function addSegment(page: Page, name: string): Promise<void> {
  await cell(page, "Segments", "New segment", 2).click();
  await page.keyboard.type(name);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("gridcell", { name, exact: true }).first()).toBeVisible();
}

/** Goes to a device of Ports and chooses a run of its ports with the mouse. */
export async function choosePorts(page: Page, device: string, first: string, last: string): Promise<void> {
  await page.getByRole("button", { name: /^Device:/ }).click();
  await page.getByRole("option", { name: device }).click();
  const row = (label: string) =>
    page
      .getByRole("grid", { name: `Ports of ${device}` })
      .getByRole("row")
      .filter({
        has: page
          .getByRole("cell", { name: label, exact: true })
          .or(page.getByRole("gridcell", { name: label, exact: true })),
      })
      .first();
  await row(first).click();
  if (last !== first) await row(last).click({ modifiers: ["Shift"] });
}

/** What a spreadsheet puts on the clipboard, pasted where the focus is. */
export const paste = (page: Page, rows: string[][]) =>
  page.evaluate(
    (text) => {
      const data = new DataTransfer();
      data.setData("text/plain", text);
      document.activeElement?.dispatchEvent(
        new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
      );
    },
    rows.map((row) => row.join("\t")).join("\n"),
  );

/** A site of its own from a demo file, so that what other journeys did to the shared ones does not matter. */
export async function ownSite(
  page: Page,
  file: "fennel-street" | "bramblewick" | "lockkeepers-house",
  name: string,
): Promise<void> {
  const plan = JSON.parse(readFileSync(`demo/${file}.json`, "utf8")) as { site: { name: string } };
  plan.site.name = name;
  await page.goto("/");
  await page.getByLabel("or from a plan file").setInputFiles({
    name: `${file}.json`,
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify(plan)),
  });
  await expect(page.getByText(name).first()).toBeVisible();
  await openSite(page, name);
}
