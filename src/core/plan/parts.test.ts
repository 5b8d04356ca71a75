import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import {
  aDevice,
  aDomain,
  aHost,
  aLink,
  anInterface,
  aPort,
  aScope,
  aSegment,
  aSite,
  aVlan,
  aZone,
  planWith,
  testId,
} from "../testing/build-plan";
import { v } from "../testing/written";
import {
  applyChanges,
  assemble,
  BLANK_SIGN_IN,
  BLANK_SSID,
  diff,
  emptyPlan,
  invert,
  joinsAt,
  nameOf,
  offers,
  PlanEdits,
  PlanIndex,
  pointsOf,
  segmentsOfSsid,
  ssidsOf,
  vidsOfSsid,
  wallEndName,
  type Change,
  type Device,
  type Host,
  type Plan,
  type Ssid,
} from ".";
import { BLANK_LEAFLET } from "./blank";
import { inIdOrder, isInIdOrder, planInIdOrder } from "./id-order";
import { MOST } from "./limits";
import { entityCount, entityOf } from "./plan";
import { KINDS } from "./schema/kinds";

const ID = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;

describe("what a person calls a thing", () => {
  const plan = fennelStreet();
  const index = PlanIndex.of(plan);
  const first = <T>(rows: ReadonlyMap<string, T>): T => must([...rows.values()][0], "one of them");

  test("by its own name, with the device that it belongs to", () => {
    const port = first(plan.port);
    const device = must(plan.device.get(port.device), "its device");
    expect(nameOf(index, "port", port.id)).toBe(`${device.name} port ${port.label}`);
    const link = first(plan.link);
    expect(nameOf(index, "link", link.id)).toBe(
      `the cable ${nameOf(index, "port", link.a)} to ${nameOf(index, "port", link.b)}`,
    );
    const vlan = first(plan.vlan);
    expect(nameOf(index, "vlan", vlan.id)).toBe(`${vlan.name} (${vlan.vid})`);
    const leg = first(plan.interface);
    expect(nameOf(index, "interface", leg.id)).toBe(`${plan.device.get(leg.device)?.name} (${leg.name})`);
    const scope = first(plan.scope);
    expect(nameOf(index, "scope", scope.id)).toBe(`the scope of ${plan.segment.get(scope.segment)?.name}`);
    const segment = first(plan.segment);
    expect(nameOf(index, "segment", segment.id)).toBe(segment.name);
    const radio = first(plan.radio);
    expect(nameOf(index, "radio", radio.id)).toBe(`${plan.device.get(radio.device)?.name} ${radio.band} GHz`);
    const wall = first(plan.wall);
    expect(nameOf(index, "wall", wall.id)).toBe(
      `the wall ${wallEndName(index, wall.from)} to ${wallEndName(index, wall.to)}`,
    );
  });

  test.each<[(typeof KINDS)[number], string]>([
    ["port", "a removed port"],
    ["link", "a removed cable"],
    ["vlan", "a removed VLAN"],
    ["lag", "a removed LAG"],
    ["radio", "a removed radio"],
    ["deviceVlan", "a removed VLAN of a device"],
    ["scope", "the scope of a segment"],
    ["interface", "a removed interface"],
    ["wall", "a removed wall"],
    ["rule", "a removed rule"],
    ["leaflet", "the leaflet of a model"],
    ["segment", "a removed segment"],
    ["device", "a removed device"],
  ])("a %s that is gone is %s", (kind, words) => {
    expect(nameOf(index, kind, ID(9))).toBe(words);
  });

  test("a rule by its number in its device's list, a leaflet by its model", () => {
    const { device } = first(plan.rule);
    const own = index.rulesOf(device);
    expect(own.map(({ place }) => place)).toEqual(own.map(({ place }) => place).sort((a, b) => a - b));
    const names = own.map(({ id }) => nameOf(index, "rule", id));
    expect(names.length).toBeGreaterThan(2);
    expect(names).toEqual(own.map((_, i) => `rule ${i + 1} of ${plan.device.get(device)?.name}`));
    const leaflet = { ...BLANK_LEAFLET, id: ID(3), model: "sw-24" };
    const read = PlanIndex.of(planWith({ leaflet: [leaflet] }));
    expect(nameOf(read, "leaflet", ID(3))).toBe("the leaflet of sw-24");
  });

  test("the ends of a wall", () => {
    expect(wallEndName(index, { at: "internet" })).toBe("Internet");
    expect(wallEndName(index, { at: "gateway" })).toBe("Gateway");
    expect(wallEndName(index, { at: "zone", zone: ID(9) })).toBe("a removed zone");
    const zone = first(plan.zone);
    expect(wallEndName(index, { at: "zone", zone: zone.id })).toBe(zone.name);
  });

  test("a LAG and a VLAN that a device has created, by their device", () => {
    const device = aDevice({ name: "Mill" });
    const small = planWith({
      device: [device],
      lag: [{ id: ID(1), device: device.id, name: "Up", mode: "active" }],
      deviceVlan: [{ id: ID(2), device: device.id, vid: v(20), name: "" }],
    });
    expect(nameOf(PlanIndex.of(small), "lag", ID(1))).toBe("Mill Up");
    expect(nameOf(PlanIndex.of(small), "deviceVlan", ID(2))).toBe("VLAN 20 on Mill");
  });
});

