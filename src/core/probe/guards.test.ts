import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { asPrefix6, formatAddress, parseIpv6, parsePrefix } from "../address";
import { must } from "../kernel";
import { USUAL_METRIC, PlanIndex, type PlanEdits, type Plan, type ProbeGoal } from "../plan";
import { SERVICES } from "../policy";
import { afterEdit, donePlan } from "../testing/after-edit";
import {
  ask,
  atPort,
  deviceOf,
  edited,
  fromHost,
  guard,
  hostOf,
  newId,
  portOf,
  segmentOf,
} from "../testing/asking";
import { testId } from "../testing/build-plan";
import { ip, v } from "../testing/written";
import { askKept, questionWords } from "./kept";
import { asClient } from "./probe";
import { compareOutcomes } from "./compare";
import { tryRepairs } from "./tried";

const office = fennelStreet();
const home = lockkeepersHouse();
const works = bramblewick();
const ids = newId;
const service = (name: string) =>
  must(
    SERVICES.find((service) => service.name === name),
    name,
  );
const says = (plan: Plan, device: string, label: string) =>
  atPort(plan, device, label).steps.find((step) => step.place.includes("802.1X"))?.says;
const profile = (edits: PlanEdits) => must(edits.all("signIn")[0], "a profile");

describe("sign-in at a port (IEEE 802.1X)", () => {
  const signs = (plan: Plan, name: string) =>
    fromHost(plan, name, { to: "address" }).steps.find((step) => step.place.includes("802.1X"))?.says;
  test("one that speaks it is let in, and its server is named", () => {
    expect(signs(office, "PC Reception 1")).toBe("signs in, Sign-in server 1 agrees");
    expect(fromHost(office, "PC Reception 1", { to: "internet", service: null }).cause).toBeNull();
  });
  test("one that does not is let in by its known MAC address; a stranger lands where the failed do", () => {
    const printer = edited(office, (edits) => {
      guard(edits, "Upper switch", "4", { signIn: true, profile: profile(edits).id });
    });
    expect(signs(printer, "Reception printer")).toMatch(/^let in by 02:/);
    const stranger = atPort(printer, "Upper switch", "4");
    expect(says(printer, "Upper switch", "4")).toBe("not known: VLAN 90");
    expect([stranger.cause, stranger.lease?.segment]).toEqual([null, segmentOf(office, "Guests").id]);
  });
  test("with no way for those that do not sign in the port stays closed; MAC addresses mend it", () => {
    const closed = edited(office, (edits) => {
      guard(edits, "Upper switch", "4", { signIn: true, profile: profile(edits).id });
      edits.patch("signIn", profile(edits).id, { byMac: false, failed: null });
    });
    const outcome = fromHost(closed, "Reception printer", { to: "address" });
    expect(outcome.cause?.sentence).toBe(
      "Upper switch port 4 stays closed: Reception printer does not sign in.",
    );
    expect(
      tryRepairs(PlanIndex.of(closed), outcome, ids).map((tried) => [tried.repair.label, tried.result]),
    ).toEqual([["Let devices in by MAC address (Practice sign-in)", "passes"]]);
    const visitors = edited(closed, (edits) => edits.patch("signIn", profile(edits).id, { visitors: v(90) }));
    expect(says(visitors, "Upper switch", "4")).toBe("does not sign in: VLAN 90");
  });
  test("a wall before the server closes every port, or puts all where that is said; opening mends it", () => {
    const walled = edited(office, (edits) => {
      for (const wall of edits.all("wall"))
        if (wall.services.some((service) => service.name === "radius")) edits.remove("wall", wall.id);
    });
    const outcome = fromHost(walled, "PC Reception 1", { to: "address" });
    expect(outcome.cause?.sentence).toMatch(
      /^Upper switch does not reach Sign-in server 1 .*: The wall Kit to Servers is closed/,
    );
    expect(tryRepairs(PlanIndex.of(walled), outcome, ids)[0]?.result).toBe("passes");
    const down = edited(walled, (edits) => edits.patch("signIn", profile(edits).id, { serverDown: v(90) }));
    expect(signs(down, "PC Reception 1")).toBe("no server answers: VLAN 90");
  });
  test("a switch without a default gateway does not get its questions to servers elsewhere", () => {
    const lost = edited(office, (edits) =>
      edits.patch("device", deviceOf(office, "Upper switch").id, { defaultRoute: "none" }),
    );
    const outcome = fromHost(lost, "PC Reception 1", { to: "address" });
    expect(outcome.cause?.sentence).toMatch(/Upper switch has no default gateway/);
    expect(tryRepairs(PlanIndex.of(lost), outcome, ids)[0]?.result).toBe("passes");
  });
});

