import { fennelStreet } from "../../../demo/fennel-street";
import { listFindings, runChecks } from "@/core/checks";
import { must } from "@/core/kernel";
import { BLANK_ZONE, PlanEdits, PlanIndex, type Change, type ChangeBatch, type Plan } from "@/core/plan";
import { testId } from "@/core/testing/build-plan";
import {
  addBatch,
  catchUp,
  confirm,
  decide,
  findingsOf,
  giveUp,
  isJudged,
  nextToSend,
  settle,
  withKept,
  type Held,
} from "./held";

// As it comes from the server: in the order of its ids.
const { plan } = PlanIndex.of(fennelStreet());
const start: Held = {
  base: plan,
  revision: 7,
  pending: [],
  stuck: [],
  index: PlanIndex.of(plan),
  judged: null,
};
const loaded = { index: start.index, findings: runChecks(start.index) };
const host = must(
  [...plan.host.values()].find((h) => h.name === "Analyser"),
  "the analyser",
);
const port = must(
  [...plan.port.values()].find((p) => p.tagged.length > 5),
  "a trunk",
);
const changes = (on: Plan, edit: (edits: PlanEdits) => void): Change[] => {
  const edits = new PlanEdits(on);
  edit(edits);
  return edits.changes();
};
const batch = (name: string, made: Change[]): ChangeBatch => ({
  id: testId("batch", name),
  planner: "test",
  summary: name,
  args: null,
  changes: made,
});
const rename = (on: Plan, name: string) => changes(on, (d) => d.patch("host", host.id, { name }));
const add = (held: Held, made: ChangeBatch): Held => {
  const added = addBatch(held, made);
  return must(added.ok ? added.value : null, "it fits");
};
const nameIn = (held: Held) => held.index.plan.host.get(host.id)?.name;
const caughtUp = (held: Held, ...entries: { id: string; revision: number; changes: readonly Change[] }[]) =>
  must(catchUp(held, entries), "it follows");
/** Whatever happens, what is shown is checked as if it had been loaded anew. */
const soundlyChecked = (held: Held) =>
  expect(listFindings(findingsOf({ ...held, judged: loaded }))).toEqual(
    listFindings(runChecks(PlanIndex.of(held.index.plan))),
  );

test("an edit shows at once and belongs to the confirmed plan only when the server has it", () => {
  const edited = add(start, batch("mine", rename(plan, "Blood analyser")));
  expect([nameIn(edited), edited.base, edited.revision]).toEqual(["Blood analyser", plan, 7]);
  const confirmed = must(confirm(edited, testId("batch", "mine"), 8), "it was sent");
  expect([confirmed.base.host.get(host.id)?.name, confirmed.pending, confirmed.revision]).toEqual([
    "Blood analyser",
    [],
    8,
  ]);
});

test("what others did comes below my edits; both stand", () => {
  const mine = add(start, batch("mine", rename(plan, "Blood analyser")));
  const theirs = changes(plan, (d) => {
    d.patch("host", host.id, { place: "Attic" });
    d.patch("port", port.id, { tagged: port.tagged.slice(1) });
  });
  const caught = caughtUp(mine, { id: testId("batch", "theirs"), revision: 8, changes: theirs });
  expect(caught.index.plan.host.get(host.id)).toMatchObject({ name: "Blood analyser", place: "Attic" });
  expect([caught.revision, caught.pending.length, caught.base.host.get(host.id)?.name]).toEqual([
    8,
    1,
    "Analyser",
  ]);
  soundlyChecked(caught);
});

test("a batch of mine whose answer was lost comes back as news and counts once", () => {
  const made = batch("mine", rename(plan, "Blood analyser"));
  const caught = caughtUp(add(start, made), { id: made.id, revision: 8, changes: made.changes });
  expect([caught.pending, caught.revision, nameIn(caught)]).toEqual([[], 8, "Blood analyser"]);
});

