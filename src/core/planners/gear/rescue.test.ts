import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { runChecks } from "../../checks";
import { must } from "../../kernel";
import { PlanIndex, type Device, type Plan } from "../../plan";
import { pageFrom } from "../../probe";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { rescueNetwork, rescueWayOf } from "./rescue";

const named = (plan: Plan, name: string): Device =>
  must(
    [...plan.device.values()].find((device) => device.name === name),
    name,
  );
const kept = (plan: Plan, name: string): Plan =>
  donePlan(afterEdit(plan, (context) => rescueNetwork(context, named(plan, name).id)));

test.each([
  ["the practice", fennelStreet, ["Lower switch", "Switch B", "Upper switch"]],
  ["the house", lockkeepersHouse, ["Hall switch"]],
  ["the works", bramblewick, ["Press house switch", "Cold store switch"]],
] as const)(
  "%s: a laptop in the rescue port opens the device, and nothing else is wrong",
  (_site, make, names) => {
    const before = make();
    let plan: Plan = before;
    for (const name of names) {
      plan = kept(plan, name);
      const index = PlanIndex.of(plan);
      const way = must(rescueWayOf(index, named(plan, name)), "a way back");
      expect(index.linkAt(way.port.id)).toBeUndefined();
      const laptop = { port: way.port.id, address: way.laptop, length: way.length, gateway: null };
      expect(pageFrom(index, laptop, { device: named(plan, name).id, address: way.address })).toBeNull();
      // It leads nowhere else: not even to the gear next to it.
      for (const other of names)
        if (other !== name) {
          const device = named(plan, other).id;
          const [theirs] = index.interfacesOf(device).flatMap(({ addresses4 }) => addresses4);
          const address = must(theirs, "their address");
          expect(pageFrom(index, laptop, { device, address })).not.toBeNull();
        }
      expect(diffOfKept(plan, kept(plan, name))).toBe(true);
    }
    const codes = (site: Plan) => [...runChecks(PlanIndex.of(site)).values()].flat().map(({ key }) => key);
    const known = new Set(codes(before));
    expect(codes(plan).filter((code) => !known.has(code))).toEqual([]);
  },
);

/** Kept twice is kept once: what is there already stays. */
const diffOfKept = (once: Plan, twice: Plan): boolean =>
  once.interface.size === twice.interface.size && once.segment.size === twice.segment.size;

test("a device in a safety network, or without a port to spare, says so and changes nothing", () => {
  const refusal = (name: string, plan: Plan = fennelStreet()) =>
    afterEdit(plan, (context) => rescueNetwork(context, named(plan, name).id));
  expect(refusal("Safety switch", bramblewick())).toContain("is in a safety network");
  expect(refusal("Office AP")).toBe(
    "Office AP has no port to spare; unplug something, or keep a port of the switch next to it aside.",
  );
});
