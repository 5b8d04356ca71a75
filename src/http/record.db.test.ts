import { v7 } from "uuid";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { addToRecord } from "@/application/records";
import { storePlan } from "@/application/sites";
import type { RecordStore } from "@/application/stores";
import { encodePlan } from "@/core/formats";
import { must } from "@/core/kernel";
import { PlanIndex, type Plan } from "@/core/plan";
import {
  changesOf,
  decodeEntry,
  encodeEntry,
  recordsToFile,
  remaining,
  siteAsIs,
  tickedStep,
  type Recorded,
  type RecordEntry,
} from "@/core/records";
import { openDatabase } from "@/storage/pool";
import { planCache } from "@/storage/plan-cache";
import { planStore } from "@/storage/plan-store";
import { recordStore } from "@/storage/record-store";
import { sql } from "@/storage/sql";
import { ask, closeStores, cookieOf, databaseUrl, enter } from "../../tests/support/handlers";

const database = openDatabase(databaseUrl);
const plan: Plan = lockkeepersHouse();
const index = PlanIndex.of(plan);
const AT = "2026-11-29T09:00:00.000Z";
let cookies: Record<"ruth" | "marek", string> = { ruth: "", marek: "" };

beforeAll(async () => {
  cookies = { ruth: cookieOf(await enter("Ruth")), marek: cookieOf(await enter("Marek")) };
});
afterAll(async () => {
  await database.close();
  await closeStores();
});

async function aSite(): Promise<string> {
  const { POST } = await import("@/app/api/sites/route");
  const made = await ask(POST, {
    method: "POST",
    body: { by: "file", id: v7(), batch: v7(), file: encodePlan(plan) },
    cookie: cookies.ruth,
  });
  return ((await made.json()) as { id: string }).id;
}

async function send(site: string, entries: readonly unknown[], cookie: string) {
  const { POST } = await import("@/app/api/sites/[site]/record/route");
  const answer = await ask(POST, { method: "POST", body: { entries }, params: { site }, cookie });
  return { status: answer.status, body: (await answer.json()) as { last?: number; sentence?: string } };
}

interface Page {
  readonly entries: { readonly number: number; readonly by: string; readonly entry: unknown }[];
  readonly isMore: boolean;
}
async function read(site: string, after = 0): Promise<Page> {
  const { GET } = await import("@/app/api/sites/[site]/record/route");
  const path = `/api/any?after=${after}`;
  return (await (
    await ask(GET, { method: "GET", path, params: { site }, cookie: cookies.ruth })
  ).json()) as Page;
}

const start: RecordEntry = { id: v7(), at: AT, do: "start", from: "box", name: "", changes: [] };
const end = (): RecordEntry => ({ id: v7(), at: AT, do: "end", note: "Fine." });

/** What somebody ticks who does the next steps of a visit. */
function ticks(record: readonly Recorded[], count: number): RecordEntry[] {
  const steps = must(remaining(index, record), "an order").runbook.steps.slice(0, count);
  const done: RecordEntry[] = [];
  for (const step of steps) {
    const asIs = must(siteAsIs(index, [...record.map(({ entry }) => entry), ...done]), "a state");
    const changes = step.operation === null ? [] : must(changesOf(asIs, step.operation), "a state");
    done.push({
      id: v7(),
      at: AT,
      do: "tick",
      after: null,
      step: tickedStep(step),
      came: "done",
      read: "",
      note: "",
      photos: [],
      changes,
    });
  }
  return done;
}

test("what is ticked comes back as it was, by whom, in its order; sent twice it counts once", async () => {
  const site = await aSite();
  const done = [start, ...ticks([{ by: "Ruth", entry: start }], 12)];
  const sent = done.map(encodeEntry);
  expect(await send(site, sent.slice(0, 8), cookies.ruth)).toEqual({ status: 200, body: { last: 8 } });
  expect(await send(site, sent, cookies.marek)).toEqual({ status: 200, body: { last: 13 } });
  expect(await send(site, sent, cookies.ruth)).toEqual({ status: 200, body: { last: 13 } });
  const { entries, isMore } = await read(site);
  expect(isMore).toBe(false);
  expect(entries.map(({ number }) => number)).toEqual(done.map((_, at) => at + 1));
  expect(entries.map(({ by }) => by)).toEqual([
    ...Array<string>(8).fill("Ruth"),
    ...Array<string>(5).fill("Marek"),
  ]);
  expect(entries.map(({ entry }) => decodeEntry(entry))).toEqual(done);
  expect((await read(site, 11)).entries.map(({ number }) => number)).toEqual([12, 13]);
});

test("two people who tick at once both stand in the record, without a gap", async () => {
  const site = await aSite();
  const all = Array.from({ length: 30 }, end);
  const answers = await Promise.all(
    all.map((entry, at) => send(site, [encodeEntry(entry)], at % 2 === 0 ? cookies.ruth : cookies.marek)),
  );
  expect(answers.map(({ status }) => status)).toEqual(all.map(() => 200));
  const { entries } = await read(site);
  expect(entries.map(({ number }) => number)).toEqual(all.map((_, at) => at + 1));
  expect(new Set(entries.map(({ entry }) => decodeEntry(entry)?.id))).toEqual(
    new Set(all.map(({ id }) => id)),
  );
});

