import fc from "fast-check";
import { v7 } from "uuid";
import { fennelStreet } from "../../../demo/fennel-street";
import { MAREK, memoryStore, RUTH } from "../../../tests/support/memory-store";
import { commitBatch } from "@/application/commit-batch";
import { newsSince } from "@/application/read-site";
import { storePlan } from "@/application/sites";
import type { Person, PlanStore } from "@/application/stores";
import { redo, undo } from "@/application/undo-redo";
import { batchOf, changeBatchSchema } from "@/core/formats";
import { must } from "@/core/kernel";
import { BLANK_ZONE, diff, PlanEdits, PlanIndex, type ChangeBatch, type Plan } from "@/core/plan";
import { presentEntry } from "@/http/present-entry";
import { presentError } from "@/http/present-error";
import type { Call, Called } from "./api";
import { addBatch, decide, withKept, type Held } from "./held";
import type { PlanState } from "./plan-state";
import { makeSender, type Sender } from "./sender";

const demo = fennelStreet();
const SITE = v7();
const hosts = [...demo.host.values()].slice(0, 3);

/**
 * What the network does to a call: passes it, loses the question, loses the answer, or answers it by itself.
 */
type Weather = "fair" | "question lost" | "answer lost" | 500 | 504 | 429 | 408 | "no JSON";

interface Client {
  readonly state: () => PlanState;
  readonly sender: Sender;
  readonly edit: (work: (edits: PlanEdits) => void) => ChangeBatch;
  readonly show: (held: Held) => void;
  readonly said: string[];
  /** The paths that were asked for. */
  readonly asked: string[];
}

const refusedAs = (
  status: number,
  error: { code: string; sentence: string },
  more: object = {},
): Called<never> => ({ ok: false, status, refused: { ...error, ...more } });
const AWAY = { code: "no-answer", sentence: "The server does not answer." };

/** The server behind the routes, without the routes: what they hand on and answer. */
async function served(store: PlanStore, by: Person, path: string, body: unknown): Promise<Called<never>> {
  const asked = body as { revision: number; batch: unknown; id: string; settled: [] };
  const after = /after=(\d+)/.exec(path)?.[1];
  const step = { site: SITE, batchId: asked?.id, by, mayPlan: true, settled: asked?.settled ?? [] };
  const asks = async () => {
    if (after !== undefined) return newsSince(store, SITE, Number(after), by);
    if (path.endsWith("undo")) return undo(store, step);
    if (path.endsWith("redo")) return redo(store, step);
    const batch = batchOf(changeBatchSchema.parse(asked.batch));
    return commitBatch(store, { site: SITE, revision: asked.revision, batch, by });
  };
  const result = await asks();
  if (!result.ok)
    return refusedAs(
      result.error.code === "broken-plan" ? 422 : 409,
      result.error,
      presentError(result.error),
    );
  const value = result.value as { entries?: Parameters<typeof presentEntry>[0][]; batch?: ChangeBatch };
  return {
    ok: true,
    value: JSON.parse(
      JSON.stringify({ ...value, ...value.batch, changes: [], entries: value.entries?.map(presentEntry) }),
    ) as never,
  };
}

function client(store: PlanStore, by: Person, weather: () => Weather): Client {
  let state = {
    held: null,
    steps: { undo: null, redo: null, undoIsImport: false },
    saving: "saved",
    trouble: null,
    dropped: [],
    asking: false,
    stepClash: null,
  } as unknown as PlanState;
  const [said, asked]: [string[], string[]] = [[], []];
  const show = (held: Held) => {
    state = { ...state, held };
  };
  const call: Call = async (path, _method, body) => {
    asked.push(path);
    const now = weather();
    if (typeof now === "number")
      return refusedAs(now, {
        code: "no-answer",
        sentence: `The server's answer (${now}) could not be read.`,
      });
    if (now === "question lost") return refusedAs(0, AWAY);
    const answer = await served(store, by, path, JSON.parse(JSON.stringify(body ?? null)));
    if (now === "fair") return answer;
    if (now === "answer lost") return refusedAs(0, AWAY);
    return refusedAs(200, { code: "no-answer", sentence: "could not be read" });
  };
  const loadAnew = async () => {
    const found = must(await store.snapshot(SITE), "the site");
    said.push("loaded anew");
    show(withKept(heldAt(found.plan, found.revision), state.held?.pending ?? []));
  };
  const sender = makeSender({
    site: SITE,
    person: by.name,
    call,
    get: () => state,
    set: (part) => {
      state = { ...state, ...part };
    },
    show,
    loadAnew,
    say: (s) => said.push(s),
    random: () => 0.5,
  });
  return {
    state: () => state,
    sender,
    show,
    said,
    asked,
    edit: (work) => {
      const held = must(state.held, "loaded");
      const edits = new PlanEdits(held.index.plan);
      work(edits);
      const batch: ChangeBatch = {
        id: v7(),
        planner: "test",
        summary: "an edit",
        args: null,
        changes: edits.changes(),
      };
      const added = addBatch(held, batch);
      if (batch.changes.length > 0) show(must(added.ok ? added.value : null, "it fits"));
      return batch;
    },
  };
}

