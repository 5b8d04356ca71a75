import { v7 } from "uuid";
import { fennelStreet } from "../../demo/fennel-street";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { bringSiteBack, forgetSite, readBin, removeSite } from "@/application/bin";
import { commitBatch } from "@/application/commit-batch";
import { addPhoto, readPhoto } from "@/application/photos";
import { addToRecord } from "@/application/records";
import { createSite, storePlan } from "@/application/sites";
import { undo } from "@/application/undo-redo";
import { storesOn } from "@/composition";
import { must } from "@/core/kernel";
import { PlanEdits, type Plan } from "@/core/plan";
import { aTick } from "@/core/testing/a-tick";
import { sql } from "@/storage/sql";
import { JPEG } from "../../tests/support/jpeg";
import { testStores } from "../../tests/support/stores";

// A deleted site is nowhere but in the bin, with all that it has, until it is brought back or its days are
// over.

const { url, plans, database, people } = testStores();
const { records, photos, close } = storesOn(url);
afterAll(() => close());

const PHOTO = v7();
async function made(plan: Plan): Promise<string> {
  const id = v7();
  await storePlan(plans, { id, batchId: v7(), plan, by: people.ruth });
  return id;
}
const renamed = (plan: Plan) => {
  const edits = new PlanEdits(plan);
  edits.patch("site", plan.site.id, { name: "Otherwise" });
  return { id: v7(), planner: "test", summary: "another name", args: null, changes: edits.changes() };
};
const ALL = { before: 4_000_000_000, about: null, by: null, from: null, until: null };
const inBin = async (site: string) => (await readBin(plans, people.ruth)).find(({ id }) => id === site);

test("in the bin it is nowhere else, neither read nor changed; brought back it is as it was", async () => {
  const site = await made(fennelStreet());
  const kept = must(await plans.snapshot(site), "the site");
  await addToRecord(records, site, people.ruth, [aTick({ id: v7(), photos: [PHOTO] })]);
  await addPhoto(photos, site, { id: PHOTO, jpeg: JPEG });
  const record = await records.after(site, 0, 10);
  expect(await removeSite(plans, site, people.marek)).toEqual({ ok: true, value: { id: site } });

  expect((await plans.listSites(people.ruth.id)).some(({ id }) => id === site)).toBe(false);
  expect([
    await plans.nameOf(site),
    await plans.snapshot(site),
    await plans.news(site, 0),
    await plans.history(site, ALL, 10),
    await plans.touched(site, { before: 10, about: [site] }, 10),
    await records.after(site, 0, 10),
    await photos.read(site, PHOTO),
  ]).toEqual([null, null, null, null, null, null, null]);
  const gone = { ok: false, error: { code: "no-such-site" } };
  const batch = renamed(kept.plan);
  expect(await commitBatch(plans, { site, revision: 1, batch, by: people.ruth })).toMatchObject(gone);
  expect(
    await undo(plans, { site, batchId: v7(), by: people.ruth, mayPlan: true, settled: [] }),
  ).toMatchObject(gone);
  expect(await addToRecord(records, site, people.ruth, [aTick({ id: v7() })])).toMatchObject(gone);
  expect(await addPhoto(photos, site, { id: PHOTO, jpeg: JPEG })).toMatchObject(gone);
  expect(await removeSite(plans, site, people.ruth)).toMatchObject(gone);
  const binned = { ok: false, error: { code: "in-bin" } };
  const anew = { id: site, name: "Anew", kind: "home", timeZone: "Europe/London" } as const;
  const begun = { ...anew, customer: null, by: people.ruth };
  expect(await createSite(plans, begun)).toMatchObject(binned);
  expect(
    await storePlan(plans, { id: site, batchId: v7(), plan: lockkeepersHouse(), by: people.ruth }),
  ).toMatchObject(binned);
  expect(await inBin(site)).toMatchObject({ name: kept.plan.site.name, deletedBy: "Marek", isOver: false });

  expect(await bringSiteBack(plans, site, people.ruth)).toEqual({ ok: true, value: { id: site } });
  expect(await inBin(site)).toBeUndefined();
  expect(await plans.snapshot(site)).toEqual(kept);
  expect(await records.after(site, 0, 10)).toEqual(record);
  expect(await readPhoto(photos, site, PHOTO)).toMatchObject({ ok: true });
  // What somebody had waiting for it is taken now.
  expect(await commitBatch(plans, { site, revision: 1, batch, by: people.ruth })).toMatchObject({ ok: true });
  const back = { ok: false, error: { code: "not-in-bin" } };
  expect([
    await bringSiteBack(plans, site, people.ruth),
    await forgetSite(plans, site, people.ruth),
  ]).toMatchObject([back, back]);
});

test("it lies there for thirty days, and goes by itself then; or at once, where somebody says so", async () => {
  const [old, young, now] = [
    await made(lockkeepersHouse()),
    await made(lockkeepersHouse()),
    await made(lockkeepersHouse()),
  ];
  for (const site of [old, young, now]) await removeSite(plans, site, people.ruth);
  const age = (site: string, hours: number) =>
    database.run(
      sql`UPDATE site SET deleted_at = UTC_TIMESTAMP(3) - INTERVAL ${hours} HOUR WHERE id = ${site}`,
    );
  await age(old, 30 * 24 + 1);
  await age(young, 30 * 24 - 1);
  const { deletedAt, endsAt } = must(await inBin(young), "the young one");
  expect(Date.parse(endsAt) - Date.parse(deletedAt)).toBe(30 * 24 * 3_600_000);
  const rows = (site: string) =>
    database.maybeOne(sql`SELECT COUNT(*) AS n FROM change_batch WHERE site_id = ${site}`, (row) =>
      Number(row.n),
    );
  expect([await inBin(old), await rows(old), await rows(young)]).toEqual([undefined, 0, 1]);
  expect(await bringSiteBack(plans, old, people.ruth)).toMatchObject({
    ok: false,
    error: { code: "not-in-bin" },
  });
  expect(await forgetSite(plans, now, people.ruth)).toMatchObject({ ok: true });
  expect([await inBin(now), await rows(now)]).toEqual([undefined, 0]);
  await forgetSite(plans, young, people.ruth);
});
