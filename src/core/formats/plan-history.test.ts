import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { applyChanges, diff, emptyPlan, invert, PlanEdits, type Change, type Plan } from "../plan";
import { dice } from "../testing/plants";
import { editField, FIELD_PATHS } from "../testing/schema-edits";
import { forSite, historyOfFile, loggedText, type LoggedBatch } from "./plan-history";

const breath = () => Promise.resolve();
const idOf = (n: number) => `019a0000-0000-7000-8000-${String(n).padStart(12, "0")}`;

/** A site that grew from nothing: the house in one batch, edits of every kind and field, one of them undone. */
function grown(): { readonly plan: Plan; readonly batches: LoggedBatch[] } {
  const roll = dice(11);
  const house = lockkeepersHouse();
  let plan = emptyPlan(house.site);
  const batches: LoggedBatch[] = [];
  const add = (changes: readonly Change[], undoes: string | null = null) => {
    const applied = applyChanges(plan, changes);
    if (!applied.ok || changes.length === 0) return;
    plan = applied.value;
    const n = batches.length + 1;
    batches.push({
      ...{ revision: n, by: n % 2 === 0 ? "Märek" : "Ruth", at: `2026-11-30T09:00:00.${100 + (n % 900)}Z` },
      ...{ undoes, redoes: null },
      batch: { id: idOf(n), planner: "test", summary: `the ${n}th`, args: { n, why: null }, changes },
    });
  };
  add(diff(plan, house));
  for (let at = 0; at < 200; at += 1) {
    const edits = new PlanEdits(plan);
    editField(edits, must(FIELD_PATHS[roll(FIELD_PATHS.length)], "a field"), roll);
    add(edits.changes());
  }
  const last = must(batches.at(-1), "a batch");
  add(invert(last.batch.changes), last.batch.id);
  return { plan, batches };
}

const { plan, batches } = grown();
const written = async (list: readonly LoggedBatch[]) =>
  JSON.parse(
    `[${(await Promise.all(list.map((loggedBatch) => loggedText(loggedBatch, breath)))).join(",")}]`,
  ) as Record<string, unknown>[];
const read = (history: unknown, of: Plan = plan) => historyOfFile({ history }, of, breath);

test("a history is read as it was written: every kind of edit, who, when, what undoes what", async () => {
  expect(batches.length).toBeGreaterThan(20);
  const found = await read(await written(batches));
  expect(found).toEqual({ ok: true, value: { batches, before: emptyPlan(lockkeepersHouse().site) } });
  // Its older end may be missing: then it tells what was there before.
  const later = await read(await written(batches.slice(5)));
  const before = must(later.ok ? later.value?.before : null, "a plan");
  let then = emptyPlan(lockkeepersHouse().site);
  for (const { batch } of batches.slice(0, 5)) {
    const applied = applyChanges(then, batch.changes);
    then = must(applied.ok ? applied.value : null, "it was applied before");
  }
  expect(diff(before, then)).toEqual([]);
});

test("a file without one, or with an empty one, has none", async () => {
  expect(await historyOfFile({}, plan, breath)).toEqual({ ok: true, value: null });
  expect(await read([])).toEqual({ ok: true, value: null });
});

type Edit = (list: Record<string, unknown>[]) => unknown;
const at =
  (n: number, more: object): Edit =>
  (list) =>
    list.map((item, i) => (i === n ? { ...item, ...more } : item));
test.each<[string, Edit, RegExp]>([
  ["no list", () => ({}), /^history: A list belongs here/],
  [
    "one left out",
    (list) => list.filter((_, n) => n !== 3),
    /^history\[3\]\.revision: After revision 3 comes 4, not 5/,
  ],
  ["in another order", (list) => list.toReversed(), /^history\[1\]\.revision: After revision/],
  ["one twice", at(4, { id: idOf(2) }), /^history\[4\]\.id: This change is there twice/],
  [
    "the last left out",
    (list) => list.slice(0, -1),
    /^history\[\d+\]: Revision \d+ "the \d+th" does not lead to/,
  ],
  ["another first", at(0, { changes: [] }), /^history\[0\]: Revision 1 begins with an empty plan/],
  ["no name", at(2, { by: "" }), /^history\[2\]\.by: /],
  ["a day that is none", at(2, { at: "2026-02-30T00:00:00.000Z" }), /^history\[2\]\.at: /],
  ["a year that no database holds", at(2, { at: "0001-01-01T00:00:00.000Z" }), /^history\[2\]\.at: .*1970/],
  ["a field more", at(2, { word: "x" }), /^history\[2\]/],
  ["no whole revision", at(2, { revision: 2.5 }), /^history\[2\]\.revision: /],
  ["changes of nothing", at(1, { changes: [{ kind: "dance", id: idOf(1) }] }), /^history\[1\]\.changes\.0/],
])("%s is refused, and the place is named", async (_, edit, says) => {
  const found = await read(edit(await written(batches)));
  expect(found.ok ? "" : found.error[0]?.sentence).toMatch(says);
});

test("more changes than may go along are refused before one is looked at", async () => {
  const found = await read(Array.from({ length: 50_001 }, () => null));
  expect(found.ok ? "" : found.error[0]?.sentence).toMatch(/At most 50000 changes/);
});

test("for a site of another id only the site itself is called otherwise", () => {
  const changes = batches.flatMap(({ batch }) => batch.changes);
  const moved = forSite(changes, idOf(999));
  expect(moved.filter(({ kind }) => kind !== "site")).toEqual(changes.filter(({ kind }) => kind !== "site"));
  const site = moved.filter(({ kind }) => kind === "site");
  expect(site.length).toBeGreaterThan(0);
  expect(new Set(site.flatMap(({ id, before, after }) => [id, before?.id, after?.id]))).toEqual(
    new Set([idOf(999)]),
  );
});