test("a long record comes page by page", async () => {
  const site = await aSite();
  for (let part = 0; part < 3; part += 1)
    await send(
      site,
      Array.from({ length: 100 }, () => encodeEntry(end())),
      cookies.ruth,
    );
  const first = await read(site);
  expect([first.entries.length, first.isMore]).toEqual([200, true]);
  const second = await read(site, 200);
  expect([second.entries.length, second.isMore]).toEqual([100, false]);
});

test("what is no entry is refused in a sentence, and nothing of what came with it is added", async () => {
  const site = await aSite();
  const refused = await send(
    site,
    [encodeEntry(end()), { ...(encodeEntry(end()) as object), at: "now" }],
    cookies.ruth,
  );
  expect(refused).toMatchObject({ status: 400, body: { sentence: expect.stringMatching(/entries\.1\.at/) } });
  expect((await read(site)).entries).toEqual([]);
  expect((await send(site, [], cookies.ruth)).status).toBe(400);
  expect((await send(v7(), [encodeEntry(end())], cookies.ruth)).status).toBe(404);
  expect((await send(site, [encodeEntry(end())], "")).status).toBe(401);
});

const personNamed = (wanted: string) =>
  database.maybeOne(sql`SELECT id, name FROM person WHERE name = ${wanted}`, ({ id, name }) => ({
    id: String(id),
    name: String(name),
  }));

test("a record that is full takes nothing more, and says so", async () => {
  const site = await aSite();
  const store = recordStore(database);
  const by = must(await personNamed("Ruth"), "Ruth");
  const narrow: RecordStore = { ...store, add: (to, who, entries) => store.add(to, who, entries, 2) };
  const [first, second] = [end(), end()];
  expect(await addToRecord(narrow, site, by, [first, second])).toEqual({ ok: true, value: { last: 2 } });
  expect(await addToRecord(narrow, site, by, [first, end()])).toMatchObject({
    ok: false,
    error: { code: "record-full" },
  });
  expect(await addToRecord(narrow, site, by, [first])).toMatchObject({ ok: true });
  expect((await read(site)).entries).toHaveLength(2);
});

test("a record goes with the plan file to another machine, once; a broken one makes no site", async () => {
  const { POST } = await import("@/app/api/sites/route");
  const record: Recorded[] = [
    {
      by: "Agnes of elsewhere",
      entry: { id: v7(), at: AT, do: "start", from: "box", name: "", changes: [] },
    },
    { by: "Ruth", entry: end() },
  ];
  const file = { ...(encodePlan(plan) as object), records: recordsToFile(record) };
  const [id, batch] = [v7(), v7()];
  const make = (body: object) =>
    ask(POST, { method: "POST", body: { by: "file", id, batch, ...body }, cookie: cookies.marek });
  const broken = { ...file, records: [...recordsToFile(record), { by: "Ruth", entry: { do: "end" } }] };
  const refused = await make({ file: broken });
  expect([refused.status, ((await refused.json()) as { sentence: string }).sentence]).toEqual([
    422,
    expect.stringMatching(/records\[2\]\.id/),
  ]);
  expect((await make({ file })).status).toBeLessThan(300);
  expect((await make({ file })).status).toBeLessThan(300);
  const { entries } = await read(id);
  expect(entries.map(({ by, entry }) => ({ by, entry: decodeEntry(entry) }))).toEqual(record);
  // What is done on this machine afterwards is by whoever did it here.
  await send(id, [encodeEntry(end())], cookies.ruth);
  expect((await read(id)).entries.map(({ by }) => by)).toEqual(["Agnes of elsewhere", "Ruth", "Ruth"]);
});

test("a plan file whose record can't be stored makes no site", async () => {
  const [id, batchId, entry] = [v7(), v7(), end()];
  const plans = planStore(database, planCache(1));
  const record = [entry, entry].map((same) => ({ by: "Ruth", entry: same }));
  const by = must(await personNamed("Ruth"), "Ruth");
  await expect(storePlan(plans, { id, batchId, plan, record, by })).rejects.toThrow();
  expect(await plans.nameOf(id)).toBeNull();
  expect(await storePlan(plans, { id, batchId, plan, record: record.slice(1), by })).toMatchObject({
    ok: true,
  });
  expect((await read(id)).entries).toHaveLength(1);
});

test("a site that is deleted for good takes its record with it", async () => {
  const site = await aSite();
  await send(site, [encodeEntry(end())], cookies.ruth);
  const { DELETE } = await import("@/app/api/sites/[site]/route");
  await ask(DELETE, { method: "DELETE", params: { site }, cookie: cookies.ruth });
  const { POST } = await import("@/app/api/bin/route");
  await ask(POST, { method: "POST", body: { site, do: "forget" }, cookie: cookies.ruth });
  const left = await database.all(sql`SELECT id FROM record_entry WHERE site_id = ${site}`, (row) => row);
  expect(left).toEqual([]);
});