describe("false servers and false addresses", () => {
  const falseServer = { as: { as: "falseServer" as const } };
  test("a false server reaches those on the switch, and none behind one that snoops", () => {
    const before = atPort(office, "Switch B", "6", falseServer);
    // The demo snoops on two switches: the port itself is not trusted there.
    expect(before.attack?.reached).toEqual([]);
    expect(before.attack?.by?.name).toBe("Switch B");
    const open = edited(office, (edits) => {
      for (const device of edits.all("device"))
        edits.patch("device", device.id, { protections: { ...device.protections, snooping: [] } });
    });
    const through = atPort(open, "Switch B", "6", falseServer);
    expect(through.attack?.reached.length).toBeGreaterThan(10);
    expect(through.attack?.reached.every((host) => host.manner !== "typed")).toBe(true);
    const guarded = donePlan(
      afterEdit(open, ({ edits }) => {
        must(through.guards[0], "a guard").edit(edits, ids);
      }),
    );
    expect(atPort(guarded, "Switch B", "6", falseServer).attack?.reached).toEqual([]);
  });
  test("somebody who takes the gateway's address is believed until the switch inspects ARP", () => {
    const spoof = { as: { as: "spoofer" as const, address: ip("10.24.20.1") } };
    const through = atPort(office, "Upper switch", "4", spoof);
    expect(through.steps.at(-1)?.why).toMatch(/would send it what is for 10\.24\.20\.1/);
    const guarded = donePlan(
      afterEdit(office, ({ edits }) => {
        must(through.guards[0], "a guard").edit(edits, ids);
      }),
    );
    const after = atPort(guarded, "Upper switch", "4", spoof);
    expect([after.attack?.reached, after.attack?.by?.name]).toEqual([[], "Upper switch"]);
  });
  test("a server that adds option 82 behind another is dropped at an untrusted port (RFC 3046)", () => {
    const marked = edited(office, (edits) => {
      for (const name of ["Upper switch", "Lower switch"]) {
        const device = deviceOf(office, name);
        edits.patch("device", device.id, {
          protections: { ...device.protections, snooping: [v(20)], option82: true },
        });
      }
      guard(edits, "Lower switch", "1", { dhcpTrust: true });
    });
    const outcome = fromHost(marked, "Reception printer", { to: "address" });
    expect(outcome.cause?.sentence).toMatch(
      /^Lower switch port 2 drops the question: Upper switch has added its information \(option 82\)/,
    );
    expect(tryRepairs(PlanIndex.of(marked), outcome, ids).map((tried) => tried.result)).toEqual([
      "passes",
      "passes",
    ]);
  });
});

