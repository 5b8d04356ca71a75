import { v7 } from "uuid";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { openHanded, type Handed, type NotHanded } from "@/application/handed";
import { stores } from "@/composition";
import { STATE_FORM, stateText } from "@/core/comparison";
import { encodePlan, readPlanFile } from "@/core/formats";
import { must } from "@/core/kernel";
import { openDatabase } from "@/storage/pool";
import { sql } from "@/storage/sql";
import { paperMaker } from "@/wire/paper-maker";
import type { LinksAnswer, LogAnswer, PeopleAnswer } from "./contracts/answers";
import { newAccount } from "../../tests/support/accounts";
import { readPdf } from "../../tests/support/paper";
import { ask, closeStores, cookieOf, databaseUrl, enter } from "../../tests/support/handlers";

// What opens without an account: links to an issued sheet, and tokens with which machines fetch exports.

const database = openDatabase(databaseUrl);
afterAll(async () => {
  await database.close();
  await closeStores();
});

const plan = lockkeepersHouse();
const [site, folder, issue] = [v7(), v7(), v7()];
let ruth = "";
let editor: Awaited<ReturnType<typeof newAccount>>;

const inDays = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

async function addEntries(entries: readonly object[]) {
  const { POST } = await import("@/app/api/sites/[site]/record/route");
  const answer = await ask(POST, { method: "POST", body: { entries }, params: { site }, cookie: ruth });
  expect(answer.status).toBe(200);
}

beforeAll(async () => {
  ruth = cookieOf(await enter("Ruth"));
  const people = (await import("@/app/api/people/route")).POST;
  const customer = { do: "putCustomer", id: folder, name: "Pass test" };
  expect((await ask(people, { method: "POST", body: customer, cookie: ruth })).status).toBe(200);
  const sites = (await import("@/app/api/sites/route")).POST;
  const body = { by: "file", id: site, batch: v7(), file: encodePlan(plan), customer: folder };
  expect((await ask(sites, { method: "POST", body, cookie: ruth })).status).toBe(200);
  const now = must(await stores().plans.snapshot(site), "the site");
  await addEntries([
    {
      ...{ id: issue, at: "2026-11-29T09:00:00.000Z", do: "issue", note: "" },
      sheet: {
        ...{ name: "As built", recipient: "Household", revision: now.revision, form: STATE_FORM },
        ...{ check: stores().tools.hash(stateText(now.plan)), stood: ["no finding is open"] },
      },
    },
  ]);
  editor = await newAccount("Jorunn", { kind: "site", id: site }, "editor");
});

async function links(body: object, cookie = editor.cookie) {
  const { POST } = await import("@/app/api/sites/[site]/links/route");
  const answer = await ask(POST, { method: "POST", body, params: { site }, cookie });
  return { status: answer.status, body: (await answer.json()) as { key?: string; code?: string } };
}
const made = (more: object = {}) =>
  links({ do: "make", issue, reader: "customer", title: "Household", lastDay: inDays(3), ...more });
async function listed(): Promise<LinksAnswer> {
  const { GET } = await import("@/app/api/sites/[site]/links/route");
  const answer = await ask(GET, { method: "GET", params: { site }, cookie: editor.cookie });
  return (await answer.json()) as LinksAnswer;
}
const opened = (key: string | undefined, part: string | null = null, cameFrom = "192.0.2.7") =>
  openHanded(stores(), { key: String(key), part, cameFrom, made: new Date().toISOString() });
const handed = async (key: string | undefined, part: string | null = null): Promise<Handed> => {
  const found = await opened(key, part);
  if (typeof found === "string") throw new Error(found);
  return found;
};
async function log(): Promise<LogAnswer> {
  const { GET } = await import("@/app/api/log/route");
  return (await (await ask(GET, { method: "GET", cookie: ruth })).json()) as LogAnswer;
}

