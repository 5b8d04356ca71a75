import { madeMac, parseMac, type Mac } from "../address";
import { flood } from "../forwarding";
import { must } from "../kernel";
import { PlanIndex, type Host, type Interface, type Plan, type Scope } from "../plan";
import {
  aDevice,
  aHost,
  anInterface,
  aLink,
  aPort,
  aScope,
  aSegment,
  aZone,
  planWith,
  testId,
} from "../testing/build-plan";
import { ip, net } from "../testing/written";
import { leasedTo, leasesOf, visitorAddress, visitorsWith } from "./leased";
import { adviseLease, holdSeconds, LEASES, peakUse } from "./lease-sizing";
import { readOption } from "./options";
import { freeAddresses, keptInPool, leasableCount, offeredRanges, offerTo } from "./scope-room";
import { whoAnswers } from "./who-answers";

// The values on either side of each edge, on a segment without VLANs behind a router's own port.

const mac = (n: number): Mac => must(parseMac(`02:5a:10:00:00:${n.toString(16).padStart(2, "0")}`), "a MAC");
const range = (first: string, last: string) => ({ first: ip(first), last: ip(last) });

describe("options, at their edges", () => {
  const value = (text: string) => {
    const read = readOption(text);
    return typeof read === "string" ? null : read.value;
  };

  test.each<[string, string | null]>([
    ["26 65535", "65535"],
    ["26 65536", null],
    ["2 -2147483648", "-2147483648"],
    ["2 -2147483649", null],
    ["2 4294967295", "4294967295"],
    ["2 4294967296", null],
    ["2 x5", null],
    ["2 5x", null],
    ["2 12345678901", null],
    ["19 on", "on"],
    ["19 off", "off"],
    ["19 one", null],
    ["19 soon", null],
    ["1 255.255.255.0", null],
    ["2 0", "0"],
    ["254 the last", "the last"],
    ["255 beyond", null],
    ["0 below", null],
    [`15 ${"a".repeat(120)}`, "a".repeat(120)],
    [`15 ${"a".repeat(121)}`, null],
    [`224 ${"a".repeat(120)}`, "a".repeat(120)],
    [`224 ${"a".repeat(121)}`, null],
    ["28 10.24.20.255", "10.24.20.255"],
    ["28 10.24.20.256", null],
    ["42 10.24.60.10, ten", null],
    ["42 ten, 10.24.60.10", null],
    ["42 10.24.60.10 10.24.60.11", "10.24.60.10 10.24.60.11"],
    ["43 01040a18", "01040a18"],
    ["43 01 04-0a:18", "01 04-0a:18"],
    ["43 010", null],
    ["   15   fennel.internal   ", "fennel.internal"],
    ["15:fennel.internal", "fennel.internal"],
    ["15 = fennel.internal", "fennel.internal"],
    ["15 =fennel=internal", "fennel=internal"],
    ["a 15 fennel.internal", null],
    ["1234 x", null],
    ["15", null],
    ["domain name fennel.internal", "fennel.internal"],
    ["DOMAIN NAME = fennel.internal", "fennel.internal"],
    ["domain named x", null],
  ])("%s", (text, wanted) => {
    expect(value(text)).toBe(wanted);
  });

  test("of two names that begin alike the longer is meant", () => {
    expect(readOption("time zone, by name Europe/London")).toMatchObject({
      code: 101,
      value: "Europe/London",
    });
    expect(readOption("TFTP server addresses 10.24.60.9")).toMatchObject({ code: 150 });
    expect(readOption("TFTP server name boot")).toMatchObject({ code: 66, value: "boot" });
    expect(readOption("224 x")).toMatchObject({ name: "option 224" });
    expect(readOption("15 ")).toMatch(/is no option/);
    expect(readOption(`224 ${"a".repeat(121)}`)).toMatch(/option 224: 1 to 120 characters/);
  });
});

