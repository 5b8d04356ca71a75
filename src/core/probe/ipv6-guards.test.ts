import { fennelStreet } from "../../../demo/fennel-street";
import { asPrefix6, parseIpv6, parsePrefix } from "../address";
import { must } from "../kernel";
import { PlanIndex, type Plan, type PlanEdits } from "../plan";
import {
  ask,
  atPort,
  deviceOf,
  edited,
  fromHost,
  guard,
  hostOf,
  portOf,
  newId,
  segmentOf,
} from "../testing/asking";
import { testId } from "../testing/build-plan";
import { v } from "../testing/written";
import { asClient } from "./probe";
import { tryRepairs } from "./tried";

/** The practice, whose staff have IPv6: made by themselves, or given by the gateway. */
function withSix(advertise: "slaac" | "stateful"): Plan {
  return edited(fennelStreet(), (edits) => {
    const staff = segmentOf(edits.plan, "Staff");
    const leg = must(edits.get("interface", staff.gatewayInterface ?? ""), "its gateway");
    edits.patch("interface", leg.id, { addresses6: [must(parseIpv6("fd00:24:20::1"), "an address")] });
    edits.patch("segment", staff.id, {
      advertise,
      prefixes6: [must(asPrefix6(parsePrefix("fd00:24:20::/64")), "a prefix")],
    });
    if (advertise === "stateful")
      edits.put("scope", {
        id: testId("scope", "six"),
        segment: staff.id,
        serverDevice: leg.device,
        serverHost: null,
        family: 6,
        pools: [
          {
            first: must(parseIpv6("fd00:24:20::1000"), "an address"),
            last: must(parseIpv6("fd00:24:20::1fff"), "an address"),
          },
        ],
        exclusions: [],
        leaseSeconds: 28_800,
        options: [],
      });
  });
}
const six = (plan: Plan, name: string) =>
  ask(plan, {
    ...asClient({ at: "host", host: hostOf(plan, name).id }, { to: "address" }),
    family: 6,
  });
/** The practice with VLAN 40 carried all the way, which the demo forgets on one hop. */
const whole = edited(fennelStreet(), (edits) => {
  const port = portOf(edits.plan, "Upper switch", "25");
  edits.patch("port", port.id, { tagged: [...port.tagged, v(40)].sort((a, b) => a - b) });
});
const protect = (edits: PlanEdits, device: string, fields: object) => {
  const own = deviceOf(edits.plan, device);
  edits.patch("device", own.id, { protections: { ...own.protections, ...fields } });
};

test("a guard on the way keeps the router from everybody until its port is trusted (RFC 6105)", () => {
  const plan = withSix("slaac");
  expect(six(plan, "Reception printer").cause).toBeNull();
  const guarded = edited(plan, (edits) => protect(edits, "Upper switch", { routerGuard: [v(20)] }));
  const outcome = six(guarded, "Reception printer");
  expect(outcome.cause?.sentence).toBe(
    "Upper switch guards router advertisements in VLAN 20 and does not trust Upper switch port 24: " +
      "they are dropped there.",
  );
  expect(tryRepairs(PlanIndex.of(guarded), outcome, newId).map(({ result }) => result)).toEqual(["passes"]);
  const trusting = edited(guarded, (edits) => guard(edits, "Upper switch", "24", { raTrust: true }));
  expect(six(trusting, "Reception printer").cause).toBeNull();
  // Another VLAN is not guarded.
  const other = edited(plan, (edits) => protect(edits, "Upper switch", { routerGuard: [v(30)] }));
  expect(six(other, "Reception printer").cause).toBeNull();
});

test("a DHCPv6 shield drops the server's answers where its port is not trusted for DHCP (RFC 7610)", () => {
  const plan = withSix("stateful");
  expect(six(plan, "PC Reception 1").cause).toBeNull();
  const guarded = edited(plan, (edits) => {
    protect(edits, "Upper switch", { dhcp6Guard: [v(20)] });
    guard(edits, "Upper switch", "24", { dhcpTrust: false });
  });
  const outcome = six(guarded, "PC Reception 1");
  expect(outcome.cause?.sentence).toMatch(/^Upper switch guards DHCPv6 in VLAN 20 and does not trust/);
  expect(outcome.steps.at(-1)?.says).toBe("no address comes");
  expect(tryRepairs(PlanIndex.of(guarded), outcome, newId).map(({ result }) => result)).toEqual(["passes"]);
});

test("a false router is heard by all until a switch guards; offered only where gear has it", () => {
  const plan = withSix("slaac");
  const as = { as: { as: "falseRouter" as const } };
  const through = atPort(plan, "Upper switch", "4", as);
  expect(through.attack?.reached.length).toBeGreaterThan(5);
  expect(through.steps.at(-1)?.why).toMatch(/would make an IPv6 address in its prefix/);
  const guarded = edited(plan, (edits) => {
    must(through.guards[0], "a guard").edit(edits, newId);
  });
  const after = atPort(guarded, "Upper switch", "4", as);
  expect([after.attack?.reached, after.attack?.by?.name]).toEqual([[], "Upper switch"]);
  const unable = edited(plan, (edits) => {
    const upper = deviceOf(edits.plan, "Upper switch");
    edits.patch("device", upper.id, { abilities: { ...upper.abilities, ipv6Guards: false } });
  });
  expect(atPort(unable, "Upper switch", "4", as).guards).toEqual([]);
});

test("a source check drops a static address that is not bound, and lets a lease pass that was snooped", () => {
  const plan = edited(whole, (edits) => {
    protect(edits, "Switch B", { snooping: [v(20), v(30), v(40), v(90)] });
    guard(edits, "Switch B", "1", { sourceCheck: true });
    guard(edits, "Switch B", "4", { sourceCheck: true });
  });
  const gateway = { to: "gateway", service: null } as const;
  const outcome = fromHost(plan, "X-ray panel", gateway);
  expect(outcome.cause?.sentence).toMatch(
    new RegExp(
      "^Switch B port 1 checks source addresses, " +
        "and Switch B knows no binding for 10\\.24\\.40\\.\\d+ there: what X-ray panel",
    ),
  );
  const tried = tryRepairs(PlanIndex.of(plan), outcome, newId);
  expect(tried.map(({ repair, result }) => [repair.label, result])).toEqual([
    ["Enter a binding for X-ray panel on Switch B", "passes"],
    ["Check no sources at Switch B port 1", "passes"],
  ]);
  expect(fromHost(plan, "Analyser", gateway).cause).toBeNull();
});

test("isolated ports of a switch send nothing to one another, and everything to the others", () => {
  const goal = (name: string) => ({ to: "host", host: hostOf(whole, name).id, service: null }) as const;
  const plan = edited(whole, (edits) => {
    for (const label of ["1", "2"]) guard(edits, "Switch B", label, { isolated: true });
  });
  expect(fromHost(whole, "X-ray panel", goal("Ultrasound")).cause).toBeNull();
  const apart = fromHost(plan, "X-ray panel", goal("Ultrasound"));
  expect(apart.cause?.sentence).toBe(
    "Switch B port 1 and Switch B port 2 are isolated: they send nothing to one another.",
  );
  expect(tryRepairs(PlanIndex.of(plan), apart, newId).map(({ result }) => result)).toEqual(["passes"]);
  expect(fromHost(plan, "X-ray panel", goal("Viewing station")).cause).toBeNull();
  expect(fromHost(plan, "X-ray panel", { to: "gateway", service: null }).cause).toBeNull();
});
