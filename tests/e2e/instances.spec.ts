import { expect, test } from "@playwright/test";
import fc from "fast-check";
import { readFileSync } from "node:fs";
import { v7 } from "uuid";
import { decodePlan } from "@/core/formats";
import { must } from "@/core/kernel";
import { diff, type Plan } from "@/core/plan";
import { urlOfRunning } from "../../scripts/setup/database.mjs";
import { asked, editor, loggedAfter, replayed, type Place } from "../support/editors";
import { folderOf, signedIn, startInstance, type Instance } from "./instance";
import { addSegment, openSite, openView, saved } from "./open-site";

// Two instances on one database, and many people on both. EDITORS and EDITS ask for more of them, CLUSTER for
// two nodes of a cluster.

const EDITORS = Number(process.env.EDITORS ?? 6);
const EDITS = Number(process.env.EDITS ?? 8);
/** Addresses of two nodes of a cluster, with a space between, in place of one database of our own. */
const CLUSTER = (process.env.CLUSTER ?? "").split(" ").filter((url) => url !== "");
const [ONE, TWO] = [4195, 4196];
const NAME = "Fennel Street, two instances";

let first: Instance;
let two: Instance;
let cookie = "";
const site = v7();

test.beforeAll(async () => {
  first = await startInstance(ONE, true, CLUSTER[0] ?? null);
  two = await startInstance(
    TWO,
    true,
    CLUSTER[1] ?? must(await urlOfRunning(folderOf(ONE)), "the database's address"),
  );
  const place = { address: first.address, cookie: "", site };
  cookie = await signedIn(first);
  const file = JSON.parse(readFileSync("demo/fennel-street.json", "utf8")) as { site: { name: string } };
  file.site.name = NAME;
  const made = await fetch(`${first.address}/api/sites`, {
    method: "POST",
    headers: asked({ ...place, cookie }),
    body: JSON.stringify({ by: "file", id: site, batch: v7(), file }),
  });
  expect(made.status).toBe(200);
});
test.afterAll(async () => {
  await two?.stop();
  await first?.stop();
});

const places = (): readonly [Place, Place] => [
  { address: first.address, cookie, site },
  { address: two.address, cookie, site },
];
async function planAt(place: Place): Promise<{ plan: Plan; revision: number }> {
  const answer = await fetch(`${place.address}/api/sites/${place.site}/plan`, { headers: asked(place) });
  const { plan, revision } = (await answer.json()) as { plan: unknown; revision: number };
  const read = decodePlan(plan);
  return { plan: must(read.ok ? read.value : null, "the plan"), revision };
}

test(`${EDITORS} people with ${EDITS} edits each on two instances: none is lost, the log replays`, async () => {
  const start = await planAt(places()[0]);
  const done = await Promise.all(
    Array.from({ length: EDITORS }, (_, at) => {
      const random = fc.sample(fc.infiniteStream(fc.double({ min: 0, max: 0.999, noNaN: true })), {
        numRuns: 1,
        seed: 17 + at,
      })[0];
      const chance = () => Number(must(random, "chance").next().value);
      return editor(must(places()[at % 2], "an instance"), start, {
        name: `Editor ${at}`,
        times: EDITS,
        chance,
      });
    }),
  );
  const [here, there] = [await planAt(places()[0]), await planAt(places()[1])];
  expect(here.revision).toBe(start.revision + EDITORS * EDITS);
  expect(diff(here.plan, there.plan)).toEqual([]);
  const log = await loggedAfter(places()[1], start.revision);
  expect(log.map(({ id }) => id).sort()).toEqual(done.flatMap(({ ids }) => ids).sort());
  expect(diff(replayed(start.plan, log), here.plan)).toEqual([]);
  const took = done.flatMap((each) => each.took).sort((a, b) => a - b);
  console.info(
    `${EDITORS} editors with ${EDITS} edits on two instances: 0 lost; an edit took ` +
      `${Math.round(took[Math.floor(took.length / 2)] ?? 0)} ms in the middle, ` +
      `${Math.round(took.at(-1) ?? 0)} at most`,
  );
});

test("who works on one instance sees what happens on the other, and who is there and where", async ({
  browser,
}) => {
  const open = async (instance: Instance) => {
    const context = await browser.newContext({
      baseURL: instance.address,
      storageState: { cookies: [], origins: [] },
    });
    const [name = "", value = ""] = cookie.split("=");
    await context.addCookies([{ name, value, url: instance.address }]);
    const page = await context.newPage();
    await openSite(page, NAME);
    return page;
  };
  const [ruth, other] = [await open(first), await open(two)];
  await openView(other, "Addresses");
  await expect(ruth.getByText("Ruth on Addresses")).toBeVisible();
  await addSegment(ruth, "Annexe");
  await saved(ruth);
  const began = performance.now();
  await openView(other, "Segments");
  await expect(other.getByRole("gridcell", { name: "Annexe", exact: true }).first()).toBeVisible();
  console.info(
    `Seen on the other instance at most ${Math.round(performance.now() - began)} ms after it was saved`,
  );
  await ruth.context().close();
  await expect(other.getByText("Ruth on Segments")).toBeHidden({ timeout: 90_000 });
  await other.context().close();
});

test("an instance stopped while people write ends within 10 s; what it acknowledged is there", async () => {
  const [here, there] = places();
  const start = await planAt(there);
  const stream = await fetch(`${there.address}/api/sites/${site}/events`, { headers: asked(there) });
  expect(stream.status).toBe(200);
  let isStopped = false;
  const acknowledged: string[] = [];
  const writing = (async () => {
    const once = { name: "Until the end", times: 1, chance: () => 0.25 };
    const write = async () => (await editor(there, await planAt(there), once)).ids;
    while (!isStopped) acknowledged.push(...(await write().catch(() => [])));
  })();
  await expect.poll(() => acknowledged.length).toBeGreaterThan(2);
  const took: number[] = [];
  for (const instance of [two, first]) {
    const began = performance.now();
    if (instance === first) {
      // What the other had acknowledged, before the last one goes, too.
      const ids = new Set((await loggedAfter(here, start.revision)).map(({ id }) => id));
      expect(acknowledged.filter((id) => !ids.has(id))).toEqual([]);
    }
    await instance.stop();
    took.push(Math.round(performance.now() - began));
    isStopped = true;
    await writing;
  }
  console.info(`Stopped with a stream open and edits under way: ${took.join(" and ")} ms`);
  expect(Math.max(...took)).toBeLessThan(10_000);
  await stream.body?.cancel().catch(() => null);
});
