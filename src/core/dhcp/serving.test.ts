import { madeMac, parseMac, type Ipv4, type Mac } from "../address";
import { flood } from "../forwarding";
import { must } from "../kernel";
import { PlanIndex, type EntityOf, type Host, type Interface, type Plan, type Scope } from "../plan";
import {
  aDevice,
  aDomain,
  aHost,
  anInterface,
  aPort,
  aLink,
  aScope,
  aSegment,
  aVlan,
  aZone,
  planWith,
  testId,
} from "../testing/build-plan";
import { ip, net, v } from "../testing/written";
import { byLeg, waysToServer } from "./hears-scope";
import { leasedTo, leaseholder, leasesOf, visitorAddress, visitorsWith } from "./leased";
import { keptInPool, leasableCount, offeredCount, offeredRanges, offerTo } from "./scope-room";
import { whoAnswers } from "./who-answers";

// Who serves whom, and which address whoever asks comes to hold, on a site of two segments that is small enough
// to say all of it: Staff served by the router, Guests by a host in Staff whom the router asks.

const mac = (n: number): Mac => must(parseMac(`02:5a:10:00:00:${n.toString(16).padStart(2, "0")}`), "a MAC");
const range = (first: string, last: string) => ({ first: ip(first), last: ip(last) });
const id = testId;

const router = aDevice({ name: "Router", kind: "gateway", domain: id("domain", "main") });
const floor = aDevice({ name: "Floor", domain: id("domain", "main") });
const uplinks = [
  aPort({ device: router.id, label: "1", tagged: [v(20), v(30)] }),
  aPort({ device: floor.id, label: "24", tagged: [v(20), v(30)] }),
];
const socket = (label: string, vid: number) =>
  aPort({ device: floor.id, label, pvid: v(vid), untagged: [v(vid)] });
const sockets = [socket("1", 20), socket("2", 20), socket("3", 30), socket("4", 30), socket("5", 30)];
const at = (n: number): Host["attachment"] => ({ at: "port", port: must(sockets[n], "a socket").id });

const staff = aSegment({
  name: "Staff",
  vlan: id("vlan", "20"),
  prefixes4: [net("10.24.20.0/24")],
  gatewayInterface: id("interface", "staff"),
});
const guests = aSegment({
  name: "Guests",
  vlan: id("vlan", "30"),
  prefixes4: [net("10.24.30.0/24")],
  gatewayInterface: id("interface", "guests"),
});
const leg = (name: string, fields: Partial<Interface>): Interface =>
  anInterface({ id: id("interface", name), device: router.id, name, ...fields });
const legs = [
  leg("staff", { segment: staff.id, addresses4: [ip("10.24.20.1")] }),
  leg("guests", { segment: guests.id, addresses4: [ip("10.24.30.1")], relayTo: ip("10.24.20.5") }),
];
const server = aHost({
  name: "server",
  segment: staff.id,
  manner: "typed",
  ipv4: ip("10.24.20.5"),
  attachment: at(0),
});
const staffScope = aScope({
  segment: staff.id,
  serverDevice: router.id,
  pools: [range("10.24.20.10", "10.24.20.13")],
});
const guestScope = aScope({
  segment: guests.id,
  serverHost: server.id,
  pools: [range("10.24.30.100", "10.24.30.102")],
});
const asker = (name: string, segment: string, fields: Partial<Host> = {}): Host =>
  aHost({ name, segment, manner: "dynamic", mac: mac(name.length), ...fields });

interface Parts {
  readonly hosts?: readonly Host[];
  readonly scopes?: readonly Scope[];
  readonly legs?: readonly EntityOf<"interface">[];
  readonly serving?: Host;
}

