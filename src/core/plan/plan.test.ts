import fc from "fast-check";
import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import {
  aDevice,
  aHost,
  aLink,
  aPort,
  aSegment,
  aVlan,
  aZone,
  aDomain,
  planWith,
  testId,
} from "../testing/build-plan";
import { applyChanges, invert, type Change } from "./change";
import { COLLECTION_KINDS } from "./schema/kinds";
import { diff } from "./diff";
import { PlanEdits } from "./plan-edits";
import { entityOf, type Plan } from "./plan";
import { PlanIndex } from "./plan-index";
import { nextSteps, type LoggedBatch } from "./undo";
import { rebase } from "./rebase";
import { vid } from "./schema/fields";

const demo = fennelStreet();
const applied = (plan: Plan, changes: readonly Change[]): Plan => {
  const result = applyChanges(plan, changes);
  return must(result.ok ? result.value : null, `applies: ${result.ok ? "" : JSON.stringify(result.error)}`);
};

/** A few random edits that keep the plan whole. */
const anyEdits = fc.array(
  fc.oneof(
    fc.record({
      what: fc.constant("rename"),
      pick: fc.nat(),
      name: fc.string({ minLength: 1, maxLength: 12 }),
    }),
    fc.record({
      what: fc.constant("retag"),
      pick: fc.nat(),
      vids: fc.uniqueArray(fc.integer({ min: 1, max: 4094 }), { maxLength: 6 }),
    }),
    fc.record({ what: fc.constant("unplug"), pick: fc.nat() }),
    fc.record({ what: fc.constant("add"), pick: fc.nat(), name: fc.string({ minLength: 1, maxLength: 12 }) }),
    fc.record({ what: fc.constant("cut"), pick: fc.nat() }),
  ),
  { minLength: 1, maxLength: 12 },
);
type Edits = typeof anyEdits extends fc.Arbitrary<infer E> ? E : never;

function changesOf(plan: Plan, edits: Edits, salt = ""): Change[] {
  const draft = new PlanEdits(plan);
  for (const edit of edits) {
    const pickFrom = <T>(list: T[]): T => must(list[edit.pick % list.length], "not empty");
    if (edit.what === "rename" && "name" in edit)
      draft.patch("host", pickFrom(draft.all("host")).id, { name: edit.name });
    if (edit.what === "add" && "name" in edit)
      draft.put("host", aHost({ id: testId("host", `${salt}${edit.name}${edit.pick}`), name: edit.name }));
    if (edit.what === "retag" && "vids" in edit)
      draft.patch("port", pickFrom(draft.all("port")).id, {
        tagged: edit.vids.map((n) => must(vid(n), "a VID")),
      });
    if (edit.what === "unplug")
      draft.patch("host", pickFrom(draft.all("host")).id, { attachment: { at: "unplaced" } });
    const links = draft.all("link");
    if (edit.what === "cut" && links.length > 0) draft.remove("link", pickFrom(links).id);
  }
  return draft.changes();
}

test("apply, then the inverse, is the plan that was; diff finds the same changes again", () => {
  fc.assert(
    fc.property(anyEdits, (edits) => {
      const changes = changesOf(demo, edits);
      const after = applied(demo, changes);
      expect(diff(applied(after, invert(changes)), demo)).toEqual([]);
      expect(applied(demo, diff(demo, after))).toEqual(after);
    }),
    { numRuns: 60 },
  );
});

test("nothing changed is the same object; untouched collections stay the same objects", () => {
  expect(applied(demo, [])).toBe(demo);
  const without = applied(demo, changesOf(demo, [{ what: "unplug", pick: 3 }]));
  for (const kind of COLLECTION_KINDS) expect(without[kind] === demo[kind]).toBe(kind !== "host");
});

