import "fake-indexeddb/auto";
import { v7 } from "uuid";
import { encodeEntry, type RecordEntry } from "@/core/records";
import { aTick } from "@/core/testing/a-tick";
import type { Call, Called } from "../plan-store/api";
import { forgetRecords, makeOutbox, type FromServer, type Outbox } from "./outbox";
import { createRecordStore } from "./store";

const AT = "2026-11-29T09:00:00.000Z";
const end = (note = ""): RecordEntry => ({ id: v7(), at: AT, do: "end", note });
const start = (): RecordEntry => ({ id: v7(), at: AT, do: "start", from: "box", name: "", changes: [] });

/** A server with a record, as the routes answer; it can be down, or not take some notes. */
class Server {
  entries: FromServer[] = [];
  isDown = false;
  refuses = "";
  requests: number[] = [];
  photos: string[] = [];
  photoRefusal: string | null = null;

  add(by: string, entry: unknown): void {
    const { id } = entry as { id: string };
    if (!this.entries.some((fromServer) => (fromServer.entry as { id: string }).id === id))
      this.entries.push({ number: this.entries.length + 1, by, entry });
  }

  callFor(by: string) {
    return async <T>(path: string, method = "GET", body?: unknown): Promise<Called<T>> => {
      await Promise.resolve();
      if (this.isDown)
        return { ok: false, status: 0, refused: { code: "no-answer", sentence: "No answer." } } as Called<T>;
      if (method === "GET") {
        const after = Number(path.split("after=")[1]);
        const rest = this.entries.filter(({ number }) => number > after);
        const value = { entries: rest.slice(0, 7), isMore: rest.length > 7, last: this.entries.length };
        return { ok: true, value: value as T };
      }
      if (path.endsWith("/photos")) {
        const { id, jpeg } = body as { id: string; jpeg: string };
        if (this.photoRefusal !== null)
          return {
            ok: false,
            status: 409,
            refused: { code: "photos-full", sentence: this.photoRefusal },
          } as Called<T>;
        this.photos.push(`${id} ${jpeg}`);
        return { ok: true, value: { id } as T };
      }
      const { entries } = body as { entries: { note?: string }[] };
      if (this.refuses !== "" && entries.some(({ note }) => note === this.refuses))
        return {
          ok: false,
          status: 400,
          refused: { code: "bad-request", sentence: "Not this." },
        } as Called<T>;
      this.requests.push(entries.length);
      for (const entry of entries) this.add(by, entry);
      return { ok: true, value: { last: this.entries.length } as T };
    };
  }
}

const storeOf = (server: Server, site: string, person = "Ruth") =>
  createRecordStore({
    site,
    person,
    role: "field",
    call: server.callFor(person),
    outbox: makeOutbox(site, person),
  });
type Store = ReturnType<typeof storeOf>;

const notes = (store: Store) =>
  store.getState().record.map(({ by, entry }) => `${by} ${entry.do === "end" ? entry.note : entry.do}`);

/** Everything that is under way has come to its end. */
async function settle(): Promise<void> {
  for (let turn = 0; turn < 40; turn += 1) await new Promise((done) => setTimeout(done, 1));
}

test("what is written down stands at once, is sent, and comes to the other person", async () => {
  const [server, site] = [new Server(), v7()];
  const [ruth, marek] = [storeOf(server, site), storeOf(server, site, "Marek")];
  ruth.add(end("a"));
  expect(notes(ruth)).toEqual(["Ruth a"]);
  await settle();
  expect(ruth.getState()).toMatchObject({ waiting: [], trouble: null, isKept: true });
  await marek.sync();
  expect(notes(marek)).toEqual(["Ruth a"]);
  const { record } = marek.getState();
  await marek.sync();
  expect(marek.getState().record).toBe(record);
  marek.add(end("b"));
  await settle();
  await ruth.sync();
  expect(notes(ruth)).toEqual(["Ruth a", "Marek b"]);
});

