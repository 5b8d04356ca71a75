import { asPrefix4, parseAddress, parseIpv4, parseIpv6, parsePrefix, type Address } from "../address";
import { must } from "../kernel";
import {
  USUAL_METRIC,
  BLANK_LINE,
  PlanIndex,
  USUAL_ABILITIES,
  type Device,
  type Interface,
  type Line,
  type Segment,
} from "../plan";
import { aDevice, aHost, anInterface, aPort, aSegment, aZone, planWith, testId } from "../testing/build-plan";
import { net6 } from "../testing/written";
import { enteredOn, facingAddresses, forwardsPackets, isBelieved, leastAlong, linesOf, OUTSIDE } from ".";
import { routeFrom, translatesAt, wayFrom } from ".";

const at = (text: string): Address => must(parseAddress(text), `the address ${text}`);
const v4 = (text: string) => must(parseIpv4(text), `the address ${text}`);
const v6 = (text: string) => must(parseIpv6(text), `the address ${text}`);
const net4 = (text: string) => must(asPrefix4(parsePrefix(text)), `the prefix ${text}`);

const STAFF = aSegment({
  name: "Staff",
  prefixes4: [net4("10.24.20.0/24")],
  prefixes6: [net6("fd00:24:0:20::/64")],
  gatewayInterface: testId("interface", "router staff"),
});
const LAB = aSegment({
  name: "Lab",
  prefixes4: [net4("10.24.60.0/24")],
  gatewayInterface: testId("interface", "inner lab"),
});
const BETWEEN = aSegment({
  name: "Between",
  prefixes4: [net4("10.24.99.0/24")],
  gatewayInterface: testId("interface", "router between"),
});
const ROUTER = aDevice({ name: "Router", kind: "gateway" });
const INNER = aDevice({ name: "Inner", kind: "gateway" });
const SWITCH = aDevice({ name: "Switch" });
const DSL: Line = { ...BLANK_LINE, id: testId("line", "dsl"), name: "Copper" };
const RADIO: Line = { ...BLANK_LINE, id: testId("line", "radio"), name: "Mobile", place: 1 };

const leg = (name: string, fields: Partial<Interface> & Pick<Interface, "device">): Interface =>
  anInterface({ id: testId("interface", name), name, ...fields });
const STAFF_LEG = leg("router staff", {
  device: ROUTER.id,
  segment: STAFF.id,
  addresses4: [v4("10.24.20.1")],
  addresses6: [v6("fd00:24:0:20::1")],
});
const BETWEEN_LEG = leg("router between", {
  device: ROUTER.id,
  segment: BETWEEN.id,
  addresses4: [v4("10.24.99.1")],
});
const INNER_OUT = leg("inner out", { device: INNER.id, segment: BETWEEN.id, addresses4: [v4("10.24.99.2")] });
const INNER_LAB = leg("inner lab", { device: INNER.id, segment: LAB.id, addresses4: [v4("10.24.60.1")] });
const COPPER = leg("outside", { device: ROUTER.id, line: DSL.id });

interface Site {
  readonly devices?: readonly Device[];
  readonly legs?: readonly Interface[];
  readonly lines?: readonly Line[];
  readonly segments?: readonly Segment[];
  readonly ports?: readonly ReturnType<typeof aPort>[];
}

/** A router with a line, a second router behind it, and a lab behind that; any part can be another. */
const site = ({ devices, legs, lines, segments, ports }: Site = {}): PlanIndex =>
  PlanIndex.of(
    planWith({
      zone: [aZone()],
      line: lines ?? [DSL, RADIO],
      segment: segments ?? [STAFF, LAB, BETWEEN],
      device: devices ?? [ROUTER, INNER, SWITCH],
      port: ports ?? [],
      interface: legs ?? [STAFF_LEG, BETWEEN_LEG, INNER_OUT, INNER_LAB, COPPER],
    }),
  );
const told = (index: PlanIndex, device: Device, to: string) => {
  const route = routeFrom(index, must(index.plan.device.get(device.id), "the device"), at(to));
  return route === null
    ? null
    : `${route.how} ${route.leg.name} ${route.via ?? "-"} ${route.line?.name ?? "-"}`;
};
const via = (text: string) => String(at(text));
const route = (prefix: string, next: string, metric = USUAL_METRIC) => ({
  prefix: net4(prefix),
  via: v4(next),
  metric,
});