describe("reaching in from outside", () => {
  const from = { at: "internet" as const, line: must([...office.line.values()][0], "the line").id };
  const store = hostOf(office, "Image store").id;
  const outside = (plan: Plan, goal: ProbeGoal) => ask(plan, asClient(from, goal));
  test("nothing comes in until it is forwarded; the offered forward lets it in, and answers out", () => {
    const outcome = outside(office, { to: "host", host: store, service: service("https") });
    expect(outcome.cause?.sentence).toMatch(/^Nothing is forwarded to Image store from Fibre line\. /);
    const tried = tryRepairs(PlanIndex.of(office), outcome, ids);
    expect([tried[0]?.repair.label, tried[0]?.result]).toEqual([
      "Forward TCP 443 on Fibre line to Image store",
      "passes",
    ]);
  });
  const forwarded = (hairpin: boolean) =>
    edited(office, (edits) => {
      edits.put("forward", {
        id: testId("forward", "web"),
        name: "pictures",
        line: from.line,
        protocol: "tcp",
        ports: [8443, 8443],
        host: store,
        toPort: 443,
        hairpin,
        sources: [],
        until: null,
      });
    });
  test("a forward changes the port on the way in; from inside it works only with hairpin", () => {
    const goal = { to: "forward" as const, forward: testId("forward", "web") };
    expect(outside(forwarded(false), goal).steps.find((step) => step.place.startsWith("forward"))?.says).toBe(
      "port 8443 goes to Image store, 10.24.40.10 port 443",
    );
    expect(outside(forwarded(false), goal).cause).toBeNull();
    expect(fromHost(forwarded(true), "PC Reception 1", goal).cause).toBeNull();
    expect(fromHost(forwarded(false), "PC Reception 1", goal).cause).not.toBeNull();
    // From the host's own segment the answer comes straight, and is not taken for one.
    expect(fromHost(forwarded(true), "X-ray panel", goal).cause?.sentence ?? "").not.toBe("");
  });
  test("carrier-grade NAT and a provider's box that routes are said plainly", () => {
    const grade = edited(forwarded(false), (edits) => edits.patch("line", from.line, { carrierNat: "yes" }));
    expect(outside(grade, { to: "host", host: store, service: null }).cause?.sentence).toMatch(
      /carrier-grade NAT: nothing that starts outside comes in/,
    );
    const box = edited(forwarded(false), (edits) =>
      edits.patch("line", from.line, { providerBox: "routes" }),
    );
    const outcome = outside(box, { to: "forward", forward: testId("forward", "web") });
    expect(outcome.cause?.sentence).toMatch(/routes \(double NAT\)/);
    expect(tryRepairs(PlanIndex.of(box), outcome, ids)[0]?.result).toBe("passes");
  });
  test("of two lines the standby one is used when the main one's port is off", () => {
    const line = (plan: Plan) =>
      fromHost(plan, "study-pc", { to: "internet", service: null }).steps.find(
        (step) => step.place === "line",
      )?.title;
    expect(line(home)).toBe("Fibre line");
    expect(
      line(
        edited(home, (edits) =>
          edits.patch("port", portOf(home, "Gateway", "Line 1").id, { enabled: false }),
        ),
      ),
    ).toBe("Mobile line");
  });
});

