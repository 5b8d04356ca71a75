import fc from "fast-check";
import { fennelStreet } from "../../../demo/fennel-street";
import { equal, must } from "../kernel";
import { applyChanges, diff, Draft, entityFault, rebase, rebaseMine, vid as asVid, type Change, type Host, type Plan, type Port } from ".";

const plan = fennelStreet();
const ports = [...plan.port.values()].filter((port) => port.tagged.length > 1);
const hosts = [...plan.host.values()];
const v = (n: number) => must(asVid(n), "a VID");

/** An edit of one field, or of a member list, of one of a few entities, so that two people's edits meet often. */
type Edit = { readonly on: "host"; readonly n: number; readonly field: "name" | "place" | "notes"; readonly text: string } | { readonly on: "port"; readonly n: number; readonly add: number; readonly drop: number } | { readonly on: "gone"; readonly n: number };
const anyEdit: fc.Arbitrary<Edit> = fc.oneof(
  fc.record({ on: fc.constant("host" as const), n: fc.nat(2), field: fc.constantFrom("name" as const, "place" as const, "notes" as const), text: fc.constantFrom("Mill", "Barn", "Kiln") }),
  fc.record({ on: fc.constant("port" as const), n: fc.nat(2), add: fc.constantFrom(501, 502, 503), drop: fc.nat(3) }),
  fc.record({ on: fc.constant("gone" as const), n: fc.nat(2) }),
);

function changesOf(on: Plan, edits: readonly Edit[]): Change[] {
  const draft = new Draft(on);
  for (const edit of edits) {
    const host = draft.get("host", must(hosts[edit.n], "a host").id);
    const port = draft.get("port", must(ports[edit.n], "a port").id);
    if (edit.on === "host" && host !== undefined) draft.patch("host", host.id, { [edit.field]: edit.text });
    if (edit.on === "port" && port !== undefined) draft.patch("port", port.id, { tagged: [...port.tagged.filter((_, i) => i !== edit.drop), v(edit.add)].filter((t, i, all) => all.indexOf(t) === i) });
    if (edit.on === "gone" && host !== undefined && edit.n === 2) draft.remove("host", host.id);
  }
  return draft.changes().filter((change) => change.after !== null || !hosts.some((h) => h.attachment.at === "behind" && h.attachment.host === change.id));
}
const applied = (on: Plan, changes: readonly Change[]): Plan => { const result = applyChanges(on, changes); return must(result.ok ? result.value : null, "applies"); };
/** Members as sets: the order in which two people added theirs is nobody's wish. */
const settled = (of: Plan): Plan => ({ ...of, port: new Map([...of.port].map(([id, port]) => [id, { ...port, tagged: [...port.tagged].sort((a, b) => a - b) }])) });

test("whoever comes second, two people's changes give one plan, or a clash that is one both ways", () => {
  let [merged, clashed] = [0, 0];
  fc.assert(fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 3 }), fc.array(anyEdit, { minLength: 1, maxLength: 3 }), (a, b) => {
    const [mine, theirs] = [changesOf(plan, a), changesOf(plan, b)];
    const [onTheirs, onMine] = [rebase(applied(plan, theirs), mine), rebase(applied(plan, mine), theirs)];
    expect(onTheirs.ok).toBe(onMine.ok);
    if (!onTheirs.ok || !onMine.ok) { clashed += 1; return; }
    const [first, second] = [applied(applied(plan, theirs), onTheirs.value), applied(applied(plan, mine), onMine.value)];
    expect(diff(settled(first), settled(second))).toEqual([]);
    merged += 1;
  }), { numRuns: 400, seed: 52 });
  expect(Math.min(merged, clashed)).toBeGreaterThan(10);
});

test("what nobody else touched is exactly as I wanted it; what I did not touch is exactly as they left it", () => {
  fc.assert(fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 3 }), fc.array(anyEdit, { minLength: 1, maxLength: 3 }), (a, b) => {
    const [mine, theirs] = [changesOf(plan, a), changesOf(plan, b)];
    const now = applied(plan, theirs);
    const rebased = rebase(now, mine);
    if (!rebased.ok) return;
    const after = applied(now, rebased.value);
    const touched = (changes: readonly Change[]) => new Set(changes.map((change) => change.id));
    for (const change of mine) if (!touched(theirs).has(change.id)) expect(after[change.kind as "host"].get(change.id) ?? null).toEqual(change.after);
    for (const change of theirs) if (!touched(mine).has(change.id)) expect(after[change.kind as "host"].get(change.id) ?? null).toEqual(change.after);
  }), { numRuns: 200, seed: 53 });
});

test("insisting always gives what can be applied, with every field of mine as I set it", () => {
  fc.assert(fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 3 }), fc.array(anyEdit, { minLength: 1, maxLength: 3 }), (a, b) => {
    const [mine, theirs] = [changesOf(plan, a), changesOf(plan, b)];
    const now = applied(plan, theirs);
    const after = applied(now, rebaseMine(now, mine));
    for (const change of mine) {
      const is = after[change.kind as "host"].get(change.id) as (Host | Port | undefined);
      if (change.after === null) expect(is).toBeUndefined();
      else if (change.before !== null) {
        for (const [field, value] of Object.entries(change.after)) if (!equal(value, (change.before as unknown as Record<string, unknown>)[field])) expect((is as unknown as Record<string, unknown>)[field]).toEqual(value);
      }
    }
  }), { numRuns: 200, seed: 54 });
});

test("an entity that breaks the schema has a sentence that names the field", () => {
  const host = must(hosts[0], "a host");
  expect(entityFault("host", host)).toBeNull();
  expect(entityFault("host", { ...host, name: "two\nlines" })).toMatch(/^name: A name can't hold line breaks/);
  expect(entityFault("host", { ...host, place: "x".repeat(200) })).toMatch(/^place: At most 120 characters/);
  expect(entityFault("vlan", { ...must([...plan.vlan.values()][0], "a VLAN"), vid: 5000 as never })).toMatch(/^vid: .*1 to 4094/);
});