describe("who sends on what is not for itself", () => {
  test.each<[boolean, Partial<Device>]>([
    [true, { kind: "gateway" }],
    [true, { kind: "firewall" }],
    [true, { kind: "providerBox" }],
    [true, { kind: "switch", abilities: { ...USUAL_ABILITIES, routes: true } }],
    [false, { kind: "switch", abilities: { ...USUAL_ABILITIES, routes: false } }],
    [false, { kind: "accessPoint" }],
  ])("%p: %o", (sends, fields) => {
    expect(forwardsPackets(aDevice({ name: "Box", ...fields }))).toBe(sends);
  });
});

describe("the longest prefix decides", () => {
  const routed = (...routes: Device["routes"]) => site({ devices: [{ ...ROUTER, routes }, INNER, SWITCH] });

  test("an own segment, then what is entered, then the line", () => {
    const index = routed(route("10.24.60.0/24", "10.24.99.2"));
    expect(told(index, ROUTER, "10.24.20.77")).toBe("connected router staff - -");
    expect(told(index, ROUTER, "10.24.60.9")).toBe(`entered router between ${via("10.24.99.2")} -`);
    expect(told(index, ROUTER, "198.51.100.7")).toBe("default outside - Copper");
  });

  test("a route that is longer than the own segment wins, one as long or shorter does not", () => {
    expect(told(routed(route("10.24.20.64/26", "10.24.99.2")), ROUTER, "10.24.20.77")).toMatch(/^entered/);
    expect(told(routed(route("10.24.20.0/24", "10.24.99.2")), ROUTER, "10.24.20.77")).toMatch(/^connected/);
    expect(told(routed(route("10.24.0.0/16", "10.24.99.2")), ROUTER, "10.24.20.77")).toMatch(/^connected/);
  });

  test("of two routes the longer, in whatever order they stand", () => {
    const [wide, close] = [route("10.24.0.0/16", "10.24.20.5"), route("10.24.60.0/24", "10.24.99.2")];
    for (const index of [routed(wide, close), routed(close, wide)]) {
      expect(told(index, ROUTER, "10.24.60.9")).toBe(`entered router between ${via("10.24.99.2")} -`);
      expect(told(index, ROUTER, "10.24.61.9")).toBe(`entered router staff ${via("10.24.20.5")} -`);
    }
  });

  test("of two for one subnet the lower metric; without a leg to it, the other", () => {
    const [first, second] = [
      route("10.24.60.0/24", "10.24.99.2", 10),
      route("10.24.60.0/24", "10.24.20.5", 20),
    ];
    for (const index of [routed(first, second), routed(second, first)])
      expect(told(index, ROUTER, "10.24.60.9")).toBe(`entered router between ${via("10.24.99.2")} -`);
    const lost = routed(route("10.24.60.0/24", "10.24.77.2", 10), second);
    expect(told(lost, ROUTER, "10.24.60.9")).toBe(`entered router staff ${via("10.24.20.5")} -`);
    const tied = [route("10.24.60.0/24", "10.24.99.2"), route("10.24.60.0/24", "10.24.20.5")] as const;
    expect(told(routed(...tied), ROUTER, "10.24.60.9")).toBe(
      told(routed(...[...tied].reverse()), ROUTER, "10.24.60.9"),
    );
  });

  test("a route whose next hop lies in no own segment leads nowhere", () => {
    expect(told(routed(route("10.24.60.0/24", "10.24.77.2")), ROUTER, "10.24.60.9")).toMatch(/^default/);
    expect(told(routed(route("10.24.60.0/24", "10.24.99.2")), ROUTER, "10.24.70.9")).toMatch(/^default/);
  });

  test("of two subnets of a segment the one that holds it, with an address of its own in it", () => {
    const wide = { ...STAFF, prefixes4: [net4("10.24.20.0/24"), net4("10.24.21.0/24")] };
    const index = (...addresses: string[]) =>
      site({
        segments: [wide, LAB, BETWEEN],
        legs: [{ ...STAFF_LEG, addresses4: addresses.map(v4) }, BETWEEN_LEG, INNER_OUT, INNER_LAB, COPPER],
      });
    expect(told(index("10.24.20.1"), ROUTER, "10.24.21.9")).toMatch(/^default/);
    expect(told(index("10.24.20.1", "10.24.21.1"), ROUTER, "10.24.21.9")).toBe("connected router staff - -");
  });

  test("of two own segments the one with the longer prefix", () => {
    const part = aSegment({ name: "Part", prefixes4: [net4("10.24.20.128/25")] });
    const partLeg = leg("router part", {
      device: ROUTER.id,
      segment: part.id,
      addresses4: [v4("10.24.20.129")],
    });
    for (const legs of [
      [STAFF_LEG, partLeg, BETWEEN_LEG, INNER_LAB],
      [partLeg, STAFF_LEG, BETWEEN_LEG, INNER_LAB],
    ]) {
      const index = site({ segments: [STAFF, part, LAB, BETWEEN], legs });
      expect(told(index, ROUTER, "10.24.20.200")).toBe("connected router part - -");
      expect(told(index, ROUTER, "10.24.20.20")).toBe("connected router staff - -");
    }
  });

  test("each family by its own prefixes", () => {
    expect(told(site(), ROUTER, "fd00:24:0:20::9")).toBe("connected router staff - -");
    expect(told(site(), ROUTER, "fd00:24:0:60::9")).toBe("default outside - Copper");
  });
});