describe("a link to an issued sheet", () => {
  test("opens its papers for its reader, part by part, and tells who came", async () => {
    const { body } = await made();
    const cover = await handed(body.key);
    expect([cover.site, cover.letter, cover.block.revision, cover.part.key, cover.replacedBy]).toEqual([
      plan.site.name,
      "A As built",
      "1",
      "cover",
      null,
    ]);
    const keys = cover.parts.map(({ key }) => key);
    expect(keys).toEqual(expect.arrayContaining(["cover", "networks", "walls"]));
    // What is for the next installer alone is not in a customer's papers, nor by its name.
    expect(keys).not.toContain("devices");
    expect((await handed(body.key, "devices")).part.key).toBe("cover");
    expect((await handed(body.key, "networks")).part.key).toBe("networks");
    const [own] = await listed();
    expect(own).toMatchObject({ title: "Household", visits: 3, isWithdrawn: false, isOver: false });
    expect(own?.seen.map(({ cameFrom, asked }) => [cameFrom, asked])).toEqual([["192.0.2.7", 3]]);
    expect(JSON.stringify(await listed())).not.toContain(String(body.key));
    const [newest] = await log();
    expect([newest?.what, newest?.by, newest?.about]).toEqual(["link-opened", null, "Household"]);
  });

  test("shows the state that was issued, whatever became of the plan since", async () => {
    const { body } = await made({ reader: "installer", title: "Next installer" });
    const before = JSON.stringify((await handed(body.key, "register")).part);
    const asItWas = await stores().plans.snapshot(site);
    const host = must([...plan.host.values()][0], "a host");
    const { POST } = await import("@/app/api/sites/[site]/batches/route");
    const batch = {
      ...{ id: v7(), planner: "test", summary: "another name", args: null },
      changes: [{ kind: "host", id: host.id, before: host, after: { ...host, name: "Renamed since" } }],
    };
    const answer = await ask(POST, {
      method: "POST",
      body: { revision: 1, batch },
      params: { site },
      cookie: ruth,
    });
    expect(answer.status).toBe(200);
    expect(JSON.stringify((await handed(body.key, "register")).part)).toBe(before);
    expect(before).toContain(host.name);
    // Somebody changes the plan between two looks of one and the same opening: what is newer is left alone.
    const electrician = await made({ reader: "electrician", title: "Electrician" });
    const plans = { ...stores().plans, snapshot: () => Promise.resolve(asItWas) };
    const asked = { key: String(electrician.body.key), part: null, cameFrom: "" };
    const found = await openHanded({ ...stores(), plans }, { ...asked, made: new Date().toISOString() });
    expect(typeof found === "string" ? found : found.letter).toBe("A As built");
  });

  test("ends when it is withdrawn, when its day is over, and with the role of whoever made it", async () => {
    const why = async (key: string | undefined): Promise<NotHanded | "open"> => {
      const found = await opened(key);
      return typeof found === "string" ? found : "open";
    };
    expect(await why("no such key")).toBe("unknown");
    const [one, two] = [(await made({ title: "One" })).body.key, (await made({ title: "Two" })).body.key];
    const id = (await listed()).find(({ title }) => title === "One")?.id;
    expect((await links({ do: "withdraw", id })).status).toBe(200);
    expect([await why(one), await why(two)]).toEqual(["withdrawn", "open"]);
    await database.run(sql`UPDATE pass SET ends_at = UTC_TIMESTAMP(3) WHERE title = 'Two'`);
    expect(await why(two)).toBe("over");
    const guest = await newAccount("Asgerd", { kind: "site", id: site }, "editor");
    const third = await links(
      { do: "make", issue, reader: "customer", title: "Three", lastDay: inDays(0) },
      guest.cookie,
    );
    expect(await why(third.body.key)).toBe("open");
    const { POST } = await import("@/app/api/people/route");
    const lower = { do: "grant", person: guest.id, on: { kind: "site", id: site }, role: "viewer" };
    expect((await ask(POST, { method: "POST", body: lower, cookie: ruth })).status).toBe(200);
    expect(await why(third.body.key)).toBe("maker");
  });

  test("is refused in words for a day that is over or too far, and for a sheet that is none", async () => {
    for (const lastDay of [inDays(-1), inDays(400)])
      expect((await made({ lastDay })).body.code).toBe("bad-end");
    expect((await made({ lastDay: "2026-02-30" })).status).toBe(400);
    expect((await made({ issue: v7() })).body.code).toBe("no-such-sheet");
  });

  test("a sheet that is withdrawn is not read any more, and no link is made to it", async () => {
    const other = v7();
    const now = must(await stores().plans.snapshot(site), "the site");
    const sheet = { name: "Mistaken", recipient: "", revision: now.revision, form: STATE_FORM, stood: [] };
    const check = stores().tools.hash(stateText(now.plan));
    const at = "2026-11-29T10:00:00.000Z";
    await addEntries([{ id: other, at, do: "issue", note: "", sheet: { ...sheet, check } }]);
    const { body } = await made({ issue: other });
    const first = await made({ title: "First" });
    expect([(await handed(body.key)).letter, (await handed(first.body.key)).replacedBy]).toEqual([
      "B Mistaken",
      "B",
    ]);
    await addEntries([{ id: v7(), at, do: "takeBack", tick: other }]);
    expect([await opened(body.key), (await made({ issue: other })).body.code]).toEqual([
      "sheet-withdrawn",
      "no-such-sheet",
    ]);
  });
});

