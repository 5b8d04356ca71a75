import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { bringBack, runOrder } from "../commands";
import { readPlanFile } from "../formats";
import { must } from "../kernel";
import { afterEdits, applyChanges, PlanEdits, PlanIndex, type Plan } from "../plan";
import { testId } from "../testing/build-plan";
import { editField, FIELD_PATHS } from "../testing/schema-edits";
import { dice } from "../testing/plants";
import { compareStates, comparedTable, firstLines } from "./compare";
import { findingsApart } from "./findings-apart";
import { STATE_FORM, stateText } from "./state-text";

const ids = () => testId("new", "one");
const plan = fennelStreet();
const index = PlanIndex.of(plan);

function after(edit: (edits: PlanEdits) => void): PlanIndex {
  const edits = new PlanEdits(plan);
  edit(edits);
  return must(afterEdits(index, edits), "a plan");
}
const portCalled = (device: string, label: string) =>
  must(
    [...plan.port.values()].find(
      (port) => port.label === label && plan.device.get(port.device)?.name === device,
    ),
    label,
  );

test("what differs stands under its device, the rest under its kind, each field with both values", () => {
  const port = portCalled("Upper switch", "5");
  const staff = must(
    [...plan.segment.values()].find(({ name }) => name === "Staff"),
    "Staff",
  );
  const later = after((edits) => {
    edits.patch("port", port.id, { note: "spare", enabled: !port.enabled });
    edits.patch("segment", staff.id, { name: "Team" });
  });
  const groups = compareStates(index, later);
  expect(groups.map(({ title }) => title)).toEqual(["Upper switch", "Segments"]);
  const [onSwitch, segments] = groups;
  expect(onSwitch?.lines.map(({ name, what }) => [name, what])).toEqual([["port 5", "changed"]]);
  expect(onSwitch?.lines[0]?.words).toContain(`note: ${port.note === "" ? "none" : port.note} became spare`);
  expect(segments?.lines).toMatchObject([{ name: "Team", words: "name: Staff became Team" }]);
  expect(comparedTable(groups).slice(1)).toEqual([
    ["Upper switch", "port 5", must(onSwitch?.lines[0], "it").words],
    ["Segments", "Team", "name: Staff became Team"],
  ]);
  expect(compareStates(index, index)).toEqual([]);
});

test("a device that is gone is told with all of its parts by the name that it had", () => {
  const device = must(
    [...plan.device.values()].find(({ name }) => name === "Upper switch"),
    "a switch",
  );
  const bare = PlanIndex.of({
    ...plan,
    device: new Map([...plan.device].filter(([id]) => id !== device.id)),
  });
  const [group] = compareStates(index, bare);
  expect([group?.title, group?.lines[0]?.words]).toEqual(["Upper switch", "is gone"]);
  const leg = must(
    [...plan.interface.values()].find((leg) => leg.device === device.id && leg.segment !== null),
    "its leg",
  );
  const moved = after((edits) => {
    edits.patch("device", device.id, { notes: "moved" });
    edits.patch("interface", leg.id, { mac: null, addresses4: [] });
  });
  expect(compareStates(index, moved)[0]?.lines.map(({ name }) => name)).toEqual([
    "Upper switch",
    `leg in ${must(plan.segment.get(leg.segment ?? ""), "its segment").name}`,
  ]);
  const [back] = compareStates(bare, index);
  expect([back?.title, back?.lines[0]?.words]).toEqual(["Upper switch", "is new"]);
});

/** Fields of words as they are told: what it is, what it was, what it became. */
const parts = (words: string) => words.split("; ").filter((part) => part.includes(" became "));

test("every field that an edit changes is told; the way back tells it the other way round", () => {
  let told = 0;
  for (const [seed, made] of [fennelStreet(), bramblewick()].entries()) {
    const from = PlanIndex.of(made);
    const roll = dice(seed + 40);
    for (const path of FIELD_PATHS) {
      const edits = new PlanEdits(made);
      editField(edits, path, roll);
      const changes = edits.changes();
      const applied = applyChanges(made, changes);
      if (changes.length === 0 || !applied.ok) continue;
      const to = PlanIndex.of(applied.value);
      const lines = compareStates(from, to).flatMap((group) => group.lines);
      expect([path.kind, lines.map(({ kind, id }) => [kind, id])]).toEqual([
        path.kind,
        changes.map(({ kind, id }) => [kind, id]),
      ]);
      const back = compareStates(to, from).flatMap((group) => group.lines);
      for (const [at, { words, what }] of lines.entries()) {
        const there = parts(words);
        if (what !== "changed") continue;
        told += 1;
        expect([path.kind, path.path, there.length > 0]).toEqual([path.kind, path.path, true]);
        expect([path.kind, path.path, parts(must(back[at], "the way back").words).length]).toEqual([
          path.kind,
          path.path,
          there.length,
        ]);
        for (const line of there) {
          const [was = "", is = ""] = line.slice(line.indexOf(": ") + 2).split(" became ");
          expect([path.path, was === is]).toEqual([path.path, false]);
        }
      }
    }
  }
  expect(told).toBeGreaterThan(300);
});

