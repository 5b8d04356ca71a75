import { v7 } from "uuid";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { addPhoto } from "@/application/photos";
import type { PhotoStore } from "@/application/stores";
import { encodePlan } from "@/core/formats";
import { must } from "@/core/kernel";
import { encodeEntry, photosToFile, recordsToFile, type Recorded, type RecordEntry } from "@/core/records";
import { aTestTaken, aTick } from "@/core/testing/a-tick";
import { openDatabase } from "@/storage/pool";
import { photoStore } from "@/storage/photo-store";
import { sql } from "@/storage/sql";
import { JPEG, PROGRESSIVE_JPEG, withSegment } from "../../tests/support/jpeg";
import { ask, closeStores, cookieOf, databaseUrl, enter } from "../../tests/support/handlers";

const database = openDatabase(databaseUrl);
const AT = "2026-11-29T09:00:00.000Z";
const file = encodePlan(lockkeepersHouse()) as object;
let cookies: Record<"ruth" | "marek", string> = { ruth: "", marek: "" };

beforeAll(async () => {
  cookies = { ruth: cookieOf(await enter("Ruth")), marek: cookieOf(await enter("Marek")) };
});
afterAll(async () => {
  await database.close();
  await closeStores();
});

async function makeSite(beside: object = {}) {
  const { POST } = await import("@/app/api/sites/route");
  const body = { by: "file", id: v7(), batch: v7(), file: { ...file, ...beside } };
  const answer = await ask(POST, { method: "POST", body, cookie: cookies.ruth });
  return { status: answer.status, ...((await answer.json()) as { id?: string; sentence?: string }) };
}
const aSite = async (): Promise<string> => must((await makeSite()).id, "a site");

const base64 = (jpeg: Uint8Array): string => Buffer.from(jpeg).toString("base64");

async function post(site: string, body: unknown, cookie = cookies.ruth) {
  const { POST } = await import("@/app/api/sites/[site]/photos/route");
  const answer = await ask(POST, { method: "POST", body, params: { site }, cookie });
  return { status: answer.status, ...((await answer.json()) as { code?: string; sentence?: string }) };
}

async function get(site: string, photo: string, cookie = cookies.marek) {
  const { GET } = await import("@/app/api/sites/[site]/photos/[photo]/route");
  const answer = await ask(GET, { method: "GET", params: { site, photo }, cookie });
  const type = answer.headers.get("content-type");
  const bytes = new Uint8Array(await answer.arrayBuffer());
  return { status: answer.status, type, bytes, kept: answer.headers.get("cache-control") };
}

async function add(site: string, ...entries: RecordEntry[]): Promise<number> {
  const { POST } = await import("@/app/api/sites/[site]/record/route");
  const body = { entries: entries.map(encodeEntry) };
  return (await ask(POST, { method: "POST", body, params: { site }, cookie: cookies.ruth })).status;
}
/** A step that names photos. */
const tick = (...photos: string[]): RecordEntry => aTick({ id: v7(), photos });
/** A reading of a test that does. */
const reading = (...photos: string[]): RecordEntry => aTestTaken({ id: v7(), photos });
const takeOut = (photo: string): RecordEntry => ({ id: v7(), at: AT, do: "takeOut", photo });

test.each([
  ["step", tick],
  ["reading", reading],
])(
  "a photo of a %s comes back as a picture, without what else was in it; sent twice it counts once",
  async (_, naming) => {
    const [site, id] = [await aSite(), v7()];
    const told = withSegment(JPEG, 0xe1, "Exif GPS 51.5N");
    expect(await post(site, { id, jpeg: base64(told) })).toMatchObject({
      status: 404,
      sentence: "No step or reading of the record names this photo.",
    });
    expect(await add(site, naming(id))).toBe(200);
    expect((await get(site, id)).status).toBe(404);
    expect(await post(site, { id, jpeg: base64(told) })).toMatchObject({ status: 200 });
    expect(await post(site, { id, jpeg: base64(PROGRESSIVE_JPEG) })).toMatchObject({ status: 200 });
    expect(await get(site, id)).toEqual({ status: 200, type: "image/jpeg", bytes: JPEG, kept: "no-store" });
    expect((await get(await aSite(), id)).status).toBe(404);
  },
);