describe("routing", () => {
  const route = (via: string) => ({
    prefix: must(parsePrefix("10.200.0.0/16"), "a prefix"),
    via: ip(via),
    metric: USUAL_METRIC,
  });

  test("two routers that point at one another send a packet round, and it is said where", () => {
    const round = edited(works, (edits) => {
      const gateway = deviceOf(works, "Gateway");
      const office_ = deviceOf(works, "Office switch");
      edits.patch("device", office_.id, {
        abilities: { ...office_.abilities, routes: true },
        routes: [route("172.22.110.1")],
      });
      edits.patch("device", gateway.id, {
        routes: [route("172.22.110.10")],
      });
      const host = hostOf(works, "historian");
      edits.patch("host", host.id, { ipv4: ip("172.22.170.10") });
      for (const safety of edits.all("segment").filter((segment) => segment.name === "Safety"))
        edits.patch("segment", safety.id, {
          prefixes4: [must(parsePrefix("10.200.4.0/24"), "a prefix") as (typeof safety.prefixes4)[number]],
        });
      for (const relay of edits.all("host").filter((host) => host.name.startsWith("safety-relay")))
        edits.patch("host", relay.id, { ipv4: ip(`10.200.4.${relay.name.slice(-1)}0`) });
      for (const zone of edits.all("zone")) edits.patch("zone", zone.id, { insideOpen: true });
      for (const name of ["Kit", "Office", "Plant DMZ"])
        edits.put("wall", {
          id: testId("wall", name),
          from: { at: "zone", zone: segmentOf(works, name).zone },
          to: { at: "zone", zone: segmentOf(works, "Safety").zone },
          door: "open",
          services: [],
          reason: "",
          conduit: null,
        });
    });
    const outcome = fromHost(round, "office-pc-1", {
      to: "host",
      host: must(
        [...round.host.values()].find((host) => host.name === "safety-relay-1"),
        "a relay",
      ).id,
      service: service("https"),
    });
    expect(outcome.cause?.sentence).toMatch(/The packet goes round|does not belong in/);
  });
  test("a laptop that is still on yesterday's address is not believed by the gateway", () => {
    const outcome = atPort(office, "Upper switch", "4", {
      as: { as: "typed", address: ip("10.24.70.9"), length: 27, gateway: ip("10.24.20.1") },
      goal: { to: "internet", service: null },
    });
    expect(outcome.cause?.sentence).toBe(
      "Gateway drops the packet: 10.24.70.9 does not belong in Staff, where it comes in.",
    );
    const noGateway = atPort(office, "Upper switch", "4", {
      as: { as: "typed", address: ip("10.24.20.120"), length: 25, gateway: null },
      goal: { to: "internet", service: null },
    });
    expect(noGateway.cause?.sentence).toMatch(/has no gateway, so nothing leaves/);
  });
  test("a switch's pages are reached from the kit segment's own and not from the guests", () => {
    const pages: ProbeGoal = {
      to: "device",
      device: deviceOf(office, "Switch B").id,
      service: service("https"),
    };
    expect(atPort(office, "Upper switch", "23", { goal: pages }).cause).toBeNull();
    expect(fromHost(office, "PC Reception 1", pages).cause?.sentence).toMatch(
      /wall Practice to Kit is closed/,
    );
  });
});

describe("others plugged in", () => {
  test("a kind of the catalogue needs its power, and signs in if it does so by nature", () => {
    const camera = (device: string, label: string) =>
      atPort(office, device, label, { as: { as: "kind", word: "camera" } });
    expect(camera("Upper switch", "4").cause).toBeNull();
    const weak = edited(office, (edits) =>
      edits.patch("port", portOf(office, "Upper switch", "4").id, { poeMw: 4000 }),
    );
    expect(atPort(weak, "Upper switch", "4", { as: { as: "kind", word: "camera" } }).cause?.sentence).toBe(
      "A camera takes 15.4 W over the cable, and Upper switch port 4 gives 4 W.",
    );
    expect(atPort(office, "Upper switch", "4", { as: { as: "kind", word: "drive" } }).cause?.sentence).toBe(
      "drive asks nobody for an address; plug it in with a static address.",
    );
    expect(
      atPort(office, "Upper switch", "4", { as: { as: "kind", word: "hovercraft" } }).cause?.sentence,
    ).toMatch(/is no kind that the catalogue/);
  });
  test("two laptops ask one after the other, get two addresses, and meet where the walls let them", () => {
    const other = (label: string) =>
      atPort(office, "Upper switch", "4", {
        goal: { to: "port", port: portOf(office, "Upper switch", label).id, service: null },
      });
    const same = other("11");
    expect(same.cause).toBeNull();
    const addresses = same.exchange.flatMap((message) =>
      message.content.kind === "packet" ? [formatAddress(message.content.packet.src)] : [],
    );
    expect(new Set(addresses).size).toBe(2);
    expect(other("5").cause?.sentence).toMatch(/^The wall Practice to Payment is closed/);
    expect(other("21").cause?.sentence).toMatch(
      /^The other laptop gets no address: Upper switch port 21 is switched off/,
    );
  });
});

