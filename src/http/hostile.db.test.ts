import { gunzipSync } from "node:zlib";
import { v7 } from "uuid";
import { fennelStreet } from "../../demo/fennel-street";
import { encodeBatch, encodePlan } from "@/core/formats";
import { must } from "@/core/kernel";
import { BLANK_ZONE, applyChanges, PlanEdits, type Change } from "@/core/plan";
import { removeHost } from "@/core/planners";
import { openDatabase } from "@/storage/pool";
import { sql } from "@/storage/sql";
import { ask, closeStores, cookieOf, databaseUrl, enter, type Handler } from "../../tests/support/handlers";

const database = openDatabase(databaseUrl);
const plan = fennelStreet();
let cookie = "";
const send = (
  handler: Handler,
  method: string,
  {
    body,
    params,
    headers = {},
  }: {
    readonly body: unknown;
    readonly params?: Record<string, string>;
    readonly headers?: Record<string, string>;
  },
) => ask(handler, { method, body, headers, cookie, ...(params === undefined ? {} : { params }) });
let site = "";
let commit: (batch: unknown, revision?: number) => Promise<{ status: number; sentence: string; ms: number }>;

beforeAll(async () => {
  cookie = cookieOf(await enter("Ruth"));
  const { POST } = await import("@/app/api/sites/route");
  site = (
    (await (
      await send(POST, "POST", { body: { by: "file", id: v7(), batch: v7(), file: encodePlan(plan) } })
    ).json()) as { id: string }
  ).id;
  const batches = await import("@/app/api/sites/[site]/batches/route");
  commit = async (batch, revision = 1) => {
    const began = performance.now();
    const answer = await send(batches.POST, "POST", {
      body: typeof batch === "string" ? batch : { revision, batch },
      params: {
        site,
      },
    });
    return {
      status: answer.status,
      sentence: String(((await answer.json()) as { sentence?: string }).sentence),
      ms: performance.now() - began,
    };
  };
});
afterAll(async () => {
  await database.close();
  await closeStores();
});

const host = must([...plan.host.values()][0], "a host");
const batchOf = (changes: readonly Change[]) =>
  encodeBatch({ id: v7(), planner: "test", summary: "x", args: null, changes }) as {
    args: unknown;
    changes: { after: Record<string, unknown> }[];
  };
const edited = (fields: Record<string, unknown>) => {
  const edits = new PlanEdits(plan);
  edits.patch("host", host.id, { notes: "changed" });
  const batch = batchOf(edits.changes());
  Object.assign(must(batch.changes[0], "a change").after, fields);
  return batch;
};

test.each<[string, Record<string, unknown>, RegExp]>([
  ["a control character in a name", { name: "a\u0001b" }, /control characters/],
  ["half a character in a name", { name: "a\ud800" }, /half a character/],
  ["half a character in notes", { notes: "a\udfffb" }, /half a character/],
  ["a null character in notes", { notes: "a\u0000" }, /control characters/],
])("%s is refused with a sentence", async (_, fields, says) => {
  expect(await commit(edited(fields))).toMatchObject({ status: 400, sentence: expect.stringMatching(says) });
});

test("letters that look the same are stored in one form, line breaks in notes stay", async () => {
  const batch = edited({ name: "Cafe\u0301", notes: "one\ntwo\tthree" });
  expect((await commit(batch)).status).toBe(200);
  const [row] = await database.all(
    sql`SELECT name, notes FROM host WHERE site_id = ${site} AND id = ${host.id}`,
    (found) => found,
  );
  expect(row).toEqual({ name: "Caf\u00e9", notes: "one\ntwo\tthree" });
});

test("a day that no calendar of the database has, and an id that another kind has, are refused", async () => {
  const edits = new PlanEdits(plan);
  const device = must([...plan.device.values()][0], "a device");
  edits.patch("device", device.id, { notes: "x" });
  const dated = batchOf(edits.changes());
  must(dated.changes[0], "").after.supportUntil = "0000-02-29";
  expect(await commit(dated)).toMatchObject({
    status: 400,
    sentence: expect.stringContaining("A day from 1970 on"),
  });
  const twice = new PlanEdits(plan);
  twice.put("zone", { id: host.id, ...BLANK_ZONE, name: "Same id", insideOpen: false });
  expect(await commit(batchOf(twice.changes()), 2)).toMatchObject({
    status: 422,
    sentence: expect.stringContaining("has the id of a host"),
  });
});

