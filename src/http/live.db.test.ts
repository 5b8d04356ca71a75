import { v7 } from "uuid";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { stores } from "@/composition";
import { encodeBatch, encodeChanges, encodePlan } from "@/core/formats";
import { must } from "@/core/kernel";
import { PlanEdits } from "@/core/plan";
import type { LiveAnswer } from "./contracts/answers";
import { newAccount } from "../../tests/support/accounts";
import { ask, closeStores, cookieOf, enter } from "../../tests/support/handlers";

// Server-sent events and who is where, by the routes, on the real database.

const site = v7();
const params = { site };
let ruth = "";

beforeAll(async () => {
  ruth = cookieOf(await enter("Ruth"));
  const { POST } = await import("@/app/api/sites/route");
  const body = { by: "file", id: site, batch: v7(), file: encodePlan(lockkeepersHouse()) };
  expect((await ask(POST, { method: "POST", body, cookie: ruth })).status).toBe(200);
});
afterAll(closeStores);

/** Listens, and answers the next states one by one. */
async function listen(cookie: string) {
  const { GET } = await import("@/app/api/sites/[site]/events/route");
  const answer = await ask(GET, { method: "GET", params, cookie });
  const reader = must(answer.body, "a stream").getReader();
  let text = "";
  const next = async (): Promise<LiveAnswer | null> => {
    for (;;) {
      const found = /^data: (.*)\n\n/m.exec(text);
      if (found !== null) {
        text = text.slice(found.index + found[0].length);
        return JSON.parse(String(found[1])) as LiveAnswer;
      }
      const { done, value } = await reader.read();
      if (done) return null;
      text += new TextDecoder().decode(value);
    }
  };
  return { answer, next, leave: () => reader.cancel() };
}
async function tell(cookie: string, body: object): Promise<number> {
  const { POST } = await import("@/app/api/sites/[site]/presence/route");
  return (await ask(POST, { method: "POST", params, body, cookie })).status;
}

test("a change, an entry of the record, and who is where are told to everybody who listens", async () => {
  const { answer, next, leave } = await listen(ruth);
  expect([answer.headers.get("content-type"), answer.headers.get("cache-control")]).toEqual([
    "text/event-stream; charset=utf-8",
    "no-store, no-transform",
  ]);
  expect(await next()).toEqual({ revision: 1, record: 0, present: [], news: null });

  const { plan } = must(await stores().plans.snapshot(site), "the site");
  const edits = new PlanEdits(plan);
  edits.patch("site", plan.site.id, { name: "Another name" });
  const changes = edits.changes();
  const id = v7();
  const batch = encodeBatch({ id, planner: "test", summary: "s", args: null, changes });
  const { POST } = await import("@/app/api/sites/[site]/batches/route");
  const sent = { method: "POST", params, body: { revision: 1, batch }, cookie: ruth };
  expect((await ask(POST, sent)).status).toBe(200);
  expect(await next()).toMatchObject({
    ...{ revision: 2, record: 0, present: [] },
    news: { after: 1, entries: [{ id, revision: 2, authorName: "Ruth", changes: encodeChanges(changes) }] },
  });

  const tab = v7();
  const things = [v7()];
  expect(await tell(ruth, { is: "here", tab, sheet: "ports", things })).toBe(200);
  expect(await next()).toMatchObject({ present: [{ tab, name: "Ruth", sheet: "ports", things }] });
  // Another person can't speak for that tab, nor take it away.
  const { cookie } = await newAccount("Live Marek", { kind: "site", id: site }, "viewer");
  await tell(cookie, { is: "here", tab, sheet: "walls", things: [] });
  await tell(cookie, { is: "gone", tab });
  const own = v7();
  await tell(cookie, { is: "here", tab: own, sheet: "walls", things: [] });
  expect((await next())?.present.map(({ name, sheet }) => [name, sheet])).toEqual([
    ["Live Marek", "walls"],
    ["Ruth", "ports"],
  ]);
  await tell(cookie, { is: "gone", tab: own });
  expect((await next())?.present.map(({ name }) => name)).toEqual(["Ruth"]);
  await leave();
});

test("as much as a whole site is not told, only that it is there", async () => {
  const { next, leave } = await listen(ruth);
  const { revision } = must(await next(), "the state");
  const { plan } = must(await stores().plans.snapshot(site), "the site");
  const edits = new PlanEdits(plan);
  for (const port of [...plan.port.values()].slice(0, 30)) edits.patch("port", port.id, { note: "new" });
  for (const host of [...plan.host.values()].slice(0, 11)) edits.patch("host", host.id, { notes: "new" });
  edits.patch("site", plan.site.id, { name: "Yet another name" });
  const batch = { id: v7(), planner: "test", summary: "s", args: null, changes: edits.changes() };
  expect(batch.changes).toHaveLength(41);
  const { POST } = await import("@/app/api/sites/[site]/batches/route");
  const body = { revision, batch: encodeBatch(batch) };
  expect((await ask(POST, { method: "POST", params, body, cookie: ruth })).status).toBe(200);
  expect(await next()).toMatchObject({ revision: revision + 1, news: null });
  await leave();
});

test("what is no sheet, or too much, is refused and says so", async () => {
  const here = { is: "here", tab: v7(), sheet: "ports", things: [] };
  for (const wrong of [
    { ...here, sheet: "<b>" },
    { ...here, tab: "x" },
    { ...here, things: Array.from({ length: 49 }, () => v7()) },
    { is: "elsewhere" },
  ])
    expect(await tell(ruth, wrong)).toBe(400);
});

test("the stream ends for whoever may not listen any longer", async () => {
  jest.useFakeTimers({ doNotFake: ["nextTick", "setImmediate", "setTimeout", "performance"] });
  const { cookie, id } = await newAccount("Live Sigrun", { kind: "site", id: site }, "viewer");
  const { next } = await listen(cookie);
  expect(await next()).toMatchObject({ revision: 3 });
  const by = { id, name: "Live Sigrun" };
  const deed = { what: "role-withdrawn", about: "of the test" } as const;
  await stores().people.withdraw(id, { kind: "site", id: site }, { by, deed });
  jest.advanceTimersByTime(15_000);
  jest.useRealTimers();
  expect(await next()).toBeNull();
});