describe("a routed port that is off takes its leg along", () => {
  const port = aPort({ device: ROUTER.id, label: "7" });
  const index = (enabled: boolean) =>
    site({
      ports: [{ ...port, enabled }],
      legs: [
        { ...STAFF_LEG, port: port.id },
        BETWEEN_LEG,
        INNER_OUT,
        INNER_LAB,
        { ...COPPER, port: port.id },
      ],
    });
  test.each([
    [true, "connected router staff - -", 1],
    [false, null, 0],
  ])("on: %p", (enabled, way, lines) => {
    expect(told(index(enabled), ROUTER, "10.24.20.9")).toBe(way);
    expect(linesOf(index(enabled), ROUTER.id)).toHaveLength(lines);
  });
});

describe("lines", () => {
  const names = (lines: readonly Line[]) =>
    linesOf(
      site({
        lines,
        legs: [
          ...[STAFF_LEG, BETWEEN_LEG, INNER_LAB],
          ...lines.map((line) => leg(`to ${line.name}`, { device: ROUTER.id, line: line.id })),
        ],
      }),
      ROUTER.id,
    ).map(({ line }) => line.name);
  const line = (name: string, place: number): Line => ({
    ...BLANK_LINE,
    id: testId("line", name),
    name,
    place,
  });

  test("in the order of failover; among equals by name", () => {
    const all = [line("A", 2), line("B", 1), line("D", 0), line("C", 0)];
    expect(names(all)).toEqual(["C", "D", "B", "A"]);
    expect(names([...all].reverse())).toEqual(["C", "D", "B", "A"]);
  });

  test("a router without any has none", () => {
    expect(linesOf(site(), INNER.id)).toEqual([]);
  });

  test.each<[string, Line["addressing"], 4 | 6, number]>([
    ["given by the provider and not noted: one that stands for it", "dhcp", 4, 1],
    ["by a login as well", "login", 4, 1],
    ["fixed and not entered: none", "fixed", 4, 0],
    ["IPv6 is not made up", "dhcp", 6, 0],
  ])("its outside address, %s", (_, addressing, family, count) => {
    const index = site({
      lines: [{ ...DSL, addressing }],
      legs: [STAFF_LEG, BETWEEN_LEG, INNER_LAB, COPPER],
    });
    expect(facingAddresses(index, COPPER, family)).toHaveLength(count);
  });

  test("its outside addresses where they are noted", () => {
    const outside = { ...COPPER, addresses4: [v4("203.0.113.9"), v4("203.0.113.10")] };
    const index = site({ lines: [DSL], legs: [STAFF_LEG, BETWEEN_LEG, INNER_LAB, outside] });
    expect(facingAddresses(index, outside, 4)).toEqual(outside.addresses4);
  });

  test("a leg inside is given nothing", () => {
    expect(facingAddresses(site(), leg("bare", { device: ROUTER.id }), 4)).toEqual([]);
    expect(facingAddresses(site(), STAFF_LEG, 6)).toEqual([v6("fd00:24:0:20::1")]);
  });

  test.each<[Interface["translates"], string | null, boolean]>([
    ["asUsual", DSL.id, true],
    ["asUsual", null, false],
    ["yes", null, true],
    ["no", DSL.id, false],
  ])("translates %p on line %p: %p", (translates, onLine, is) => {
    expect(translatesAt({ ...COPPER, translates, line: onLine })).toBe(is);
  });
});