describe("IPv6", () => {
  const six = edited(office, (edits) => {
    for (const [i, segment] of edits.all("segment").entries()) {
      if (segment.gatewayInterface === null) continue;
      edits.patch("segment", segment.id, {
        prefixes6: [must(asPrefix6(parsePrefix(`fd00:24:0:${i + 1}::/64`)), "a prefix")],
        advertise: "slaac",
      });
      edits.patch("interface", segment.gatewayInterface, {
        addresses6: [must(parseIpv6(`fd00:24:0:${i + 1}::1`), "an address")],
      });
    }
    for (const leg of edits.all("interface"))
      if (leg.line !== null)
        edits.patch("interface", leg.id, { addresses6: [must(parseIpv6("2001:db8:9::2"), "an address")] });
  });
  const client = (goal: ProbeGoal) =>
    ask(six, { ...asClient({ at: "host", host: hostOf(six, "PC Reception 1").id }, goal), family: 6 });
  test("a client makes its address of the advertised prefix; the router's link-local is its gateway", () => {
    const { lease, cause } = client({ to: "internet", service: null });
    expect(cause).toBeNull();
    expect([
      formatAddress(must(lease, "an address").address),
      formatAddress(must(lease?.gateway ?? null, "a gateway")),
    ]).toEqual([expect.stringMatching(/^fd00:24:0:\d:5a:10ff:fe/), expect.stringMatching(/^fe80::/)]);
  });
  test("walls hold as for IPv4, nothing is translated, and unadvertised there is no gateway", () => {
    expect(
      client({ to: "internet", service: null }).steps.find((step) => step.place === "line")?.why,
    ).toMatch(/nothing is translated/);
    const quiet = edited(six, (edits) =>
      edits.patch("segment", segmentOf(six, "Staff").id, { advertise: "none" }),
    );
    const outcome = ask(quiet, {
      ...asClient({ at: "host", host: hostOf(quiet, "PC Reception 1").id }, { to: "address" }),
      family: 6,
    });
    expect(outcome.cause?.sentence).toBe("Nobody advertises a router in Staff.");
    expect(tryRepairs(PlanIndex.of(quiet), outcome, ids)[0]?.result).toBe("passes");
    const bare = ask(office, {
      ...asClient({ at: "host", host: hostOf(office, "PC Reception 1").id }, { to: "address" }),
      family: 6,
    });
    expect(bare.cause?.sentence).toMatch(/has no IPv6 subnet/);
  });
});

describe("kept and compared", () => {
  const question = asClient(
    { at: "host", host: hostOf(office, "Card terminal 1").id },
    { to: "internet", service: service("https") },
  );
  test("a kept probe says whether it comes out as it has to, and which way it fails", () => {
    const index = PlanIndex.of(office);
    const kept = {
      id: ids(),
      name: "bank",
      question,
      passes: true,
      segment: segmentOf(office, "Cards").id,
      note: "",
    };
    expect(askKept(index, kept, ids)).toMatchObject({ holds: true });
    expect(askKept(index, { ...kept, passes: false }, ids)).toMatchObject({
      holds: false,
      says: "It has to be stopped and gets through.",
    });
    expect(askKept(index, { ...kept, segment: segmentOf(office, "Staff").id }, ids).says).toMatch(
      /has to get an address of Staff and gets one of Cards/,
    );
    expect(questionWords(index, question)).toBe("Card terminal 1 to the internet by https");
  });
  test("two probes part where they first differ", () => {
    const camera = fromHost(office, "Camera Entrance", { to: "internet", service: null });
    expect(compareOutcomes(ask(office, question), ask(office, question))).toEqual({
      at: null,
      sentence: "Both go the same way, step by step.",
    });
    expect(compareOutcomes(ask(office, question), camera).at).toBeGreaterThan(1);
  });
  test("a phone with a PC behind it gets both their addresses, and either's failure is said", () => {
    const both = atPort(office, "Upper switch", "11", { as: { as: "behindPhone" } });
    expect(both.phone).toBeNull();
    const desk = edited(office, (edits) => {
      guard(edits, "Upper switch", "10", { signIn: false });
      for (const name of ["PC Consult 1", "Phone Consult 1"])
        edits.patch("host", hostOf(office, name).id, { attachment: { at: "unplaced" } });
    });
    const outcome = atPort(desk, "Upper switch", "10", { as: { as: "behindPhone" } });
    expect([outcome.cause, outcome.lease?.segment, outcome.phone?.lease?.segment]).toEqual([
      null,
      segmentOf(office, "Staff").id,
      segmentOf(office, "Phones").id,
    ]);
  });
});