test("without a connection it waits, over a reload, and is sent in its order when there is one", async () => {
  const [server, site] = [new Server(), v7()];
  const before = storeOf(server, site);
  before.add(end("first"));
  await settle();
  server.isDown = true;
  for (const note of ["second", "third"]) before.add(end(note));
  await settle();
  expect(before.getState()).toMatchObject({
    trouble: "The server does not answer. Your changes are kept here and are sent when it does.",
    waiting: [{ note: "second" }, { note: "third" }],
  });
  const after = storeOf(server, site);
  await after.sync();
  expect(notes(after)).toEqual(["Ruth first", "Ruth second", "Ruth third"]);
  expect(after.getState().waiting).toHaveLength(2);
  server.isDown = false;
  await after.sync();
  expect(after.getState()).toMatchObject({ waiting: [], trouble: null });
  expect(server.entries.map(({ entry }) => (entry as { note: string }).note)).toEqual([
    "first",
    "second",
    "third",
  ]);
  const again = storeOf(server, site);
  await again.open();
  expect(again.getState().waiting).toEqual([]);
});

test("reloaded at any moment a page has an entry: as one that waits, or as the server's", async () => {
  const [server, site] = [new Server(), v7()];
  const outbox = makeOutbox(site, "Ruth");
  const slow: Outbox = {
    ...outbox,
    learn: async (entries) => {
      await settle();
      await outbox.learn(entries);
    },
  };
  const call = server.callFor("Ruth");
  const store = createRecordStore({ site, person: "Ruth", role: "field", call, outbox: slow });
  store.add(end("a"));
  const kept: boolean[] = [];
  for (let turn = 0; turn < 60; turn += 1) {
    await new Promise((done) => setTimeout(done, 1));
    const [waiting, known] = [await outbox.waiting(), await outbox.known()];
    kept.push(waiting.length + known.length > 0);
  }
  expect(kept.slice(kept.indexOf(true))).not.toContain(false);
  expect(await outbox.known()).toHaveLength(1);
  expect(await outbox.waiting()).toEqual([]);
});

test("what is added after the last look at what waits is sent all the same", async () => {
  const [server, site] = [new Server(), v7()];
  const answers = server.callFor("Ruth");
  const call: Call = async <T>(...asked: Parameters<Call>) => {
    const answer = await answers<T>(...asked);
    if (server.entries.length === 0) store.add(end("late"));
    await settle();
    return answer;
  };
  const store = createRecordStore({
    ...{ site, person: "Ruth", role: "field", call, outbox: makeOutbox(site, "Ruth") },
  });
  await store.sync();
  expect(store.getState()).toMatchObject({ waiting: [], trouble: null });
  expect(notes(store)).toEqual(["Ruth late"]);
});

test("what waits of one person is not sent as another's", async () => {
  const [server, site] = [new Server(), v7()];
  server.isDown = true;
  const ruth = storeOf(server, site);
  ruth.add(end("hers"));
  await settle();
  server.isDown = false;
  const marek = storeOf(server, site, "Marek");
  await marek.sync();
  expect([server.entries, notes(marek)]).toEqual([[], []]);
});

test("one that is not taken is set aside with its reason, and the others go", async () => {
  const [server, site] = [new Server(), v7()];
  const store = storeOf(server, site);
  server.isDown = true;
  const wrong = end("wrong");
  for (const entry of [end("a"), wrong, end("b")]) store.add(entry);
  await settle();
  server.isDown = false;
  server.refuses = "wrong";
  await store.sync();
  expect(notes(store)).toEqual(["Ruth a", "Ruth b"]);
  expect(store.getState().refused).toEqual([{ entry: wrong, sentence: "Not this." }]);
  const outbox = makeOutbox(site, "Ruth");
  expect((await outbox.waiting()).map(({ id }) => id)).toEqual([wrong.id]);
  store.drop(wrong.id);
  await settle();
  expect([store.getState().refused, await outbox.waiting()]).toEqual([[], []]);
});

test("what begins a visit goes alone, the rest in parts, and a long record comes page by page", async () => {
  const [server, site] = [new Server(), v7()];
  server.isDown = true;
  const store = storeOf(server, site);
  const all = [start(), ...Array.from({ length: 60 }, () => end("x")), start(), end("y")];
  for (const entry of all) store.add(entry);
  await settle();
  server.isDown = false;
  await store.sync();
  expect(server.requests).toEqual([1, 50, 10, 1, 1]);
  expect(store.getState().record.map(({ entry }) => entry.id)).toEqual(all.map(({ id }) => id));
});

test("a record that was begun anew under the same site replaces what was known", async () => {
  const [server, site] = [new Server(), v7()];
  for (const note of ["a", "b", "c"]) server.add("Ruth", encodeEntry(end(note)));
  const before = storeOf(server, site);
  await before.sync();
  server.entries = [];
  await before.sync();
  expect(notes(before)).toEqual([]);
  server.add("Marek", encodeEntry(end("anew")));
  const after = storeOf(server, site);
  await after.sync();
  expect(notes(after)).toEqual(["Marek anew"]);
});