describe("the way out of what has no line", () => {
  const second = aSegment({
    name: "Second",
    prefixes4: [net4("10.24.30.0/24")],
    gatewayInterface: testId("interface", "router second"),
    management: true,
  });
  const secondLeg = leg("router second", {
    device: ROUTER.id,
    segment: second.id,
    addresses4: [v4("10.24.30.1")],
  });
  const mine = (device: Device, more: Partial<Interface> = {}) => [
    leg("mine second", { device: device.id, segment: second.id, addresses4: [v4("10.24.30.8")] }),
    leg("mine staff", { device: device.id, segment: STAFF.id, addresses4: [v4("10.24.20.8")], ...more }),
  ];
  const of = (device: Device, more: Partial<Interface> = {}) =>
    told(
      site({
        devices: [ROUTER, INNER, device],
        segments: [STAFF, LAB, BETWEEN, second],
        legs: [STAFF_LEG, BETWEEN_LEG, INNER_OUT, INNER_LAB, COPPER, secondLeg, ...mine(device, more)],
      }),
      device,
      "198.51.100.7",
    );

  test("a segment that is not for management comes first", () => {
    expect(of({ ...SWITCH, asksFrom: null })).toBe(`default mine staff ${via("10.24.20.1")} -`);
  });

  test("what does not route takes the leg it asks from; what routes does not", () => {
    const asksFrom = testId("interface", "mine second");
    expect(of({ ...SWITCH, asksFrom })).toBe(`default mine second ${via("10.24.30.1")} -`);
    expect(of({ ...SWITCH, kind: "firewall", asksFrom })).toBe(`default mine staff ${via("10.24.20.1")} -`);
  });

  test("a leg that translates comes before one that does not", () => {
    const third = leg("mine between", {
      device: SWITCH.id,
      segment: BETWEEN.id,
      addresses4: [v4("10.24.99.8")],
      translates: "yes",
    });
    const index = site({
      segments: [STAFF, LAB, BETWEEN, second],
      legs: [STAFF_LEG, BETWEEN_LEG, INNER_OUT, INNER_LAB, secondLeg, ...mine(SWITCH), third],
    });
    expect(told(index, SWITCH, "198.51.100.7")).toBe(`default mine between ${via("10.24.99.1")} -`);
  });

  test("none where it is said so, or where the gateway is its own leg or has no address of the family", () => {
    expect(of({ ...SWITCH, defaultRoute: "none" })).toBeNull();
    const alone = (legs: readonly Interface[], device: Device, to: string) =>
      told(site({ legs }), device, to);
    expect(alone([STAFF_LEG, BETWEEN_LEG, INNER_LAB], ROUTER, "198.51.100.7")).toBeNull();
    expect(alone([STAFF_LEG, BETWEEN_LEG, INNER_OUT, INNER_LAB], INNER, "198.51.100.7")).toMatch(/^default/);
    expect(alone([STAFF_LEG, BETWEEN_LEG, INNER_OUT, INNER_LAB], INNER, "2001:db8::9")).toBeNull();
    expect(told(site({ legs: [STAFF_LEG, BETWEEN_LEG, INNER_LAB] }), SWITCH, "198.51.100.7")).toBeNull();
  });
});

