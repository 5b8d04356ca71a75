import { readFileSync } from "node:fs";
import { openDB } from "idb";
import "fake-indexeddb/auto";
import { IDBFactory } from "fake-indexeddb";
import { fennelStreet } from "../../../demo/fennel-street";
import { encodeBatch } from "@/core/formats";
import { must } from "@/core/kernel";
import { PlanEdits, type ChangeBatch } from "@/core/plan";
import { makeKeeper, type Browser, type Keeper } from "./waiting";

const plan = fennelStreet();
const host = must([...plan.host.values()][0], "a host");
let made = 0;
/** A batch; ids rise with time, as those of version 7 do. */
const edit = (name: string): ChangeBatch => {
  const edits = new PlanEdits(plan);
  edits.patch("host", host.id, { name });
  made += 1;
  return {
    id: `019a0000-0000-7000-8000-${String(made).padStart(12, "0")}`,
    planner: "test",
    summary: name,
    args: null,
    changes: edits.changes(),
  };
};

/** One browser with its tabs: which of them live, what each is called, and what versions before left. */
class Tabs {
  readonly living = new Set<string>();
  old: string | null = null;
  locks = true;
  time = 0;
  #next = 0;

  /** A page of that tab; without a name a new tab. */
  page(
    tab = `tab ${(this.#next += 1)}`,
    kept: boolean[] = [],
  ): { tab: string; keeper: Keeper; kept: boolean[] } {
    const mine = new Set<string>();
    const claim = async (wanted: string) => {
      if (mine.has(wanted)) return true;
      if (this.living.has(wanted)) return false;
      this.living.add(wanted);
      mine.add(wanted);
      return true;
    };
    const browser: Browser = {
      tabId: () => tab,
      claim: this.locks ? claim : null,
      now: () => this.time,
      older: () => ({
        text: this.old,
        forget: () => {
          this.old = null;
        },
      }),
    };
    return { tab, kept, keeper: makeKeeper("site a", "Ruth", browser, (isKept) => kept.push(isKept)) };
  }
  close(tab: string): void {
    this.living.delete(tab);
  }
}

let tabs: Tabs;
beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
  tabs = new Tabs();
});
const names = (batches: readonly ChangeBatch[]) => batches.map(({ summary }) => summary);
const put = async (keeper: Keeper, ...batches: ChangeBatch[]) => {
  keeper.keep(batches);
  await keeper.settled();
};

test("what waits comes back as it was after a reload, and is forgotten once it is sent", async () => {
  const first = tabs.page();
  await first.keeper.restore();
  const waiting = [edit("One"), edit("Two")];
  await put(first.keeper, ...waiting);
  expect([first.keeper.wouldBeLost(), first.kept.at(-1)]).toEqual([false, true]);
  tabs.close(first.tab);
  const again = tabs.page(first.tab);
  expect(await again.keeper.restore()).toEqual(waiting);
  await put(again.keeper);
  tabs.close(first.tab);
  expect(await tabs.page(first.tab).keeper.restore()).toEqual([]);
});

test("two tabs keep a list each; a third takes over a closed one's, once, and no living one's", async () => {
  const [one, two] = [tabs.page(), tabs.page()];
  await one.keeper.restore();
  await two.keeper.restore();
  await put(one.keeper, edit("In one"));
  await put(two.keeper, edit("In two"));
  tabs.close(one.tab);
  const three = tabs.page();
  expect(names(await three.keeper.restore())).toEqual(["In one"]);
  expect(names(await tabs.page().keeper.restore())).toEqual([]);
  tabs.close(two.tab);
  tabs.close(three.tab);
  expect(names(await tabs.page().keeper.restore())).toEqual(["In one", "In two"]);
});

test("a copy of a tab has its name, and does not write over its list", async () => {
  const page = tabs.page();
  await page.keeper.restore();
  await put(page.keeper, edit("In the first"));
  const copy = tabs.page(page.tab);
  expect(await copy.keeper.restore()).toEqual([]);
  await put(copy.keeper, edit("In the copy"));
  tabs.close(page.tab);
  expect(names(await tabs.page(page.tab).keeper.restore())).toEqual(["In the first"]);
});

test("another person's and another site's lists are left alone", async () => {
  const page = tabs.page();
  await page.keeper.restore();
  await put(page.keeper, edit("Ruth's"));
  tabs.close(page.tab);
  const browser: Browser = {
    tabId: () => "other",
    claim: async () => true,
    now: () => 0,
    older: () => ({ text: null, forget: () => {} }),
  };
  expect(await makeKeeper("site a", "Marek", browser, () => {}).restore()).toEqual([]);
  expect(await makeKeeper("site b", "Ruth", browser, () => {}).restore()).toEqual([]);
  expect(names(await tabs.page().keeper.restore())).toEqual(["Ruth's"]);
});

