import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "../../kernel";
import { PlanIndex, type Device, type Plan } from "../../plan";
import { configurationDigest, regionKey } from "../../spanning-tree";
import { afterEdit, donePlan } from "../../testing/after-edit";
import type { EditContext, Refusal } from "../planner";
import { copyRegion, pasteRegions, regionCellText, regionColumns, withRegions } from "./region-cell";

const named = (plan: Plan, name: string): Device =>
  must(
    [...plan.device.values()].find((device) => device.name === name),
    name,
  );
/** The practice, whose three switches have multiple trees. */
const plan = donePlan(
  afterEdit(fennelStreet(), ({ edits }) => {
    for (const device of edits.all("device"))
      if (device.kind === "switch")
        edits.patch("device", device.id, { tree: { ...device.tree, kind: "multiple" } });
    return null;
  }),
);
const ids = ["Upper switch", "Lower switch", "Switch B"].map((name) => named(plan, name).id);
const [upper = "", lower = "", other = ""] = ids;
const asked = (on: Plan, edit: (context: EditContext) => Refusal) => afterEdit(on, edit);
const mapOf = (on: Plan, id: string) =>
  must(on.device.get(id), "it").tree.instances.map(({ number, vids }) => [number, [...vids]]);

test("a column for every VLAN; a number puts the VLAN into that tree and out of the other", () => {
  expect(
    regionColumns(plan)
      .map(([, head]) => head)
      .slice(0, 5),
  ).toEqual(["Switch", "Region", "Revision", "10", "20"]);
  const once = donePlan(
    asked(plan, (context) => pasteRegions(context, [["Practice", "7", "1", "2", "2"]], "region", [upper])),
  );
  const tree = must(once.device.get(upper), "it").tree;
  expect([tree.region, tree.revision, mapOf(once, upper)]).toEqual([
    "Practice",
    7,
    [
      [1, [10]],
      [2, [20, 30]],
    ],
  ]);
  const moved = donePlan(asked(once, (context) => pasteRegions(context, [["1", "0"]], "vid 20", [upper])));
  expect(mapOf(moved, upper)).toEqual([
    [1, [10, 20]],
    [2, []],
  ]);
  expect(regionCellText(must(moved.device.get(upper), "it"), "vid 20")).toBe("1");
  expect(regionCellText(must(moved.device.get(upper), "it"), "vid 90")).toBe("0");
});

test("what can't be is said, and nothing changes", () => {
  const refused = (from: Parameters<typeof pasteRegions>[2], text: string, onto = [upper]) =>
    asked(plan, (context) => pasteRegions(context, [[text]], from, onto));
  expect(refused("vid 20", "five")).toMatch(/"five" is no tree; write 0 for the common one, or 1 to 4094/);
  expect(refused("vid 999", "1")).toMatch(/not in the plan any more/);
  expect(refused("revision", "65536")).toMatch(/no revision/);
  expect(refused("digest", "AA")).toMatch(/follows from the VLANs' trees/);
  expect(refused("name", "x")).toMatch(/on Hardware/);
  expect(refused("region", "x", [])).toMatch(/no more switches/);
});

test("in one act all switches are one region, with one digest, and keep their own priorities", () => {
  const mixed = donePlan(
    asked(plan, (context) =>
      pasteRegions(
        context,
        [
          ["Practice", "1", "1", "2"],
          ["Practise", "2", "2", "1"],
        ],
        "region",
        [upper, lower],
      ),
    ),
  );
  const own = donePlan(
    asked(mixed, ({ edits }) => {
      const { tree } = edits.need("device", lower);
      edits.patch("device", lower, {
        tree: { ...tree, instances: tree.instances.map((instance) => ({ ...instance, priority: 4096 })) },
      });
      return null;
    }),
  );
  expect(new Set(withRegions(PlanIndex.of(own)).map(regionKey)).size).toBe(3);
  const copied = donePlan(
    asked(own, ({ edits }) => {
      copyRegion(edits, upper, ids);
      return null;
    }),
  );
  const devices = withRegions(PlanIndex.of(copied));
  expect(devices.map(({ id }) => id).sort()).toEqual([...ids].sort());
  expect(new Set(devices.map(regionKey)).size).toBe(1);
  expect(new Set(devices.map(configurationDigest)).size).toBe(1);
  expect(must(copied.device.get(lower), "it").tree.instances.map(({ priority }) => priority)).toEqual([
    4096, 4096,
  ]);
  expect(must(copied.device.get(other), "it").tree.instances.map(({ priority }) => priority)).toEqual([
    32_768, 32_768,
  ]);
});
