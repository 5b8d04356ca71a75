import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { parseAddress, parsePrefix, type Address, type Ipv4 } from "../address";
import { listFindings, repairsOf, runChecks } from "../checks";
import { must } from "../kernel";
import { USUAL_METRIC, PlanIndex, type Plan, type Port, type Vid } from "../plan";
import { probe } from "../probe";
import { afterEdit, donePlan } from "../testing/after-edit";
import { testId } from "../testing/build-plan";
import { net } from "../testing/written";
import { editSegmentCell } from "./segments/segment-cell";
import { mergeSegments, splitSegment } from "./addressing/split-merge";
import { paintPorts } from "./ports/paint-ports";
import { renumber } from "./addressing/renumber";

// A planner and a repair destroy nothing that their words do not say.

const plan = fennelStreet();
const at = (text: string): Ipv4 => must(parseAddress(text), text) as Ipv4;
const range = (first: string, last: string) => ({ first: at(first) as Address, last: at(last) as Address });
const segment = (on: Plan, name: string) =>
  must(
    [...on.segment.values()].find((s) => s.name === name),
    name,
  );
const scopeOf = (on: Plan, name: string) =>
  must(
    [...on.scope.values()].find((s) => s.segment === segment(on, name).id && s.family === 4),
    `a scope of ${name}`,
  );
const uplink = must(
  [...plan.port.values()].find((port) => port.guards.dhcpTrust && port.tagged.length > 2),
  "a trusted uplink",
);
const access = must(
  [...plan.port.values()].find((port) => port.guards.edge && port.tagged.length === 0 && port.enabled),
  "an access port",
);

test("an empty pool's repair adds what is free; other pools and what was left out stay", () => {
  const staff = segment(plan, "Staff");
  const scope = scopeOf(plan, "Staff");
  const [pools, exclusions] = [
    [range("10.24.20.60", "10.24.20.60"), range("10.24.20.62", "10.24.20.62")],
    [range("10.24.20.60", "10.24.20.62")],
  ];
  const empty = donePlan(
    afterEdit(plan, ({ edits }) => edits.patch("scope", scope.id, { pools, exclusions })),
  );
  const port = must(
    [...plan.port.values()].find(
      (port) => port.pvid === 20 && port.tagged.length === 0 && port.enabled && !port.guards.signIn,
    ),
    "a staff port",
  );
  const outcome = probe(
    PlanIndex.of(empty),
    {
      from: { at: "port", port: port.id, tag: null },
      as: { as: "client" },
      mac: null,
      family: 4,
      goal: { to: "address" },
    },
    () => testId("probe", "id"),
  );
  const repair = must(outcome.cause?.repairs[0], `a repair, not ${outcome.cause?.sentence}`);
  expect(repair.label).toMatch(/^Also give out 10\.24\.20\.\d+ to 10\.24\.20\.\d+$/);
  const mended = donePlan(afterEdit(empty, ({ edits, ids }) => repair.edit(edits, ids)));
  const after = scopeOf(mended, "Staff");
  expect([after.pools.slice(0, 2), after.exclusions, after.pools.length]).toEqual([pools, exclusions, 3]);
  expect(staff.id).toBe(after.segment);
});

test("what removes a scope says so, with its addresses", () => {
  const scope = scopeOf(plan, "Staff");
  const gateway = must(
    [...plan.device.values()].find((d) => d.kind === "switch"),
    "a switch",
  );
  const two = donePlan(
    afterEdit(plan, ({ edits, ids }) => {
      edits.put("scope", { ...scope, id: ids(), serverDevice: gateway.id, serverHost: null });
    }),
  );
  const finding = must(
    listFindings(runChecks(PlanIndex.of(two))).find((finding) => finding.code === "two-address-servers"),
    "the finding",
  );
  const repairs = repairsOf(finding, PlanIndex.of(two));
  expect(repairs.length).toBeGreaterThan(0);
  for (const repair of repairs)
    expect(repair.label).toMatch(/^Remove the scope that .* serves \(10\.24\.20\.\d+ to 10\.24\.20\.\d+\)$/);
});