describe("how long a lease may be", () => {
  const visits = { perHour: 30, staySeconds: 2400, openSeconds: 36_000 };

  test("a visit holds its address in half-leases, and one lease after the last", () => {
    expect(holdSeconds({ staySeconds: 2400 }, 3600)).toBe(5400);
    expect(holdSeconds({ staySeconds: 1799 }, 3600)).toBe(3600);
    expect(holdSeconds({ staySeconds: 1800 }, 3600)).toBe(5400);
  });

  test("it lasts the whole day exactly when it is as long as the doors are open", () => {
    expect(peakUse({ ...visits, openSeconds: 5400 }, 3600).wholeDay).toBe(true);
    expect(peakUse({ ...visits, openSeconds: 5401 }, 3600).wholeDay).toBe(false);
    expect(peakUse(visits, 3600)).toMatchObject({ average: 45, needed: 61, holdSeconds: 5400 });
  });

  test("the reason names what the next longer lease would need, or that there is none", () => {
    const room = 80;
    const advice = adviseLease(visits, room, 5);
    const at = LEASES.findIndex((lease) => lease === advice.leaseSeconds);
    const next = peakUse(visits, must(LEASES[at + 1], "a longer lease")).needed + 5;
    expect(advice.pool).toBe(peakUse(visits, advice.leaseSeconds).needed + 5);
    expect(advice.pool).toBeLessThanOrEqual(room);
    expect(next).toBeGreaterThan(room);
    expect(advice.reason).toBe(
      `The next longer lease would need ${next} addresses, ` +
        `and there is room for ${room}; this one needs ${advice.pool}.`,
    );
    const longest = adviseLease(visits, 5000, 0);
    expect(longest.leaseSeconds).toBe(86_400);
    expect(longest.reason).toMatch(/^Even at this, the longest useful lease,/);
  });
});

const router = aDevice({ name: "Router", kind: "gateway", bridging: "none" });
const box = aDevice({ name: "Box", bridging: "plain" });
const own = aPort({ device: router.id, label: "1" });
const sockets = ["1", "2", "3"].map((label) => aPort({ device: box.id, label }));
const socket = (n: number) => must(sockets[n], "a socket");
const shop = aSegment({ name: "Shop", prefixes4: [net("10.24.20.0/24")] });
const away = aSegment({ name: "Away", prefixes4: [net("10.24.30.0/24")] });
const shopLeg = anInterface({
  device: router.id,
  name: "shop",
  port: own.id,
  segment: shop.id,
  addresses4: [ip("10.24.20.11")],
});
const scope = (fields: Partial<Scope> = {}): Scope =>
  aScope({
    segment: shop.id,
    serverDevice: router.id,
    pools: [range("10.24.20.10", "10.24.20.14")],
    ...fields,
  });
const host = (name: string, fields: Partial<Host> = {}): Host =>
  aHost({ name, segment: shop.id, manner: "dynamic", ...fields });

function site(
  hosts: readonly Host[],
  scopes: readonly Scope[],
  legs: readonly Interface[] = [shopLeg],
): PlanIndex {
  const plan: Plan = planWith({
    zone: [aZone()],
    device: [router, box],
    port: [own, ...sockets],
    link: [aLink({ a: own.id, b: socket(0).id })],
    segment: [shop, away],
    interface: legs,
    host: hosts,
    scope: scopes,
  });
  return PlanIndex.of(plan);
}
const asked = (index: PlanIndex, n: number) =>
  whoAnswers(index, flood(index, { at: "port", port: socket(n).id, tag: null, host: null }));

