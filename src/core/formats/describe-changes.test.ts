import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import { applyChanges, PlanEdits, emptyPlan, diff, PlanIndex, rebase, type Plan } from "../plan";
import { editHostCell, editSegmentCell, movePool, removeDevice, setWall } from "../planners";
import { testId } from "../testing/build-plan";
import { clashSides, countChanges, describeChanges } from "./describe-changes";
import { encodeClash } from "./clash-codec";

const plan = fennelStreet();
const index = PlanIndex.of(plan);
const named = <T extends { name: string }>(items: ReadonlyMap<string, T>, name: string): T =>
  must(
    [...items.values()].find((item) => item.name === name),
    name,
  );
const ids = () => testId("new", "one");
function told(edit: (edits: PlanEdits) => unknown) {
  const edits = new PlanEdits(plan);
  edit(edits);
  const changes = edits.changes();
  const applied = applyChanges(plan, changes);
  return {
    changes,
    words: describeChanges(index, PlanIndex.of(must(applied.ok ? applied.value : null, "applies")), changes),
  };
}

test("a change is told by name, with both values as a person writes them", () => {
  const staff = named(plan.segment, "Staff");
  expect(told((edits) => movePool({ edits, index, ids }, staff.id, 40, 109)).words).toEqual([
    {
      what: "changed",
      kind: "scope",
      name: "the scope of Staff",
      fields: [{ field: "pool", before: "10.24.20.40 to 10.24.20.99", after: "10.24.20.40 to 10.24.20.109" }],
    },
  ]);
  expect(told((edits) => editSegmentCell({ edits, index, ids }, staff.id, "zone", "Payment")).words).toEqual([
    {
      what: "changed",
      kind: "segment",
      name: "Staff",
      fields: [{ field: "zone", before: "Practice", after: "Payment" }],
    },
  ]);
  expect(
    told((edits) => editHostCell({ edits, index, ids }, named(plan.host, "Analyser").id, "port", "")).words,
  ).toEqual([
    {
      what: "changed",
      kind: "host",
      name: "Analyser",
      fields: [{ field: "plugged in", before: "Switch B port 4", after: "nowhere" }],
    },
  ]);
  const doors = told((edits) =>
    setWall(edits, ids, {
      from: { at: "zone", zone: named(plan.zone, "Visitors").id },
      to: { at: "gateway" },
      door: "open",
      services: [],
      reason: "",
    }),
  ).words;
  expect(doors).toEqual([{ what: "new", kind: "wall", name: "the wall Visitors to Gateway", fields: [] }]);
});

test("what goes is told by the name it had; how much a batch does is counted", () => {
  const { changes, words } = told((edits) => removeDevice(edits, named(plan.device, "Kennels AP").id));
  expect(words.filter((w) => w.what === "removed").map((w) => w.name)).toEqual(
    expect.arrayContaining([
      "Kennels AP",
      "Kennels AP port 1",
      "the cable Switch B port 11 to Kennels AP port 1",
    ]),
  );
  // The other access point no longer hears it: that is a change of its own.
  expect(countChanges(changes)).toMatch(/^1 changed, \d+ removed$/);
  expect(countChanges([])).toBe("nothing changes");
  expect(countChanges(diff(emptyPlan(plan.site), plan))).toMatch(/^\d+ new$/);
});

test("no change of the demo is told with an id, a bare object or an empty value", () => {
  const from: Plan = plan;
  const all = describeChanges(PlanIndex.of(emptyPlan(from.site)), index, diff(emptyPlan(from.site), from));
  expect(all.length).toBeGreaterThan(200);
  for (const change of all)
    expect(change.name).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}|\[object|undefined|removed/);
});

test("a clash shows both sides in words and travels as plain JSON, IPv6 and all", () => {
  const host = named(plan.host, "Analyser");
  const set = (fields: Partial<typeof host>) => told((edits) => edits.patch("host", host.id, fields)).changes;
  const now = applyChanges(plan, set({ ipv6: 0xfd00n as never, place: "Attic" }));
  const clash = rebase(must(now.ok ? now.value : null, "applies"), set({ ipv6: 0xfd01n as never }));
  const [only] = clash.ok ? [] : clash.error;
  const found = must(only, "a clash");
  expect(JSON.parse(JSON.stringify(encodeClash(found)))).toMatchObject({
    field: "ipv6",
    mine: "::fd01",
    theirs: "::fd00",
  });
  expect(clashSides(index, found)).toEqual({ field: "IPv6", mine: "::fd01", theirs: "::fd00" });
  expect(clashSides(index, { ...found, field: null, mine: null, theirs: host })).toEqual({
    field: "all of it",
    mine: "removed",
    theirs: "changed",
  });
});

test("no value of a choice is told in the program's own spelling, whatever kind and field it is of", () => {
  const [line, host, device] = [
    [...plan.line.values()][0],
    named(plan.host, "Analyser"),
    named(plan.device, "Gateway"),
  ];
  const { words } = told((edits) => {
    edits.patch("line", must(line, "a line").id, { providerBox: "cannotBridge" });
    edits.patch("host", host.id, { kind: "doorController", poe: "class3", manner: "typed" });
    edits.patch("device", device.id, {
      kind: "providerBox",
      defaultRoute: "none",
      tree: { ...device.tree, kind: "perVlan" },
    });
    edits.put("site", { ...plan.site, conventions: { ...plan.site.conventions, separation: "gap" } });
  });
  const values = words.flatMap(({ fields }) => fields.flatMap(({ before, after }) => [before, after]));
  expect(values).toEqual(
    expect.arrayContaining(["cannot bridge", "door controller", "static", "provider's box"]),
  );
  for (const value of values) expect(value.replace(/\{\w+\}/g, "")).not.toMatch(/[a-z][A-Z]/);
});