function site({
  hosts = [],
  scopes = [staffScope, guestScope],
  legs: own = legs,
  serving = server,
}: Parts = {}): {
  plan: Plan;
  index: PlanIndex;
} {
  const plan = planWith({
    domain: [aDomain()],
    zone: [aZone()],
    vlan: [aVlan({ vid: v(20) }), aVlan({ vid: v(30) })],
    device: [router, floor],
    port: [...uplinks, ...sockets],
    link: [aLink({ a: must(uplinks[0], "a port").id, b: must(uplinks[1], "a port").id })],
    segment: [staff, guests],
    interface: own,
    host: [serving, ...hosts],
    scope: scopes,
  });
  return { plan, index: PlanIndex.of(plan) };
}
const addressesOf = (given: ReadonlyMap<string, unknown>, hosts: readonly Host[]) =>
  hosts.map((host) => given.get(host.id) ?? null);

describe("by which leg a question comes to a server (RFC 2131 section 4.1)", () => {
  const { index } = site();
  test.each([
    ["the server's own leg", staffScope, { device: router.id, relayTo: null }, "leg"],
    ["its own leg, relaying elsewhere", staffScope, { device: router.id, relayTo: ip("10.24.20.5") }, "leg"],
    ["another device's leg", staffScope, { device: floor.id, relayTo: null }, null],
    ["a relay to the serving host", guestScope, { device: router.id, relayTo: ip("10.24.20.5") }, "relay"],
    ["a relay to nobody", guestScope, { device: router.id, relayTo: ip("10.24.20.99") }, null],
    [
      "a relay to a leg of the serving device",
      staffScope,
      { device: floor.id, relayTo: ip("10.24.30.1") },
      "relay",
    ],
    ["a relay to a leg of another device", guestScope, { device: floor.id, relayTo: ip("10.24.30.1") }, null],
    ["no relay", guestScope, { device: router.id, relayTo: null }, null],
  ] as const)("%s", (_, scope, own, wanted) => expect(byLeg(index, scope, own)).toBe(wanted));

  test("every way is listed: legs of the segment, and the host where it is one of its own", () => {
    expect(waysToServer(index, staffScope)).toEqual([{ by: "leg", leg: legs[0] }]);
    expect(waysToServer(index, guestScope)).toEqual([{ by: "relay", leg: legs[1] }]);
    const inStaff = { ...staffScope, serverDevice: null, serverHost: server.id };
    expect(waysToServer(index, inStaff)).toEqual([{ by: "host", host: server }]);
    expect(waysToServer(index, { ...guestScope, serverHost: null })).toEqual([]);
  });
});

describe("who answers a broadcast", () => {
  const { index } = site();
  const asked = (n: number, tag: ReturnType<typeof v> | null = null) =>
    whoAnswers(index, flood(index, { at: "port", port: must(sockets[n], "a socket").id, tag, host: null }));

  test("the router for Staff, at its leg there; and the host only in its own segment's name", () => {
    expect(asked(1).map(({ scope, relayedBy }) => [scope.id, relayedBy])).toEqual([[staffScope.id, null]]);
    expect(asked(1)[0]?.arrival).toBeGreaterThanOrEqual(0);
  });
  test("the router's relay for Guests", () => {
    expect(asked(2).map(({ scope, relayedBy }) => [scope.id, relayedBy])).toEqual([
      [guestScope.id, router.id],
    ]);
  });
  test("nobody in a VLAN that no leg is in", () => {
    expect(asked(1, v(30))).toEqual([]);
  });
  test("a host that serves its own segment hears it untagged only, and is no arrival at gear", () => {
    const scopes = [{ ...staffScope, serverDevice: null, serverHost: server.id }];
    const heard = (serving: Host) => {
      const { index: own } = site({ scopes, serving });
      const place = { at: "port", port: must(sockets[1], "a socket").id, tag: null, host: null } as const;
      return whoAnswers(own, flood(own, place)).map(({ arrival, relayedBy }) => [arrival, relayedBy]);
    };
    expect(heard(server)).toEqual([[-1, null]]);
    expect(heard({ ...server, tag: v(20) })).toEqual([]);
  });
});