test("without Web Locks only a list untouched for a quarter of an hour is taken over", async () => {
  tabs.locks = false;
  const page = tabs.page();
  await page.keeper.restore();
  await put(page.keeper, edit("Left"));
  tabs.time = 60_000;
  expect(await tabs.page().keeper.restore()).toEqual([]);
  tabs.time = 16 * 60_000;
  expect(names(await tabs.page().keeper.restore())).toEqual(["Left"]);
});

test("what a version before kept is taken over once, when it lies in the database", async () => {
  tabs.old = JSON.stringify([encodeBatch(edit("Of before"))]);
  const page = tabs.page();
  expect([names(await page.keeper.restore()), tabs.old]).toEqual([["Of before"], null]);
  tabs.close(page.tab);
  expect(names(await tabs.page().keeper.restore())).toEqual(["Of before"]);
});

test.each(["[{", "{}", "null", '[{"id":"no batch"}]'])(
  "what another hand left there (%s) does not stop the plan from opening",
  async (text) => {
    tabs.old = text;
    expect(await tabs.page().keeper.restore()).toEqual([]);
  },
);

test("a browser without a database, or a full one: nothing is said to be kept, the tab warns", async () => {
  tabs.old = JSON.stringify([encodeBatch(edit("Of before"))]);
  globalThis.indexedDB = undefined as unknown as IDBFactory;
  const page = tabs.page();
  expect(names(await page.keeper.restore())).toEqual(["Of before"]);
  expect([page.keeper.wouldBeLost(), page.kept, tabs.old === null]).toEqual([true, [false], false]);
  await put(page.keeper, edit("New"));
  expect([page.keeper.wouldBeLost(), page.kept.at(-1)]).toEqual([true, false]);
  await put(page.keeper);
  expect(page.keeper.wouldBeLost()).toBe(false);
});

test("too many to keep: nothing half is kept, and leaving would lose them", async () => {
  const page = tabs.page();
  await page.keeper.restore();
  await put(page.keeper, edit("One"));
  const huge = edit("Many");
  const change = must(huge.changes[0], "a change");
  await put(page.keeper, edit("One"), { ...huge, changes: Array.from({ length: 20_001 }, () => change) });
  expect(page.keeper.wouldBeLost()).toBe(true);
  tabs.close(page.tab);
  expect(await tabs.page(page.tab).keeper.restore()).toEqual([]);
});

test("while one list is being written the next is not lost", async () => {
  const page = tabs.page();
  await page.keeper.restore();
  for (let n = 1; n <= 5; n += 1) page.keeper.keep(Array.from({ length: n }, (_, i) => edit(`${n}.${i}`)));
  await page.keeper.settled();
  expect(page.keeper.wouldBeLost()).toBe(false);
  tabs.close(page.tab);
  expect(names(await tabs.page(page.tab).keeper.restore())).toEqual(["5.0", "5.1", "5.2", "5.3", "5.4"]);
});

/** What browsers kept in the forms of before: a test reads them all, so that no new form forgets them. */
const fixture = (name: string): unknown =>
  JSON.parse(readFileSync(`tests/fixtures/waiting/${name}.json`, "utf8"));

test("what a browser kept in older forms is taken over whole, also from before tabs had lists", async () => {
  interface Kept {
    store: "waiting";
    keyPath: string[];
    record: { batches: unknown[] };
  }
  const kept = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11].map((at) => fixture(`indexed-database-${at}`) as Kept);
  const made = await openDB("dianome", 1, {
    upgrade: (db) => {
      for (const { store, keyPath } of kept.slice(0, 1)) db.createObjectStore(store, { keyPath });
    },
  });
  for (const { store, record } of kept) await made.put(store, record);
  made.close();
  tabs.old = JSON.stringify(fixture("local-storage"));
  const taken = await tabs.page().keeper.restore();
  expect(names(taken).sort()).toEqual([
    "Kept before tabs had lists",
    "Kept by a tab",
    "Kept in the form of version 10",
    "Kept in the form of version 11",
    "Kept in the form of version 12",
    "Kept in the form of version 16",
    "Kept in the form of version 4",
    "Kept in the form of version 5",
    "Kept in the form of version 6",
    "Kept in the form of version 7",
    "Kept in the form of version 8",
    "Kept in the form of version 9",
  ]);
  // Nothing they say is lost: only what their form lacked is added.
  const said = [
    ...(fixture("local-storage") as { changes: { after: object }[] }[]),
    ...kept.flatMap(({ record }) => record.batches as { changes: { after: object }[] }[]),
  ].flatMap(({ changes }) => changes.map(({ after }) => after));
  const read = taken.flatMap((batch) =>
    (encodeBatch(batch) as { changes: { after: object }[] }).changes.map(({ after }) => after),
  );
  // A line's use of then is its place in the order now.
  for (const after of said)
    expect(read).toContainEqual(
      expect.objectContaining(
        Object.fromEntries(
          Object.entries(after).filter(
            ([field, value]) => field !== "use" && (typeof value !== "object" || value === null),
          ),
        ),
      ),
    );
  expect(read.length).toBe(said.length);
});
