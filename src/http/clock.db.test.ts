import { Secret, TOTP } from "otpauth";
import { v7 } from "uuid";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { stores } from "@/composition";
import { commitBatch } from "@/application/commit-batch";
import { storePlan } from "@/application/sites";
import { undo } from "@/application/undo-redo";
import { must } from "@/core/kernel";
import { PlanEdits } from "@/core/plan";
import { openDatabase } from "@/storage/pool";
import { sql } from "@/storage/sql";
import { newAccount, PASSWORD, signIn } from "../../tests/support/accounts";
import { ask, closeStores, databaseUrl } from "../../tests/support/handlers";

// A clock that was a year ahead for a while and was set right: nobody is shut out, nobody stays who is gone,
// and what was done stays in its order.

const database = openDatabase(databaseUrl);
afterAll(async () => {
  await database.close();
  await closeStores();
});

test("a wait that was given while the clock was ahead is over once it is right", async () => {
  const { name } = await newAccount("Clock Arnlaug", null);
  for (let n = 0; n < 6; n += 1) await signIn({ name, password: "not the password" });
  await database.run(sql`UPDATE sign_in_try SET last_at = last_at + INTERVAL 1 YEAR,
    free_at = free_at + INTERVAL 1 YEAR`);
  expect((await signIn({ name, password: PASSWORD })).status).toBe(200);
  await database.run(sql`DELETE FROM sign_in_try`);
});

test("so is a code that was taken then; one that was taken now still counts once", async () => {
  const { cookie, name, id } = await newAccount("Clock Borghild", null);
  const { POST } = await import("@/app/api/account/route");
  const order = async (body: object) =>
    (await (await ask(POST, { method: "POST", body, cookie })).json()) as Record<string, string>;
  const secret = String((await order({ do: "newSecret" })).secret);
  const code = (shift: number) =>
    new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: Date.now() + shift * 30_000 });
  await order({ do: "factor", password: PASSWORD, secret, code: code(-1) });
  await database.run(sql`UPDATE person SET factor_step = factor_step + 1000000 WHERE id = ${id}`);
  const body = { name, password: PASSWORD, code: code(0) };
  expect((await signIn(body)).status).toBe(200);
  expect((await signIn(body)).status).toBe(403);
});

test("somebody who was there then is not there now", async () => {
  const { cookie, id } = await newAccount("Clock Dagrun", null);
  expect(cookie).not.toBe("");
  const site = v7();
  const by = { id, name: "Clock Dagrun" };
  await storePlan(stores().plans, { id: site, batchId: v7(), plan: lockkeepersHouse(), by });
  await stores().live.putPresence(site, id, { tab: v7(), sheet: "ports", things: [] });
  const present = async () => (await stores().live.states([site])).get(site)?.present.length;
  expect(await present()).toBe(1);
  await database.run(sql`UPDATE presence SET seen_at = seen_at + INTERVAL 1 YEAR WHERE site_id = ${site}`);
  expect(await present()).toBe(0);
});

test("edits stand in the order in which they were made, and the last is undone first", async () => {
  const { id } = await newAccount("Clock Embla", null);
  const by = { id, name: "Clock Embla" };
  const { plans } = stores();
  const site = v7();
  await storePlan(plans, { id: site, batchId: v7(), plan: lockkeepersHouse(), by });
  const rename = async (name: string) => {
    const { plan, revision } = must(await plans.snapshot(site), "the site");
    const edits = new PlanEdits(plan);
    edits.patch("site", plan.site.id, { name });
    const batch = { id: v7(), planner: "test", summary: name, args: null, changes: edits.changes() };
    expect((await commitBatch(plans, { site, revision, batch, by })).ok).toBe(true);
  };
  await rename("First");
  await database.run(
    sql`UPDATE change_batch SET made_at = made_at + INTERVAL 1 YEAR WHERE site_id = ${site} AND revision = 2`,
  );
  await rename("Second");
  const asked = { before: 1_000_000, about: null, by: null, from: null, until: null };
  const lines = must(await plans.history(site, asked, 10), "the history");
  expect(lines.map(({ summary }) => summary).slice(0, 2)).toEqual(["Second", "First"]);
  const step = { site, batchId: v7(), by, mayPlan: true, settled: [] };
  expect(await undo(plans, step)).toMatchObject({ ok: true, value: { batch: { summary: "Undid: Second" } } });
});
