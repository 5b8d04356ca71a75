import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { parseMac } from "../address";
import { must } from "../kernel";
import { afterEdits, PlanEdits, PlanIndex, type Plan } from "../plan";
import { FABRIC } from "../fabric";
import { mixedSite } from "../testing/mixed-site";
import { dice, type Dice } from "../testing/plants";
import { editField, FIELD_PATHS } from "../testing/schema-edits";
import { TREE } from "./plan-tree";

// The trees after an edit are those before where the edit can't have changed them: held to trees that are
// worked out from nothing.

/** All that trees say, port by port by their ids. */
function said(index: PlanIndex): unknown {
  const { discards, named, shut, unknownAddress, mixed, anywhere } = index.derived(TREE);
  const { ports } = index.derived(FABRIC);
  const vids = [1, ...[...index.plan.vlan.values()].map(({ vid }) => vid)];
  const closed = ports.flatMap(({ id }, number) =>
    vids.flatMap((vid) => (discards(number, vid) ? [`${id} ${vid}`] : [])),
  );
  return { closed: closed.sort(), named, shut, unknownAddress, mixed: mixed.length, anywhere };
}

const WATCHED = FIELD_PATHS.filter(({ kind }) => TREE.reads.includes(kind));

function edited(plan: Plan, roll: Dice): void {
  let index = PlanIndex.of(plan);
  said(index);
  for (const path of [...WATCHED, ...WATCHED].sort(() => roll(3) - 1)) {
    const edits = new PlanEdits(index.plan);
    editField(edits, path, roll);
    const next = afterEdits(index, edits);
    if (next === null) continue;
    expect([path.kind, path.path, said(next)]).toEqual([path.kind, path.path, said(PlanIndex.of(next.plan))]);
    // Mostly from the first plan on: what was edited before would hide what comes after.
    if (roll(4) === 0) index = next;
  }
}

test.each([
  ["the practice", fennelStreet],
  ["the works", bramblewick],
  ["a site of all makes", () => mixedSite(dice(5))],
])("%s: after an edit of any field the trees are as if worked out from nothing", (_, make) => {
  edited(make(), dice(83));
});

test("the address of a bridge decides who is the root, also where only that is edited", () => {
  let index = PlanIndex.of(bramblewick());
  const edits = new PlanEdits(index.plan);
  for (const { id, tree } of index.plan.device.values())
    edits.patch("device", id, { tree: { ...tree, priority: 32_768 } });
  index = must(afterEdits(index, edits), "all alike");
  const rootOf = (at: PlanIndex, bridge: string) => at.derived(TREE).rootOf.get(bridge)?.id;
  const bridges = [...index.derived(TREE).rootOf.keys()];
  const other = must(
    bridges.find((bridge) => rootOf(index, bridge) !== bridge),
    "one that is not the root",
  );
  const lowest = new PlanEdits(index.plan);
  lowest.patch("device", other, { bridgeMac: must(parseMac("02:00:00:00:00:01"), "a MAC address") });
  const next = must(afterEdits(index, lowest), "an address");
  expect(rootOf(next, other)).toBe(other);
});
