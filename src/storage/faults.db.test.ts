import { v7 } from "uuid";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { commitBatch } from "@/application/commit-batch";
import { storePlan } from "@/application/sites";
import { StorageError } from "@/application/storage-error";
import { storesOn, type Stores } from "@/composition";
import { must } from "@/core/kernel";
import { PlanEdits, type ChangeBatch, type Plan } from "@/core/plan";
import {
  CERTIFICATION_FAILED,
  DISK_FULL,
  faultyLink,
  LOCK_WAITED_TOO_LONG,
} from "../../tests/support/faulty-link";
import { testStores } from "../../tests/support/stores";

// What a line with faults does to edits: nothing acknowledged is lost, nothing is half there, and it goes on by
// itself once the fault is over.

const { url, plans: clear, people } = testStores();
/** So late is each packet in the test of a slow database: SLOW_MS asks for more. */
const SLOW_MS = Number(process.env.SLOW_MS ?? 30);

let link: Awaited<ReturnType<typeof faultyLink>>;
let faulty: Stores & { readonly close: () => Promise<void> };
beforeAll(async () => {
  link = await faultyLink(url);
  faulty = storesOn(link.url);
});
afterAll(async () => {
  await faulty.close();
  await link.close();
});
afterEach(() => {
  link.faults.lateMs = 0;
  link.faults.commits = [];
  link.faults.isDown = false;
});

async function aSite(): Promise<string> {
  const id = v7();
  await storePlan(clear, { id, batchId: v7(), plan: lockkeepersHouse(), by: people.ruth });
  return id;
}
const now = async (site: string) => must(await clear.snapshot(site), "the site");
/** Renames the host at that place of the plan. */
function renamed(plan: Plan, at: number, name: string): ChangeBatch {
  const edits = new PlanEdits(plan);
  edits.patch("host", must([...plan.host.values()][at], "a host").id, { name });
  return { id: v7(), planner: "test", summary: name, args: null, changes: edits.changes() };
}
const commit = (site: string, batch: ChangeBatch) =>
  commitBatch(faulty.plans, { site, revision: 1, batch, by: people.ruth });
const logged = async (site: string) =>
  must(await clear.news(site, 0), "the log").entries.map(({ summary }) => summary);

test.each([
  ["cut before", 1],
  ["cut after", 2],
] as const)("the line is %s COMMIT got through: sent again it is there once", async (fault, revision) => {
  const site = await aSite();
  const batch = renamed((await now(site)).plan, 0, "Once");
  link.faults.commits = [fault];
  await expect(commit(site, batch)).rejects.toThrow("storage: unreachable");
  expect((await now(site)).revision).toBe(revision);
  expect(await commit(site, batch)).toMatchObject({ ok: true, value: { revision: 2 } });
  expect((await logged(site)).filter((summary) => summary === "Once")).toHaveLength(1);
});

test.each([
  ["another node's change came first", CERTIFICATION_FAILED],
  ["a lock was waited for too long", LOCK_WAITED_TOO_LONG],
])("%s, told at COMMIT: it is tried again, and nobody hears of it", async (_, refusal) => {
  const site = await aSite();
  link.faults.commits = [refusal, refusal];
  const done = await commit(site, renamed((await now(site)).plan, 0, "At last"));
  expect(done).toMatchObject({ ok: true, value: { revision: 2 } });
  expect([link.faults.commits, await logged(site)]).toEqual([[], [expect.any(String), "At last"]]);
});

test("what fails at every COMMIT is given up after eight tries, and nothing of it is there", async () => {
  const site = await aSite();
  const batch = renamed((await now(site)).plan, 0, "Never");
  link.faults.commits = Array.from({ length: 8 }, () => CERTIFICATION_FAILED);
  await expect(commit(site, batch)).rejects.toThrow("storage: lock-conflict");
  expect([(await now(site)).revision, (await logged(site)).length]).toEqual([1, 1]);
  expect(await commit(site, batch)).toMatchObject({ ok: true, value: { revision: 2 } });
});

test("a full disk is told as that, and once there is room it goes on", async () => {
  const site = await aSite();
  const batch = renamed((await now(site)).plan, 0, "Room");
  link.faults.commits = [DISK_FULL];
  await expect(commit(site, batch)).rejects.toThrow("storage: no-space");
  expect((await now(site)).revision).toBe(1);
  expect(await commit(site, batch)).toMatchObject({ ok: true, value: { revision: 2 } });
});

test("two transactions that wait for each other: the database ends one, which is tried again", async () => {
  const [a, b] = [await aSite(), await aSite()];
  let [tries, met] = [0, 0];
  let both: () => void = () => {};
  const meeting = new Promise<void>((done) => (both = done));
  const locksInTurn = (first: string, second: string) =>
    clear.transaction(async (tx) => {
      tries += 1;
      await tx.lockSite(first);
      met += 1;
      if (met === 2) both();
      await meeting;
      return tx.lockSite(second);
    });
  expect(await Promise.all([locksInTurn(a, b), locksInTurn(b, a)])).toEqual([1, 1]);
  expect(tries).toBeGreaterThan(2);
});

test("a database that goes and comes back: refused meanwhile, and nobody has to start anything", async () => {
  const site = await aSite();
  const batch = renamed((await now(site)).plan, 0, "Back again");
  expect(await faulty.plans.nameOf(site)).not.toBeNull();
  link.goDown();
  await expect(commit(site, batch)).rejects.toThrow("storage: unreachable");
  await expect(faulty.plans.nameOf(site)).rejects.toThrow("storage: unreachable");
  link.faults.isDown = false;
  expect(await commit(site, batch)).toMatchObject({ ok: true, value: { revision: 2 } });
});

/** Sent again as long as the database has no time for it, as a browser does. */
async function untilTaken(site: string, batch: ChangeBatch) {
  for (;;)
    try {
      return await commit(site, batch);
    } catch (error) {
      if (!(error instanceof StorageError)) throw error;
      await new Promise((done) => setTimeout(done, 100));
    }
}

test(`a slow database, ${SLOW_MS} ms a statement: six people at once are all served, each once`, async () => {
  const site = await aSite();
  const { plan } = await now(site);
  link.faults.lateMs = SLOW_MS;
  const began = performance.now();
  const done = await Promise.all(
    Array.from({ length: 6 }, (_, at) => untilTaken(site, renamed(plan, at, `Slow ${at}`))),
  );
  const took = Math.round(performance.now() - began);
  console.info(`six edits at once with ${SLOW_MS} ms a statement: ${took} ms`);
  expect(done.map(({ ok }) => ok)).toEqual([true, true, true, true, true, true]);
  expect((await now(site)).revision).toBe(7);
}, 600_000);
