import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { listFindings, runChecks } from "../checks";
import { PlanIndex, USUAL_ABILITIES, type Plan } from "../plan";
import type { SafeGuard } from "../planners";
import { afterEdit, donePlan } from "../testing/after-edit";
import { testId } from "../testing/build-plan";
import { dice } from "../testing/plants";
import { mixedSite } from "../testing/mixed-site";
import { SAFE_GUARDS, switchOnAhead, type Ahead } from "./switch-on";
import { hasNetwork, hasNetwork6, reachesGateway } from "./way-there";

const GUARDS = Object.keys(SAFE_GUARDS) as SafeGuard[];

/** The plan with a guard on. */
function on(plan: Plan, guard: SafeGuard): { plan: Plan; ahead: Ahead } {
  const ahead = switchOnAhead(PlanIndex.of(plan), guard);
  const { repair } = ahead;
  return {
    ahead,
    plan:
      repair === null
        ? plan
        : donePlan(
            afterEdit(plan, ({ edits, ids }) => {
              repair.edit(edits, ids);
              return null;
            }),
          ),
  };
}
const served = (plan: Plan): string[] => {
  const index = PlanIndex.of(plan);
  return [...plan.host.values()].flatMap((host) => [
    ...(hasNetwork(index, host) ? [host.name] : []),
    ...(reachesGateway(index, host) ? [`${host.name} and its gateway`] : []),
    ...(hasNetwork6(index, host) ? [`${host.name} by IPv6`] : []),
  ]);
};
/** All gear of a plan is able to do everything. */
const able = (plan: Plan): Plan =>
  donePlan(
    afterEdit(plan, ({ edits }) => {
      for (const device of edits.all("device"))
        edits.patch("device", device.id, {
          abilities: { ...USUAL_ABILITIES, routes: device.abilities.routes, radios: device.abilities.radios },
        });
      return null;
    }),
  );

const SITES: (readonly [string, Plan])[] = [
  ["office", fennelStreet()],
  ["home", lockkeepersHouse()],
  ["industrial", bramblewick()],
  ...Array.from({ length: 200 }, (_, seed) => [`random ${seed}`, mixedSite(dice(3000 + seed))] as const),
];

let switchedOn = 0;
afterAll(() => expect(switchedOn).toBeGreaterThan(60));

test.each(SITES)("%s: one guard after the other, and nobody who had a network is without one", (_, made) => {
  let plan = able(made);
  const before = served(plan);
  for (const guard of GUARDS) {
    const then = on(plan, guard);
    expect([guard, then.ahead.hosts.filter(then.ahead.loses).map(({ name }) => name)]).toEqual([guard, []]);
    plan = then.plan;
    if (then.ahead.repair === null) continue;
    switchedOn += 1;
    expect([guard, served(plan)]).toEqual([guard, before]);
    // Done is done: a second time there is nothing left to do.
    expect([guard, on(plan, guard).ahead.repair]).toEqual([guard, null]);
  }
});

test("what is switched on is sound: no finding about it comes that was not there", () => {
  const plan = able(fennelStreet());
  const codes = (of: Plan) =>
    listFindings(runChecks(PlanIndex.of(of)))
      .filter(({ severity, family }) => severity === "stop" && family === "guards")
      .map(({ key }) => key);
  const guarded = GUARDS.reduce((now, guard) => on(now, guard).plan, plan);
  expect(codes(guarded).filter((key) => !codes(plan).includes(key))).toEqual([]);
  const devices = [...guarded.device.values()].filter(({ kind }) => kind === "switch");
  expect(devices.every(({ protections }) => protections.snooping.length > 3)).toBe(true);
  expect(devices.every(({ protections }) => protections.arpInspection.length > 3)).toBe(true);
});

test("in a ring the other way to the server is trusted too: a cable that fails cuts nobody off", () => {
  const bare = able(bramblewick());
  const plan = on(bare, "snooping").plan;
  const withoutCable = (of: Plan, link: string) =>
    donePlan(
      afterEdit(of, ({ edits }) => {
        edits.remove("link", link);
        return null;
      }),
    );
  for (const link of plan.link.keys())
    expect(served(withoutCable(plan, link))).toEqual(served(withoutCable(bare, link)));
  const hall = must(
    [...plan.device.values()].find(({ name }) => name === "Bottling hall switch"),
    "it",
  );
  const trusted = [...plan.port.values()].filter((port) => port.device === hall.id && port.guards.dhcpTrust);
  expect(trusted.length).toBeGreaterThan(1);
});

test("a server among others behind one port is not trusted: that VLAN is left out, and said why", () => {
  const plan = donePlan(
    afterEdit(able(fennelStreet()), ({ edits }) => {
      const host = must(
        edits.all("host").find(({ name }) => name === "Practice server"),
        "it",
      );
      const other = must(
        edits.all("host").find(({ name }) => name === "Image store"),
        "another",
      );
      edits.patch("host", other.id, { attachment: host.attachment });
      for (const scope of edits.all("scope"))
        edits.patch("scope", scope.id, { serverDevice: null, serverHost: host.id });
      return null;
    }),
  );
  const { leaves, sets } = switchOnAhead(PlanIndex.of(plan), "snooping");
  const lower = leaves.filter(({ at }) => at === "Lower switch");
  expect(lower.length).toBeGreaterThan(0);
  expect(lower[0]?.why).toMatch(/there are others, who would be trusted, too/);
  expect(sets.filter(({ at }) => at.startsWith("Lower switch port 5"))).toEqual([]);
});