// Findings are not what this is about: nothing is judged.
const heldAt = (plan: Plan, revision: number): Held => ({
  base: plan,
  revision,
  pending: [],
  stuck: [],
  index: PlanIndex.of(plan),
  judged: null,
});

async function scene(
  weather: () => Weather = () => "fair",
): Promise<{ store: PlanStore; ruth: Client; marek: Client; server: () => Promise<Plan> }> {
  const store = memoryStore();
  // By a third: taking the whole plan back is nothing that these two do by chance.
  await storePlan(store, { id: SITE, batchId: v7(), plan: demo, by: { id: v7(), name: "Ann" } });
  const found = must(await store.snapshot(SITE), "the site");
  const [ruth, marek] = [client(store, RUTH, weather), client(store, MAREK, weather)];
  for (const client of [ruth, marek]) client.show(heldAt(found.plan, 1));
  return { store, ruth, marek, server: async () => must(await store.snapshot(SITE), "the site").plan };
}
const rename = (n: number, name: string) => (edits: PlanEdits) => {
  if (edits.get("host", must(hosts[n], "a host").id) !== undefined)
    edits.patch("host", must(hosts[n], "a host").id, { name });
};

jest.useFakeTimers();
afterEach(() => jest.clearAllTimers());

/** Lets everything that waits be tried again, a few times. */
async function settle(clients: readonly Client[]): Promise<void> {
  for (let round = 0; round < 12; round += 1) {
    await jest.advanceTimersByTimeAsync(40_000);
    for (const { sender } of clients) {
      await sender.idle();
      await sender.refresh();
    }
  }
}

test.each<[Weather]>([[500], [504], [429], [408], ["no JSON"], ["question lost"], ["answer lost"]])(
  "the answer %s keeps the edit, says that it waits, and sends it again",
  async (bad) => {
    let now: Weather = bad;
    const { ruth, server } = await scene(() => now);
    ruth.edit(rename(0, "Kept"));
    await ruth.sender.idle();
    expect([ruth.state().held?.pending.length, ruth.state().saving, ruth.state().dropped]).toEqual([
      1,
      "waiting",
      [],
    ]);
    expect(ruth.state().trouble).toMatch(/Your changes are kept here and are sent (again|when it does)\.$/);
    now = "fair";
    await settle([ruth]);
    expect([
      ruth.state().held?.pending.length,
      ruth.state().saving,
      (await server()).host.get(must(hosts[0], "").id)?.name,
    ]).toEqual([0, "saved", "Kept"]);
  },
);

test("what can never be taken is named with its reason, and only what builds on it goes with it", async () => {
  const { ruth, server } = await scene();
  const zone = v7();
  ruth.edit((edits) =>
    edits.put("zone", { id: zone, ...BLANK_ZONE, name: "x".repeat(60), insideOpen: true }),
  );
  const bad = must(ruth.state().held?.pending[0], "it waits");
  // Another id of the same batch's entity, as only a broken client would send it.
  ruth.show({
    ...must(ruth.state().held, ""),
    pending: [
      {
        ...bad,
        changes: bad.changes.map((change) => ({ ...change, after: { ...change.after, id: v7() } }) as never),
      },
    ],
  });
  ruth.edit((edits) => edits.patch("zone", zone, { name: "Barn" }));
  ruth.edit(rename(1, "Beside it"));
  await settle([ruth]);
  expect(ruth.state().dropped.map(({ sentence }) => sentence)).toEqual([
    expect.stringMatching(/ids stay as they are/),
    expect.stringMatching(/builds on/),
  ]);
  expect([(await server()).host.get(must(hosts[1], "").id)?.name, (await server()).zone.has(zone)]).toEqual([
    "Beside it",
    false,
  ]);
});

test("a batch that the server knows and somebody has undone is sent once and no more", async () => {
  const { store, ruth, server } = await scene();
  const made = ruth.edit(rename(0, "Undone"));
  await settle([ruth]);
  await undo(store, { site: SITE, batchId: v7(), by: RUTH, mayPlan: true, settled: [] });
  const again = client(store, RUTH, () => "fair");
  again.show(withKept(heldAt(await server(), 3), [made]));
  let calls = 0;
  const counted = again.sender;
  void counted.idle().then(() => {
    calls += 1;
  });
  await settle([again]);
  expect([calls, again.state().held?.pending, again.state().saving]).toEqual([1, [], "saved"]);
  expect((await server()).host.get(must(hosts[0], "").id)?.name).toBe(must(hosts[0], "").name);
});