describe("a way over several routers", () => {
  const lab = { ...ROUTER, routes: [route("10.24.60.0/24", "10.24.99.2")] };
  const way = (index: PlanIndex, from: Device, to: string) => {
    const found = wayFrom(index, must(index.plan.device.get(from.id), "the device"), at(to));
    return found === null
      ? null
      : {
          hops: found.hops.map(
            ({ device, leg: out, next, source }) =>
              `${device.name} ${out.name} > ${next?.name ?? "-"} as ${source?.name ?? "-"}`,
          ),
          source: found.source?.name ?? null,
          line: found.line?.name ?? null,
        };
  };

  test("ends in the segment, or leaves by the line", () => {
    const index = site({ devices: [lab, INNER, SWITCH] });
    expect(way(index, ROUTER, "10.24.60.9")).toEqual({
      hops: ["Router router between > inner out as -", "Inner inner lab > - as -"],
      source: null,
      line: null,
    });
    expect(way(index, INNER, "198.51.100.7")).toEqual({
      hops: ["Inner inner out > router between as -", "Router outside > - as -"],
      source: null,
      line: "Copper",
    });
  });

  test("a router on the way that translates gives its own segment's address, IPv4, not on a line", () => {
    const translating = { ...INNER_OUT, translates: "yes" as const };
    const index = site({ legs: [STAFF_LEG, BETWEEN_LEG, translating, INNER_LAB, COPPER] });
    expect(way(index, INNER, "10.24.20.9")).toEqual({
      hops: ["Inner inner out > router between as -", "Router router staff > - as Between"],
      source: "Between",
      line: null,
    });
    expect(way(index, INNER, "198.51.100.7")).toMatchObject({ source: "Between", line: "Copper" });
    const six = site({
      segments: [STAFF, LAB, { ...BETWEEN, prefixes6: [net6("fd00:24:0:99::/64")] }],
      legs: [
        STAFF_LEG,
        { ...BETWEEN_LEG, addresses6: [v6("fd00:24:0:99::1")] },
        { ...translating, addresses6: [v6("fd00:24:0:99::2")] },
        INNER_LAB,
      ],
    });
    expect(way(six, INNER, "fd00:24:0:20::9")).toMatchObject({ source: null });
  });

  test("none where nobody has the next hop, or who has it sends nothing on, or it goes round", () => {
    const nobody = { ...ROUTER, routes: [route("10.24.60.0/24", "10.24.99.7")] };
    expect(way(site({ devices: [nobody, INNER, SWITCH] }), ROUTER, "10.24.60.9")).toBeNull();
    const deaf = leg("deaf", { device: SWITCH.id, segment: BETWEEN.id, addresses4: [v4("10.24.99.7")] });
    const legs = [STAFF_LEG, BETWEEN_LEG, INNER_OUT, INNER_LAB, COPPER, deaf];
    expect(way(site({ devices: [nobody, INNER, SWITCH], legs }), ROUTER, "10.24.60.9")).toBeNull();
    const round = [
      { ...ROUTER, routes: [route("10.24.70.0/24", "10.24.99.2")] },
      { ...INNER, routes: [route("10.24.70.0/24", "10.24.99.1")] },
    ];
    expect(way(site({ devices: [...round, SWITCH] }), ROUTER, "10.24.70.9")).toBeNull();
    expect(way(site({ legs: [STAFF_LEG, BETWEEN_LEG, INNER_LAB] }), ROUTER, "10.24.60.9")).toBeNull();
  });

  test("a filter believes a sender whose answers would leave where it came in (RFC 3704)", () => {
    const believed = (index: PlanIndex, from: Device, to: string, sender: string) =>
      isBelieved(
        index,
        must(wayFrom(index, must(index.plan.device.get(from.id), "it"), at(to)), "a way"),
        at(sender),
      );
    const both = site({ devices: [lab, INNER, SWITCH] });
    expect(believed(both, INNER, "10.24.20.9", "10.24.60.9")).toBe(true);
    expect(believed(both, INNER, "10.24.20.9", "10.24.77.9")).toBe(false);
    // Without a route back, the answers would leave by the line.
    expect(believed(site(), INNER, "10.24.20.9", "10.24.60.9")).toBe(false);
    // The first router is the sender's own gateway; a switch that routes does not filter.
    expect(believed(site(), ROUTER, "10.24.20.9", "10.24.77.9")).toBe(true);
    const plain: Device = { ...ROUTER, kind: "switch", abilities: { ...USUAL_ABILITIES, routes: true } };
    expect(believed(site({ devices: [plain, INNER, SWITCH] }), INNER, "10.24.20.9", "10.24.60.9")).toBe(true);
    const translating = { ...INNER_OUT, translates: "yes" as const };
    const hidden = site({ legs: [STAFF_LEG, BETWEEN_LEG, translating, INNER_LAB, COPPER] });
    expect(believed(hidden, INNER, "10.24.20.9", "10.24.60.9")).toBe(true);
  });

  test("the least of the filters, each asked by the address it sees", () => {
    const asked: string[] = [];
    const door = (levels: Readonly<Record<string, number>>) => (from: Segment) => {
      asked.push(from.name);
      return levels[from.name] ?? 9;
    };
    const translating = { ...INNER_OUT, translates: "yes" as const };
    const index = site({ legs: [STAFF_LEG, BETWEEN_LEG, translating, INNER_LAB, COPPER] });
    const found = must(wayFrom(index, INNER, at("10.24.20.9")), "a way");
    expect(leastAlong(LAB, found, door({ Lab: 2, Between: 1 }))).toBe(1);
    expect(leastAlong(LAB, found, door({ Lab: 1, Between: 2 }))).toBe(1);
    expect(leastAlong(LAB, found, door({ Lab: 0, Between: 2 }))).toBe(0);
    expect(asked).toEqual(["Lab", "Between", "Lab", "Between", "Lab", "Between"]);
    const open = { hops: found.hops.map((hop) => ({ ...hop, device: SWITCH })), source: null, line: null };
    expect(leastAlong(LAB, open, door({}))).toBeNull();
  });
});