test("an entry that a newer version wrote is told, not left out without a word", async () => {
  const [server, site] = [new Server(), v7()];
  server.add("Ruth", { ...(encodeEntry(end()) as object), do: "sing" });
  const store = storeOf(server, site);
  await store.sync();
  expect(store.getState().trouble).toMatch(/newer version/);
});

test("who signs out leaves what is not sent yet, and nothing of what the server has", async () => {
  const [server, site] = [new Server(), v7()];
  const store = storeOf(server, site);
  store.add(end("sent"));
  await settle();
  server.isDown = true;
  store.add(end("waits"));
  await settle();
  const outbox = makeOutbox(site, "Ruth");
  expect(await outbox.known()).toHaveLength(1);
  await forgetRecords();
  expect(await outbox.known()).toEqual([]);
  expect((await outbox.waiting()).map((entry) => entry.do === "end" && entry.note)).toEqual(["waits"]);
});

test("a browser that keeps nothing says so", async () => {
  const site = v7();
  const none = { ...makeOutbox(site, "Ruth"), put: () => Promise.resolve(false) };
  const server = new Server();
  server.isDown = true;
  const store = createRecordStore({
    site,
    person: "Ruth",
    role: "field",
    call: server.callFor("Ruth"),
    outbox: none,
  });
  store.add(end("a"));
  await settle();
  expect(store.getState()).toMatchObject({ isKept: false, waiting: [{ note: "a" }] });
});

const aPhoto = () => ({ id: v7(), jpeg: Uint8Array.from([1, 2, 3]) });

test("photos wait with what they belong to, over a reload, and go after it by who took them", async () => {
  const [server, site] = [new Server(), v7()];
  server.isDown = true;
  const [photo, other] = [aPhoto(), aPhoto()];
  storeOf(server, site).add(end("with two"), [photo, other]);
  await settle();
  const marek = storeOf(server, site, "Marek");
  const again = storeOf(server, site);
  await again.open();
  expect(again.getState().photos).toEqual([photo, other]);
  server.isDown = false;
  await marek.sync();
  expect([marek.getState().photos, server.photos]).toEqual([[], []]);
  await again.sync();
  expect(server.photos).toEqual([`${photo.id} AQID`, `${other.id} AQID`]);
  expect(again.getState()).toMatchObject({ photos: [], waiting: [], trouble: null });
  const later = storeOf(server, site);
  await later.open();
  expect(later.getState().photos).toEqual([]);
});

test("a photo that is taken out before it was sent is never sent", async () => {
  const [server, site, photo] = [new Server(), v7(), aPhoto()];
  server.isDown = true;
  const store = storeOf(server, site);
  store.add(end("with one"), [photo]);
  store.add({ id: v7(), at: AT, do: "takeOut", photo: photo.id });
  await settle();
  server.isDown = false;
  await store.sync();
  expect([server.photos, server.entries.length]).toEqual([[], 2]);
  expect(await makeOutbox(site, "Ruth").photos()).toEqual([]);
});

test("a site that takes no more photos says so and keeps them; what was ticked goes all the same", async () => {
  const [server, site, photo] = [new Server(), v7(), aPhoto()];
  server.photoRefusal = "It has all its photos.";
  const store = storeOf(server, site);
  store.add(end("with one"), [photo]);
  await settle();
  expect(store.getState()).toMatchObject({ waiting: [], photos: [photo], trouble: "It has all its photos." });
  expect(server.entries).toHaveLength(1);
  server.photoRefusal = null;
  await store.sync();
  expect(store.getState()).toMatchObject({ photos: [], trouble: null });
});

test("whoever lets go of an entry that is not taken lets go of its photos", async () => {
  const [server, site, photo] = [new Server(), v7(), aPhoto()];
  const store = storeOf(server, site);
  server.refuses = "wrong";
  server.photoRefusal = "No step names it.";
  const entry = aTick({ id: v7(), note: "wrong", photos: [photo.id] });
  store.add(entry, [photo]);
  await settle();
  expect(store.getState()).toMatchObject({ refused: [{ entry }], photos: [photo] });
  store.drop(entry.id);
  await settle();
  expect([store.getState().photos, await makeOutbox(site, "Ruth").photos()]).toEqual([[], []]);
});