async function token(on: object, lastDay = inDays(3), cookie = ruth) {
  const { POST } = await import("@/app/api/people/route");
  const body = { do: "makeToken", title: "nightly copy", on, lastDay };
  const answer = await ask(POST, { method: "POST", body, cookie });
  return { status: answer.status, key: ((await answer.json()) as { key?: string }).key ?? "" };
}
async function fetched(file: string | null, key: string, id = site) {
  const headers = { authorization: `Bearer ${key}`, "x-client-address": "192.0.2.9" };
  if (file === null) {
    const { GET } = await import("@/app/api/sites/[site]/exports/route");
    return ask(GET, { method: "GET", params: { site: id }, headers });
  }
  const { GET } = await import("@/app/api/sites/[site]/exports/[file]/route");
  return ask(GET, { method: "GET", params: { site: id, file }, headers });
}

describe("a machine's token", () => {
  test("fetches every export there is, by its name; the plan file is the plan with what was done", async () => {
    const { key } = await token({ kind: "customer", id: folder });
    const list = (await (await fetched(null, key)).json()) as { file: string; type: string }[];
    expect(list.length).toBeGreaterThan(30);
    const got = new Map<string, ArrayBuffer>();
    for (const { file, type } of list) {
      const answer = await fetched(file, key);
      const bytes = await answer.arrayBuffer();
      const text = new TextDecoder().decode(bytes);
      got.set(file, bytes);
      // A plan that gives no such file says why.
      if (answer.status === 404) expect([file, text]).toEqual([file, expect.stringContaining("sentence")]);
      else expect([file, answer.status, answer.headers.get("content-type")]).toEqual([file, 200, type]);
      expect(text.length).toBeGreaterThan(1);
    }
    const bytes = new Uint8Array(must(got.get("papers-customer.pdf"), "the papers"));
    expect(readPdf("pdftotext", bytes)).toContain("Network papers for the customer");
    expect(new TextDecoder().decode(got.get("drawing.svg"))).toContain("Hall switch");
    const read = readPlanFile(await (await fetched("plan.json", key)).text());
    const now = must(await stores().plans.snapshot(site), "the site");
    expect(read.ok && stateText(read.value)).toBe(stateText(now.plan));
    expect((await fetched("no such file.csv", key)).status).toBe(404);
    const [line] = await log();
    expect([line?.what, line?.by]).toEqual(["fetched", null]);
  });

  test("opens no other site or route, and ends with its day, by hand, and with its maker's role", async () => {
    const { key } = await token({ kind: "site", id: site });
    expect((await fetched("hosts", key)).status).toBe(200);
    const elsewhere = v7();
    const sites = (await import("@/app/api/sites/route")).POST;
    const body = { by: "file", id: elsewhere, batch: v7(), file: encodePlan(plan), customer: null };
    expect((await ask(sites, { method: "POST", body, cookie: ruth })).status).toBe(200);
    const [there, nowhere] = [await fetched("hosts", key, elsewhere), await fetched("hosts", key, v7())];
    expect([there.status, await there.text()]).toEqual([nowhere.status, await nowhere.text()]);
    expect(there.status).toBe(401);
    const { GET } = await import("@/app/api/sites/[site]/plan/route");
    const headers = { authorization: `Bearer ${key}` };
    expect((await ask(GET, { method: "GET", params: { site }, headers })).status).toBe(401);

    const owner = await newAccount("Thyra", { kind: "site", id: site }, "owner");
    const own = await token({ kind: "site", id: site }, inDays(1), owner.cookie);
    expect((await token({ kind: "all" }, inDays(1), owner.cookie)).status).toBe(404);
    expect((await token({ kind: "site", id: site }, inDays(1), editor.cookie)).status).toBe(404);
    expect((await fetched("hosts", own.key)).status).toBe(200);
    const people = await import("@/app/api/people/route");
    const seen = (await (
      await ask(people.GET, { method: "GET", cookie: owner.cookie })
    ).json()) as PeopleAnswer;
    const mine = must(
      seen.tokens.find(({ madeBy }) => madeBy.id === owner.id),
      "the token",
    );
    expect(JSON.stringify(seen)).not.toContain(own.key);
    const withdraw = (cookie: string) =>
      ask(people.POST, { method: "POST", body: { do: "withdrawToken", id: mine.id }, cookie });
    expect((await withdraw(editor.cookie)).status).toBe(404);
    expect((await withdraw(owner.cookie)).status).toBe(200);
    expect((await fetched("hosts", own.key)).status).toBe(401);
    const next = await token({ kind: "site", id: site }, inDays(1), owner.cookie);
    const out = { do: "takeOut", person: owner.id, forgetName: false };
    expect((await ask(people.POST, { method: "POST", body: out, cookie: ruth })).status).toBe(200);
    expect((await fetched("hosts", next.key)).status).toBe(401);
  });
});