test("a batch that the server had and that was undone waits no longer and changes nothing", () => {
  const restored = withKept(start, [batch("mine", rename(plan, "Blood analyser"))]);
  const settled = settle(restored, testId("batch", "mine"));
  expect([settled.pending, nameIn(settled), settled.revision]).toEqual([[], "Analyser", 7]);
});

test.each([
  ["an entry that can't be applied", 8],
  ["an entry after a gap", 9],
])("%s is no reason to count on: the plan has to be loaded anew", (_, revision) => {
  const other = new Map(plan.host).set(host.id, { ...host, name: "Something else" });
  const wrong = revision === 8 ? rename({ ...plan, host: other }, "Theirs") : rename(plan, "Theirs");
  expect(catchUp(start, [{ id: testId("batch", "theirs"), revision, changes: wrong }])).toBeNull();
});

describe("a clash", () => {
  const made = batch(
    "mine",
    changes(plan, (d) => d.patch("host", host.id, { name: "Mine", place: "Cellar" })),
  );
  const later = (on: Plan) =>
    batch(
      "later",
      changes(on, (d) => d.patch("port", port.id, { note: "kept" })),
    );
  const mine = add(start, made);
  const entry = { id: testId("batch", "theirs"), revision: 8, changes: rename(plan, "Theirs") };
  const moved = caughtUp(add(mine, later(mine.index.plan)), entry);

  test("waits for a person with both values, drops nothing, and what does not touch it goes on", () => {
    expect(moved.stuck).toMatchObject([
      { batch: { id: made.id }, clashes: [{ field: "name", mine: "Mine", theirs: "Theirs" }] },
    ]);
    expect([moved.revision, moved.pending.map(({ summary }) => summary), nameIn(moved)]).toEqual([
      8,
      ["mine", "later"],
      "Theirs",
    ]);
    expect([nextToSend(moved)?.summary, moved.index.plan.port.get(port.id)?.note]).toEqual(["later", "kept"]);
    soundlyChecked(moved);
  });
  test("is asked again on what came since, until it is settled", () => {
    const further = caughtUp(moved, {
      id: testId("batch", "more"),
      revision: 9,
      changes: rename(moved.base, "Theirs, too"),
    });
    expect(further.stuck).toMatchObject([{ clashes: [{ mine: "Mine", theirs: "Theirs, too" }] }]);
    const back = caughtUp(moved, {
      id: testId("batch", "back"),
      revision: 9,
      changes: rename(moved.base, "Analyser"),
    });
    expect([back.stuck, nameIn(back)]).toEqual([[], "Mine"]);
  });
  test("is settled field by field", () => {
    const theirs = decide(moved, made.id, ({ field }) => (field === "name" ? "theirs" : null));
    expect([theirs.stuck, nameIn(theirs), theirs.index.plan.host.get(host.id)?.place]).toEqual([
      [],
      "Theirs",
      "Cellar",
    ]);
    const own = decide(moved, made.id, () => "mine");
    expect([nameIn(own), own.pending.length, own.stuck]).toEqual(["Mine", 2, []]);
    expect(decide(moved, made.id, () => null).stuck).toHaveLength(1);
    soundlyChecked(own);
  });
  test("of a deleted thing: mine brings it back, theirs lets it go, what it lacks is said", () => {
    const gone = caughtUp(mine, {
      id: testId("batch", "gone"),
      revision: 8,
      changes: changes(plan, (d) => d.remove("host", host.id)),
    });
    expect(gone.stuck).toMatchObject([{ clashes: [{ field: null, theirs: null }] }]);
    expect(nameIn(decide(gone, made.id, () => "mine"))).toBe("Mine");
    expect(nameIn(decide(gone, made.id, () => "theirs"))).toBeUndefined();
    const zone = batch(
      "zone",
      changes(plan, (d) => {
        const id = testId("zone", "new");
        d.put("zone", { id, ...BLANK_ZONE, name: "Annexe", insideOpen: true });
        d.patch("segment", must([...plan.segment.values()][0], "a segment").id, { zone: id });
      }),
    );
    const unzoned = caughtUp(
      add(
        add(start, zone),
        batch(
          "rest",
          changes(plan, (d) => d.patch("port", port.id, { note: "x" })),
        ),
      ),
      {
        id: testId("batch", "s"),
        revision: 8,
        changes: changes(plan, (d) =>
          d.patch("segment", must([...plan.segment.values()][0], "a segment").id, { name: "Other" }),
        ),
      },
    );
    expect([unzoned.stuck, unzoned.pending.length]).toEqual([[], 2]);
  });
});

