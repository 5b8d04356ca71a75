import { fennelStreet } from "../../../demo/fennel-street";
import { bramblewick } from "../../../demo/bramblewick";
import { must } from "../kernel";
import { OPTICS, PlanIndex, type Cable, type Link, type Optic, type Port } from "../plan";
import { classOfHost, loadAt, poeStandard, powerBudget } from "../power";
import { aLink, aPort } from "../testing/build-plan";
import { cablesFor, fibreOf, linkSpeed, misfit, opticsFor, reachOf } from "./media";
import { kbpsOf, LOADS } from "./load";

const port = (fields: Partial<Port> = {}): Port => aPort({ device: "d", label: "1", ...fields });
const fibrePort = (optic: Optic, speedMbps = 100_000): Port => port({ medium: "fibre", speedMbps, optic });
const link = (fields: Partial<Link>): Link => aLink({ a: "a", b: "b", ...fields });

// Reaches in metres as IEEE 802.3 gives them for each kind of link: clause, cable, distance.
test.each<[Optic, Cable, number]>([
  ["1000BASE-SX", "om2", 550],
  ["1000BASE-SX", "om1", 275],
  ["1000BASE-LX", "os2", 5000],
  ["10GBASE-SR", "om3", 300],
  ["10GBASE-SR", "om4", 400],
  ["10GBASE-SR", "om2", 82],
  ["10GBASE-SR", "om1", 33],
  ["10GBASE-LR", "os2", 10_000],
  ["10GBASE-ER", "os2", 40_000],
  ["25GBASE-SR", "om3", 70],
  ["25GBASE-SR", "om4", 100],
  ["40GBASE-SR4", "om3", 100],
  ["40GBASE-SR4", "om4", 150],
  ["100GBASE-SR4", "om3", 70],
  ["100GBASE-LR4", "os2", 10_000],
])("%s over %s reaches %d m", (optic, cable, metres) => {
  expect(reachOf(link({ medium: "fibre", cable }), fibrePort(optic), fibrePort(optic))).toBe(metres);
});

test.each<[Cable, number, number]>([
  ["cat5e", 1000, 100],
  ["cat6", 10_000, 55],
  ["cat6a", 10_000, 100],
  ["cat5e", 2500, 100],
  ["cat5e", 10_000, 0],
  ["cat8", 40_000, 30],
  ["cat6a", 40_000, 0],
])("copper of %s at %d Mbit/s reaches %d m", (cable, speedMbps, metres) => {
  expect(reachOf(link({ medium: "copper", cable }), port({ speedMbps }), port({ speedMbps }))).toBe(metres);
});

test("two optics fit exactly when they are the same, and the cable is of their kind", () => {
  const real = OPTICS.filter(
    (optic) => optic !== "none" && optic !== "direct attach" && !optic.endsWith("BASE-T"),
  );
  for (const a of real)
    for (const b of real)
      for (const cable of ["om3", "os2"] as const) {
        const fits = misfit(link({ medium: "fibre", cable }), fibrePort(a), fibrePort(b)) === null;
        const single = (optic: Optic) => /LX|LR|ER/.test(optic);
        expect([a, b, cable, fits]).toEqual([
          a,
          b,
          cable,
          a === b && single(a) === (fibreOf(cable) === "singlemode"),
        ]);
      }
});

test("copper, fibre and direct attach fit only their own ports; a combined port takes either", () => {
  expect(misfit(link({ medium: "copper" }), port(), port({ medium: "fibre" }))).toMatch(
    /is copper, and port 1 takes fibre/,
  );
  expect(misfit(link({ medium: "directAttach" }), port(), port({ medium: "fibre" }))).toMatch(
    /is direct attach, and port 1 takes copper/,
  );
  expect(misfit(link({ medium: "fibre" }), fibrePort("1000BASE-T"), fibrePort("none"))).toMatch(
    /takes 1000BASE-T/,
  );
  expect(
    misfit(link({ medium: "copper", cable: "cat6" }), port({ medium: "combo" }), fibrePort("1000BASE-T")),
  ).toBeNull();
  expect(
    misfit(
      link({ medium: "directAttach", cable: "twinax" }),
      fibrePort("direct attach"),
      fibrePort("direct attach"),
    ),
  ).toBeNull();
});

test("a cable runs at the slower end, an optic at its own speed; a port offers what it can drive", () => {
  expect(linkSpeed(port({ speedMbps: 10_000 }), port({ speedMbps: 2500 }))).toBe(2500);
  expect(linkSpeed(fibrePort("1000BASE-SX"), fibrePort("10GBASE-SR"))).toBe(1000);
  expect(opticsFor(port())).toEqual(["none"]);
  for (const optic of opticsFor({ medium: "fibre", speedMbps: 1000 }))
    expect(optic).not.toMatch(/^(10|25|40|100)GBASE/);
  for (const medium of ["copper", "fibre", "directAttach"] as const)
    for (const cable of cablesFor(medium))
      expect(
        misfit(link({ medium, cable }), port({ medium: "combo" }), port({ medium: "combo" })),
      ).toBeNull();
});

test("the load of an uplink is the sum of what hangs behind it, added by hand", () => {
  const plan = fennelStreet();
  const index = PlanIndex.of(plan);
  const device = must(
    [...plan.device.values()].find((device) => device.name === "Switch B"),
    "Switch B",
  );
  const behind = new Set([
    device.id,
    ...index.portsOf(device.id).flatMap((port) => {
      const peer = index.peerOf(port.id);
      return peer !== undefined && plan.device.get(peer.device)?.kind === "accessPoint" ? [peer.device] : [];
    }),
  ]);
  const hosts = [...plan.host.values()].filter((host) => {
    let at = host;
    while (at.attachment.at === "behind") at = must(plan.host.get(at.attachment.host), "a host");
    return at.attachment.at === "port" && behind.has(plan.port.get(at.attachment.port)?.device ?? "");
  });
  const uplink = must(
    index
      .portsOf(device.id)
      .map((port) => index.linkAt(port.id))
      .find(
        (link) =>
          link !== undefined &&
          [link.a, link.b].some(
            (id) => plan.device.get(plan.port.get(id)?.device ?? "")?.name === "Upper switch",
          ),
      ),
    "the uplink",
  );
  const load = must(
    index.derived(LOADS).find((cableLoad) => cableLoad.link === uplink.id),
    "its load",
  );
  expect([load.hosts, load.kbps]).toEqual([
    hosts.length,
    hosts.reduce((sum, host) => sum + kbpsOf(index, host), 0),
  ]);
  expect(load.hosts).toBeGreaterThan(5);
});

test("the power set aside is the sum of the classes of what is plugged in, added by hand", () => {
  for (const plan of [fennelStreet(), bramblewick()]) {
    const index = PlanIndex.of(plan);
    for (const device of plan.device.values()) {
      const budget = powerBudget(index, device);
      let sum = 0;
      for (const port of index.portsOf(device.id))
        if (port.poeMw > 0 && port.enabled) sum += loadAt(index, port)?.mw ?? 0;
      expect(budget.neededMw).toBe(sum);
      for (const load of budget.loads) {
        const host = load.kind === "host" ? plan.host.get(load.id) : undefined;
        if (host !== undefined) expect(classOfHost(index, host)).toBe(load.poeClass);
      }
    }
  }
  expect([0, 15_400, 30_000, 60_000, 90_000].map(poeStandard)).toEqual([
    "none",
    "Type 1",
    "Type 2",
    "Type 3",
    "Type 4",
  ]);
});