test("what a later state breaks is found, and what it mends is counted", () => {
  const trunk = must(
    [...plan.port.values()].find(({ id, tagged }) => index.linkAt(id) !== undefined && tagged.length > 2),
    "a trunk",
  );
  const later = after((edits) => edits.patch("port", trunk.id, { enabled: false }));
  const apart = findingsApart(index, later);
  expect(apart.appeared.length).toBeGreaterThan(0);
  expect(findingsApart(later, index).gone).toBe(apart.appeared.length);
  expect(findingsApart(index, index)).toEqual({ appeared: [], gone: 0 });
});

test("a state has one text in any order of its rows, and another as soon as anything differs", () => {
  const turned = Object.fromEntries(
    Object.entries(plan).map(([kind, all]) => [
      kind,
      all instanceof Map ? new Map([...(all as Map<string, unknown>)].reverse()) : (all as unknown),
    ]),
  ) as unknown as Plan;
  expect(stateText(turned)).toBe(stateText(plan));
  const port = portCalled("Upper switch", "5");
  expect(stateText(after((edits) => edits.patch("port", port.id, { note: "x" })).plan)).not.toBe(
    stateText(plan),
  );
});

test("of many lines the first are shown under their groups, and the rest is counted", () => {
  const line = (id: string) => ({
    kind: "port" as const,
    id,
    what: "changed" as const,
    name: id,
    words: "x",
  });
  const groups = [
    { key: "a", title: "A", lines: [line("1"), line("2")] },
    { key: "b", title: "B", lines: [line("3")] },
    { key: "c", title: "C", lines: [line("4")] },
  ];
  expect(firstLines(groups, 3)).toEqual({ groups: groups.slice(0, 2), left: 1 });
  expect(firstLines(groups, 1)).toEqual({
    groups: [{ key: "a", title: "A", lines: [line("1")] }],
    left: 3,
  });
  expect(firstLines(groups, 9)).toEqual({ groups, left: 0 });
});

test("everything that differs brought back is the earlier state, and one thing is that thing alone", () => {
  const roll = dice(77);
  let single = 0;
  for (const path of FIELD_PATHS) {
    const edits = new PlanEdits(plan);
    editField(edits, path, roll);
    editField(edits, must(FIELD_PATHS[roll(FIELD_PATHS.length)], "another field"), roll);
    const applied = applyChanges(plan, edits.changes());
    if (edits.changes().length === 0 || !applied.ok) continue;
    const later = PlanIndex.of(applied.value);
    const things = compareStates(index, later).flatMap(({ lines }) => lines);
    const back = runOrder(later, ids, bringBack({ from: "A Offer", earlier: plan, things }));
    const whole = applyChanges(later.plan, must(back.batch, "a batch").changes);
    expect([path.path, whole.ok && stateText(whole.value) === stateText(plan)]).toEqual([path.path, true]);
    const [first] = things;
    const result = runOrder(
      later,
      ids,
      bringBack({ from: "A Offer", earlier: plan, things: [must(first, "it")] }),
    );
    // Something else of then may be gone that it names.
    if (result.batch === null) continue;
    single += 1;
    expect(result.batch.changes.map(({ kind, id }) => [kind, id])).toEqual([[first?.kind, first?.id]]);
  }
  expect(single).toBeGreaterThan(100);
});

test("what came since goes, and what is gone is there again by its name", () => {
  const later = after((edits) => {
    const [note] = [...plan.wish.values()];
    if (note !== undefined) edits.remove("wish", note.id);
  });
  const [gone] = compareStates(index, later).flatMap(({ lines }) => lines);
  const order = bringBack({ from: "B As built", earlier: plan, things: [must(gone, "a wish that is gone")] });
  expect(order.says(later)).toBe(`As in B As built: ${must(gone, "it").name}`);
  expect(runOrder(later, ids, order).batch?.changes.map(({ before }) => before)).toEqual([null]);
});

test("the text that check values are taken of stays as it was when sheets were issued by it", () => {
  // Whoever changes it makes every value on paper void: then the form goes up with it.
  const read = readPlanFile(readFileSync("tests/fixtures/plan-version-17.json", "utf8"));
  const text = stateText(must(read.ok ? read.value : null, "it is read"));
  expect([STATE_FORM, createHash("sha256").update(text).digest("hex")]).toEqual([
    17,
    "c144ed5979a52154cf9018649d539349d53cb56defbaa2d24dbd2255a9deee79",
  ]);
});
