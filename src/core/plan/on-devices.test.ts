import { parsePrefix } from "../address";
import { must } from "../kernel";
import {
  aDevice,
  aHost,
  aPort,
  aSegment,
  aVlan,
  aDomain,
  aZone,
  planWith,
  testId,
} from "../testing/build-plan";
import { ip, ip6, v } from "../testing/written";
import { BLANK_GEAR, BLANK_LEAFLET, BLANK_SIGN_IN, BLANK_SSID, NO_GUARDS } from "./blank";
import { isAdministered, isFilter, isGateway, keepsState, usualFilter } from "./blank";
import { firstAddressOf, leafletFor } from "./leaflets";
import { lastNumber, PortNames } from "./port-names";
import { PlanIndex } from "./plan-index";
import { answeredVid, profileOf, signInPorts, signInVids, wirelessProfile } from "./sign-in";
import type { Device, Port } from "./schema/hardware";
import type { SignIn } from "./schema/protection";
import type { Gear } from "./schema/survey";

// What a plan says of a device and its ports beside their own fields.

const device = aDevice({ name: "Mill", model: "sw-24" });
const id = (kind: string, name: string) => testId(kind, name);

describe("which port is meant", () => {
  const port = (label: string, position: number, softwareName = "") =>
    aPort({ device: device.id, label, position, softwareName });
  const finder = (...ports: readonly Port[]) => {
    const names = new PortNames(PlanIndex.of(planWith({ device: [device], port: ports })), device);
    return (text: string) => names.find(text)?.label ?? null;
  };

  test("the last number of a text", () => {
    expect(["gi1/0/24", "port 7 (uplink)", "uplink", "", "3a4b"].map(lastNumber)).toEqual([
      24,
      7,
      null,
      null,
      4,
    ]);
  });

  test("by its label, alone or as port so-and-so, whatever its capitals and spaces", () => {
    const find = finder(port("Uplink A", 1), port("2", 2));
    expect(["Uplink A", "uplink_a", "PORT uplink a", "2", "port 2", "Port_2"].map(find)).toEqual([
      ...Array<string>(3).fill("Uplink A"),
      ...Array<string>(3).fill("2"),
    ]);
    expect(["", "uplink", "3"].map(find)).toEqual([null, null, null]);
  });

  test("by the name in its software, which stands before a label that looks the same", () => {
    const find = finder(port("1", 1, "eth0"), port("2", 2, "1"));
    expect(["eth0", "ETH 0", "1", "port 1"].map(find)).toEqual(["1", "1", "2", "1"]);
  });

  test("by a number that one port alone has, in either name", () => {
    const find = finder(port("1", 1, "gi1/0/11"), port("2", 2), port("sfp 2", 3), port("4", 4, "te4"));
    // 11 is in one software name, 4 twice in one port; 2 is in two labels.
    expect(["te1/1/11", "x4", "x2", "x1", "x9"].map(find)).toEqual(["1", "4", null, "1", null]);
  });

  test("two ports with one label are neither", () => {
    const find = finder(port("A", 1), { ...port("B", 2), label: "a" });
    expect([find("A"), find("port a")]).toEqual([null, null]);
  });
});

