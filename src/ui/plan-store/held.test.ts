import { fennelStreet } from "../../../demo/fennel-street";
import { listFindings, runChecks } from "@/core/checks";
import { must } from "@/core/kernel";
import { applyChanges, Draft, PlanIndex, type Change, type ChangeBatch, type Plan } from "@/core/plan";
import { testId } from "@/core/testing/build-plan";
import { addBatch, catchUp, confirmFirst, giveUp, insist, moveBase, type Held } from "./held";

const plan = fennelStreet();
const start: Held = { base: plan, revision: 7, pending: [], index: PlanIndex.of(plan), findings: runChecks(PlanIndex.of(plan)) };
const host = must([...plan.host.values()].find((h) => h.name === "Analyser"), "the analyser");
const port = must([...plan.port.values()].find((p) => p.tagged.length > 5), "a trunk");
const changes = (on: Plan, edit: (draft: Draft) => void): Change[] => {
  const draft = new Draft(on);
  edit(draft);
  return draft.changes();
};
const batch = (name: string, made: Change[]): ChangeBatch => ({ id: testId("batch", name), planner: "test", summary: name, args: null, changes: made });
const rename = (on: Plan, name: string) => changes(on, (d) => d.patch("host", host.id, { name }));
const value = <T>(result: { ok: boolean; value?: T }): T => must(result.value, "goes well");
const nameIn = (held: Held) => held.index.plan.host.get(host.id)?.name;
/** Whatever happens, what is shown is checked as if it had been loaded anew. */
const soundlyChecked = (held: Held) => expect(listFindings(held.findings)).toEqual(listFindings(runChecks(PlanIndex.of(held.index.plan))));

test("an edit shows at once and belongs to the confirmed plan only when the server has it", () => {
  const edited = value(addBatch(start, batch("mine", rename(plan, "Blood analyser"))));
  expect([nameIn(edited), edited.base, edited.revision]).toEqual(["Blood analyser", plan, 7]);
  const confirmed = confirmFirst(edited, 8);
  expect([confirmed.base.host.get(host.id)?.name, confirmed.pending, confirmed.revision]).toEqual(["Blood analyser", [], 8]);
});

test("what others did comes below my edits; both stand", () => {
  const mine = value(addBatch(start, batch("mine", rename(plan, "Blood analyser"))));
  const theirs = changes(plan, (d) => { d.patch("host", host.id, { place: "Attic" }); d.patch("port", port.id, { tagged: port.tagged.slice(1) }); });
  const caught = value(catchUp(mine, [{ id: testId("batch", "theirs"), revision: 8, changes: theirs }]));
  expect(caught.index.plan.host.get(host.id)).toMatchObject({ name: "Blood analyser", place: "Attic" });
  expect([caught.revision, caught.pending.length, caught.base.host.get(host.id)?.name]).toEqual([8, 1, "Analyser"]);
  soundlyChecked(caught);
});

test("a batch of mine whose answer was lost comes back as news and counts once", () => {
  const made = batch("mine", rename(plan, "Blood analyser"));
  const mine = value(addBatch(start, made));
  const caught = value(catchUp(mine, [{ id: made.id, revision: 8, changes: made.changes }]));
  expect([caught.pending, caught.revision, nameIn(caught)]).toEqual([[], 8, "Blood analyser"]);
});

describe("a clash", () => {
  const made = batch("mine", rename(plan, "Mine"));
  const mine = value(addBatch(start, made));
  const entries = [{ id: testId("batch", "theirs"), revision: 8, changes: rename(plan, "Theirs") }];

  test("is told with both values and changes nothing", () => {
    expect(catchUp(mine, entries)).toMatchObject({ ok: false, error: { batch: { id: made.id }, clashes: [{ field: "name", mine: "Mine", theirs: "Theirs" }] } });
  });
  test("can be settled for theirs or for mine", () => {
    const moved = moveBase(mine, entries);
    expect([moved.revision, moved.pending.length]).toEqual([8, 1]);
    expect(nameIn(giveUp(moved, made.id))).toBe("Theirs");
    const insisted = must(insist(moved, made.id), "mine fits");
    expect([nameIn(insisted), insisted.pending.length]).toEqual(["Mine", 1]);
    expect(applyChanges(insisted.base, insisted.pending[0]?.changes ?? []).ok).toBe(true);
    soundlyChecked(insisted);
  });
});

test("giving one batch up keeps the later ones", () => {
  const first = value(addBatch(start, batch("a", rename(plan, "First"))));
  const second = value(addBatch(first, batch("b", changes(first.index.plan, (d) => d.patch("port", port.id, { note: "kept" })))));
  const left = giveUp(second, testId("batch", "a"));
  expect([nameIn(left), left.index.plan.port.get(port.id)?.note, left.pending.length]).toEqual(["Analyser", "kept", 1]);
  soundlyChecked(left);
});
