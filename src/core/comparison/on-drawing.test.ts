import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Plan } from "../plan";
import { compareStates } from "./compare";
import { drawnTogether } from "./on-drawing";

const plan = fennelStreet();
const deviceCalled = (name: string) =>
  must(
    [...plan.device.values()].find((device) => device.name === name),
    name,
  ).id;

function marksAfter(edit: (edits: PlanEdits) => void) {
  const edits = new PlanEdits(plan);
  edit(edits);
  const applied = applyChanges(plan, edits.changes());
  const after: Plan = must(applied.ok ? applied.value : null, "an edit");
  const [was, is] = [PlanIndex.of(plan), PlanIndex.of(after)];
  return {
    there: drawnTogether(plan, after, compareStates(was, is)),
    back: drawnTogether(after, plan, compareStates(is, was)),
    after,
  };
}

test("nothing is marked where nothing differs, or only what is no gear and no cable", () => {
  const { there } = marksAfter((edits) => {
    const [segment] = [...plan.segment.keys()];
    edits.patch("segment", must(segment, "a segment"), { name: "Otherwise" });
  });
  expect([...there.marks]).toEqual([]);
  expect(there.plan.device.size).toBe(plan.device.size);
});

test("a port of its own changes a device; a cable taken out is drawn, and gone; back it is new", () => {
  const upper = deviceCalled("Upper switch");
  const port = must(
    [...plan.port.values()].find(({ device }) => device === upper),
    "a port",
  );
  const link = must([...plan.link.values()][0], "a cable");
  const { there, back, after } = marksAfter((edits) => {
    edits.patch("port", port.id, { enabled: !port.enabled });
    edits.remove("link", link.id);
  });
  expect(after.link.has(link.id)).toBe(false);
  expect(there.plan.link.has(link.id)).toBe(true);
  expect(there.marks.get(link.id)).toBe("gone");
  expect(back.marks.get(link.id)).toBe("new");
  expect([there.marks.get(upper), back.marks.get(upper)]).toEqual(["changed", "changed"]);
});

test("a device that is gone is drawn with its ports, and is new the other way round", () => {
  const kennels = deviceCalled("Kennels AP");
  const [uplink] = [...plan.port.values()].filter(({ device }) => device === kennels);
  const port = must(uplink, "its port").id;
  const without = <T>(map: ReadonlyMap<string, T>, isGone: (thing: T) => boolean): ReadonlyMap<string, T> =>
    new Map([...map].filter(([, thing]) => !isGone(thing)));
  const after: Plan = {
    ...plan,
    device: without(plan.device, ({ id }) => id === kennels),
    port: without(plan.port, ({ device }) => device === kennels),
    link: without(plan.link, ({ a, b }) => a === port || b === port),
    interface: without(plan.interface, ({ device }) => device === kennels),
    radio: without(plan.radio, ({ device }) => device === kennels),
  };
  const [was, is] = [PlanIndex.of(plan), PlanIndex.of(after)];
  const there = drawnTogether(plan, after, compareStates(was, is));
  expect(there.marks.get(kennels)).toBe("gone");
  expect(drawnTogether(after, plan, compareStates(is, was)).marks.get(kennels)).toBe("new");
  expect(there.plan.port.has(port)).toBe(true);
});
