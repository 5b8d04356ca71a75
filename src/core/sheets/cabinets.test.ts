import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { PlanIndex } from "../plan";
import { editDevice } from "../planners";
import { afterEdit, donePlan } from "../testing/after-edit";
import { cabinets, freeUnit } from "./cabinets";

test("every device stands in exactly one place, from the top down, and nothing that is free overlaps", () => {
  for (const plan of [fennelStreet(), bramblewick()]) {
    const found = cabinets(PlanIndex.of(plan));
    const all = found.flatMap((cabinet) => [
      ...cabinet.racked.map(({ device }) => device.id),
      ...cabinet.loose.map(({ device }) => device.id),
    ]);
    expect(all.sort()).toEqual([...plan.device.keys()].sort());
    for (const cabinet of found) {
      const froms = cabinet.racked.map((racked) => racked.from);
      expect(froms).toEqual([...froms].sort((a, b) => b - a));
      for (const height of [1, 2, 3]) {
        const free = freeUnit(cabinet, height, 42);
        expect(free).not.toBeNull();
        for (const racked of cabinet.racked)
          expect(racked.to < (free ?? 0) || racked.from > (free ?? 0) + height - 1).toBe(true);
      }
      expect(freeUnit(cabinet, 1, 0)).toBeNull();
    }
  }
});

test("whatever is on one feed alone goes dark with it; a second feed keeps it alive", () => {
  const plan = fennelStreet();
  const [first, second] = [...plan.device.values()].filter((device) => device.place === "Cabinet A");
  const fed = donePlan(
    afterEdit(plan, (context) => {
      for (const device of context.edits.all("device"))
        if (device.place === "Cabinet A")
          context.edits.patch("device", device.id, { feed: "", backupFeed: "" });
      return (
        editDevice(context, first?.id ?? "", "feed", "circuit 4") ??
        editDevice(context, second?.id ?? "", "feed", "circuit 4") ??
        editDevice(context, second?.id ?? "", "backupFeed", "battery")
      );
    }),
  );
  const cabinet = cabinets(PlanIndex.of(fed)).find((cabinet) => cabinet.place === "Cabinet A");
  expect(
    cabinet?.feeds.map(({ feed, devices, dark }) => [feed, devices.length, dark.map((device) => device.id)]),
  ).toEqual([
    ["battery", 1, []],
    ["circuit 4", 2, [first?.id]],
  ]);
});