describe("what a scope has to give", () => {
  test("pools in any order and on top of one another, less what is left out", () => {
    const scope: Scope = {
      ...staffScope,
      pools: [
        range("10.24.20.30", "10.24.20.39"),
        range("10.24.20.10", "10.24.20.20"),
        range("10.24.20.15", "10.24.20.17"),
        range("10.24.20.20", "10.24.20.22"),
      ],
      exclusions: [range("10.24.20.12", "10.24.20.13"), range("10.24.20.39", "10.24.20.50")],
    };
    expect(offeredRanges(scope)).toEqual([
      range("10.24.20.10", "10.24.20.11"),
      range("10.24.20.14", "10.24.20.22"),
      range("10.24.20.30", "10.24.20.38"),
    ]);
    expect(offeredCount(scope)).toBe(20n);
    expect(offeredRanges(scope)).toBe(offeredRanges(scope));
  });
  test("reservations inside it and the server's own address are not for everyone", () => {
    const hosts = [
      asker("inside", staff.id, { manner: "reserved", ipv4: ip("10.24.20.11") }),
      asker("outside", staff.id, { manner: "reserved", ipv4: ip("10.24.20.99") }),
      asker("static", staff.id, { manner: "typed", ipv4: ip("10.24.20.12") }),
      asker("other", guests.id, { manner: "reserved", ipv4: ip("10.24.20.13") }),
      asker("six", staff.id, { manner: "reserved" }),
    ];
    const scope: Scope = { ...staffScope, pools: [range("10.24.20.1", "10.24.20.13")] };
    const { index } = site({ hosts, scopes: [scope] });
    expect(keptInPool(index, scope)).toEqual([ip("10.24.20.11")]);
    expect(leasableCount(index, scope)).toBe(11n);
  });
  test("whoever serves keeps its own address: a host as well as a device", () => {
    const scope: Scope = {
      ...staffScope,
      serverDevice: null,
      serverHost: server.id,
      pools: [range("10.24.20.4", "10.24.20.6")],
    };
    const { index } = site({ scopes: [scope] });
    expect(leasableCount(index, scope)).toBe(2n);
    expect(offerTo(index, scope, { mac: mac(1), leases: new Map([[mac(9), ip("10.24.20.4")]]) })).toEqual({
      address: ip("10.24.20.6"),
      reserved: false,
    });
  });
});

describe("what a server offers (RFC 2131 section 4.3.1)", () => {
  const kept = asker("kept", staff.id, { manner: "reserved", mac: mac(40), ipv4: ip("10.24.20.12") });
  const { index } = site({ hosts: [kept] });
  const offer = (options: Parameters<typeof offerTo>[2]) => {
    const made = offerTo(index, staffScope, options);
    return made === null ? null : [made.address, made.reserved];
  };
  test("what is kept, then what is held, then what is asked for, then the lowest", () => {
    const leases = new Map([[mac(41), ip("10.24.20.13")]]);
    expect(offer({ mac: mac(40), leases: new Map([[mac(40), ip("10.24.20.10")]]) })).toEqual([
      ip("10.24.20.12"),
      true,
    ]);
    expect(offer({ mac: mac(41), leases, asked: ip("10.24.20.10") })).toEqual([ip("10.24.20.13"), false]);
    expect(offer({ mac: mac(42), leases, asked: ip("10.24.20.11") })).toEqual([ip("10.24.20.11"), false]);
    expect(offer({ mac: mac(42), leases })).toEqual([ip("10.24.20.10"), false]);
    expect(offer({ mac: null })).toEqual([ip("10.24.20.10"), false]);
  });
  test("nothing that is taken, kept or none of the pool is given to who asks for it", () => {
    const leases = new Map([[mac(41), ip("10.24.20.13")]]);
    for (const wanted of ["10.24.20.13", "10.24.20.12", "10.24.20.200", "10.24.30.100"])
      expect(offer({ mac: mac(42), leases, asked: ip(wanted) })).toEqual([ip("10.24.20.10"), false]);
  });
  test("null when nothing is left", () => {
    const leases = new Map(
      ["10.24.20.10", "10.24.20.11", "10.24.20.13"].map((text, i): [Mac, Ipv4] => [mac(50 + i), ip(text)]),
    );
    expect(offer({ mac: mac(42), leases })).toBeNull();
    expect(offer({ mac: mac(40), leases })).toEqual([ip("10.24.20.12"), true]);
  });
  test.each([
    ["outside its subnet", { ipv4: ip("10.24.30.12") }],
    ["of the server's own address", { ipv4: ip("10.24.20.1") }],
    ["in another segment", { segment: guests.id }],
    ["by hand", { manner: "typed" as const }],
    ["without an address", { ipv4: null }],
  ])("a reservation %s is none", (_, fields) => {
    const odd = site({ hosts: [{ ...kept, ...fields }] });
    expect(offerTo(odd.index, staffScope, { mac: mac(40) })?.reserved).toBe(false);
  });
});