describe("the network as somebody has it entered", () => {
  const index = site();
  const [mine, mine6] = [at("10.24.20.50"), at("fd00:24:0:20::50")];
  const own = { length4: 16, gateway4: v4("10.24.20.254"), length6: 48, gateway6: v6("fd00:24::fe") };
  const host = aHost({ name: "Printer", manner: "typed", ...own });

  test("a static host has its own mask and gateway, each family its own", () => {
    expect(enteredOn(index, host, STAFF, mine)).toEqual({
      own: [net4("10.24.0.0/16")],
      gateway: v4("10.24.20.254"),
      gatewayLeg: null,
    });
    expect(enteredOn(index, host, STAFF, mine6)).toEqual({
      own: [net6("fd00:24::/48")],
      gateway: v6("fd00:24::fe"),
      gatewayLeg: null,
    });
  });

  test("what is not entered is the segment's; so is all of a host that is not static, and a stranger", () => {
    const usual = { own: STAFF.prefixes4, gateway: v4("10.24.20.1"), gatewayLeg: null };
    const bare = { length4: null, gateway4: null, length6: null, gateway6: null };
    expect(enteredOn(index, { ...host, ...bare }, STAFF, mine)).toEqual(usual);
    expect(enteredOn(index, { ...host, manner: "reserved" }, STAFF, mine)).toEqual(usual);
    expect(enteredOn(index, null, STAFF, mine)).toEqual(usual);
    expect(enteredOn(index, null, STAFF, mine6)).toEqual({
      own: STAFF.prefixes6,
      gateway: v6("fd00:24:0:20::1"),
      gatewayLeg: STAFF_LEG,
    });
  });

  test("without a segment, or in one without a gateway, there is none", () => {
    const nothing = { own: [], gateway: null, gatewayLeg: null };
    expect(enteredOn(index, null, null, mine)).toEqual(nothing);
    expect(enteredOn(index, null, null, mine6)).toEqual(nothing);
    expect(enteredOn(index, null, { ...STAFF, gatewayInterface: null }, mine6)).toEqual({
      ...nothing,
      own: STAFF.prefixes6,
    });
  });
});

test("the addresses that stand for the internet are those of documentation", () => {
  expect(OUTSIDE).toEqual({ 4: at("198.51.100.20"), 6: at("2001:db8::64") });
});