test("merging keeps what both scopes leave out, further subnets, sign-ins; a scope alone comes too", () => {
  const house = lockkeepersHouse();
  const name =
    [...house.segment.values()].find(
      (s) =>
        s.prefixes4[0]?.length === 24 && [...house.scope.values()].some((scope) => scope.segment === s.id),
    )?.name ?? "";
  const split = donePlan(
    afterEdit(house, (context) => splitSegment(context, segment(house, name).id, "Upper half")),
  );
  const upper = segment(split, "Upper half");
  const usable = (n: number) => (Number(must(upper.prefixes4[0], "").network) + n) as Ipv4;
  const out = { first: usable(3), last: usable(4) };
  const more = donePlan(
    afterEdit(split, ({ edits }) => {
      const scope = must(
        edits.all("scope").find((scope) => scope.segment === upper.id),
        "its scope",
      );
      edits.patch("scope", scope.id, { exclusions: [out] });
      edits.patch("segment", upper.id, {
        prefixes6: [must(parsePrefix("fd24:5a10:3c01:77::/64"), "") as never],
      });
      const ssid = must(
        edits.all("ssid").find((ssid) => ssid.segment !== upper.id),
        "a wireless name",
      );
      edits.patch("ssid", ssid.id, { moreSegments: [upper.id] });
    }),
  );
  const merged = donePlan(
    afterEdit(more, (context) => mergeSegments(context, segment(more, name).id, upper.id)),
  );
  expect(scopeOf(merged, name).exclusions).toContainEqual(out);
  expect(segment(merged, name).prefixes6).toHaveLength(segment(more, name).prefixes6.length + 1);
  expect([...merged.ssid.values()].flatMap((ssid) => ssid.moreSegments)).toContain(segment(merged, name).id);
  const bare = donePlan(afterEdit(more, ({ edits }) => edits.remove("scope", scopeOf(more, name).id)));
  const whole = donePlan(
    afterEdit(bare, (context) => mergeSegments(context, segment(bare, name).id, upper.id)),
  );
  expect(scopeOf(whole, name).exclusions).toEqual([out]);
});

test("splitting gives the new half what was offered and left out in it", () => {
  const scope = scopeOf(plan, "Guests");
  const [pools, exclusions] = [
    [range("10.24.90.20", "10.24.90.100"), range("10.24.90.140", "10.24.90.200")],
    [range("10.24.90.150", "10.24.90.155")],
  ];
  const set = donePlan(
    afterEdit(plan, ({ edits }) => edits.patch("scope", scope.id, { pools, exclusions, leaseSeconds: 3600 })),
  );
  const split = donePlan(
    afterEdit(set, (context) => splitSegment(context, segment(set, "Guests").id, "Guests upstairs")),
  );
  expect([scopeOf(split, "Guests").pools, scopeOf(split, "Guests upstairs")]).toMatchObject([
    [pools[0]],
    { pools: [pools[1]], exclusions, leaseSeconds: 3600 },
  ]);
});

test("renumbering takes the routes and the kept probes with it, and back again", () => {
  const staff = segment(plan, "Staff");
  const from = must(staff.prefixes4[0], "a subnet");
  const to = net(`10.24.200.0/${from.length}`);
  const router = must(
    [...plan.device.values()].find((d) => d.kind === "switch"),
    "a switch",
  );
  const routed = donePlan(
    afterEdit(plan, ({ edits, ids }) => {
      edits.patch("device", router.id, {
        routes: [
          { prefix: from, via: at("10.24.10.1"), metric: USUAL_METRIC },
          { prefix: net("10.24.20.16/28"), via: at("10.24.20.1"), metric: USUAL_METRIC },
          { prefix: net("10.0.0.0/8"), via: at("10.24.10.1"), metric: USUAL_METRIC },
        ],
      });
      const question = {
        from: { at: "port" as const, port: access.id, tag: null },
        as: {
          as: "typed" as const,
          address: at("10.24.20.77") as Address,
          length: 25,
          gateway: at("10.24.20.1") as Address,
        },
        mac: null,
        family: 4 as const,
        goal: { to: "address" as const },
      };
      edits.put("expectation", {
        id: ids(),
        name: "By hand",
        question,
        passes: true,
        segment: null,
        note: "",
      });
    }),
  );
  const there = donePlan(
    afterEdit(routed, ({ edits }) => renumber(edits, [{ segment: staff.id, from, to }])),
  );
  expect(there.device.get(router.id)?.routes).toEqual([
    { prefix: to, via: at("10.24.10.1"), metric: USUAL_METRIC },
    { prefix: net("10.24.200.16/28"), via: at("10.24.200.1"), metric: USUAL_METRIC },
    { prefix: net("10.0.0.0/8"), via: at("10.24.10.1"), metric: USUAL_METRIC },
  ]);
  expect(
    [...there.expectation.values()].find((expectation) => expectation.name === "By hand")?.question.as,
  ).toMatchObject({
    address: at("10.24.200.77"),
    gateway: at("10.24.200.1"),
  });
  expect(
    donePlan(afterEdit(there, ({ edits }) => renumber(edits, [{ segment: staff.id, from: to, to: from }]))),
  ).toEqual(routed);
});