describe("what everybody holds when all have asked", () => {
  const hosts = [
    asker("b", staff.id),
    asker("a", staff.id, { mac: null }),
    asker("a10", staff.id),
    asker("a9", staff.id),
    asker("kept", staff.id, { manner: "reserved", mac: mac(40), ipv4: ip("10.24.20.12") }),
    asker("unread", staff.id, { manner: "reserved", mac: null, ipv4: ip("10.24.20.13") }),
    asker("static", staff.id, { manner: "typed", ipv4: ip("10.24.20.77") }),
    asker("guest", guests.id),
    asker("visitor", guests.id, { mac: mac(60) }),
  ];
  const { index } = site({ hosts });
  const named = (name: string) =>
    must(
      hosts.find((host) => host.name === name),
      name,
    );

  test("by name as people sort it; a reservation as planned, read or not; nothing left, none", () => {
    const given = leasedTo(index, staffScope);
    expect(
      addressesOf(given, ["a", "a9", "a10", "b", "kept", "unread", "static", "guest"].map(named)),
    ).toEqual([
      ip("10.24.20.10"),
      ip("10.24.20.11"),
      null,
      null,
      ip("10.24.20.12"),
      ip("10.24.20.13"),
      null,
      null,
    ]);
    expect(leasedTo(index, staffScope)).toBe(given);
    expect(leasedTo(index, guestScope)).not.toBe(given);
  });
  test("who holds an address, and what the server knows by MAC address", () => {
    expect(leaseholder(index, staffScope, ip("10.24.20.11"))?.name).toBe("a9");
    expect(leaseholder(index, staffScope, ip("10.24.20.99"))).toBeUndefined();
    expect([...leasesOf(index, staffScope)]).toEqual([
      [madeMac(named("a").id), ip("10.24.20.10")],
      [named("a9").mac, ip("10.24.20.11")],
    ]);
  });
  test("visitors share what is left, each by the place of its name among all who might come", () => {
    const roomy: Scope = { ...staffScope, pools: [range("10.24.20.10", "10.24.20.17")] };
    const own = site({ hosts, scopes: [roomy] });
    const visit = (name: string) => visitorAddress(own.index, roomy, named(name));
    expect([visit("guest"), visit("visitor")]).toEqual([ip("10.24.20.16"), ip("10.24.20.17")]);
    expect(visitorsWith(own.index, roomy, ip("10.24.20.16")).map(({ name }) => name)).toEqual(["guest"]);
    expect(visitorsWith(own.index, roomy, ip("10.24.20.10"))).toEqual([]);
    expect(visitorAddress(index, staffScope, named("guest"))).toBeNull();
    // One address for two: they come to the same.
    const tight: Scope = { ...staffScope, pools: [range("10.24.20.10", "10.24.20.16")] };
    const narrow = site({ hosts, scopes: [tight] });
    expect(visitorsWith(narrow.index, tight, ip("10.24.20.16")).map(({ name }) => name)).toEqual([
      "guest",
      "visitor",
    ]);
    expect(visitorAddress(narrow.index, tight, named("visitor"))).toBe(ip("10.24.20.16"));
  });
});
