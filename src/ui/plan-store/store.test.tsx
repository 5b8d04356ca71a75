import { fennelStreet } from "../../../demo/fennel-street";
import { listFindings, runChecks, type FindingsByCode } from "@/core/checks";
import { editSegment, removeSegments } from "@/core/commands";
import { must } from "@/core/kernel";
import { PlanIndex, type ChangeBatch, type Plan } from "@/core/plan";
import type { Loaded } from "./plan-worker";
import { createPlanStore } from "./store";

// The store as the page has it, with a worker and a server that the test plays.

const plan: Plan = PlanIndex.of(fennelStreet()).plan;
const TODAY = "2026-11-28";
const found = runChecks(PlanIndex.of(plan, TODAY));
const steps = { undo: "Something before", redo: null, undoIsImport: false };
const loadedWith = (findings: Loaded["findings"]): Loaded => ({
  revision: 7,
  plan,
  today: TODAY,
  steps,
  findings,
});
const LOADED = loadedWith(Promise.resolve(found));
/** What the server answers: the plan, with what comes of the worker's checks. */
const answers = (value: Loaded) => () => Promise.resolve({ ok: true, value });

interface Played {
  load: () => Promise<unknown>;
  restored: readonly ChangeBatch[];
}
const mockPlayed: Played = { load: answers(LOADED), restored: [] };
const mockSent: { readonly path: string; readonly body: unknown }[] = [];
jest.mock("./plan-worker", () => ({
  loadPlan: () => mockPlayed.load(),
}));
jest.mock("./api", () => ({
  call: (path: string, init?: { readonly body?: unknown }) => {
    mockSent.push({ path, body: init?.body });
    return new Promise(() => {});
  },
}));
jest.mock("./waiting", () => ({
  makeKeeper: () => ({
    restore: () => Promise.resolve(mockPlayed.restored),
    keep: () => {},
    settled: () => Promise.resolve(),
    wouldBeLost: () => false,
  }),
}));
const mockSize = { isLarge: false };
jest.mock("./judge", () => ({
  ...jest.requireActual<object>("./judge"),
  isLarge: () => mockSize.isLarge,
}));
jest.mock("./browser", () => ({ thisBrowser: () => ({}) }));
jest.mock("sonner", () => ({ toast: Object.assign(() => {}, { error: () => {} }) }));

/** Lets everything that waits for a promise go on. */
const turn = () => new Promise((done) => setTimeout(done, 0));
// What an edit sends a moment later is its own test's.
afterEach(turn);
const later = <T,>() => {
  let give: (value: T) => void = () => {};
  const promise = new Promise<T>((done) => {
    give = done;
  });
  return { promise, give };
};
const staff = must(
  [...plan.segment.values()].find(({ name }) => name === "Staff"),
  "the staff's segment",
);
const rename = (text: string) => editSegment({ segment: staff.id, column: "name", text });

beforeEach(() => {
  mockPlayed.load = answers(LOADED);
  mockPlayed.restored = [];
  mockSent.length = 0;
  mockSize.isLarge = false;
});
const opened = async () => {
  const store = createPlanStore(plan.site.id, "Ruth", "owner");
  await store.getState().load();
  return store;
};

describe("opening a site", () => {
  test("the plan is there before its findings, which come after", async () => {
    const judged = later<FindingsByCode | null>();
    mockPlayed.load = answers(loadedWith(judged.promise));
    const store = await opened();
    expect(store.getState()).toMatchObject({ phase: "ready", failure: null, steps, list: [] });
    expect(store.getState().held).toMatchObject({ revision: 7, judged: null, pending: [] });
    judged.give(found);
    await turn();
    expect(store.getState().held?.judged?.findings).toBe(found);
    expect(store.getState().list).toEqual(listFindings(found));
  });

  test("what is edited before it was judged is judged as it is by then", async () => {
    const judged = later<FindingsByCode | null>();
    mockPlayed.load = answers(loadedWith(judged.promise));
    const store = await opened();
    expect(store.getState().edit(removeSegments({ segments: [staff.id] }))).toBeNull();
    expect(store.getState().list).toEqual([]);
    judged.give(found);
    await turn();
    const { held } = store.getState();
    const anew = runChecks(PlanIndex.of(must(held, "a plan").index.plan, TODAY));
    const keys = (all: FindingsByCode | null | undefined) =>
      [...(all?.values() ?? [])].flatMap((list) => list.map(({ key }) => key)).sort();
    expect(keys(held?.judged?.findings)).toEqual(keys(anew));
  });

  test("a worker that breaks off while it judges does not leave the page at checking", async () => {
    mockPlayed.load = answers(loadedWith(Promise.resolve(null)));
    const store = await opened();
    await turn();
    expect(store.getState().list.map(({ key }) => key)).toEqual(listFindings(found).map(({ key }) => key));
  });

  test("what an older loading found is not put on a newer one", async () => {
    const [older, newer] = [later<FindingsByCode | null>(), later<FindingsByCode | null>()];
    mockPlayed.load = answers(loadedWith(older.promise));
    const store = await opened();
    mockPlayed.load = answers(loadedWith(newer.promise));
    await store.getState().load();
    older.give(new Map());
    await turn();
    expect(store.getState().held?.judged).toBeNull();
    newer.give(found);
    await turn();
    expect(store.getState().held?.judged?.findings).toBe(found);
  });

  test.each<[string, () => Promise<unknown>, RegExp]>([
    [
      "the server refuses",
      () => Promise.resolve({ ok: false, error: { status: 404, sentence: "There is no such site." } }),
      /^There is no such site\.$/,
    ],
    ["nobody answers", () => Promise.reject(new TypeError("Failed to fetch")), /^The server does not answer/],
    [
      "something else breaks",
      () => Promise.reject(new Error("The answer is no JSON")),
      /The answer is no JSON/,
    ],
  ])("where %s, it says so", async (_, load, sentence) => {
    mockPlayed.load = load;
    const store = await opened();
    expect(store.getState()).toMatchObject({ phase: "failed", held: null });
    expect(store.getState().failure).toMatch(sentence);
    mockPlayed.load = answers(LOADED);
    await store.getState().load();
    expect(store.getState()).toMatchObject({ phase: "ready", failure: null });
  });

  test("what waited in the browser lies on top", async () => {
    const first = await opened();
    first.getState().edit(rename("Crew"));
    mockPlayed.restored = must(first.getState().held, "a plan").pending;
    const again = await opened();
    expect(again.getState().held?.pending).toHaveLength(1);
    expect(again.getState().held?.index.plan.segment.get(staff.id)?.name).toBe("Crew");
    expect(again.getState().held?.base.segment.get(staff.id)?.name).toBe("Staff");
  });
});

