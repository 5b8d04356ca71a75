import { v7 } from "uuid";
import { fennelStreet } from "../../demo/fennel-street";
import { encodeBatch, encodePlan, decodePlan } from "@/core/formats";
import { must } from "@/core/kernel";
import { listFindings, runChecks } from "@/core/checks";
import { applyChanges, PlanEdits, PlanIndex, type Change, type Plan } from "@/core/plan";
import { ask, closeStores, newKey, type Handler } from "../../tests/support/handlers";

let cookie = "";

interface Call {
  readonly method?: string;
  readonly body?: unknown;
  readonly query?: string;
  readonly headers?: Record<string, string>;
  readonly params?: Record<string, string>;
}
async function call(handler: Handler, { method = "GET", body, query = "", headers = {}, params }: Call = {}) {
  const answer = await ask(handler, {
    method,
    body,
    headers,
    cookie,
    path: `/api/any${query}`,
    ...(params === undefined ? {} : { params }),
  });
  const steps = answer.headers.get("x-steps");
  return {
    status: answer.status,
    headers: answer.headers,
    steps: steps === null ? null : (JSON.parse(decodeURIComponent(steps)) as unknown),
    body: (await answer.json()) as Record<string, never> & {
      code?: string;
      sentence?: string;
      revision?: number;
    },
  };
}

const routes = {
  enter: () => import("@/app/api/enter/route"),
  sites: () => import("@/app/api/sites/route"),
  site: () => import("@/app/api/sites/[site]/route"),
  plan: () => import("@/app/api/sites/[site]/plan/route"),
  batches: () => import("@/app/api/sites/[site]/batches/route"),
  undo: () => import("@/app/api/sites/[site]/undo/route"),
  redo: () => import("@/app/api/sites/[site]/redo/route"),
  history: () => import("@/app/api/sites/[site]/history/route"),
  touched: () => import("@/app/api/sites/[site]/touched/route"),
  soundness: () => import("@/app/api/sites/[site]/soundness/route"),
};

beforeAll(async () => {
  const { POST } = await routes.enter();
  const key = await newKey("Ruth");
  expect((await call(POST, { method: "POST", body: { key: "made-up" } })).body.code).toBe("bad-link");
  const entered = await call(POST, { method: "POST", body: { key } });
  expect([entered.status, entered.body]).toEqual([200, { name: "Ruth" }]);
  const set = entered.headers.getSetCookie()[0] ?? "";
  expect(set).toMatch(/^dianome_[0-9a-f]{12}=[\w-]{43}; Path=\/; HttpOnly; SameSite=Strict; Max-Age=\d+$/);
  cookie = set.split(";")[0] ?? "";
  expect((await call(POST, { method: "POST", body: { key } })).status).toBe(403);
});

afterAll(closeStores);

async function storedSite(plan: Plan): Promise<string> {
  const { POST } = await routes.sites();
  const made = await call(POST, {
    method: "POST",
    body: { by: "file", id: v7(), batch: v7(), file: encodePlan(plan) },
  });
  expect(made.status).toBe(200);
  return String(made.body.id);
}
const batch = (changes: readonly Change[], summary: string) =>
  encodeBatch({ id: v7(), planner: "test", summary, args: null, changes });
const rename = (plan: Plan, name: string) => {
  const edits = new PlanEdits(plan);
  edits.patch("host", must([...plan.host.keys()][0], "a host"), { name });
  return edits.changes();
};

test("the door lets in by host, origin and session, each refusal with its own status", async () => {
  const { GET, POST } = await routes.sites();
  const status = async (more: Call) => (await call(more.method === "POST" ? POST : GET, more)).status;
  expect(await status({})).toBe(200);
  expect(await status({ headers: { cookie: "" } })).toBe(401);
  expect(await status({ headers: { cookie: `${cookie.split("=")[0]}=` } })).toBe(401);
  expect(await status({ headers: { cookie: `${cookie}x` } })).toBe(401);
  expect(await status({ headers: { cookie: `other=1; ${cookie}; more=2` } })).toBe(200);
  expect(await status({ headers: { host: "rebound.example:4100" } })).toBe(421);
  expect(await status({ headers: { host: "LOCALHOST:4100", origin: "http://localhost:4100" } })).toBe(200);
  expect(await status({ headers: { origin: "http://127.0.0.1:4101" } })).toBe(403);
  expect(await status({ method: "POST", body: {}, headers: { origin: "null" } })).toBe(403);
});