describe("who offers a wireless name", () => {
  const [home, shed] = [aDomain(), aDomain({ id: testId("domain", "shed"), name: "Shed" })];
  const vlan = aVlan({ vid: v(20) });
  const other = aVlan({ vid: v(30) });
  const staff = aSegment({ name: "Staff", vlan: vlan.id });
  const guests = aSegment({ name: "Guests", vlan: other.id });
  const bare = aSegment({ name: "Bare" });
  const point = (name: string, more: Partial<Device> = {}) =>
    aDevice({ name, kind: "accessPoint", domain: home.id, place: "Hall", ...more });
  const points = [
    point("AP 10"),
    point("AP 2"),
    point("AP 1", { place: "Loft" }),
    point("AP far", { domain: shed.id }),
  ];
  const [ten, two, one, far] = points as [Device, Device, Device, Device];
  const gear = aDevice({ name: "Switch", domain: home.id });
  const [sample] = [...fennelStreet().ssid.values()];
  const ssid = (name: string, more: Partial<Ssid>): Ssid => ({
    ...must(sample, "a wireless name"),
    id: testId("ssid", name),
    name,
    moreSegments: [],
    at: [],
    segment: staff.id,
    ...more,
  });
  const crew = ssid("Crew", {});
  const listed = ssid("Listed", { at: [far.id] });
  const open = ssid("Open", { segment: bare.id });
  const both = ssid("Both", { moreSegments: [guests.id, bare.id] });
  const host = (name: string, ssidId: string, accessPoint: string | null, place = ""): Host =>
    aHost({ name, place, attachment: { at: "ssid", ssid: ssidId, accessPoint } });
  const index = PlanIndex.of(
    planWith({
      domain: [home, shed],
      zone: [aZone()],
      vlan: [vlan, other],
      segment: [staff, guests, bare],
      device: [...points, gear],
      ssid: [crew, listed, open, both],
    }),
  );
  const names = (devices: readonly Device[]) => devices.map(({ name }) => name);

  test("those of its segment's domain, or those listed; a segment without a VLAN is everywhere", () => {
    expect(points.map((device) => offers(index, device, crew))).toEqual([true, true, true, false]);
    expect(points.map((device) => offers(index, device, listed))).toEqual([false, false, false, true]);
    expect(points.map((device) => offers(index, device, open))).toEqual([true, true, true, true]);
    expect(offers(index, gear, crew)).toBe(false);
  });

  test("in the order of their names, those in a place first, whatever the letters", () => {
    expect(names(pointsOf(index, crew))).toEqual(["AP 1", "AP 2", "AP 10"]);
    expect(names(pointsOf(index, crew, "HALL"))).toEqual(["AP 2", "AP 10", "AP 1"]);
    expect(names(pointsOf(index, crew, "nowhere"))).toEqual(["AP 1", "AP 2", "AP 10"]);
  });

  test("a host joins the one that is named for it while that offers the name, then the nearest", () => {
    expect(names(joinsAt(index, host("A", crew.id, ten.id)))).toEqual(["AP 10", "AP 1", "AP 2"]);
    expect(names(joinsAt(index, host("B", crew.id, far.id)))).toEqual(["AP 1", "AP 2", "AP 10"]);
    expect(names(joinsAt(index, host("C", crew.id, null, "Loft")))).toEqual([one.name, two.name, ten.name]);
    expect(joinsAt(index, aHost({ name: "D" }))).toEqual([]);
  });

  test("the segments a name leads into, and the VLANs it needs", () => {
    expect(segmentsOfSsid(index, both).map(({ name }) => name)).toEqual(["Staff", "Guests", "Bare"]);
    expect(vidsOfSsid(index, both)).toEqual([20, 30]);
    expect(vidsOfSsid(index, { ...both, moreSegments: [staff.id] })).toEqual([20]);
    expect(names(pointsOf(index, both)).length).toBe(3);
    expect(new Set(ssidsOf(index, far).map(({ name }) => name))).toEqual(new Set(["Listed", "Open"]));
  });
});