const NOW = "2026-12-01T09:00:00.000Z";
test("papers are set one after another: too many are told so, and a failure holds up nobody", async () => {
  const job = {
    kind: "customer",
    revision: 1,
    records: [],
    photos: [],
    today: "2026-12-01",
    made: NOW,
  } as const;
  const all = Array.from({ length: 7 }, (_, at) => {
    const began = performance.now();
    return paperMaker
      .make({ ...job, plan: at === 4 ? encodePlan(plan) : {} })
      .then((made) => [made !== null, performance.now() - began] as const);
  });
  const came = await Promise.all(all);
  expect(came.map(([isMade]) => isMade)).toEqual([false, false, false, false, true, false, false]);
  // The last two were not begun.
  expect(Math.max(...came.slice(5).map(([, ms]) => ms))).toBeLessThan(
    Math.min(...came.slice(0, 5).map(([, ms]) => ms)),
  );
});

test("what somebody saves stands in the log, by a person as by their browser", async () => {
  const { GET } = await import("@/app/api/sites/[site]/exports/[file]/route");
  const params = { site, file: "ports.csv" };
  const answer = await ask(GET, { method: "GET", params, cookie: editor.cookie });
  expect([answer.status, answer.headers.get("content-disposition")]).toEqual([
    200,
    "attachment; filename*=UTF-8''ports.csv",
  ]);
  const { POST } = await import("@/app/api/sites/[site]/exports/route");
  const body = { file: "house-drawing.svg" };
  expect((await ask(POST, { method: "POST", body, params: { site }, cookie: editor.cookie })).status).toBe(
    200,
  );
  expect((await log()).slice(0, 2).map(({ by, what, about }) => [by, what, about])).toEqual([
    ["Jorunn", "exported", "house-drawing.svg"],
    ["Jorunn", "exported", "ports.csv"],
  ]);
});

test("what is kept of a person is told to them and to who owns everything, without any key", async () => {
  const { GET } = await import("@/app/api/people/[person]/data/route");
  const data = (who: string, cookie: string) => ask(GET, { method: "GET", params: { person: who }, cookie });
  const own = await data(editor.id, editor.cookie);
  const text = await own.text();
  const told = JSON.parse(text) as Record<string, unknown[]>;
  expect([own.status, told.name, told.roles]).toEqual([
    200,
    "Jorunn",
    [{ on: { kind: "site", id: site }, role: "editor" }],
  ]);
  expect(told.links?.length).toBeGreaterThan(3);
  expect(told.sessions).toHaveLength(1);
  expect(text).not.toMatch(/argon2|hash|secret|[0-9a-f]{64}/i);
  expect((await data(editor.id, ruth)).status).toBe(200);
  expect((await data(v7(), ruth)).status).toBe(404);
  const stranger = await newAccount("Gyda", null);
  expect((await data(editor.id, stranger.cookie)).status).toBe(403);
});

test("field people write notes and undo them, and plan nothing", async () => {
  const { cookie } = await newAccount("Ottar", { kind: "site", id: site }, "field");
  const now = must(await stores().plans.snapshot(site), "the site");
  const host = must([...now.plan.host.values()][3], "a host");
  const commit = (await import("@/app/api/sites/[site]/batches/route")).POST;
  const send = async (after: object, before: object = host) => {
    const batch = {
      ...{ id: v7(), planner: "test", summary: "on site", args: null },
      changes: [{ kind: "host", id: host.id, before, after }],
    };
    const body = { revision: now.revision, batch };
    const answer = await ask(commit, { method: "POST", body, params: { site }, cookie });
    return answer.status;
  };
  expect(await send({ ...host, name: "Mine" })).toBe(403);
  // Told as if the name had been that already.
  expect(await send({ ...host, name: "Mine", notes: "x" }, { ...host, name: "Mine" })).toBeGreaterThan(400);
  expect(await send({ ...host, notes: "behind the cupboard" })).toBe(200);
  const hostNow = async () => must(await stores().plans.snapshot(site), "the site").plan.host.get(host.id);
  expect(await hostNow()).toEqual({ ...host, notes: "behind the cupboard" });
  const undo = (await import("@/app/api/sites/[site]/undo/route")).POST;
  const back = await ask(undo, { method: "POST", body: { id: v7() }, params: { site }, cookie });
  expect([back.status, await hostNow()]).toEqual([200, host]);
});