test("a plan travels there and back, a commit moves the revision, a stale one learns the rest", async () => {
  const plan = fennelStreet();
  const site = await storedSite(plan);
  const params = { site };
  const opened = await call((await routes.plan()).GET, { params });
  expect({ ...opened.body, steps: opened.steps }).toMatchObject({
    revision: 1,
    steps: { undo: "Imported the plan file of Fennel Street Veterinary Practice", redo: null },
  });
  const read = decodePlan(opened.body.plan);
  const held = must(read.ok ? read.value : null, "the plan");
  const { POST, GET } = await routes.batches();
  const first = batch(rename(held, "One"), "to One");
  expect((await call(POST, { method: "POST", params, body: { revision: 1, batch: first } })).body).toEqual({
    revision: 2,
    entries: [],
  });
  expect(
    (await call(POST, { method: "POST", params, body: { revision: 1, batch: first } })).body,
  ).toMatchObject({ revision: 2, entries: [{ revision: 2, id: (first as { id: string }).id }] });

  const stale = await call(POST, {
    method: "POST",
    params,
    body: { revision: 1, batch: batch(rename(held, "Two"), "to Two") },
  });
  expect([stale.status, stale.body.code]).toEqual([409, "stale-revision"]);
  expect(stale.body).toMatchObject({
    revision: 2,
    between: [
      {
        revision: 2,
        summary: "to One",
        authorName: "Ruth",
        changes: [{ kind: "host", after: { name: "One" } }],
      },
    ],
  });
  const ahead = await call(POST, {
    method: "POST",
    params,
    body: { revision: 9, batch: batch(rename(held, "Two"), "to Two") },
  });
  expect([ahead.status, ahead.body.code]).toEqual([409, "revision-ahead"]);
  expect((await call(GET, { params, query: "?after=1" })).body).toMatchObject({
    revision: 2,
    entries: [{ revision: 2 }],
    steps: { undo: "to One" },
  });
  expect((await call(GET, { params, query: "?after=2" })).body).toMatchObject({ revision: 2, entries: [] });
});

test("the list says who changed a site last; its soundness is what the checks find", async () => {
  const site = await storedSite(fennelStreet());
  const list = (await call((await routes.sites()).GET)).body as unknown as {
    id: string;
    changedBy: string | null;
  }[];
  expect(list.find(({ id }) => id === site)?.changedBy).toBe("Ruth");
  const expected = { stop: 0, warn: 0, note: 0 };
  for (const { severity } of listFindings(
    runChecks(PlanIndex.of(fennelStreet(), new Date().toISOString().slice(0, 10))),
  ))
    expected[severity] += 1;
  for (let i = 0; i < 2; i += 1)
    expect((await call((await routes.soundness()).GET, { params: { site } })).body).toEqual({
      revision: 1,
      findings: expected,
    });
  expect((await call((await routes.soundness()).GET, { params: { site: v7() } })).status).toBe(404);
});

test("undo and redo by route; nothing left to undo is said; history of one thing is asked", async () => {
  const site = await storedSite(fennelStreet());
  const params = { site };
  const held = must(
    ((r) => (r.ok ? r.value : null))(
      decodePlan((await call((await routes.plan()).GET, { params })).body.plan),
    ),
    "the plan",
  );
  await call((await routes.batches()).POST, {
    method: "POST",
    params,
    body: { revision: 1, batch: batch(rename(held, "One"), "to One") },
  });
  const undo = async () => call((await routes.undo()).POST, { method: "POST", params, body: { id: v7() } });
  expect((await undo()).body).toMatchObject({ revision: 3, summary: "Undid: to One" });
  expect(
    (await call((await routes.redo()).POST, { method: "POST", params, body: { id: v7() } })).body,
  ).toMatchObject({ revision: 4, summary: "Brought back: to One" });
  expect([(await undo()).status, (await undo()).status, (await undo()).body]).toEqual([
    200,
    200,
    expect.objectContaining({
      code: "nothing-to-undo",
      sentence: "You have changed nothing that could be undone.",
    }),
  ]);
  const host = must([...held.host.keys()][0], "a host");
  const about = await call((await routes.history()).GET, {
    params,
    query: `?before=4000000000&about=${host}`,
  });
  expect((about.body as unknown as { summary: string }[]).map((line) => line.summary)).toEqual(
    expect.arrayContaining(["to One", "Undid: to One"]),
  );
  const story = await call((await routes.touched()).GET, { params, query: `?before=9&about=${host}` });
  const known = about.body as unknown as { revision: number }[];
  expect(known.length).toBeGreaterThan(3);
  expect(story.body).toMatchObject(
    known.map(({ revision }) => ({ revision, changes: [expect.objectContaining({ id: host })] })),
  );
  for (const wrong of ["?before=9", "?before=9&about=x", `?before=9&about=${host}&by=Ruth`])
    expect((await call((await routes.touched()).GET, { params, query: wrong })).status).toBe(400);
  const nowhere = { params: { site: v7() }, query: `?before=9&about=${host}` };
  expect((await call((await routes.touched()).GET, nowhere)).status).toBe(404);
  const ask = async (query: string) => call((await routes.history()).GET, { params, query });
  expect((await ask(`?before=100&about=${v7()},${host}&by=Nobody`)).body).toEqual([]);
  for (const wrong of ["?before=many", "?before=9&about=x", "?before=9&by=", "?before=9&from=yesterday"])
    expect((await ask(wrong)).status).toBe(400);
});

