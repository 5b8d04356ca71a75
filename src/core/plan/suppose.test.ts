import { aHost, aSite, planWith } from "../testing/build-plan";
import { applyChanges, invert, supposeChanges, type Change } from "./change";
import { MOST } from "./limits";
import { emptyPlan, type Plan } from "./plan";
import type { Host } from "./schema/hardware";

// Changes that are only supposed: what comes of them, and when a collection is copied for it.

const ID = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;
const host = (n: number): Host => aHost({ id: ID(n), name: `PC ${n}` });
const hosts = (count: number) => Array.from({ length: count }, (_, n) => host(n + 1));
const large = planWith({ host: hosts(1200) });
const change = (before: Host | null, after: Host | null): Change =>
  ({ kind: "host", id: (before ?? after)?.id, before, after }) as Change;
const renamed = (n: number): Change => change(host(n), { ...host(n), name: "Renamed" });

function supposed(plan: Plan, changes: readonly Change[]): Plan {
  const [would, is] = [supposeChanges(plan, changes), applyChanges(plan, changes)];
  if (!would.ok || !is.ok) throw new Error("they do not apply");
  // Read through, it is what it would be, in its order.
  expect([...would.value.host]).toEqual([...is.value.host]);
  expect(is.value.host).toBeInstanceOf(Map);
  return would.value;
}
/** Whether it was worked out without a copy of the collection. */
const isLight = (plan: Plan, changes: readonly Change[]) => !(supposed(plan, changes).host instanceof Map);

test("where things of a large collection are only replaced, it is not copied", () => {
  expect(isLight(large, [renamed(3), renamed(700)])).toBe(true);
  expect(supposed(large, [renamed(3)]).host.get(ID(3))?.name).toBe("Renamed");
  expect(large.host.get(ID(3))?.name).toBe("PC 3");
});

test("where something comes or goes it is, also beside what is replaced; a small one always is", () => {
  expect(isLight(large, [renamed(3), change(null, host(5000))])).toBe(false);
  expect(isLight(large, [change(host(4), null), renamed(3)])).toBe(false);
  expect(supposed(large, [change(host(4), null)]).host.has(ID(4))).toBe(false);
  expect(isLight(planWith({ host: hosts(20) }), [renamed(3)])).toBe(false);
});

test("what does not apply is refused as it would be, also beyond what there may be", () => {
  const stale = change({ ...host(3), name: "Other" }, host(3));
  expect(supposeChanges(large, [stale])).toEqual(applyChanges(large, [stale]));
  expect(supposeChanges(large, [stale]).ok).toBe(false);
  const template = (n: number): Change => {
    const after = { id: ID(n), name: `T ${n}`, ending: "txt", text: "" };
    return { kind: "template", id: after.id, before: null, after } as Change;
  };
  const many = Array.from({ length: MOST.template + 1 }, (_, n) => template(n + 1));
  const empty = emptyPlan(aSite());
  expect(supposeChanges(empty, many)).toMatchObject({ ok: false, error: { code: "too-many" } });
  expect(supposeChanges(empty, many.slice(1)).ok).toBe(true);
});

test("the way back undoes the last change first", () => {
  const [a, b] = [renamed(1), change(null, host(5000))];
  expect(invert([a, b])).toEqual([
    change(host(5000), null),
    change({ ...host(1), name: "Renamed" }, host(1)),
  ]);
});

test("a row that is new comes last where rows are in no order of ids, and where there was none", () => {
  const keysAfter = (plan: Plan, ...added: readonly number[]) => {
    const after = applyChanges(
      plan,
      added.map((n) => change(null, host(n))),
    );
    return after.ok ? [...after.value.host.keys()] : after.error;
  };
  const ordered = (...numbers: readonly number[]): Plan => ({
    ...emptyPlan(aSite()),
    host: new Map(numbers.map((n) => [ID(n), host(n)])),
  });
  expect(keysAfter(ordered(5, 2), 3)).toEqual([ID(5), ID(2), ID(3)]);
  expect(keysAfter(ordered(2, 5), 3)).toEqual([ID(2), ID(3), ID(5)]);
  expect(keysAfter(ordered(), 5, 3)).toEqual([ID(5), ID(3)]);
});