describe("behind a router's own port", () => {
  test("the leg there hears the question, untagged, at no place inside the gear", () => {
    const index = site([], [scope()]);
    expect(asked(index, 1).map(({ arrival, relayedBy }) => [arrival, relayedBy])).toEqual([[-1, null]]);
    const tagged = flood(index, { at: "port", port: socket(1).id, tag: 20, host: null });
    expect(whoAnswers(index, tagged)).toEqual([]);
  });

  test("nobody where the port has no leg, or its leg no segment, or the segment no scope", () => {
    expect(asked(site([], [scope()], []), 1)).toEqual([]);
    const bare = { ...shopLeg, segment: null };
    expect(asked(site([], [scope()], [bare]), 1)).toEqual([]);
    expect(asked(site([], []), 1)).toEqual([]);
    const other = { ...shopLeg, segment: away.id, addresses4: [ip("10.24.30.1")] };
    expect(asked(site([], [scope()], [other]), 1)).toEqual([]);
  });

  test("a leg that relays asks who serves, and says that it did", () => {
    const server = host("Server", { manner: "typed", segment: away.id, ipv4: ip("10.24.30.5") });
    const relaying = { ...shopLeg, relayTo: ip("10.24.30.5") };
    const relayed = scope({ serverDevice: null, serverHost: server.id });
    expect(asked(site([server], [relayed], [relaying]), 1).map(({ relayedBy }) => relayedBy)).toEqual([
      router.id,
    ]);
    expect(asked(site([server], [relayed]), 1)).toEqual([]);
  });

  test("a host that serves hears it in its own segment only", () => {
    const server = host("Server", { manner: "typed", attachment: { at: "port", port: socket(2).id } });
    const serves = scope({ serverDevice: null, serverHost: server.id });
    expect(asked(site([server], [serves]), 1)).toHaveLength(1);
    const stranger = { ...server, segment: null };
    expect(asked(site([stranger], [serves]), 1)).toEqual([]);
  });
});

describe("what is kept back", () => {
  test("two pools that touch or lie in one another are one; the larger end holds", () => {
    const ranges = (...pools: Scope["pools"]) =>
      offeredRanges(scope({ pools })).map(({ first, last }) => [Number(first) & 255, Number(last) & 255]);
    expect(ranges(range("10.24.20.20", "10.24.20.29"), range("10.24.20.10", "10.24.20.25"))).toEqual([
      [10, 29],
    ]);
    expect(ranges(range("10.24.20.10", "10.24.20.29"), range("10.24.20.15", "10.24.20.20"))).toEqual([
      [10, 29],
    ]);
    expect(ranges(range("10.24.20.10", "10.24.20.20"), range("10.24.20.20", "10.24.20.20"))).toEqual([
      [10, 20],
    ]);
  });

  test("only reserved addresses of its family inside a pool are kept, each pool asked", () => {
    const two = scope({ pools: [range("10.24.20.10", "10.24.20.12"), range("10.24.20.20", "10.24.20.22")] });
    const index = site(
      [
        host("A", { manner: "reserved", mac: mac(1), ipv4: ip("10.24.20.21") }),
        host("B", { manner: "typed", ipv4: ip("10.24.20.12") }),
        host("C", { manner: "reserved", mac: mac(3), ipv4: ip("10.24.20.99") }),
        host("D", { manner: "reserved", mac: mac(4), ipv4: null }),
      ],
      [two],
    );
    expect(keptInPool(index, two)).toEqual([ip("10.24.20.21")]);
    expect(keptInPool(index, { ...two, family: 6 })).toEqual([]);
    // Six in the pools, less the reserved one and the server's own.
    expect(leasableCount(index, two)).toBe(4n);
    expect([...freeAddresses(index, two)]).toEqual(
      ["10.24.20.10", "10.24.20.12", "10.24.20.20", "10.24.20.22"].map(ip),
    );
  });

  test("another router's address in the segment is not the server's own", () => {
    const second = aDevice({ name: "Second", kind: "gateway", bridging: "none" });
    const theirs = anInterface({
      device: second.id,
      name: "theirs",
      segment: shop.id,
      addresses4: [ip("10.24.20.12")],
    });
    const index = PlanIndex.of(
      planWith({
        zone: [aZone()],
        device: [router, box, second],
        port: [own, ...sockets],
        segment: [shop, away],
        interface: [shopLeg, theirs],
        scope: [scope()],
      }),
    );
    expect([...freeAddresses(index, scope())]).toEqual(
      ["10.24.20.10", "10.24.20.12", "10.24.20.13", "10.24.20.14"].map(ip),
    );
  });

  test.each<[string, Partial<Host>, boolean]>([
    ["one in the subnet", { ipv4: ip("10.24.20.200") }, true],
    ["one outside it", { ipv4: ip("10.24.21.200") }, false],
    ["the server's own", { ipv4: ip("10.24.20.11") }, false],
    ["none", { ipv4: null }, false],
    ["of another segment", { ipv4: ip("10.24.20.200"), segment: away.id }, false],
    ["of somebody who is static", { ipv4: ip("10.24.20.200"), manner: "typed" }, false],
  ])("a reservation is given to its MAC address: %s", (_, fields, given) => {
    const index = site([host("A", { manner: "reserved", mac: mac(1), ...fields })], [scope()]);
    const offer = offerTo(index, scope(), { mac: mac(1) });
    expect(offer?.reserved).toBe(given);
    expect(offer?.address).toBe(given ? ip("10.24.20.200") : ip("10.24.20.10"));
    expect(offerTo(index, scope(), { mac: null })).toEqual({ address: ip("10.24.20.10"), reserved: false });
  });

  test("who asks for an address gets it in any of the pools, and not between them", () => {
    const two = scope({ pools: [range("10.24.20.10", "10.24.20.12"), range("10.24.20.20", "10.24.20.22")] });
    const index = site([], [two]);
    const offered = (wish: string) => offerTo(index, two, { mac: mac(9), asked: ip(wish) })?.address;
    expect(offered("10.24.20.22")).toBe(ip("10.24.20.22"));
    expect(offered("10.24.20.12")).toBe(ip("10.24.20.12"));
    expect(offered("10.24.20.15")).toBe(ip("10.24.20.10"));
    expect(offered("10.24.20.11")).toBe(ip("10.24.20.10"));
  });

  test("the last address there is can be offered", () => {
    const last = scope({ pools: [range("255.255.255.254", "255.255.255.255")] });
    expect([...freeAddresses(site([], [last]), last)]).toHaveLength(2);
  });
});