test("what is taken out is gone, also where it comes late, and does not come back", async () => {
  const [site, sent, late] = [await aSite(), v7(), v7()];
  await add(site, tick(sent, late));
  await post(site, { id: sent, jpeg: base64(JPEG) });
  expect(await add(site, takeOut(sent), takeOut(late), tick(sent))).toBe(200);
  for (const id of [sent, late]) {
    expect((await post(site, { id, jpeg: base64(JPEG) })).status).toBe(200);
    expect((await get(site, id)).status).toBe(404);
  }
  const left = await database.all(
    sql`SELECT id FROM photo WHERE site_id = ${site} AND jpeg IS NOT NULL`,
    (row) => row,
  );
  expect(left).toEqual([]);
});

test.each([
  ["no picture", { id: v7(), jpeg: base64(Buffer.from("<script>")) }, 422, /whole JPEG/],
  ["no base64", { id: v7(), jpeg: "?" }, 400, /base64/],
  ["no id", { id: "x", jpeg: base64(JPEG) }, 400, /An id is a UUID/],
  ["a field too many", { id: v7(), jpeg: base64(JPEG), type: "text/html" }, 400, /type/],
  ["far too large", { id: v7(), jpeg: "A".repeat(400_000) }, 413, /300 kB/],
  ["too large", { id: v7(), jpeg: "A".repeat(280_000) }, 400, /at most 200 kB/],
])("%s is refused in a sentence, and nothing is kept", async (_, body, status, words) => {
  const site = await aSite();
  const refused = await post(site, body);
  expect([refused.status, refused.sentence]).toEqual([status, expect.stringMatching(words)]);
  const kept = await database.all(sql`SELECT id FROM photo WHERE site_id = ${site}`, (row) => row);
  expect(kept).toEqual([]);
});

test("a stranger gets nothing in and nothing out; a site that is not there says so", async () => {
  const [site, id] = [await aSite(), v7()];
  await add(site, tick(id));
  expect((await post(site, { id, jpeg: base64(JPEG) }, "")).status).toBe(401);
  await post(site, { id, jpeg: base64(JPEG) });
  expect((await get(site, id, "")).status).toBe(401);
  expect((await post(v7(), { id, jpeg: base64(JPEG) })).status).toBe(404);
});

test("a site that has all its photos takes no more until one is taken out", async () => {
  const [site, first] = [await aSite(), v7()];
  const store = photoStore(database);
  const narrow: PhotoStore = { ...store, add: (to, photo) => store.add(to, photo, 2) };
  const give = async (photo: string) => {
    await add(site, tick(photo));
    return addPhoto(narrow, site, { id: photo, jpeg: JPEG });
  };
  expect([await give(first), await give(v7())]).toMatchObject([{ ok: true }, { ok: true }]);
  const more = v7();
  expect(await give(more)).toMatchObject({ ok: false, error: { code: "photos-full" } });
  expect(await give(first)).toMatchObject({ ok: true });
  await add(site, takeOut(first));
  expect(await give(more)).toMatchObject({ ok: true });
});

test("photos go with the plan file to another machine; a broken one makes no site", async () => {
  const [shown, other] = [v7(), v7()];
  const record: Recorded[] = [{ by: "Agnes of elsewhere", entry: tick(shown, other) }];
  const records = recordsToFile(record);
  const photos = photosToFile([{ id: shown, jpeg: JPEG }]);
  const site = must((await makeSite({ records, photos })).id, "the site");
  expect((await get(site, shown)).bytes).toEqual(JPEG);
  // The other had not come when the file was written: whoever has it can still send it.
  expect((await post(site, { id: other, jpeg: base64(JPEG) })).status).toBe(200);
  const cut = photosToFile([{ id: other, jpeg: JPEG.slice(0, 100) }]);
  const broken = await makeSite({ records, photos: [...photos, ...cut] });
  expect([broken.status, broken.sentence]).toEqual([422, expect.stringMatching(/^photos\[1\]\.jpeg/)]);
});

test("a site that is deleted for good takes its photos with it", async () => {
  const [site, id] = [await aSite(), v7()];
  await add(site, tick(id));
  await post(site, { id, jpeg: base64(JPEG) });
  const { DELETE } = await import("@/app/api/sites/[site]/route");
  await ask(DELETE, { method: "DELETE", params: { site }, cookie: cookies.ruth });
  const { POST } = await import("@/app/api/bin/route");
  await ask(POST, { method: "POST", body: { site, do: "forget" }, cookie: cookies.ruth });
  const left = await database.all(sql`SELECT id FROM photo WHERE site_id = ${site}`, (row) => row);
  expect(left).toEqual([]);
});