describe("edits that become changes", () => {
  const device = aDevice({ name: "Mill" });
  const [p1, p2] = [aPort({ device: device.id, label: "1" }), aPort({ device: device.id, label: "2" })];
  const plan = planWith({ device: [device], port: [p1, p2] });

  test("what is read is what was written; one change for each thing that is different now", () => {
    const edits = new PlanEdits(plan);
    edits.patch("port", p1.id, { note: "to the barn" });
    edits.patch("port", p1.id, { label: "9" });
    expect(edits.need("port", p1.id)).toMatchObject({ note: "to the barn", label: "9" });
    edits.patch("port", p2.id, { note: "x" });
    edits.patch("port", p2.id, { note: "" });
    expect(edits.changes()).toEqual([
      { kind: "port", id: p1.id, before: p1, after: { ...p1, note: "to the barn", label: "9" } },
    ]);
    expect(plan.port.get(p1.id)).toBe(p1);
  });

  test("what was removed is gone, what was put is there, in lists too", () => {
    const edits = new PlanEdits(plan);
    const p3 = edits.put("port", aPort({ device: device.id, label: "3" }));
    edits.remove("port", p1.id);
    expect(edits.get("port", p1.id)).toBeUndefined();
    expect(edits.all("port").map(({ label }) => label)).toEqual(["2", "3"]);
    expect(edits.all("host")).toEqual([]);
    edits.remove("port", p3.id);
    expect(edits.all("port").map(({ label }) => label)).toEqual(["2"]);
    expect(edits.changes()).toEqual([{ kind: "port", id: p1.id, before: p1, after: null }]);
    expect(() => edits.need("port", p1.id)).toThrow(/port/);
    edits.put("port", p1);
    expect(edits.changes()).toEqual([]);
  });
});

describe("changes between two plans", () => {
  const [a, b] = [aHost({ name: "A" }), aHost({ name: "B" })];
  const base = planWith({ host: [a, b] });

  test("the same things in other objects are no change", () => {
    expect(
      diff(base, { ...base, host: new Map([...base.host].map(([id, host]) => [id, { ...host }])) }),
    ).toEqual([]);
    expect(diff(base, { ...base, site: { ...base.site } })).toEqual([]);
  });

  test("what came, what went, what is otherwise, and the site", () => {
    const c = aHost({ name: "C" });
    const to: Plan = {
      ...base,
      site: { ...base.site, name: "Renamed" },
      host: new Map([
        [a.id, { ...a, notes: "n" }],
        [c.id, c],
      ]),
    };
    expect(diff(base, to)).toEqual([
      { kind: "site", id: base.site.id, before: base.site, after: to.site },
      { kind: "host", id: a.id, before: a, after: { ...a, notes: "n" } },
      { kind: "host", id: b.id, before: b, after: null },
      { kind: "host", id: c.id, before: null, after: c },
    ]);
    const there = applyChanges(base, diff(base, to));
    expect(there.ok && diff(there.value, to)).toEqual([]);
    const back = there.ok ? applyChanges(there.value, invert(diff(base, to))) : there;
    expect(back.ok && diff(back.value, base)).toEqual([]);
  });
});