test("a server that is behind (back from a copy) is loaded anew, with what waits on top", async () => {
  const { ruth } = await scene();
  ruth.show({ ...must(ruth.state().held, ""), revision: 9 });
  ruth.edit(rename(0, "On top"));
  await settle([ruth]);
  expect([
    ruth.said.includes("loaded anew"),
    ruth.state().held?.revision,
    ruth.state().held?.pending.length,
  ]).toEqual([true, 2, 0]);
});

test("two who want one field: the second is asked, both values stay, the choice is saved", async () => {
  const { ruth, marek, server } = await scene();
  ruth.edit(rename(0, "Ruth's"));
  marek.edit(rename(0, "Marek's"));
  marek.edit(rename(1, "Goes on"));
  await ruth.sender.idle();
  await marek.sender.idle();
  const held = must(marek.state().held, "loaded");
  expect(held.stuck).toMatchObject([{ clashes: [{ field: "name", mine: "Marek's", theirs: "Ruth's" }] }]);
  expect((await server()).host.get(must(hosts[1], "").id)?.name).toBe("Goes on");
  marek.show(decide(held, must(held.stuck[0], "").batch.id, () => "mine"));
  await settle([ruth, marek]);
  expect([
    (await server()).host.get(must(hosts[0], "").id)?.name,
    ruth.state().held?.index.plan.host.get(must(hosts[0], "").id)?.name,
  ]).toEqual(["Marek's", "Marek's"]);
});

test("an undo that meets a later change asks with both values and keeps what was chosen", async () => {
  const { ruth, marek, server } = await scene();
  ruth.edit(rename(0, "Ruth's"));
  await settle([ruth, marek]);
  marek.edit(rename(0, "Marek's"));
  await settle([marek, ruth]);
  expect(await ruth.sender.step("undo")).toBeNull();
  const question = must(ruth.state().stepClash, "a question");
  expect([ruth.state().asking, question.clashes]).toMatchObject([
    true,
    [{ field: "name", mine: must(hosts[0], "").name, theirs: "Marek's" }],
  ]);
  expect(await ruth.sender.step("undo", { clashes: question.clashes, choose: () => "mine" })).toBeNull();
  expect([ruth.state().stepClash, (await server()).host.get(must(hosts[0], "").id)?.name]).toEqual([
    null,
    must(hosts[0], "").name,
  ]);
});

test("a step whose answer is lost is done once, however often it is asked for", async () => {
  let now: Weather = "fair";
  const { ruth, server } = await scene(() => now);
  const names = async () => {
    const { host } = await server();
    return [0, 1].map((n) => host.get(must(hosts[n], "a host").id)?.name);
  };
  const [first, second] = hosts.map(({ name }) => name);
  for (const n of [0, 1]) {
    ruth.edit(rename(n, `Renamed ${n}`));
    await settle([ruth]);
  }
  const asked = async (way: "undo" | "redo") => {
    now = "answer lost";
    expect(await ruth.sender.step(way)).toBe(AWAY.sentence);
    now = "fair";
    expect(await ruth.sender.step(way)).toBeNull();
    return names();
  };
  expect(await asked("undo")).toEqual(["Renamed 0", second]);
  expect(await asked("undo")).toEqual([first, second]);
  expect(await asked("redo")).toEqual(["Renamed 0", second]);
});

test("a step that is asked for twice before the first is answered is done twice", async () => {
  const { ruth, server } = await scene();
  for (const n of [0, 1]) {
    ruth.edit(rename(n, `Renamed ${n}`));
    await settle([ruth]);
  }
  expect(await Promise.all([ruth.sender.step("undo"), ruth.sender.step("undo")])).toEqual([null, null]);
  const { host } = await server();
  for (const { id, name } of hosts) expect(host.get(id)?.name).toBe(name);
});

/** What the server tells by itself of everything after a revision. */
async function toldAfter(store: PlanStore, after: number): Promise<Parameters<Sender["hear"]>[0]> {
  const { revision, entries } = must(await store.news(SITE, after), "the site");
  return { revision, news: { after, entries: JSON.parse(JSON.stringify(entries.map(presentEntry))) } };
}

