import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "@/core/kernel";
import { Draft, type ChangeBatch } from "@/core/plan";
import { testId } from "@/core/testing/build-plan";
import { keepChanges, keptChanges, wouldBeLost } from "./kept-changes";

const plan = fennelStreet();
const host = must([...plan.host.values()][0], "a host");
const edit = (name: string): ChangeBatch => {
  const draft = new Draft(plan);
  draft.patch("host", host.id, { name });
  return { id: testId("batch", name), planner: "test", summary: name, args: null, changes: draft.changes() };
};
const huge = (): ChangeBatch => {
  const one = edit("Many");
  return { ...one, changes: Array.from({ length: 20_001 }, () => must(one.changes[0], "a change")) };
};

/** The part of the browser's store that is used, and full when told so. */
let full = false;
beforeEach(() => {
  const values = new Map<string, string>();
  full = false;
  const store = {
    getItem: (key: string) => values.get(key) ?? null,
    removeItem: (key: string) => values.delete(key),
    setItem: (key: string, value: string) => {
      if (full) throw new DOMException("full", "QuotaExceededError");
      values.set(key, value);
    },
  };
  Object.defineProperty(globalThis, "localStorage", { value: store, configurable: true });
});

test("what waits comes back as it was, for its own site only, and is forgotten once it is sent", () => {
  const waiting = [edit("One"), edit("Two")];
  keepChanges("a", waiting);
  expect(keptChanges("a")).toEqual(waiting);
  expect([keptChanges("b"), wouldBeLost("a", waiting), wouldBeLost("b", [])]).toEqual([[], false, false]);
  keepChanges("a", []);
  expect(keptChanges("a")).toEqual([]);
});

test("too many to keep: nothing half is kept, and leaving would lose them", () => {
  keepChanges("a", [edit("One")]);
  const waiting = [edit("One"), huge()];
  keepChanges("a", waiting);
  expect([keptChanges("a"), wouldBeLost("a", waiting)]).toEqual([[], true]);
});

test("a full store keeps no older list that lacks the newest change", () => {
  keepChanges("a", [edit("One")]);
  full = true;
  const waiting = [edit("One"), edit("Two")];
  keepChanges("a", waiting);
  expect([keptChanges("a"), wouldBeLost("a", waiting)]).toEqual([[], true]);
});

test.each(["[{", "{}", "null", '[{"id":"no batch"}]'])("what another hand left there (%s) does not stop the plan from opening", (text) => {
  localStorage.setItem("dianome:waiting:a", text);
  expect(keptChanges("a")).toEqual([]);
});
