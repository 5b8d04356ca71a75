import { bramblewick } from "../../../demo/bramblewick";
import { must } from "../kernel";
import { afterEdits, nameOf, PlanEdits, PlanIndex } from "../plan";
import { leaseAt } from "../probe";
import { laptopText } from "./card";
import { editsOf } from "./operations";
import { provenRunbook } from "./runbook";

describe("gear that is a DHCP server out of the box", () => {
  const works = bramblewick();
  const { runbook, order, operations } = must(provenRunbook(PlanIndex.of(works), null), "a runbook");
  const ring = must(
    [...works.device.values()].find(({ name }) => name === "Cold store switch"),
    "a switch whose leaflet says so",
  ).id;
  const steps = runbook.steps.filter(({ device }) => device === ring);

  test("gives the laptop its address until its server is switched off, before anything else is set", () => {
    const [power, ...rest] = steps;
    expect(must(power, "a first step").why).toMatch(/It is a DHCP server out of the box/);
    const off = rest.findIndex(({ title }) => title === "Switch its own DHCP server off");
    expect(rest.slice(0, off).map(({ kind }) => kind)).toEqual(["move", "credentials"]);
    const given = rest.map(({ card }) => (card === null ? null : laptopText(card)));
    const byDhcp = "one by DHCP from the device, or a free one in 192.168.206.0/24";
    expect(given.slice(0, off + 1)).toEqual([byDhcp, byDhcp, byDhcp]);
    expect(given.slice(off + 1).filter((text) => text === byDhcp)).toEqual([]);
    expect(given[off + 1]).toBe("a free one in 192.168.206.0/24");
  });

  test("is asked as any client asks: at each port, and no other server of the site is meant", () => {
    const { state } = must(
      order.taken.find(({ operation }) => operation.device === ring && operation.page === "power"),
      "it is powered",
    );
    const name = nameOf(state.index, "device", ring);
    const open = state.index.portsOf(ring).filter(({ id }) => state.index.linkAt(id) === undefined);
    expect(open.length).toBeGreaterThan(4);
    for (const { id } of open) expect(leaseAt(state.index, id)?.server).toBe(name);
    const off = must(
      operations.find(({ device, page }) => device === ring && page === "ownServer"),
      "its server",
    );
    const after = must(afterEdits(state.index, editsOf(new PlanEdits(state.index.plan), off)), "it is off");
    for (const { id } of open) expect(leaseAt(after, id)).toBeNull();
  });
});