test("what is told goes on without a question; mine from elsewhere and gaps are asked for", async () => {
  const { store, ruth, marek, server } = await scene();
  marek.edit(rename(0, "Told"));
  marek.edit((edits) => edits.patch("host", must(hosts[1], "").id, { place: "Barn" }));
  await settle([marek]);
  ruth.asked.length = 0;
  await ruth.sender.hear(await toldAfter(store, 1));
  // Once more, and from further back: nothing is done twice.
  await ruth.sender.hear(await toldAfter(store, 1));
  await ruth.sender.hear(await toldAfter(store, 0));
  await ruth.sender.hear({ revision: 3, news: null });
  expect([ruth.state().held?.revision, ruth.asked]).toEqual([3, []]);
  expect(diff(must(ruth.state().held, "").base, await server())).toEqual([]);

  const again = client(store, RUTH, () => "fair");
  again.show(heldAt(await server(), 3));
  again.edit(rename(2, "In another tab"));
  await settle([again]);
  ruth.asked.length = 0;
  await ruth.sender.hear(await toldAfter(store, 3));
  expect([ruth.asked, ruth.state().steps.undo]).toEqual([[`/api/sites/${SITE}/batches?after=3`], "an edit"]);

  marek.edit(rename(0, "Twice"));
  await settle([marek]);
  marek.edit(rename(0, "Thrice"));
  await settle([marek]);
  ruth.asked.length = 0;
  // What lies between was not heard, or is too much to be told.
  await ruth.sender.hear(await toldAfter(store, 5));
  expect([ruth.asked.length, ruth.state().held?.revision]).toEqual([1, 6]);
  marek.edit(rename(0, "Once more"));
  await settle([marek]);
  await ruth.sender.hear({ revision: 7, news: null });
  expect([ruth.asked.length, ruth.state().held?.revision]).toEqual([2, 7]);
});

const anyWeather = fc.constantFrom<Weather>(
  "fair",
  "fair",
  "fair",
  "question lost",
  "answer lost",
  500,
  429,
  "no JSON",
);
const anyAct = fc.record({
  who: fc.nat(1),
  what: fc.constantFrom(
    "name" as const,
    "place" as const,
    "port" as const,
    "send" as const,
    "news" as const,
    "told" as const,
    "undo" as const,
    "choose" as const,
  ),
  n: fc.nat(2),
  text: fc.constantFrom("Mill", "Barn", "Kiln"),
});

test("two who edit, lose connections, undo and choose come to the server's plan, nothing waits", async () => {
  let [asked, bad] = [0, 0];
  await fc.assert(
    fc.asyncProperty(
      fc.array(anyAct, { minLength: 4, maxLength: 24 }),
      fc.infiniteStream(anyWeather),
      async (acts, weathers) => {
        let calm = false;
        const { store, ruth, marek, server } = await scene(() => {
          const now = calm ? "fair" : (weathers.next().value ?? "fair");
          if (now !== "fair") bad += 1;
          return now;
        });
        const both = [ruth, marek];
        const choose = (client: Client) => {
          const held = must(client.state().held, "loaded");
          const first = held.stuck[0];
          if (first !== undefined) {
            asked += 1;
            client.show(decide(held, first.batch.id, ({ field }) => (field === "place" ? "theirs" : "mine")));
          }
        };
        for (const { who, what, n, text } of acts) {
          const client = must(both[who], "a client");
          if (what === "name") client.edit(rename(n, text));
          if (what === "place")
            client.edit((edits) => edits.patch("host", must(hosts[n], "").id, { place: text }));
          if (what === "port")
            client.edit((edits) => {
              const port = must([...edits.plan.port.values()][n], "a port");
              edits.patch("port", port.id, { note: text });
            });
          if (what === "send") await client.sender.idle();
          if (what === "news") await client.sender.refresh();
          // Of the last few, as after a pause; or with a gap before them, or as too much.
          if (what === "told") {
            const after = Math.max(0, must(client.state().held, "loaded").revision + 1 - n);
            const told = await toldAfter(store, after);
            await client.sender.hear(text === "Kiln" ? { ...told, news: null } : told);
          }
          if (what === "undo") await client.sender.step("undo");
          if (what === "choose") choose(client);
        }
        calm = true;
        for (let round = 0; round < 4; round += 1) {
          await settle(both);
          both.forEach(choose);
        }
        await settle(both);
        for (const client of both) {
          const held = must(client.state().held, "loaded");
          expect([held.pending, held.stuck, client.state().dropped]).toEqual([[], [], []]);
          expect(diff(held.index.plan, await server())).toEqual([]);
          expect(diff(held.base, held.index.plan)).toEqual([]);
        }
        for (const { sender } of both) sender.stop();
      },
    ),
    { numRuns: 160, seed: 21 },
  );
  expect(Math.min(asked, bad)).toBeGreaterThan(20);
});