describe("giving a batch up", () => {
  const first = add(start, batch("a", rename(plan, "First")));
  test("keeps later ones, those of the same field with their own value, too", () => {
    const second = add(
      first,
      batch(
        "b",
        changes(first.index.plan, (d) => d.patch("port", port.id, { note: "kept" })),
      ),
    );
    const third = add(second, batch("c", rename(second.index.plan, "Third")));
    const { held, dropped } = giveUp(third, testId("batch", "a"));
    expect([
      nameIn(held),
      held.index.plan.port.get(port.id)?.note,
      held.pending.map(({ summary }) => summary),
    ]).toEqual(["Third", "kept", ["b", "c"]]);
    expect(dropped.map(({ summary }) => summary)).toEqual(["a"]);
    soundlyChecked(held);
  });
  test("takes only those with it that build on it", () => {
    const id = testId("zone", "annexe");
    const made = add(
      start,
      batch(
        "new zone",
        changes(plan, (d) => d.put("zone", { id, ...BLANK_ZONE, name: "Annexe", insideOpen: true })),
      ),
    );
    const renamed = add(
      made,
      batch(
        "renamed",
        changes(made.index.plan, (d) => d.patch("zone", id, { name: "Barn" })),
      ),
    );
    const used = add(
      renamed,
      batch(
        "used",
        changes(renamed.index.plan, (d) =>
          d.patch("segment", must([...plan.segment.values()][0], "a segment").id, { zone: id }),
        ),
      ),
    );
    const other = add(used, batch("other", rename(used.index.plan, "Beside it")));
    const { held, dropped } = giveUp(other, testId("batch", "new zone"));
    expect(dropped.map(({ summary }) => summary)).toEqual(["new zone", "renamed", "used"]);
    expect([held.pending.map(({ summary }) => summary), nameIn(held)]).toEqual([["other"], "Beside it"]);
  });
});

test("findings that come after the plan are brought to what was edited meanwhile", () => {
  const edited = add(start, batch("mine", rename(plan, "Blood analyser")));
  const theirs = changes(plan, (d) => d.patch("port", port.id, { tagged: port.tagged.slice(2) }));
  const followed = caughtUp(edited, { id: testId("batch", "theirs"), revision: 8, changes: theirs });
  expect([isJudged(edited), isJudged(followed)]).toEqual([false, false]);
  const found = findingsOf({ ...followed, judged: loaded });
  expect(listFindings(found)).toEqual(listFindings(runChecks(PlanIndex.of(followed.index.plan))));
  expect(listFindings(found)).not.toEqual(listFindings(loaded.findings));
  expect(findingsOf(followed)).toEqual(runChecks(followed.index));
});

test("an edit leaves the findings as those of the plan before; taken back, they are its own again", () => {
  const judged: Held = { ...start, judged: loaded };
  const edited = add(judged, batch("mine", rename(plan, "Blood analyser")));
  expect([isJudged(judged), edited.judged, isJudged(edited)]).toEqual([true, loaded, false]);
  expect(findingsOf(judged)).toBe(loaded.findings);
  const { held } = giveUp(edited, testId("batch", "mine"));
  expect(findingsOf(held)).toEqual(loaded.findings);
});