describe("a batch that does not hold together", () => {
  const device = aDevice({ name: "Mill" });
  const ports = [1, 2, 3].map((n) => aPort({ device: device.id, label: String(n) }));
  const [p1, p2, p3] = ports.map(({ id }) => id) as [string, string, string];
  const link = aLink({ a: p1, b: p2 });
  const host = aHost({ name: "Till", attachment: { at: "port", port: p3 } });
  const plan = planWith({ device: [device], port: ports, link: [link], host: [host] });
  const add = <T extends { readonly id: string }>(kind: string, after: T) =>
    ({ kind, id: after.id, before: null, after }) as unknown as Change;
  const codeOf = (changes: readonly Change[], on = plan): string => {
    const result = applyChanges(on, changes);
    return result.ok ? "applies" : result.error.code;
  };
  const became = (more: Partial<Host>) =>
    ({ kind: "host", id: host.id, before: host, after: { ...host, ...more } }) as Change;

  test.each<[string, readonly Change[]]>([
    ["changed-twice", [became({ notes: "1" }), became({ notes: "2" })]],
    ["stale-before", [{ ...became({}), before: { ...host, name: "Other" } } as Change]],
    ["stale-before", [add("host", host)]],
    ["wrong-id", [became({ id: ID(7) })]],
    ["site-is-one", [{ kind: "site", id: plan.site.id, before: plan.site, after: null }]],
    ["dangling-reference", [became({ segment: ID(7) })]],
    ["still-referenced", [{ kind: "device", id: device.id, before: device, after: null }]],
    ["port-linked-twice", [add("link", { ...aLink({ a: p1, b: p3 }), id: ID(3) })]],
    ["linked-to-itself", [add("link", { ...aLink({ a: p3, b: p3 }), id: ID(3) })]],
    ["behind-itself", [became({ attachment: { at: "behind", host: host.id } })]],
    ["id-of-another", [add("host", aHost({ id: device.id, name: "Twin" }))]],
    ["id-of-another", [add("host", aHost({ id: plan.site.id, name: "Twin" }))]],
    ["applies", [became({ name: "Till 2", attachment: { at: "unplaced" } })]],
    ["applies", [{ kind: "host", id: host.id, before: host, after: null }]],
    ["applies", []],
  ])("%s", (code, changes) => {
    expect(codeOf(changes)).toBe(code);
  });

  test("what a wireless name signs in by does not go without it", () => {
    const profile = { ...BLANK_SIGN_IN, id: ID(4), name: "Crew sign-in" };
    const segment = aSegment({ name: "Crew" });
    const ssid = { ...BLANK_SSID, id: ID(5), name: "Crew", segment: segment.id, profile: profile.id };
    const wireless = planWith({ zone: [aZone()], segment: [segment], signIn: [profile], ssid: [ssid] });
    const removed = { kind: "signIn", id: profile.id, before: profile, after: null } as Change;
    const without = { kind: "ssid", id: ssid.id, before: ssid, after: { ...ssid, profile: null } } as Change;
    expect(codeOf([removed], wireless)).toBe("still-referenced");
    expect(codeOf([removed, without], wireless)).toBe("applies");
  });

  test("an id that goes in the same batch is free for another kind", () => {
    const gone: Change = { kind: "host", id: host.id, before: host, after: null };
    expect(codeOf([gone, add("zone", aZone({ id: host.id, name: "Twin" }))])).toBe("changed-twice");
  });

  test("round a circle of three", () => {
    const [a, b, c] = ["A", "B", "C"].map((name) => aHost({ name })) as [Host, Host, Host];
    const chain = planWith({
      host: [
        a,
        { ...b, attachment: { at: "behind", host: a.id } },
        { ...c, attachment: { at: "behind", host: b.id } },
      ],
    });
    const close: Change = {
      kind: "host",
      id: a.id,
      before: a,
      after: { ...a, attachment: { at: "behind", host: c.id } },
    };
    expect(codeOf([close], chain)).toBe("behind-itself");
  });

  test("one more than there may be is refused; a plan beyond it opens and may be made smaller", () => {
    const template = (n: number) => ({ id: ID(n), name: `T ${n}`, ending: "txt", text: "" });
    const many = Array.from({ length: MOST.template + 2 }, (_, i) => add("template", template(i + 1)));
    const empty = emptyPlan(aSite());
    expect(codeOf(many.slice(0, MOST.template), empty)).toBe("applies");
    expect(codeOf(many.slice(0, MOST.template + 1), empty)).toBe("too-many");
    const beyond = assemble(empty, many);
    const opened = must(beyond.ok ? beyond.value : null, "opened whatever it counts");
    const [kept] = [...opened.template.values()];
    const row = must(kept, "a template");
    expect(
      codeOf([{ kind: "template", id: row.id, before: row, after: { ...row, text: "x" } }], opened),
    ).toBe("applies");
    expect(codeOf([{ kind: "template", id: row.id, before: row, after: null }], opened)).toBe("applies");
    expect(codeOf([add("template", template(500))], opened)).toBe("too-many");
  });

  test("what comes back stands where it stood, in a plan whose rows are in the order of their ids", () => {
    const ordered = planInIdOrder(plan);
    const gone: Change = { kind: "port", id: p1, before: must(ports[0], "a port"), after: null };
    const without = applyChanges(ordered, [{ kind: "link", id: link.id, before: link, after: null }, gone]);
    const bare = must(without.ok ? without.value : null, "applies");
    const back = applyChanges(bare, invert([gone]));
    expect(back.ok && [...back.value.port.keys()]).toEqual([...ordered.port.keys()]);
    expect(isInIdOrder(bare.port)).toBe(true);
  });
});