describe("editing", () => {
  test("is refused with a sentence as long as the plan is loading", () => {
    const store = createPlanStore(plan.site.id, "Ruth", "owner");
    const sentence = "The plan is still loading.";
    expect(store.getState().edit(rename("Crew"))).toBe(sentence);
    const nothing: ChangeBatch = { id: "b", planner: "p", summary: "s", args: null, changes: [] };
    expect(store.getState().commit(nothing)).toBe(sentence);
  });

  test("shows at once, is sent, and can be taken back by its name", async () => {
    const store = await opened();
    expect(store.getState().edit(rename("Crew"))).toBeNull();
    const { held, steps: after } = store.getState();
    expect(held?.index.plan.segment.get(staff.id)?.name).toBe("Crew");
    expect(held?.pending).toHaveLength(1);
    expect(after).toMatchObject({ undo: held?.pending[0]?.summary, redo: null, undoIsImport: false });
    await turn();
    expect(mockSent.map(({ path }) => path)).toEqual([`/api/sites/${plan.site.id}/batches`]);
  });

  test("that is refused, or changes nothing, changes nothing", async () => {
    const store = await opened();
    expect(store.getState().edit(rename(""))).toMatch(/name/);
    const before = store.getState().held;
    const nothing: ChangeBatch = { id: "b", planner: "p", summary: "s", args: null, changes: [] };
    expect(store.getState().commit(nothing)).toBeNull();
    expect(store.getState().held).toBe(before);
    expect(store.getState().steps).toEqual(steps);
  });

  test("a batch that does not fit the plan is refused by what it is about", async () => {
    const store = await opened();
    const stale = { ...staff, name: "Another" };
    const batch: ChangeBatch = {
      id: "b",
      planner: "p",
      summary: "s",
      args: null,
      changes: [{ kind: "segment", id: staff.id, before: stale, after: { ...stale, name: "Crew" } }],
    };
    expect(store.getState().commit(batch)).toMatch(/Staff/);
    expect(store.getState().held?.pending).toEqual([]);
  });
});

describe("editing a large plan", () => {
  test("shows the edit with the findings of before, and those of the edited plan a frame later", async () => {
    mockSize.isLarge = true;
    const store = await opened();
    await turn();
    const before = store.getState();
    expect(before.held?.judged?.findings).toBe(found);
    expect(store.getState().edit(removeSegments({ segments: [staff.id] }))).toBeNull();
    const edited = store.getState();
    expect([edited.held?.index.plan.segment.has(staff.id), edited.list]).toEqual([false, before.list]);
    expect(edited.held?.judged).toBe(before.held?.judged);
    while (store.getState().held?.judged === before.held?.judged) await turn();
    const after = store.getState();
    expect(after.held?.pending).toHaveLength(1);
    const anew = listFindings(runChecks(PlanIndex.of(must(after.held, "a plan").index.plan, TODAY)));
    expect(after.list).toEqual(anew);
    expect(after.list).not.toEqual(before.list);
  });
});

describe("taking back a whole imported plan", () => {
  test("is asked first, and left when somebody says so", async () => {
    mockPlayed.load = answers({ ...LOADED, steps: { ...steps, undoIsImport: true } });
    const store = await opened();
    expect(await store.getState().undo()).toBeNull();
    expect(store.getState().confirmingUndo).toBe(true);
    store.getState().keepImport();
    expect(store.getState().confirmingUndo).toBe(false);
    expect(mockSent).toEqual([]);
  });
});

test("what was dropped is gone once acknowledged, and the question closes with it", async () => {
  const store = await opened();
  const batch: ChangeBatch = { id: "b", planner: "p", summary: "s", args: null, changes: [] };
  store.setState({ dropped: [{ batch, sentence: "It can't be saved." }] });
  store.getState().acknowledge();
  expect(store.getState().dropped).toEqual([]);
  store.setState({ stepClash: { way: "undo", sentence: "It meets a later change.", clashes: [] } });
  store.getState().ask(true);
  expect(store.getState().stepClash).not.toBeNull();
  store.getState().ask(false);
  expect(store.getState()).toMatchObject({ asking: false, stepClash: null });
  expect(await store.getState().decideStep(() => "mine")).toBeNull();
});