describe("painting a port", () => {
  const painted = (port: Port, role: Parameters<typeof paintPorts>[2]) =>
    must(
      donePlan(afterEdit(plan, ({ edits }) => paintPorts(edits, [port.id], role))).port.get(port.id),
      "the port",
    );
  const signIn = must([...plan.signIn.values()][0], "a profile");
  const own = { ...access.guards, macLimit: 7, profile: signIn.id, restrictedRole: true };
  const set = (port: Port, guards: Port["guards"]) =>
    donePlan(afterEdit(plan, ({ edits }) => edits.patch("port", port.id, { guards })));
  const vid = must(access.pvid, "a VLAN");

  test("an uplink painted as a trunk of other VLANs keeps its trust: nobody loses the DHCP server", () => {
    expect(painted(uplink, { role: "trunk", untagged: null, tagged: uplink.tagged.slice(1) }).guards).toEqual(
      uplink.guards,
    );
  });
  test("an access port in another VLAN keeps what was set; a phone beside it needs room", () => {
    const on = set(access, own);
    const again = (role: Parameters<typeof paintPorts>[2]) =>
      donePlan(afterEdit(on, ({ edits }) => paintPorts(edits, [access.id], role))).port.get(access.id)
        ?.guards;
    expect(again({ role: "access", vid })).toEqual(own);
    expect(again({ role: "dataVoice", vid, voice: 30 as Vid })).toEqual(own);
    expect(
      donePlan(
        afterEdit(set(access, { ...own, macLimit: 1 }), ({ edits }) =>
          paintPorts(edits, [access.id], { role: "dataVoice", vid, voice: 30 as Vid }),
        ),
      ).port.get(access.id)?.guards.macLimit,
    ).toBe(3);
  });
  test("from access to trunk and back it gets its guards, and keeps profile and role", () => {
    const trunk = donePlan(
      afterEdit(set(access, own), ({ edits }) =>
        paintPorts(edits, [access.id], { role: "trunk", untagged: null, tagged: [20 as Vid, 30 as Vid] }),
      ),
    );
    expect(trunk.port.get(access.id)?.guards).toMatchObject({
      edge: false,
      bpduGuard: false,
      loopGuard: true,
      macLimit: null,
      profile: signIn.id,
      restrictedRole: true,
    });
    const back = donePlan(
      afterEdit(trunk, ({ edits }) => paintPorts(edits, [access.id], { role: "access", vid })),
    );
    expect(back.port.get(access.id)?.guards).toMatchObject({
      edge: true,
      bpduGuard: true,
      loopGuard: false,
      dhcpTrust: false,
      macLimit: 1,
      profile: signIn.id,
    });
  });
  test("a port switched off trusts nobody", () => {
    expect(painted(uplink, { role: "park" }).guards).toMatchObject({ dhcpTrust: false, arpTrust: false });
  });
});

describe("the gateway cell", () => {
  const kit = segment(plan, "Kit");
  const edit = (on: Plan, text: string) =>
    afterEdit(on, (context) => editSegmentCell(context, segment(on, "Kit").id, "gateway", text));
  const legs = (on: Plan) => [...on.interface.values()].filter((leg) => leg.segment === kit.id);

  test("can be emptied again: the leg stays, nobody is told to use it", () => {
    const emptied = donePlan(edit(plan, ""));
    expect([segment(emptied, "Kit").gatewayInterface, legs(emptied).length]).toEqual([
      null,
      legs(plan).length,
    ]);
    const back = donePlan(edit(emptied, ".1"));
    expect([segment(back, "Kit").gatewayInterface, legs(back).length]).toEqual([
      kit.gatewayInterface,
      legs(plan).length,
    ]);
  });
  test("an address that a device has there makes that device the gateway, with the leg it has", () => {
    const other = must(
      legs(plan).find((leg) => leg.id !== kit.gatewayInterface && leg.addresses4.length > 0),
      "another leg",
    );
    const moved = donePlan(edit(plan, `10.24.10.${Number(other.addresses4[0]) % 256}`));
    expect([segment(moved, "Kit").gatewayInterface, legs(moved).length]).toEqual([
      other.id,
      legs(plan).length,
    ]);
  });
  test("changes the first address only; a host's address and one outside the subnet are refused", () => {
    const two = donePlan(
      afterEdit(plan, ({ edits }) => {
        const leg = edits.need("interface", kit.gatewayInterface ?? "");
        edits.patch("interface", leg.id, { addresses4: [...leg.addresses4, at("10.24.10.9")] });
      }),
    );
    expect(donePlan(edit(two, ".30")).interface.get(kit.gatewayInterface ?? "")?.addresses4).toEqual([
      at("10.24.10.30"),
      at("10.24.10.9"),
    ]);
    expect(edit(plan, "10.99.1.1")).toMatch(
      /is not in 10\.24\.10\.0\/\d+: clients of Kit could not reach it/,
    );
    const typed = must(
      [...plan.host.values()].find(
        (host) => host.manner === "typed" && host.ipv4 !== null && host.segment !== null,
      ),
      "a static host",
    );
    const its = must(plan.segment.get(typed.segment ?? ""), "its segment");
    expect(
      afterEdit(plan, (context) =>
        editSegmentCell(context, its.id, "gateway", `.${Number(typed.ipv4) % 256}`),
      ),
    ).toMatch(/has .* already/);
  });
});