test("gear that can't is left alone, and inspection waits for snooping", () => {
  const plan = donePlan(
    afterEdit(fennelStreet(), ({ edits }) => {
      for (const device of edits.all("device"))
        edits.patch("device", device.id, {
          abilities: { ...device.abilities, snooping: false, arpInspection: true },
          protections: { ...device.protections, snooping: [] },
        });
      return null;
    }),
  );
  const index = PlanIndex.of(plan);
  expect(switchOnAhead(index, "snooping")).toMatchObject({ sets: [], repair: null });
  expect(switchOnAhead(index, "snooping").leaves.map(({ why }) => why)).toContain(
    "is not known to have DHCP snooping",
  );
  expect(switchOnAhead(index, "inspection").leaves.map(({ why }) => why)).toContain(
    "does not snoop: it would know nobody's address",
  );
});

test("a MAC limit that somebody has chosen stays, larger or smaller", () => {
  const limits = (plan: Plan) => [...plan.port.values()].map(({ guards }) => guards.macLimit);
  const chosen = donePlan(
    afterEdit(fennelStreet(), ({ edits }) => {
      edits.all("port").forEach((port, at) => {
        edits.patch("port", port.id, { guards: { ...port.guards, macLimit: at % 3 === 0 ? 9 : null } });
      });
      return null;
    }),
  );
  const after = limits(on(chosen, "macLimits").plan);
  limits(chosen).forEach((limit, at) => {
    if (limit !== null) expect(after[at]).toBe(9);
  });
  expect(after.filter((limit) => limit !== null && limit < 9).length).toBeGreaterThan(10);
});

test("a restart that loses what snooping learnt, simulated: silenced are those that the finding names", () => {
  const guarded = on(on(able(fennelStreet()), "snooping").plan, "inspection").plan;
  const forgetful = donePlan(
    afterEdit(guarded, ({ edits }) => {
      for (const { id, protections } of edits.all("device"))
        edits.patch("device", id, { protections: { ...protections, keepsBindings: false } });
      return null;
    }),
  );
  const index = PlanIndex.of(forgetful);
  const reaching = (of: PlanIndex) =>
    [...forgetful.host.values()].filter((host) => reachesGateway(of, host)).map(({ id }) => id);
  for (const device of forgetful.device.values()) {
    if (device.kind !== "switch") continue;
    const finding = listFindings(runChecks(index)).find(
      ({ code, subjects }) => code === "bindings-lost-at-restart" && subjects[0]?.id === device.id,
    );
    const named = new Set((must(finding, device.name).data as { readonly hosts: readonly string[] }).hosts);
    // Its table is empty after the restart: what was learnt is as if it had never snooped.
    const restarted = donePlan(
      afterEdit(forgetful, ({ edits }) => {
        const { protections } = edits.need("device", device.id);
        edits.patch("device", device.id, { protections: { ...protections, snooping: [] } });
        return null;
      }),
    );
    const [before, after] = [reaching(index), new Set(reaching(PlanIndex.of(restarted)))];
    expect(before.filter((id) => !after.has(id)).sort()).toEqual(before.filter((id) => named.has(id)).sort());
  }
  expect(runChecks(PlanIndex.of(guarded)).get("bindings-lost-at-restart")?.length).toBeGreaterThan(0);
});

test("a relay before their server: snooping trusts the way to it, and nobody loses an address", () => {
  const plan = donePlan(
    afterEdit(able(fennelStreet()), ({ edits }) => {
      const server = must(
        edits.all("host").find(({ name }) => name === "Practice server"),
        "it",
      );
      const staff = must(
        edits.all("segment").find(({ name }) => name === "Staff"),
        "it",
      );
      for (const scope of edits.all("scope"))
        if (scope.segment === staff.id && scope.family === 4)
          edits.patch("scope", scope.id, { serverDevice: null, serverHost: server.id });
      edits.patch("interface", staff.gatewayInterface ?? "", { relayTo: server.ipv4 });
      // The server's answers are for the gateway itself.
      const zone = edits.need("segment", server.segment ?? "").zone;
      for (const wall of edits.all("wall"))
        if (wall.from.at === "zone" && wall.from.zone === zone && wall.to.at === "gateway")
          edits.remove("wall", wall.id);
      edits.put("wall", {
        id: testId("wall", "answers"),
        from: { at: "zone", zone },
        to: { at: "gateway" },
        door: "open",
        services: [],
        reason: "the relay",
        conduit: null,
      });
      return null;
    }),
  );
  const before = served(plan);
  expect(before.filter((name) => /^PC /.test(name)).length).toBeGreaterThan(4);
  const then = on(plan, "snooping");
  expect(then.ahead.sets.map(({ at }) => at)).toContain("Lower switch port 1");
  expect(served(then.plan)).toEqual(before);
  // With option 82 on every switch the next one would drop what bears it: it is taken off where it has to be.
  const marking = donePlan(
    afterEdit(plan, ({ edits }) => {
      for (const { id, kind, protections } of edits.all("device"))
        if (kind === "switch") edits.patch("device", id, { protections: { ...protections, option82: true } });
      return null;
    }),
  );
  const marked = on(marking, "snooping");
  // Whose questions were dropped before gets an address now, and nobody loses one.
  expect(served(marked.plan)).toEqual(expect.arrayContaining(served(marking)));
  expect(marked.ahead.sets.map(({ why }) => why)).toContainEqual(
    expect.stringMatching(/^adds no option 82: .* would drop what bears it$/),
  );
});