describe("who holds what when all have asked", () => {
  test("a reservation without a MAC address holds as planned; one elsewhere is served from the pool", () => {
    const planned = host("A", { manner: "reserved", mac: null, ipv4: ip("10.24.20.77") });
    const astray = host("B", { manner: "reserved", mac: mac(2), ipv4: ip("10.24.99.9") });
    const nothing = host("C", { manner: "reserved", mac: null, ipv4: null });
    const plain = host("D", { ipv4: ip("10.24.20.14"), mac: mac(4) });
    const index = site([planned, astray, nothing, plain], [scope()]);
    const held = leasedTo(index, scope());
    expect([planned, astray, nothing, plain].map(({ id }) => held.get(id))).toEqual(
      ["10.24.20.77", "10.24.20.10", "10.24.20.12", "10.24.20.13"].map(ip),
    );
    expect([...leasesOf(index, scope())]).toEqual([[mac(4), ip("10.24.20.13")]]);
  });

  test("who has no MAC address yet is known by one that is made for it", () => {
    const plain = host("D");
    const index = site([plain], [scope()]);
    expect([...leasesOf(index, scope())]).toEqual([[madeMac(plain.id), ip("10.24.20.10")]]);
  });

  test("visitors of one name stand by their ids; an address that nobody visits with has nobody", () => {
    const twins = [1, 2].map((n) => host("Twin", { id: testId("host", `twin ${n}`), segment: away.id }));
    const index = site(twins, [scope()]);
    const inOrder = [...twins].sort((a, b) => (a.id < b.id ? -1 : 1));
    expect(inOrder.map((host) => visitorAddress(index, scope(), host))).toEqual(
      ["10.24.20.10", "10.24.20.12"].map(ip),
    );
    expect(visitorsWith(index, scope(), ip("10.24.20.12"))).toEqual([inOrder[1]]);
    expect(visitorsWith(index, scope(), ip("10.24.20.13"))).toEqual([]);
    expect(visitorsWith(index, scope(), ip("10.24.20.99"))).toEqual([]);
    const none = scope({ pools: [] });
    expect(visitorAddress(site(twins, [none]), none, must(twins[0], "one"))).toBeNull();
  });
});
