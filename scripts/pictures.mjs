// Takes the pictures of docs/screenshots from the demo sites, on an instance of its own: npm run pictures.
import { execFileSync, spawn } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { fileURLToPath } from "node:url";
import { chromium } from "@playwright/test";
import { takePeople } from "./pictures-of-people.mjs";
import { PICTURES, view } from "./picture-list.mjs";

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const PORT = 4189;
const ADDRESS = `http://localhost:${PORT}`;
const OUT = join(ROOT, "docs", "screenshots");
const link = join(ROOT, ".data", "pictures", "link.txt");

rmSync(join(ROOT, ".data", "pictures"), { recursive: true, force: true });
mkdirSync(OUT, { recursive: true });
const server = spawn(
  process.execPath,
  [
    "scripts/start.mjs",
    "--profile",
    "test",
    "--demo",
    "--port",
    String(PORT),
    "--dir",
    ".data/pictures",
    "--link-file",
    link,
  ],
  { cwd: ROOT, stdio: "inherit" },
);
while (!existsSync(link)) await wait(200);
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
});
try {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: ADDRESS });
  const page = await context.newPage();
  /** Several pictures as one, from left to right. */
  const besideEachOther = async (shots, file, ground, inARow = shots.length) => {
    const all = await context.newPage();
    await all.setViewportSize({ width: 2135, height: 844 });
    const images = shots.map((png) => `<img src="data:image/png;base64,${png.toString("base64")}">`);
    const style =
      `margin:0;display:inline-grid;grid-template-columns:repeat(${inARow},auto);gap:25px;` +
      `align-items:start;background:${ground}`;
    await all.setContent(`<body style="margin:0"><div style="${style}">${images.join("")}</div></body>`);
    await all.waitForTimeout(300);
    await all.locator("div").screenshot({ path: join(OUT, `${file}.png`) });
    console.log(`docs/screenshots/${file}.png`);
    await all.close();
  };
  await page.goto(readFileSync(link, "utf8"));
  await page.getByRole("button", { name: "Come in as Ruth" }).click();
  await page.getByRole("heading", { name: "Sites" }).waitFor();
  await page.waitForFunction(() => !document.body.innerText.includes("checking …"));
  const sites = await page.screenshot();
  await besideEachOther([sites, ...(await takePeople(page, browser))], "sites-and-people", "#fff", 3);
  let history = null;
  for (const [file, site, sheet, prepare] of PICTURES) {
    await context.clearCookies({ name: "ground" });
    await page.goto("/");
    await page.getByRole("link", { name: new RegExp(site) }).click();
    await page.getByRole("grid", { name: "Segments" }).waitFor();
    await view(page, sheet);
    await page.waitForTimeout(900);
    await prepare(page);
    await page.mouse.move(600, 62);
    await page.waitForTimeout(900);
    if (file === "history") {
      history = await page.screenshot();
      continue;
    }
    await page.screenshot({ path: join(OUT, `${file}.png`) });
    console.log(`docs/screenshots/${file}.png`);
  }
  // A drill while it is played and when it is over, beside History: all in one picture.
  await page.goto("/");
  await page.getByRole("link", { name: /Fennel Street/ }).click();
  await page.getByRole("grid", { name: "Segments" }).waitFor();
  await view(page, "Drills");
  await page.getByRole("button", { name: /^Play drill 4,/ }).click();
  const pick = async (label, text) => {
    await page.getByRole("button", { name: label }).click();
    await page.getByPlaceholder("Type part of the name").fill(text);
    await page.keyboard.press("Enter");
  };
  const does = async (name) => {
    await page.getByRole("button", { name, exact: typeof name === "string" }).click();
    await page.waitForTimeout(900);
  };
  await page.getByRole("region", { name: "Job slip" }).waitFor({ timeout: 60_000 });
  await does(/^See it yourself/);
  await does(/^Read a device/);
  for (const device of ["Switch B", "Lower switch"]) {
    await pick(/^Device: /, device);
    await does("Look");
  }
  await does(/^Read a device/);
  await pick(/^About: /, "Lower switch port 2");
  await pick(/^The fault: /, "VLAN 40 missing");
  const played = await page.screenshot();
  await does("Name it");
  await pick(/^What is done: /, "member of VLAN 40");
  await does("Mend it");
  await page.getByText(/readings that tell something here/).waitFor({ timeout: 60_000 });
  await page.getByRole("region", { name: "Debrief" }).evaluate((box) => box.scrollIntoView());
  await page.waitForTimeout(300);
  await besideEachOther([history, played, await page.screenshot()], "history-and-drills", "#fff");
  // In the hand, on site: some steps ticked, on the dark ground.
  await page.goto("/");
  await page.getByRole("link", { name: /Lockkeeper/ }).click();
  await page.getByRole("grid", { name: "Segments" }).waitFor();
  await view(page, "Runbook");
  await page.getByRole("radio", { name: "Bench" }).click();
  await page.getByRole("radio", { name: "On site" }).click();
  await page.getByRole("button", { name: /^Begin a visit/ }).click();
  for (let step = 0; step < 9; step += 1)
    await page.getByRole("button", { name: "Done", exact: true }).click();
  await page.setViewportSize({ width: 390, height: 844 });
  await page.evaluate(() => window.scrollTo(0, 0));
  await page.waitForTimeout(900);
  const onSite = await page.screenshot();
  await page.setViewportSize({ width: 1280, height: 800 });
  // The readings that prove the site: some taken, one that is typed and is another network's.
  await context.clearCookies({ name: "ground" });
  await page.goto("/");
  await page.getByRole("link", { name: /Fennel Street/ }).click();
  await page.getByRole("grid", { name: "Segments" }).waitFor();
  await view(page, "Tests");
  await page.getByRole("radio", { name: /^All / }).click();
  await page.getByRole("option").first().click();
  for (let taken = 0; taken < 5; taken += 1) await page.getByRole("button", { name: "As expected" }).click();
  const list = page.getByRole("listbox", { name: "Readings" });
  const wanted = page.getByRole("option", { name: /Lower switch port 6\. Plug in/ }).first();
  for (let top = 0; (await wanted.count()) === 0; top += 300) {
    await list.evaluate((box, to) => box.scrollTo(0, to), top);
    await page.waitForTimeout(50);
  }
  await wanted.click();
  await page.getByRole("textbox", { name: /^What is read/ }).fill("10.24.50.9");
  await page.waitForTimeout(900);
  await page.screenshot({ path: join(OUT, "tests.png") });
  console.log("docs/screenshots/tests.png");
  // A camera gets no address; another one does, and what is set on a switch is as planned.
  await page.getByRole("radio", { name: "What is wrong?" }).click();
  await page.getByRole("button", { name: /^Who or where/ }).click();
  await page.getByPlaceholder("Type part of the name").fill("Camera Theatre");
  await page.keyboard.press("Enter");
  const form = page.getByRole("region", { name: "Another reading" });
  await form.getByRole("textbox").fill("no address");
  await form.getByRole("button", { name: "Otherwise" }).click();
  const next = page.getByRole("region", { name: "Best next reading" });
  for (let taken = 0; taken < 2; taken += 1) {
    await next.getByRole("button", { name: /^As planned/ }).click();
    await next.waitFor();
    await page.waitForTimeout(2500);
  }
  await next.evaluate((box) => box.scrollIntoView({ block: "start" }));
  await page.waitForTimeout(300);
  await page.screenshot({ path: join(OUT, "what-is-wrong.png") });
  console.log("docs/screenshots/what-is-wrong.png");
  // A capture at the printer's port, which was left in the phones' VLAN; on the dark ground.
  await page.getByRole("radio", { name: "Captures" }).click();
  await page.getByRole("radio", { name: "Bench" }).click();
  await page.getByLabel("Capture file").setInputFiles(join(ROOT, "demo", "reception-printer.pcapng"));
  await page.getByRole("button", { name: /^Port:/ }).click();
  await page.getByPlaceholder("Type part of the name").fill("Upper switch 4");
  await page.keyboard.press("Enter");
  await page.waitForTimeout(900);
  const capture = await page.screenshot();
  // A reading in the hand.
  await page.getByRole("radio", { name: "Sheet", exact: true }).last().click();
  await page.getByRole("radio", { name: /^To take/ }).click();
  await page.setViewportSize({ width: 390, height: 844 });
  await page.getByRole("option").first().click();
  await page.waitForTimeout(900);
  const reading = await page.screenshot();
  await page.setViewportSize({ width: 1280, height: 800 });
  // All in one picture: the capture at the desk, the step and the reading in the hand.
  await besideEachOther([capture, onSite, reading], "bench", "#0b1013");
  // Two sheets issued, and what has changed since the first.
  await context.clearCookies({ name: "ground" });
  await page.goto("/");
  await page.getByRole("link", { name: /Fennel Street/ }).click();
  await page.getByRole("grid", { name: "Segments" }).waitFor();
  await view(page, "Hand-over");
  for (const [name, recipient] of [
    ["Offer", "the practice manager"],
    ["As built, first stage", "the customer"],
  ]) {
    await page.getByRole("button", { name: "Issue this state" }).click();
    await page.getByLabel(/^Name, as/).fill(name);
    await page.getByLabel("For whom").fill(recipient);
    await page.getByRole("button", { name: "Issue it" }).click();
    await page.getByRole("button", { name: "Write down as checked" }).click();
  }
  await view(page, "Segments");
  await page.getByRole("gridcell", { name: "Guests", exact: true }).first().dblclick();
  await page.keyboard.type("Visitors");
  await page.keyboard.press("Enter");
  await page.locator('[data-saving="saved"]').waitFor();
  await page.keyboard.press("Escape");
  await view(page, "Hand-over");
  await page.getByRole("region", { name: "Findings" }).waitFor();
  await page.waitForTimeout(900);
  const sheets = await page.screenshot();
  // Papers of the first of them, some of their pages, and labels: all in one picture.
  const paper = join(ROOT, ".data", "pictures", "paper");
  mkdirSync(paper, { recursive: true });
  const saved = async (name, file) => {
    const [made] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name }).first().click(),
    ]);
    await made.saveAs(join(paper, file));
  };
  await page.getByRole("radio", { name: "Papers" }).click();
  await saved("Make PDF", "pack.pdf");
  await page.waitForTimeout(300);
  const papers = await page.screenshot();
  await page.getByRole("radio", { name: "Labels" }).click();
  await saved(/^PDF of/, "labels.pdf");
  const pages = [
    ["pack.pdf", 1],
    ["pack.pdf", 3],
    ["pack.pdf", 13],
    ["labels.pdf", 1],
  ].map(([file, number]) => {
    const to = join(paper, `${file}-${number}`);
    const range = ["-f", String(number), "-l", String(number)];
    execFileSync("pdftoppm", ["-r", "62", "-png", "-singlefile", ...range, join(paper, file), to]);
    return readFileSync(`${to}.png`);
  });
  const desk = await context.newPage();
  await desk.setViewportSize({ width: 2600, height: 1580 });
  const image = (png, style = "") =>
    `<img style="${style}" src="data:image/png;base64,${png.toString("base64")}">`;
  const shadow = "box-shadow:0 1px 6px #0006";
  await desk.setContent(
    '<body style="margin:0;background:#b9b4a6"><div style="display:flex;gap:40px">' +
      `${image(sheets)}${image(papers)}</div><div style="display:flex;gap:24px;padding:24px 0;` +
      `align-items:flex-start;justify-content:center">${pages.map((png) => image(png, shadow)).join("")}</div>`,
  );
  await desk.waitForTimeout(300);
  await desk.screenshot({ path: join(OUT, "hand-over.png") });
  console.log("docs/screenshots/hand-over.png");
  await desk.close();
} finally {
  await browser.close();
  server.kill("SIGTERM");
}