test("a derived index answers like one built anew", () => {
  const names = [
    "portsByDevice",
    "linksByPort",
    "hostsByPort",
    "hostsByAddress",
    "hostsByMac",
    "hostsBySegment",
    "hostsByHost",
  ] as const;
  fc.assert(
    fc.property(anyEdits, anyEdits, (first, second) => {
      let index = PlanIndex.of(demo);
      for (const name of names) index.groups(name);
      for (const edits of [first, second]) {
        const changes = changesOf(index.plan, edits, "x");
        index = index.derive(applied(index.plan, changes), changes);
      }
      const fresh = PlanIndex.of(index.plan);
      const asIds = (of: PlanIndex, name: (typeof names)[number]) =>
        [...of.groups(name)]
          .map(([key, group]) => [
            String(key),
            group
              .map((e) => e.id)
              .sort()
              .join(" "),
          ])
          .sort();
      for (const name of names) expect(asIds(index, name)).toEqual(asIds(fresh, name));
    }),
    { numRuns: 40 },
  );
});

test("two people's edits merge when they touch different fields, in either order", () => {
  const host = must([...demo.host.values()][0], "a host");
  const rename = new PlanEdits(demo);
  rename.patch("host", host.id, { name: "Renamed" });
  const move = new PlanEdits(demo);
  move.patch("host", host.id, { place: "Attic" });
  for (const [mine, theirs] of [
    [rename, move],
    [move, rename],
  ] as const) {
    const now = applied(demo, theirs.changes());
    const merged = rebase(now, mine.changes());
    const both = applied(now, merged.ok ? merged.value : []);
    expect(both.host.get(host.id)).toEqual({ ...host, name: "Renamed", place: "Attic" });
  }
});

test("member lists merge as sets; one field wanted differently is a clash with both values", () => {
  const port = must(
    [...demo.port.values()].find((p) => p.tagged.length > 3),
    "a trunk",
  );
  const [first, second] = [must(port.tagged[0], "a VID"), must(port.tagged[1], "a VID")];
  const added = must(vid(123), "a VID");
  const mine = new PlanEdits(demo);
  mine.patch("port", port.id, { tagged: [...port.tagged.filter((t) => t !== first), added] });
  const theirs = new PlanEdits(demo);
  theirs.patch("port", port.id, { tagged: port.tagged.filter((t) => t !== second) });
  const now = applied(demo, theirs.changes());
  const merged = rebase(now, mine.changes());
  const result = applied(now, merged.ok ? merged.value : []).port.get(port.id);
  expect([...(result?.tagged ?? [])].sort()).toEqual(
    [...port.tagged.filter((t) => t !== first && t !== second), added].sort(),
  );

  const a = new PlanEdits(demo);
  a.patch("port", port.id, { note: "mine" });
  const b = new PlanEdits(demo);
  b.patch("port", port.id, { note: "theirs" });
  expect(rebase(applied(demo, b.changes()), a.changes())).toEqual({
    ok: false,
    error: [{ kind: "port", id: port.id, field: "note", mine: "mine", theirs: "theirs" }],
  });
  expect(rebase(applied(demo, a.changes()), a.changes())).toEqual({ ok: true, value: [] });
});