test("what does not fit its contract is refused by its place and nothing is written", async () => {
  const site = await storedSite(fennelStreet());
  const params = { site };
  const revision = async () => (await call((await routes.plan()).GET, { params })).body.revision;
  const { POST } = await routes.batches();
  const post = async (body: unknown) => call(POST, { method: "POST", params, body });
  const plan = must(
    ((r) => (r.ok ? r.value : null))(
      decodePlan((await call((await routes.plan()).GET, { params })).body.plan),
    ),
    "the plan",
  );
  const good = batch(rename(plan, "x"), "x") as {
    changes: { after: { ipv4: string | null; name: string } }[];
  };
  const spoilt = structuredClone(good);
  must(spoilt.changes[0], "a change").after.ipv4 = "10.24.300.1";
  expect(await post({ revision: 1, batch: spoilt })).toMatchObject({
    status: 400,
    body: { sentence: expect.stringContaining("is not an IPv4 address") },
  });
  expect(await post({ revision: -1, batch: good })).toMatchObject({
    status: 400,
    body: { sentence: expect.stringContaining("body.revision") },
  });
  expect(await post({ revision: 1, batch: good, more: 1 })).toMatchObject({
    status: 400,
    body: { sentence: expect.stringContaining('"more"') },
  });
  expect(await post("{")).toMatchObject({ status: 400 });
  expect(
    await call(POST, { method: "POST", params: { site: "not-an-id" }, body: { revision: 1, batch: good } }),
  ).toMatchObject({ status: 400 });
  expect(
    await call(POST, { method: "POST", params: { site: v7() }, body: { revision: 1, batch: good } }),
  ).toMatchObject({ status: 404, body: { code: "no-such-site" } });
  const gone = new PlanEdits(plan);
  gone.remove("zone", must([...plan.zone.keys()][0], "a zone"));
  expect(applyChanges(plan, gone.changes()).ok).toBe(false);
  expect(await post({ revision: 1, batch: batch(gone.changes(), "zone gone") })).toMatchObject({
    status: 422,
    body: { code: "broken-plan", place: "Kit" },
  });
  expect(
    await call((await routes.undo()).POST, {
      method: "POST",
      params,
      body: `{"id":"${"x".repeat(1_100_000)}"}`,
    }),
  ).toMatchObject({ status: 413, body: { code: "too-large" } });
  expect(await revision()).toBe(1);
});

test("a site is made by name, listed and deleted; an import that is no plan is refused", async () => {
  const { GET, POST } = await routes.sites();
  const id = v7();
  expect(
    (
      await call(POST, {
        method: "POST",
        body: { by: "name", id, name: "Boathouse", kind: "home", timeZone: "Europe/London" },
      })
    ).body,
  ).toEqual({ id });
  expect((await call(GET)).body).toEqual(
    expect.arrayContaining([expect.objectContaining({ id, name: "Boathouse", revision: 0, segments: 0 })]),
  );
  const refused = await call(POST, {
    method: "POST",
    body: { by: "file", id: v7(), batch: v7(), file: { format: "other" } },
  });
  expect(refused).toMatchObject({ status: 422, body: { code: "bad-file" } });
  const { DELETE } = await routes.site();
  expect((await call(DELETE, { method: "DELETE", params: { site: id } })).status).toBe(200);
  expect((await call(DELETE, { method: "DELETE", params: { site: id } })).status).toBe(404);
});
