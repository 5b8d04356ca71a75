// Measures large sites in headless Chromium on a production build and a database of its own: from the click on
// a site to its first table, a cell edit until it is on the screen, scrolling, and what the page weighs.
import { chromium, type Page } from "@playwright/test";
import { v7 } from "uuid";
import { encodePlan } from "../src/core/formats";
import { must } from "../src/core/kernel";
import { signedIn, startInstance } from "../tests/e2e/instance";
import { generate, SIZES } from "./generate";

const PORT = 4189;
const CHROMIUM = process.env.CHROMIUM ?? "/usr/bin/chromium";

/** Frames while the table is scrolled from end to end: how long the slowest 5 % took, in milliseconds. */
const scrolled = (page: Page) =>
  page.evaluate(async () => {
    const box = [...document.querySelectorAll("main *")]
      .filter((element) => element.scrollHeight > element.clientHeight + 400)
      .sort((a, b) => b.scrollHeight - a.scrollHeight)[0];
    if (box === undefined) return null;
    const times: number[] = [];
    let last = performance.now();
    for (let i = 0; i < 120; i += 1) {
      box.scrollTop += 260;
      await new Promise(requestAnimationFrame);
      const now = performance.now();
      times.push(now - last);
      last = now;
    }
    box.scrollTop = 0;
    return times.sort((a, b) => a - b)[Math.floor(times.length * 0.95)] ?? 0;
  });

interface Edited {
  readonly shown: number;
  readonly judged: number;
}

/** From Enter in a cell until the frame that shows its new text, and until that plan is judged. */
async function edited(page: Page, text: (i: number) => string): Promise<Edited[]> {
  const times: Edited[] = [];
  for (let i = 0; i < 6; i += 1) {
    await page.getByRole("gridcell").nth(2).click();
    await page.keyboard.press("F2");
    await page.keyboard.press("Control+a");
    await page.keyboard.type(text(i));
    times.push(
      await page.evaluate(async (shown) => {
        const field = document.activeElement;
        const began = performance.now();
        field?.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true, cancelable: true }));
        for (;;) {
          await new Promise(requestAnimationFrame);
          const is = [...document.querySelectorAll("td, [role=gridcell]")].some(
            (cell) => cell.textContent === shown,
          );
          if (is || performance.now() - began > 5000) break;
        }
        const took = performance.now() - began;
        while (document.querySelector("footer")?.textContent.includes("Checking") === true)
          await new Promise(requestAnimationFrame);
        return { shown: took, judged: performance.now() - began };
      }, text(i)),
    );
  }
  return times;
}

const median = (times: readonly number[]) =>
  [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0;
const ms = (time: number | null) => (time === null ? "–" : `${time.toFixed(0)} ms`);

/** Stores a made site under a name of its own. */
async function stored(page: Page, address: string, name: string): Promise<void> {
  const size = must(
    SIZES.find((size) => size.name === name),
    `a size called ${name}`,
  );
  const plan = generate(size);
  const file = encodePlan({ ...plan, site: { ...plan.site, name } });
  const data = JSON.stringify({ by: "file", id: v7(), batch: v7(), file });
  const began = performance.now();
  const answer = await page.request.post(`${address}/api/sites`, {
    headers: { origin: address, "content-type": "application/json" },
    data,
    timeout: 180_000,
  });
  console.info(`${name}: made from its file, sent and stored, after ${ms(performance.now() - began)}`);
  if (!answer.ok()) throw new Error(`${name} was not taken in: ${answer.status()} ${await answer.text()}`);
}

async function opened(page: Page, address: string, name: string): Promise<number> {
  await page.goto(address);
  const link = page.getByRole("link", { name, exact: true });
  await link.waitFor();
  await page.waitForTimeout(1500);
  const began = performance.now();
  await link.click();
  await page.getByRole("gridcell").nth(3).waitFor({ timeout: 120_000 });
  return performance.now() - began;
}

/** From the click on Tests until the readings are on the screen, worked out in their worker. */
async function proven(page: Page): Promise<number> {
  const began = performance.now();
  await page.getByRole("navigation", { name: "Work order" }).getByRole("link", { name: "Tests" }).click();
  await page.getByText(/readings prove \d+ of \d+ facts/).waitFor({ timeout: 120_000 });
  return performance.now() - began;
}

async function measured(page: Page, address: string, name: string): Promise<void> {
  await stored(page, address, name);
  const times = [await opened(page, address, name), await opened(page, address, name)];
  console.info(`${name}: from click to its first table ${times.map(ms).join(", then ")}`);
  // The findings are worked out behind it; what follows is measured when they are there.
  await page.waitForTimeout(name === "estate" ? 12_000 : 3000);
  console.info(`${name}: scrolling Segments, 95 % of frames within ${ms(await scrolled(page))}`);
  const edits = await edited(page, (i) => `Renamed ${i}`);
  const [shown, judged] = [edits.map(({ shown }) => shown), edits.map(({ judged }) => judged)];
  console.info(`${name}: a cell edit on screen after ${ms(median(shown))} (${shown.map(ms).join(", ")})`);
  console.info(`${name}: the edited plan judged after ${ms(median(judged))} (${judged.map(ms).join(", ")})`);
  const memory = await page.evaluate(
    () => (performance as unknown as { memory: { usedJSHeapSize: number } }).memory.usedJSHeapSize,
  );
  if (name === "campus")
    console.info(`${name}: from click to the readings that prove it ${ms(await proven(page))}`);
  console.info(`${name}: the page holds ${(memory / 1e6).toFixed(0)} MB`);
}

async function main(): Promise<void> {
  const wanted = process.argv.slice(2);
  const instance = await startInstance(PORT, true);
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: ["--no-sandbox", "--disable-gpu", "--enable-precise-memory-info"],
  });
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const [name = "", value = ""] = (await signedIn(instance)).split("=");
    await context.addCookies([{ name, value, url: instance.address }]);
    const page = await context.newPage();
    for (const name of wanted.length === 0 ? ["campus", "estate"] : wanted)
      await measured(page, instance.address, name);
  } finally {
    await browser.close();
    await instance.stop();
  }
}
void main();