describe("integrity is refused with a typed error", () => {
  const ports = ["1", "2", "3"].map((label) => aPort({ device: testId("device", "S"), label }));
  const base = planWith({ device: [aDevice({ name: "S" })], port: ports });
  const [p1, p2, p3] = ports.map((p) => p.id) as [string, string, string];
  const create = (kind: Change["kind"], after: { id: string }) =>
    ({ kind, id: after.id, before: null, after }) as Change;
  const code = (changes: Change[], plan = base) => {
    const result = applyChanges(plan, changes);
    return result.ok ? "fine" : result.error.code;
  };

  test("each kind of break has its code, and the whole batch is refused", () => {
    const link = aLink({ a: p1, b: p2 });
    const linked = applied(base, [create("link", link)]);
    expect(code([create("link", aLink({ a: p2, b: p3 }))], linked)).toBe("port-linked-twice");
    expect(code([create("link", aLink({ a: p3, b: p3 }))])).toBe("linked-to-itself");
    expect(code([create("link", aLink({ a: p1, b: testId("port", "nowhere") }))])).toBe("dangling-reference");
    const port = must(base.port.get(p1), "port 1");
    expect(code([{ kind: "port", id: p1, before: port, after: null }], linked)).toBe("still-referenced");
    expect(code([{ kind: "port", id: p1, before: { ...port, label: "9" }, after: port }])).toBe(
      "stale-before",
    );
    expect(code([{ kind: "port", id: p1, before: port, after: { ...port, id: p2 } }])).toBe("wrong-id");
    expect(code([create("host", aHost({ name: "a" })), create("host", aHost({ name: "a" }))])).toBe(
      "changed-twice",
    );
    expect(code([{ kind: "site", id: base.site.id, before: base.site, after: null }])).toBe("site-is-one");
    const a = aHost({ name: "a", attachment: { at: "behind", host: testId("host", "b") } });
    const b = aHost({ name: "b", attachment: { at: "behind", host: a.id } });
    expect(code([create("host", a), create("host", b)])).toBe("behind-itself");
    expect(
      code(
        [{ kind: "link", id: link.id, before: link, after: null }, create("link", aLink({ a: p2, b: p3 }))],
        linked,
      ),
    ).toBe("fine");
  });

  test("a device goes together with all that hangs on it, in any order", () => {
    const whole = planWith({
      domain: [aDomain()],
      zone: [aZone()],
      vlan: [aVlan({ vid: must(vid(20), "a VID") })],
      segment: [aSegment({ name: "Staff", vlan: testId("vlan", "20") })],
    });
    const changes = diff(whole, {
      ...whole,
      zone: new Map(),
      segment: new Map(),
      vlan: new Map(),
      domain: new Map(),
    });
    expect(code(changes, whole)).toBe("fine");
    expect(code([...changes].reverse(), whole)).toBe("fine");
  });
});

/** The same from the beginning: two stacks, as one would keep them. */
function stacksOf(log: readonly LoggedBatch[]): { undo: string | null; redo: string | null } {
  let undo: string[] = [];
  let redo: string[] = [];
  for (const line of log) {
    if (line.undoes !== null) {
      undo = undo.filter((id) => id !== line.undoes);
      redo.push(line.undoes);
    } else if (line.redoes !== null) {
      redo = redo.filter((id) => id !== line.redoes);
      undo.push(line.redoes);
    } else {
      redo = [];
      if (line.changeCount > 0) undo.push(line.id);
    }
  }
  return { undo: undo.at(-1) ?? null, redo: redo.at(-1) ?? null };
}

test("the next undo and redo, read backwards, are those of two stacks kept from the beginning", () => {
  const step = fc.constantFrom("edit" as const, "nothing" as const, "undo" as const, "redo" as const);
  let certain = 0;
  fc.assert(
    fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
      const log: LoggedBatch[] = [];
      for (const [i, what] of steps.entries()) {
        const next = stacksOf(log);
        const line = {
          id: `b${i}`,
          author: "me",
          undoes: null,
          redoes: null,
          changeCount: what === "nothing" ? 0 : 1,
        };
        if (what === "edit" || what === "nothing") log.push(line);
        else if (next[what] !== null)
          log.push({ ...line, [what === "undo" ? "undoes" : "redoes"]: next[what] });
      }
      const { undo, redo, isCertain } = nextSteps([...log].reverse());
      expect({ undo, redo }).toEqual(stacksOf(log));
      certain += isCertain ? 1 : 0;
      // What is certain from the newest lines stays so with the older ones.
      for (let n = 1; n < log.length; n += 1) {
        const part = nextSteps(log.slice(-n).reverse());
        if (part.isCertain) expect(part).toMatchObject({ undo, redo });
      }
    }),
    { numRuns: 500, seed: 7 },
  );
  expect(certain).toBeGreaterThan(100);
});

test("the site answers to its own id only", () => {
  expect(entityOf(demo, "site", demo.site.id)).toBe(demo.site);
  expect(entityOf(demo, "site", testId("site", "other"))).toBeUndefined();
});