describe("order and counting", () => {
  test("rows by their ids, the very map when they are so already", () => {
    const good = new Map([
      [ID(1), "a"],
      [ID(2), "b"],
    ]);
    expect(inIdOrder(good)).toBe(good);
    const bad = new Map([...good].reverse());
    expect(isInIdOrder(bad)).toBe(false);
    expect([...inIdOrder(bad).keys()]).toEqual([ID(1), ID(2)]);
    const plan = PlanIndex.of(fennelStreet()).plan;
    expect(planInIdOrder(plan)).toBe(plan);
  });

  test("a plan counts its site and everything in it, and knows a thing by its kind and id", () => {
    const plan = fennelStreet();
    const total = KINDS.reduce((sum, kind) => sum + (kind === "site" ? 1 : plan[kind].size), 0);
    expect(entityCount(plan)).toBe(total);
    const [host] = [...plan.host.values()];
    expect(entityOf(plan, "host", must(host, "a host").id)).toBe(host);
    expect(entityOf(plan, "device", must(host, "a host").id)).toBeUndefined();
    expect(entityOf(plan, "site", plan.site.id)).toBe(plan.site);
  });
});

test("the look-ups of a plan: VLANs by domain and number, what is in a segment, who holds an address", () => {
  const device = aDevice({ name: "Gate", kind: "gateway" });
  const [shed, home] = [aDomain({ id: testId("domain", "shed"), name: "Shed" }), aDomain()];
  const [mine, theirs] = [
    aVlan({ vid: v(20) }),
    aVlan({ id: testId("vlan", "shed 20"), vid: v(20), domain: shed.id, name: "Shed 20" }),
  ];
  const staff = aSegment({ name: "Staff", vlan: mine.id, gatewayInterface: testId("interface", "leg") });
  const leg = anInterface({
    id: testId("interface", "leg"),
    device: device.id,
    name: "leg",
    segment: staff.id,
    addresses4: [0x0a181401 as never],
  });
  const till = aHost({ name: "Till", segment: staff.id, ipv4: 0x0a181409 as never });
  const scope = aScope({ segment: staff.id, serverDevice: device.id });
  const index = PlanIndex.of(
    planWith({
      domain: [home, shed],
      zone: [aZone()],
      vlan: [mine, theirs],
      segment: [staff],
      device: [device],
      interface: [leg],
      host: [till],
      scope: [scope],
    }),
  );
  expect(index.vlanOf(home.id, 20)).toEqual(mine);
  expect(index.vlanOf(shed.id, 20)).toEqual(theirs);
  expect([index.vlanOf(home.id, 21), index.vlanOf(null, 20)]).toEqual([undefined, undefined]);
  expect(index.segmentOn(home.id, 20)).toEqual(staff);
  expect([index.segmentOn(shed.id, 20), index.segmentOn(home.id, 9)]).toEqual([undefined, undefined]);
  expect([index.vidOf(staff), index.vidOf({ ...staff, vlan: null })]).toEqual([20, null]);
  expect([index.gatewayOf(staff), index.gatewayOf({ ...staff, gatewayInterface: null })]).toEqual([
    leg,
    undefined,
  ]);
  expect([index.hostsIn(staff.id), index.scopesOf(staff.id), index.interfacesIn(staff.id)]).toEqual([
    [till],
    [scope],
    [leg],
  ]);
  expect(index.interfacesOf(device.id)).toEqual([leg]);
  expect(index.holdersOf(0x0a181401)).toEqual([leg]);
  expect(index.holdersOf(0x0a181409)).toEqual([till]);
  expect(index.holdersOf(0x0a1814ff)).toEqual([]);
  expect([index.hostsIn("none"), index.scopesOf("none"), index.interfacesOf("none")]).toEqual([[], [], []]);
});