describe("the first address of a device", () => {
  const leaflet = {
    ...{ ...BLANK_LEAFLET, id: id("leaflet", "b"), model: "sw-24", gives: "yes" as const },
    ...{ address4: ip("192.168.0.239"), length4: 24 },
  };
  const gear = (name: string, more: Partial<Gear>): Gear => ({
    ...{ ...BLANK_GEAR, id: id("gear", name), name, device: device.id },
    ...more,
  });
  const first = (gears: readonly Gear[], leaflets = [leaflet]) =>
    firstAddressOf(PlanIndex.of(planWith({ device: [device], gear: gears, leaflet: leaflets })), device);
  const OF_LEAFLET = { address: ip("192.168.0.239"), length: 24, gives: true };

  test("is what the leaflet of its model says; null where nobody has read one or it says none", () => {
    expect(first([])).toEqual(OF_LEAFLET);
    expect(first([], [{ ...leaflet, gives: "no" as never }])).toEqual({ ...OF_LEAFLET, gives: false });
    expect(first([], [{ ...leaflet, address4: null as never }])).toBeNull();
    expect(first([], [{ ...leaflet, model: "another" }])).toBeNull();
    expect(first([], [])).toBeNull();
  });

  test("of two leaflets the first by its id", () => {
    const other = { ...leaflet, id: id("leaflet", "a"), notes: "other" };
    const [low] = [leaflet, other].sort((a, b) => (a.id < b.id ? -1 : 1));
    for (const leaflets of [
      [leaflet, other],
      [other, leaflet],
    ]) {
      const index = PlanIndex.of(planWith({ leaflet: leaflets }));
      expect(leafletFor(index, device)?.id).toBe(low?.id);
      expect(leafletFor(index, { model: "another" })).toBeUndefined();
    }
  });

  test("is what the survey found on this very device, where it stays and has one of IPv4", () => {
    const prefixes = ["fd00::/64", "10.24.1.0/25"].map((text) => must(parsePrefix(text), text));
    const found = gear("Found", { addresses: [ip6("fd00::2"), ip("10.24.1.2"), ip("10.24.1.3")], prefixes });
    const own = { address: ip("10.24.1.2"), length: 25, gives: false };
    expect(first([found])).toEqual(own);
    expect(first([{ ...found, dhcp: "on" }])).toEqual({ ...own, gives: true });
    expect(first([{ ...found, prefixes: [] }])).toEqual({ ...own, length: null });
    for (const other of [{ fate: "replace" as const }, { device: null }, { addresses: [ip6("fd00::2")] }])
      expect(first([{ ...found, ...other }])).toEqual(OF_LEAFLET);
    const [a, b] = ["Found", "Twin"].map((name, i) => gear(name, { addresses: [ip(`10.24.1.${i + 2}`)] }));
    const [low] = [must(a, "a"), must(b, "b")].sort((one, two) => (one.id < two.id ? -1 : 1));
    for (const gears of [
      [must(a, "a"), must(b, "b")],
      [must(b, "b"), must(a, "a")],
    ])
      expect(first(gears)?.address).toBe(low?.addresses[0]);
    // The first one without an address of IPv4 leaves it to the second.
    const bare = { ...must(low, "the first"), addresses: [ip6("fd00::2")] };
    const other = must(low?.id === a?.id ? b : a, "the second");
    expect(first([bare, other])?.address).toBe(other.addresses[0]);
  });
});