describe("a body that would hold the server up", () => {
  test("64 MB of zeros, 400,000 empty changes, a list of lists without end: refused at once", async () => {
    const zeros =
      `{"revision":1,"batch":{"id":"${v7()}","planner":"x","summary":"","args":[` +
      `${"0,".repeat(31_000_000)}0],"changes":[]}}`;
    expect(await commit(zeros)).toMatchObject({
      status: 413,
      sentence: "The request holds more values than the largest plan.",
    });
    const some =
      `{"revision":1,"batch":{"id":"${v7()}","planner":"x","summary":"","args":[` +
      `${"0,".repeat(2_000_000)}0],"changes":[]}}`;
    expect(await commit(some)).toMatchObject({
      status: 400,
      sentence: expect.stringContaining("A planner's arguments hold at most"),
    });
    const empty = await commit({
      id: v7(),
      planner: "x",
      summary: "",
      args: null,
      changes: Array.from({ length: 400_000 }, () => ({})),
    });
    expect(empty).toMatchObject({
      status: 400,
      sentence: expect.stringContaining("body.batch.changes.0.kind"),
    });
    for (const depth of [32, 1_000_000]) {
      const deep = await commit(`{"revision":1,"batch":{"args":${"[".repeat(depth)}${"]".repeat(depth)}}}`);
      expect(deep).toMatchObject({ status: 400, sentence: expect.stringContaining("nests more than 24") });
    }
    const args = JSON.parse(`${"[".repeat(16)}${"]".repeat(16)}`) as unknown;
    expect(await commit({ id: v7(), planner: "x", summary: "", args, changes: [] })).toMatchObject({
      status: 400,
      sentence: expect.stringContaining("nested at most 12 deep"),
    });
  });

  test("while the largest import is taken in, others are answered between its slices", async () => {
    const { POST, GET } = await import("@/app/api/sites/route");
    const edits = new PlanEdits(plan);
    for (const host of edits.all("host")) removeHost(edits, host.id);
    const bare = applyChanges(plan, edits.changes());
    const file = encodePlan(must(bare.ok ? bare.value : null, "a plan without hosts")) as object;
    const like = must((encodePlan(plan) as { hosts: object[] }).hosts[0], "a host");
    const many = {
      ...file,
      hosts: Array.from({ length: 30_000 }, (_, i) => ({
        ...like,
        id: v7(),
        name: `Host ${i}`,
        ipv4: null,
        mac: null,
      })),
    };
    let isDone = false;
    const taken = send(POST, "POST", { body: { by: "file", id: v7(), batch: v7(), file: many } }).finally(
      () => {
        isDone = true;
      },
    );
    const waits: number[] = [];
    while (!isDone) {
      const began = performance.now();
      expect((await send(GET, "GET", { body: undefined })).status).toBe(200);
      waits.push(performance.now() - began);
    }
    expect((await taken).status).toBe(200);
    expect(waits.length).toBeGreaterThan(10);
  });
});

test("a plan is encoded once for a revision, goes out compressed, and says what one can undo", async () => {
  const { GET } = await import("@/app/api/sites/[site]/plan/route");
  const zipped = await send(GET, "GET", {
    body: undefined,
    params: { site },
    headers: { "accept-encoding": "gzip, br" },
  });
  const plain = await send(GET, "GET", { body: undefined, params: { site } });
  expect([zipped.headers.get("x-body-encoding"), plain.headers.get("x-body-encoding")]).toEqual([
    "gzip",
    null,
  ]);
  const body = Buffer.from(await zipped.arrayBuffer());
  expect(JSON.parse(gunzipSync(body).toString("utf8"))).toEqual(await plain.json());
  expect(JSON.parse(decodeURIComponent(must(zipped.headers.get("x-steps"), "the steps")))).toMatchObject({
    undo: "x",
    undoIsImport: false,
  });
});

describe("a session", () => {
  const status = async () =>
    (await send((await import("@/app/api/sites/route")).GET, "GET", { body: undefined })).status;
  const age = (used: string, made: string) =>
    database.run(
      sql`UPDATE session
        SET used_at = UTC_TIMESTAMP(3) - INTERVAL ${used} HOUR,
          made_at = UTC_TIMESTAMP(3) - INTERVAL ${made} HOUR
        WHERE person_id = (SELECT id FROM person WHERE name = 'Ann')`,
    );

  test("use renews it; it ends unused for a week, after a month, or signed out; names are exact", async () => {
    const ruth = cookie;
    cookie = cookieOf(await enter("Ann"));
    await age("100", "200");
    expect(await status()).toBe(200);
    const [row] = await database.all(
      sql`SELECT TIMESTAMPDIFF(MINUTE, s.used_at, UTC_TIMESTAMP(3)) AS minutes FROM session s
        JOIN person p ON p.id = s.person_id WHERE p.name = 'Ann'`,
      (found) => Number(found.minutes),
    );
    expect(row).toBe(0);
    await age("169", "200");
    expect(await status()).toBe(401);
    await age("1", "721");
    expect(await status()).toBe(401);
    await age("1", "2");
    expect(await status()).toBe(200);
    const { DELETE } = await import("@/app/api/enter/route");
    const out = await send(DELETE, "DELETE", { body: undefined });
    expect([out.status, out.headers.get("set-cookie")]).toEqual([
      200,
      expect.stringMatching(/^dianome_[0-9a-f]{12}=; .*Max-Age=0$/),
    ]);
    expect(await status()).toBe(401);
    await enter("ann");
    await enter("Ann");
    expect(
      await database.all(sql`SELECT name FROM person WHERE LOWER(name) = 'ann' ORDER BY name`, (found) =>
        String(found.name),
      ),
    ).toEqual(["Ann", "ann"]);
    cookie = ruth;
  });
  test("has a cookie for TLS only where it was opened over TLS", async () => {
    const plainly = await enter("Cy");
    const overTls = await enter("Cy", { origin: "https://127.0.0.1:4100" });
    expect([
      plainly.headers.get("set-cookie")?.includes("Secure"),
      overTls.headers.get("set-cookie")?.endsWith("; Secure"),
    ]).toEqual([false, true]);
  });
});
