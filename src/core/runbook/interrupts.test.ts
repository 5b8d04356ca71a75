import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import { afterEdits, PlanEdits, PlanIndex, vid, type Plan } from "../plan";
import { mixedSite } from "../testing/mixed-site";
import { dice } from "../testing/plants";
import { disturbed } from "../testing/small-sites";
import { connected } from "./interrupts";
import { editsOf } from "./operations";
import { provenRunbook } from "./runbook";

test("who gets to a gateway is followed from operation to operation as if it were asked anew each time", () => {
  for (const make of [fennelStreet, bramblewick]) {
    const proven = provenRunbook(PlanIndex.of(make()), disturbed(make(), dice(31), 24));
    const { order, operations } = must(proven, "a runbook");
    expect(operations.length).toBeGreaterThan(8);
    let index = order.start.index;
    const seen = new Set([connected(index).size]);
    for (const { operation } of order.taken) {
      index = must(afterEdits(index, editsOf(new PlanEdits(index.plan), operation)), "it can be done");
      expect(connected(index)).toEqual(connected(PlanIndex.of(index.plan)));
      seen.add(connected(index).size);
    }
    expect(seen.size).toBeGreaterThan(1);
  }
});

/**
 * A site whose first router with a leg inside is gear without VLANs, so that its legs hang on a cable, and has
 * something of its own network at its last port.
 */
function withPlainRouter(plan: Plan): Plan {
  const edits = new PlanEdits(plan);
  const inside = [...plan.interface.values()].filter(
    ({ port, segment }) => port === null && segment !== null,
  );
  const [leg] = inside;
  const host = [...plan.host.values()][0];
  if (leg === undefined || host === undefined) return plan;
  edits.patch("device", leg.device, { bridging: "plain" });
  for (const { device, segment } of inside)
    if (device === leg.device) edits.patch("segment", segment ?? "", { vlan: null });
  const port = must(PlanIndex.of(plan).portsOf(leg.device).at(-1), "a router has ports").id;
  edits.patch("port", port, { enabled: true });
  edits.patch("host", host.id, { segment: leg.segment, attachment: { at: "port", port } });
  return must(afterEdits(PlanIndex.of(plan), edits), "it can be so").plan;
}

test("where a gateway hangs on a cable, who gets to it is followed from setting to setting", () => {
  const roll = dice(47);
  let moved = 0;
  for (let site = 0; site < 100; site++) {
    const index = PlanIndex.of(withPlainRouter(mixedSite(roll)));
    const before = connected(index);
    const vids = [vid(1), ...[...index.plan.vlan.values()].map((vlan) => vlan.vid)];
    const plain = [...index.plan.port.values()].filter(
      ({ device }) => index.plan.device.get(device)?.bridging === "plain",
    );
    for (const { id } of plain)
      for (const fields of [{ enabled: false }, ...vids.map((pvid) => ({ pvid }))]) {
        const edits = new PlanEdits(index.plan);
        edits.patch("port", id, fields);
        const next = must(afterEdits(index, edits), "a port can be set so");
        expect(connected(next)).toEqual(connected(PlanIndex.of(next.plan)));
        if (connected(next).size !== before.size) moved += 1;
      }
  }
  expect(moved).toBeGreaterThan(20);
});