describe("sign-in at ports", () => {
  const [home, zone] = [aDomain(), aZone()];
  const vlan = aVlan({ vid: v(30), name: "Crew" });
  const crew = aSegment({ name: "Crew", vlan: vlan.id });
  const bare = aSegment({ id: id("segment", "bare"), name: "Bare", vlan: null });
  const profile = (name: string, more: Partial<SignIn> = {}): SignIn => ({
    ...{ ...BLANK_SIGN_IN, id: id("signIn", name), name, byAnswer: false },
    ...more,
  });
  const one = profile("One", { visitors: v(40), failed: v(41), serverDown: v(40), serverDownVoice: v(42) });
  const asking = aPort({ device: device.id, label: "1", guards: { ...NO_GUARDS, signIn: true } });
  const at = (host: string, more = {}) =>
    aHost({ name: host, segment: crew.id, attachment: { at: "port", port: asking.id }, ...more });
  const indexOf = (
    signIn: readonly SignIn[],
    ports: readonly Port[] = [asking],
    more: Partial<Device> = {},
  ) =>
    PlanIndex.of(
      planWith({
        ...{ domain: [home], zone: [zone], vlan: [vlan], segment: [crew, bare], signIn },
        ...{ device: [{ ...device, ...more }], port: ports },
        host: ports.includes(asking)
          ? [at("PC"), at("Phone", { tag: v(50) }), at("Stray", { segment: null })]
          : [],
      }),
    );

  test("a port's profile, and a wireless name's: its own, else the only one there is", () => {
    const two = profile("Two");
    const named = { ...asking, guards: { ...asking.guards, profile: two.id } };
    expect([profileOf(indexOf([one]), asking), profileOf(indexOf([]), asking)]).toEqual([one, undefined]);
    expect(profileOf(indexOf([one, two]), asking)).toBeUndefined();
    expect(profileOf(indexOf([one, two]), named)).toEqual(two);
    const ssid = { ...BLANK_SSID, id: id("ssid", "Crew"), name: "Crew", segment: crew.id };
    expect(wirelessProfile(indexOf([one]), ssid)).toEqual(one);
    expect(wirelessProfile(indexOf([one, two]), ssid)).toBeUndefined();
    expect(wirelessProfile(indexOf([one, two]), { ...ssid, profile: two.id })).toEqual(two);
  });

  test("the VLAN that a server answers with is that of the segment; null without", () => {
    const index = indexOf([]);
    expect([crew.id, bare.id, null].map((segment) => answeredVid(index, { segment }))).toEqual([
      30,
      null,
      null,
    ]);
  });

  test("the VLANs that a sign-in may lead to, each once; where a server says, those of untagged hosts", () => {
    expect(signInVids(indexOf([one]), asking)).toEqual([40, 41, 42]);
    expect(signInVids(indexOf([{ ...one, byAnswer: true }]), asking)).toEqual([40, 41, 42, 30]);
    expect(signInVids(indexOf([]), asking)).toEqual([]);
    expect(signInVids(indexOf([one]), { ...asking, guards: NO_GUARDS })).toEqual([]);
  });

  test("the ports that ask are those that are on, of gear that knows VLANs", () => {
    const told = (index: PlanIndex) =>
      signInPorts(index).map((asks) => [asks.port.id, asks.device.name, asks.profile]);
    const ASKS = [asking.id, "Mill"];
    expect(told(indexOf([one]))).toEqual([[...ASKS, one]]);
    expect(told(indexOf([]))).toEqual([[...ASKS, null]]);
    expect(told(indexOf([one], [{ ...asking, enabled: false }]))).toEqual([]);
    expect(told(indexOf([one], [{ ...asking, guards: NO_GUARDS }]))).toEqual([]);
    expect(told(indexOf([one], [asking], { bridging: "plain" }))).toEqual([]);
  });
});

describe("what a kind of device does", () => {
  const KINDS = ["gateway", "firewall", "switch", "providerBox", "server"] as const;
  const abilities = (routes: boolean) => ({ ...device.abilities, routes });
  const filter = (more: Partial<Device["filter"]>) => ({ ...usualFilter({ kind: "gateway" }), ...more });

  test("who is a gateway, and who is administered", () => {
    expect(KINDS.filter((kind) => isGateway({ kind }))).toEqual(["gateway", "firewall"]);
    const administered = (bridging: Device["bridging"]) =>
      KINDS.filter((kind) => isAdministered({ kind, bridging }));
    expect(administered("vlan")).toEqual(["gateway", "firewall", "switch"]);
    expect(administered("plain")).toEqual([]);
  });

  test("who filters: a gateway or what routes, unless it has no list; usually only a gateway has one", () => {
    const kinds = (own: Device["filter"], routes: boolean) =>
      KINDS.filter((kind) => isFilter({ kind, filter: own, abilities: abilities(routes) }));
    expect(kinds(filter({ list: "planned" }), false)).toEqual(["gateway", "firewall"]);
    expect(kinds(filter({ list: "planned" }), true)).toEqual([...KINDS]);
    expect(kinds(filter({ list: "none" }), true)).toEqual([]);
    expect(KINDS.filter((kind) => usualFilter({ kind }).list !== "none")).toEqual(["gateway", "firewall"]);
  });

  test("who remembers what it let through: who is told to, and a gateway that goes by what is planned", () => {
    const keeping = (more: Partial<Device["filter"]>) =>
      KINDS.filter((kind) => keepsState({ kind, filter: filter(more) }));
    expect(keeping({ list: "planned", established: false })).toEqual(["gateway", "firewall"]);
    expect(keeping({ list: "none", established: false })).toEqual([]);
    expect(keeping({ list: "none", established: true })).toEqual([...KINDS]);
  });
});
