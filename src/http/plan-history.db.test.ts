import { v7 } from "uuid";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { stores } from "@/composition";
import { encodeBatch } from "@/core/formats";
import { must } from "@/core/kernel";
import { PlanEdits } from "@/core/plan";
import type { LogEntryAnswer, LogLineAnswer, NewsAnswer } from "./contracts/answers";
import { newAccount } from "../../tests/support/accounts";
import { ask, closeStores, cookieOf, enter } from "../../tests/support/handlers";

// A plan file with its whole history: saved from one site, read as another, on the real database.

const [site, again] = [v7(), v7()];
const house = lockkeepersHouse();
let ruth = "";
let marek: Awaited<ReturnType<typeof newAccount>>;

async function send(cookie: string, summary: string, work: (edits: PlanEdits) => void, of = site) {
  const { plan, revision } = must(await stores().plans.snapshot(of), "the site");
  const edits = new PlanEdits(plan);
  work(edits);
  const batch = encodeBatch({ id: v7(), planner: "test", summary, args: { n: 1 }, changes: edits.changes() });
  const { POST } = await import("@/app/api/sites/[site]/batches/route");
  const answer = await ask(POST, { method: "POST", params: { site: of }, body: { revision, batch }, cookie });
  expect(answer.status).toBe(200);
}
async function step(way: "undo" | "redo", cookie: string, of: string): Promise<number> {
  const { POST } =
    way === "undo"
      ? await import("@/app/api/sites/[site]/undo/route")
      : await import("@/app/api/sites/[site]/redo/route");
  return (await ask(POST, { method: "POST", params: { site: of }, body: { id: v7() }, cookie })).status;
}
async function saved(of: string, file = "plan-with-history.json"): Promise<Record<string, unknown>> {
  const { GET } = await import("@/app/api/sites/[site]/exports/[file]/route");
  const answer = await ask(GET, { method: "GET", params: { site: of, file }, cookie: ruth });
  expect(answer.status).toBe(200);
  return (await answer.json()) as Record<string, unknown>;
}
async function begin(id: string, file: unknown, batch = v7()) {
  const { POST } = await import("@/app/api/sites/route");
  const body = { by: "file", id, batch, file };
  const answer = await ask(POST, { method: "POST", body, cookie: ruth });
  return { status: answer.status, text: await answer.text() };
}
async function logOf(of: string): Promise<LogEntryAnswer[]> {
  const { GET } = await import("@/app/api/sites/[site]/batches/route");
  const answer = await ask(GET, {
    method: "GET",
    params: { site: of },
    path: "/api/any?after=0",
    cookie: ruth,
  });
  return [...((await answer.json()) as NewsAnswer).entries];
}
/** All of an entry that a file tells; the site's own id is another one. */
const told = ({ author: _, isFromFile: __, ...entry }: LogEntryAnswer, id: string) =>
  JSON.parse(JSON.stringify(entry).replaceAll(id, "the site")) as unknown;

beforeAll(async () => {
  ruth = cookieOf(await enter("Ruth"));
  const { POST } = await import("@/app/api/sites/route");
  const body = { by: "name", id: site, name: "Grown", kind: "home", timeZone: "Europe/London" };
  expect((await ask(POST, { method: "POST", body, cookie: ruth })).status).toBe(200);
  marek = await newAccount("History Marek", { kind: "site", id: site }, "editor");
  await send(ruth, "a room", (edits) => edits.put("room", must([...house.room.values()][0], "a room")));
  await send(marek.cookie, "another name", (edits) => edits.patch("site", site, { name: "Grown up" }));
  expect(await step("undo", marek.cookie, site)).toBe(200);
  expect(await step("redo", marek.cookie, site)).toBe(200);
});
afterAll(closeStores);

test("a site saved and read as another has the same history, and nobody's own to undo", async () => {
  const file = await saved(site);
  expect(file.history).toHaveLength(4);
  expect(await begin(again, file)).toMatchObject({ status: 200 });
  const [was, is] = [await logOf(site), await logOf(again)];
  expect(is.map((entry) => told(entry, again))).toEqual(was.map((entry) => told(entry, site)));
  expect(is.map(({ isFromFile }) => isFromFile)).toEqual([true, true, true, true]);
  expect(was.map(({ isFromFile }) => isFromFile)).toEqual([false, false, false, false]);
  // And once more: what came with a file goes with one.
  const anew = await saved(again);
  expect(JSON.stringify(anew).replaceAll(again, "the site")).toBe(
    JSON.stringify(file).replaceAll(site, "the site"),
  );

  expect(await step("undo", ruth, again)).toBe(409);
  await send(ruth, "her own", (edits) => edits.patch("site", again, { name: "Anew" }), again);
  expect(await step("undo", ruth, again)).toBe(200);
  expect((await stores().plans.snapshot(again))?.plan.site.name).toBe("Grown up");
  // Sent again after a lost answer it is the same site.
  expect(await begin(again, file)).toMatchObject({ status: 200 });
  expect(await logOf(again)).toHaveLength(6);
});

test("whoever is named in the file is found in History, and no file of theirs tells of it", async () => {
  const { GET } = await import("@/app/api/sites/[site]/history/route");
  const path = `/api/any?before=9&by=${encodeURIComponent("History Marek")}`;
  const answer = await ask(GET, { method: "GET", params: { site: again }, path, cookie: ruth });
  const lines = (await answer.json()) as LogLineAnswer[];
  expect(lines.map(({ revision, authorName }) => [revision, authorName])).toEqual(
    [4, 3, 2].map((revision) => [revision, "History Marek"]),
  );
  // What Ruth has by that import is not what she did.
  const [imported] = await logOf(again);
  const data = must(await stores().people.dataOf(must(imported, "an entry").author), "Ruth");
  const own = data.changes.filter((row) => (row as { site_id: string }).site_id === again);
  expect(own.map((row) => (row as { revision: number }).revision)).toEqual([5, 6]);
});

test("of a site without gear no drawing is set, and it says so", async () => {
  const { GET } = await import("@/app/api/sites/[site]/exports/[file]/route");
  const params = { site, file: "drawing.svg" };
  const answer = await ask(GET, { method: "GET", params, cookie: ruth });
  expect([answer.status, ((await answer.json()) as { sentence: string }).sentence]).toEqual([
    404,
    "The plan has no gear yet, so there is nothing to draw.",
  ]);
});

test("a history that does not lead to its plan is refused, and nothing is written", async () => {
  const id = v7();
  const file = await saved(site);
  const { status, text } = await begin(id, { ...file, history: (file.history as unknown[]).slice(1, 3) });
  expect(status).toBe(422);
  expect(text).toMatch(/does not lead to what follows it/);
  // Nor is one that has the id of the import itself.
  const [, , third] = file.history as { id: string }[];
  expect((await begin(id, file, must(third, "a change").id)).status).toBe(422);
  expect(await stores().plans.snapshot(id)).toBeNull();
});

test("a history whose older end is missing begins with one batch that tells what was there", async () => {
  const id = v7();
  const file = await saved(site);
  expect(await begin(id, { ...file, history: (file.history as unknown[]).slice(2) })).toMatchObject({
    status: 200,
  });
  const entries = await logOf(id);
  expect(await step("undo", ruth, id)).toBe(409);
  expect(entries.map(({ revision, isFromFile, planner }) => [revision, isFromFile, planner])).toEqual([
    [2, true, "import-plan"],
    [3, true, "undo"],
    [4, true, "redo"],
  ]);
});
