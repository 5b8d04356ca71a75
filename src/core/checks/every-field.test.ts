import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { LOADS } from "../cabling/load";
import { applyChanges, KINDS, PlanEdits, PlanIndex } from "../plan";
import { WALLS } from "../policy/decide";
import { WALL_RULES } from "../policy";
import { reachMatrix } from "../reach";
import { LOOPS, TREE } from "../spanning-tree";
import { CARRY, portCarries, USES } from "../forwarding";
import { dice } from "../testing/plants";
import { mixedSite } from "../testing/mixed-site";
import { editField, FIELD_PATHS } from "../testing/schema-edits";
import { HEARING } from "../wireless";
import { recheck } from "./recheck";
import { listFindings, runChecks } from "./registry";

const TODAY = "2026-11-25";
const text = (value: unknown): string =>
  JSON.stringify(value, (_key, value: unknown) => {
    if (typeof value === "bigint") return String(value);
    if (value instanceof Map)
      return [...(value as Map<unknown, unknown>)].map(([key, inner]) => [key, inner]);
    if (value instanceof Set) return [...(value as Set<unknown>)].sort((a, b) => Number(a) - Number(b));
    return value;
  });
const sorted = (list: Iterable<unknown>): string[] => [...list].map(text).sort();
/** What an index says, in a form that does not depend on the order in which it was worked out. */
const said = (index: PlanIndex) => ({
  reach: text(reachMatrix(index)),
  carries: sorted(portCarries(index)),
  trees: sorted([...index.derived(TREE).ports].map(([port, state]) => [port, state.role])),
  roots: sorted([...index.derived(TREE).rootOf].map(([id, root]) => [id, root.id])),
  uses: sorted([...index.derived(USES)].map(([vid, users]) => [vid, sorted(users)])),
  loops: sorted(index.derived(LOOPS)),
  walls: sorted(index.derived(WALLS)),
  rules: sorted(index.derived(WALL_RULES)),
  heard: sorted(index.derived(HEARING)),
  loads: sorted(index.derived(LOADS)),
  breaks: sorted(index.derived(CARRY).breaks.map((gap) => ({ ...gap, lacking: sorted(gap.lacking) }))),
  crossings: sorted(index.derived(CARRY).crossings),
});

test("every kind has fields here, those of every group among them", () => {
  expect(new Set(FIELD_PATHS.map(({ kind }) => kind))).toEqual(new Set(KINDS));
  for (const path of [
    "guards.profile",
    "tree.priority",
    "protections.snooping",
    "conventions.separation",
    "abilities.routes",
  ])
    expect(FIELD_PATHS.map((fieldPath) => fieldPath.path.join("."))).toContain(path);
});

test.each([
  ["office", fennelStreet(), 1],
  ["home", lockkeepersHouse(), 2],
  ["industrial", bramblewick(), 3],
  ["mixed", mixedSite(dice(7)), 4],
])(
  "%s: brought up to date after edits of any kind and field, everything is as made anew",
  (_, plan, seed) => {
    const roll = dice(seed);
    let [index, findings] = [PlanIndex.of(plan, TODAY), runChecks(PlanIndex.of(plan, TODAY))];
    said(index);
    const edited = new Set<string>();
    for (const field of [...FIELD_PATHS].sort(() => roll(3) - 1)) {
      const draft = new PlanEdits(index.plan);
      editField(draft, field, roll);
      const changes = draft.changes();
      const applied = applyChanges(index.plan, changes);
      if (!applied.ok || changes.length === 0) continue;
      const next = index.derive(applied.value, changes);
      const anew = PlanIndex.of(applied.value, TODAY);
      edited.add(`${field.kind} ${field.path.join(".")}`);
      const rechecked = recheck(findings, next, changes);
      const keys = (of: typeof rechecked) =>
        listFindings(of)
          .map((finding) => `${finding.severity} ${finding.key} ${text(finding.data)}`)
          .sort();
      expect([field.kind, field.path, keys(rechecked)]).toEqual([
        field.kind,
        field.path,
        keys(runChecks(anew)),
      ]);
      expect([field.kind, field.path, said(next)]).toEqual([field.kind, field.path, said(anew)]);
      // A plan in ruins says little: now and then it begins again with the sound one.
      [index, findings] =
        roll(12) === 0
          ? [PlanIndex.of(plan, TODAY), runChecks(PlanIndex.of(plan, TODAY))]
          : [next, rechecked];
      if (index.plan === plan) said(index);
    }
    expect(edited.size).toBeGreaterThan(60);
  },
);
